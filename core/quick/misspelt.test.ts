import { expect, test } from '@jest/globals'
import { InputError } from '#core/quantity/inputError'
import { MisspeltError } from './misspelt'
import { parseQuick } from './parse'

const errorOf = (text: string): InputError | null => {
  try {
    parseQuick(text)
    return null
  }
  catch (error) {
    return error as InputError
  }
}

test.each<[string, string, string]>([
  ['a letter dropped', '2 x 8 paralel on 100 W at 4', '2 x 8 parallel on 100 W at 4'],
  ['two exchanged', '2 x 8 seires on 100 W at 16', '2 x 8 series on 100 W at 16'],
  ['a unit', '12 x 5 wats on 70 V', '12 x 5 watts on 70 V'],
  ['of what comes first, though more follows', '4 speekers at 5 W on 70 V', '4 speakers at 5 W on 70 V'],
  ['in capitals', '16 || 16 on VALEV 50 W at 8', '16 || 16 on valve 50 W at 8'],
  ['of the amplifier', '2 x 8 parallel on 2 x 300 W at 4 brigded', '2 x 8 parallel on 2 x 300 W at 4 bridged'],
  ['one of two slips, the first', '2 x 8 paralel on 100 wats at 4', '2 x 8 parallel on 100 wats at 4'],
])('%s', (_, typed, mended) => {
  const error = errorOf(typed)
  expect([error?.name, error instanceof MisspeltError && error.mended, error?.message]).toEqual(['MisspeltError', mended, expect.stringMatching(/ Is “[a-z]+” meant\?$/)])
  // What is mended reads further: it is right, or the next slip is told.
  const next = errorOf(mended)
  expect(next === null || next instanceof MisspeltError).toBe(true)
})

test.each(['8 ohm xyzzy', '8 zu 8', 'good morning', '8 parallelepiped 8', '8 ohm wal on 100 W at 8', ''])('“%s” is no slip', (typed) => {
  const error = errorOf(typed)
  expect([error instanceof InputError, error instanceof MisspeltError]).toEqual([true, false])
})

test('a long line is not tried again with other words', () => {
  expect(errorOf(`${'8 + '.repeat(60)}8 paralel on 100 W at 4`)).not.toBeInstanceOf(MisspeltError)
})
