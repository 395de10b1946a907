import { readFileSync } from 'node:fs'
import { expect, test } from '@jest/globals'
import { schemaFiles } from '../scripts/lib/schemaFiles'

test.each(Object.entries(schemaFiles()))('docs/schemas/%s is what the Zod schema says (npm run schemas)', (name, text) =>
  expect(readFileSync(`docs/schemas/${name}`, 'utf8')).toBe(text))
