import { expect, test } from '@jest/globals'
import { foldLabel } from './labels'

test.each<[string[], string]>([[['01', '02', '03'], '01–03'], [['C09', 'C10', 'C11'], 'C09–C11'], [['01', '03', '04'], '01 … 04'], [['A1', 'B2'], 'A1 … B2'], [['nave', 'aisle'], 'nave … aisle']])('labels %j are %s', (labels, text) =>
  expect(foldLabel(labels)).toBe(text))
