import { expect, test } from '@jest/globals'
import { columnsOf, GEAR_KINDS } from '#core/gear/models'
import { partOf, partsOf } from './parts'

test.each(GEAR_KINDS)('every field of a %s stands in one part, in its order, the name first', (kind) => {
  const parts = partsOf(columnsOf(kind))
  expect(parts.flatMap(p => p.columns.map(c => c.key)).sort()).toEqual(columnsOf(kind).map(c => c.key).sort())
  expect([parts[0]!.part, parts[0]!.columns[0]!.key, parts.at(-1)!.part]).toEqual(['name', 'name', 'price'])
  for (const { columns } of parts) {
    const places = columns.map(c => columnsOf(kind).indexOf(c))
    expect(places).toEqual([...places].sort((a, b) => a - b))
  }
})
test.each([['nominalOhm', 'electrical'], ['scales', 'taps'], ['frameMm', 'mechanics'], ['price', 'price'], ['purpose', 'name'], ['outputs', 'electrical']])('%s is in %s', (key, part) => expect(partOf({ key })).toBe(part))
