import { expect, test } from '@jest/globals'
import { byId, sure } from './known'

test.each([['nothing', undefined], ['null', null]])('%s is told by its name', (_, value) => expect(() => sure(value, 'speaker')).toThrow('There is no speaker.'))
test.each([['zero', 0], ['an empty text', ''], ['false', false]])('%s is there', (_, value) => expect(sure<unknown>(value, 'value')).toBe(value))
test('an entry is found by its id, or the id is told', () => {
  const list = [{ id: 'a', n: 1 }, { id: 'b', n: 2 }]
  expect(byId(list, 'b').n).toBe(2)
  expect(() => byId(list, 'c')).toThrow('“c”')
})
