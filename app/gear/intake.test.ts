import { expect, test } from '@jest/globals'
import { complaintsOf, mappingChoices, mappingFor, remapped, remember, rowsText } from './intake'

const heads = ['Model', 'W', 'Weight (lb)', 'Leads']
test.each<[string, Record<string, string>, (string | null)[]]>([
  ['nothing remembered: guessed', {}, ['name', null, 'massKg', 'leads']], ['chosen before', { W: 'continuousW', Leads: '' }, ['name', 'continuousW', 'massKg', null]],
  ['what was chosen counts before a guess for the same', { Leads: 'massKg' }, ['name', null, null, 'massKg']], ['a column that is no more', { W: 'gone' }, ['name', null, 'massKg', 'leads']],
])('%s', (_, remembered, mapping) => {
  expect(mappingFor('speaker', heads, remembered)).toEqual(mapping)
  expect(mappingFor('speaker', heads, remember(heads, mapping))).toEqual(mapping)
})
test('one column is another now: none is meant twice', () => {
  expect(remapped(['name', null, 'massKg'], 1, 'massKg')).toEqual(['name', 'massKg', null])
  expect(remapped(['name', null, null], 0, null)).toEqual([null, null, null])
})
test('what a column can be', () => expect(mappingChoices('cable').map(c => c.label)).toEqual(['left out', 'name', 'size', 'conductors', 'listing, as its maker says', 'price a metre', 'remark']))
test('columns of taps may be several', () => expect(remapped(['scales', null], 1, 'scales')).toEqual(['scales', 'scales']))
test('the same complaint of many rows is one line with a count, the most frequent first', () => {
  const bad = (row: number, column: string, message: string) => ({ row, column, message })
  const found = complaintsOf([bad(2, 'W', '“a” is not a number of W.'), bad(3, 'Taps', '“5” is not a dial.'), bad(4, 'Taps', '“6” is not a dial.'), bad(5, 'Taps', '“7” is no unit.')])
  expect(found).toEqual([{ column: 'Taps', message: '“5” is not a dial.', rows: [3, 4] }, { column: 'W', message: '“a” is not a number of W.', rows: [2] }, { column: 'Taps', message: '“7” is no unit.', rows: [5] }])
  expect([[3], [3, 4], [1, 2, 3, 4], [1, 2, 3, 4, 5]].map(rowsText)).toEqual(['row 3', 'rows 3, 4', 'rows 1, 2, 3, 4', 'rows 1, 2, 3 and 2 more'])
})
