import { expect, test } from '@jest/globals'
import { guessMapping, readGear, readTable } from '#core/gear/csv'
import { columnsOf, GEAR_KINDS } from '#core/gear/models'
import { sampleTable } from './sample'

test.each(GEAR_KINDS)('the sample of a %s comes in as it goes out, with every column known', (kind) => {
  const table = readTable(sampleTable(kind))
  const mapping = guessMapping(kind, table.heads)
  const { good, bad } = readGear(kind, table, mapping)
  expect([bad, good.length, mapping]).toEqual([[], 1, columnsOf(kind).map(c => c.key)])
  const stated = Object.values(good[0]!.model).filter(v => v !== null && v !== '' && !(Array.isArray(v) && v.length === 0))
  expect(stated.length).toBeGreaterThan(3)
})
