import { expect, test } from '@jest/globals'
import { otherTests } from './otherTests'

test.each<[string, string[], number, number[]]>([
  ['nothing', [], 0, []], ['one', ['walk'], 0, []],
  ['the next best, of whatever kind, and the best of each other', ['sound', 'sound', 'sound', 'walk', 'looked', 'walk', 'looked'], 0, [1, 3, 4]],
  ['another is chosen: the best comes first', ['sound', 'sound', 'walk', 'looked'], 2, [0, 3]],
  ['no other of the kind that is chosen', ['walk', 'sound', 'sound', 'looked'], 1, [0, 3]],
  ['the second of a kind is chosen', ['sound', 'sound', 'walk'], 1, [0, 2]],
])('tests beside the chosen one: %s', (_, kinds, chosen, wanted) => expect(otherTests(kinds.map(kind => ({ kind: kind as 'sound' })), chosen)).toEqual(wanted))
