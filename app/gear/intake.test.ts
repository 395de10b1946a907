import { expect, test } from '@jest/globals'
import { mappingChoices, mappingFor, remapped, remember } from './intake'

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
