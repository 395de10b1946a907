import { expect, test } from '@jest/globals'
import { instant, labelText, nameText, plainText } from './fields'

/** What a text may be: characters by Unicode's own classes. */
test.each<[string, string, boolean]>([
  ['a word', 'Hall', true], ['signs of other scripts', '講堂', true], ['one that joins inside a word', 'Küche\u200D1', true], ['blanks', ' \t\u00A0', false], ['a space of no width', '\u200B\u2060', false],
  ['a filler that has no shape', '\u3164', false], ['an empty Braille cell', '\u2800', false], ['a mark of direction', '\u202E', false], ['nothing', '', false], ['half a sign', 'a\uD83D', false],
])('a name: %s', (_, text, isOne) => {
  expect([nameText.safeParse(text).success, labelText.safeParse(text).success]).toEqual([isOne, isOne])
})

test('a note may be empty; a null character is kept by no database', () => {
  expect([plainText(5).safeParse('').success, plainText(5).safeParse('a\u0000').success, plainText(5).safeParse('123456').success]).toEqual([true, false, false])
})

test.each<[string, boolean]>([
  ['2026-05-04T09:30:00Z', true], ['2026-05-04T09:30:00.123Z', true], [`2026-05-04T09:30:00.${'1'.repeat(100_000)}Z`, false], ['2026-05-04', false], ['2026-02-30T09:30:00Z', false],
])('an instant: %.30s', (text, isOne) => expect(instant.safeParse(text).success).toBe(isOne))
