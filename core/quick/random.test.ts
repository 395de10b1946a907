import { always, runs } from '#core/testing/runs'
import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { evaluate } from 'mathjs'
import { InputError } from '#core/quantity/inputError'
import { seeded, type Chance } from '#core/testing/trees'
import { quick } from './answer'
import { quickAnswer } from './report'
import { writeRating } from '#core/amplifier/index'
import { parseQuick, parseRating } from './parse'

/** A random line and the same as an expression for mathjs: series is a sum, parallel the inverse of a sum of inverses. */
function randomLine(chance: Chance, depth: number): { text: string, maths: string } {
  if (depth === 0 || chance() < 0.3) {
    const ohm = [2, 4, 8, 16, 6.5, 100][Math.floor(chance() * 6)]!
    return { text: `${ohm}${['', ' ohm', 'Ω', ' OHMS'][Math.floor(chance() * 4)]}`, maths: `${ohm}` }
  }
  const count = 2 + Math.floor(chance() * 3)
  if (chance() < 0.25) {
    const inner = randomLine(chance, depth - 1)
    const series = chance() < 0.5
    return { text: `${count} x (${inner.text}) ${series ? 'series' : 'in parallel'}`, maths: series ? `(${count} * (${inner.maths}))` : `((${inner.maths}) / ${count})` }
  }
  const parts = Array.from({ length: count }, () => randomLine(chance, depth - 1))
  const space = chance() < 0.5 ? ' ' : ''
  if (chance() < 0.5) return { text: parts.map(p => `(${p.text})`).join(`${space}+${space}`), maths: `(${parts.map(p => p.maths).join(' + ')})` }
  return {
    text: parts.map(p => `(${p.text})`).join(`${space}${chance() < 0.5 ? '||' : '//'}${space}`),
    maths: `(1 / (${parts.map(p => `1 / (${p.maths})`).join(' + ')}))`,
  }
}

test('random lines come to what mathjs makes of the same expression', () => {
  for (let seed = 1; seed <= runs(150); seed++) {
    const { text, maths } = randomLine(seeded(seed), 3)
    const expected = evaluate(maths) as number
    const { loadOhm, members } = quickAnswer(text)
    if (!(Math.abs(loadOhm! / expected - 1) < 1e-9)) throw new Error(`seed ${seed}: ${text} is ${loadOhm} here and ${expected} there`)
    expect(members.reduce((sum, m) => sum + m.share, 0)).toBeCloseTo(1, 9)
  }
})

test('whatever is typed is answered or refused at a character of the text, never otherwise', () => {
  const piece = fc.constantFrom('8', '4', ' ', '+', '||', '|', '(', ')', 'x', ' W', ' V', 'on ', ' at ', ',', 'from ', 'ohm', '70', '120', 'parallel', 'series', '.', '-', 'Ω', '2k2', 'é', '🔈', 'and ', 'four ', '0,5', '@', '“', '\uFF18', ' each', '1,000')
  const typed = fc.oneof(fc.array(piece, { maxLength: 14 }).map(p => p.join('')), fc.string({ maxLength: 30, unit: 'grapheme' }))
  always(fc.property(typed, (text) => {
    try {
      const { evaluation } = quick(text)
      expect(evaluation.drops.length).toBeGreaterThan(0)
    }
    catch (error) {
      if (!(error instanceof InputError)) throw error
      expect(error.position).toBeGreaterThanOrEqual(0)
      expect(error.position).toBeLessThanOrEqual(text.length)
      expect(error.message).not.toMatch(/undefined|NaN/)
    }
  }), 400)
})

test('what could be typed on at the end can be: every offered piece is read a step further', () => {
  const lines = ['8', '8 + 8', '(8', '12 x 5 W', '8 on 300 W at 4', '5 W on 70 V', '4 x 8', '4']
  for (const text of lines) {
    const offered = (() => {
      try {
        return parseQuick(text).next
      }
      catch (error) {
        return (error as InputError).expected
      }
    })().filter(piece => !/^an? /.test(piece) && piece !== 'W' && piece !== 'ohm')
    expect(offered.length).toBeGreaterThan(0)
    for (const piece of offered) {
      const longer = `${text} ${piece}`
      try {
        parseQuick(longer)
      }
      catch (error) {
        // Refused, if at all, for what is missing behind the piece, not for the piece.
        expect([longer, (error as InputError).position]).toEqual([longer, longer.length])
      }
    }
  }
})

test.each(['', '70 V', '70 V 240 W', '100 V 30 W', '300 W at 4, 180 W at 8', '300 W at 4, 180 W at 8, from 2', '55.5 W at 8'])('a rating is written as it is read: “%s”', text =>
  expect(writeRating(parseRating(text))).toBe(text))
