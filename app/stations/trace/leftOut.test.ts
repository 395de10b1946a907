import { expect, test } from '@jest/globals'
import { leftOutSays } from './leftOut'

test.each<[string, string, string]>([
  ['none', '', ''], ['one', '04', 'Left out, since it says nothing: 04.'], ['two beside each other', '04 05', 'Left out, since they say nothing: 04, 05.'],
  ['many, and one apart', '02 05 06 07 08', 'Left out, since they say nothing: 02, 05–08.'],
  ['all that are beside one another', '01 02 03 05 06 07', 'Left out, since they say nothing: 01–03, 05–07.'],
])('what a walk leaves out: %s', (_, out, wanted) => {
  const speakers = ['01', '02', '03', '04', '05', '06', '07', '08'].map(label => ({ id: `s${label}`, label }))
  expect(leftOutSays(speakers, id => out.split(' ').includes(id.slice(1)))).toBe(wanted)
})
