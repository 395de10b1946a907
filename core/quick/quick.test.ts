import { describe, expect, test } from '@jest/globals'
import { InputError } from '#core/quantity/inputError'
import { toDocument } from '#core/job/document'
import { readJob } from '#core/job/readJob'
import { numberRows } from './numberRows'
import { otherWays, quick, quickAnswer, quickAnswerSchema } from './answer'

describe('typed lines', () => {
  test.each([
    ['8', 8, 1, 'unknown'], ['8 + 8', 16, 2, 'unknown'], ['8 || 8', 4, 2, 'unknown'], ['(8 + 8) || (8 + 8)', 8, 4, 'unknown'],
    ['4 x 8 parallel', 2, 4, 'unknown'], ['3 x 16 series', 48, 3, 'unknown'], ['8 + 8 || 8', 16 * 8 / 24, 3, 'tight'],
    ['(4 + 4) || (4 + 4) on 300 W at 4, 180 W at 8, from 2', 4, 4, 'good'],
    ['12 x 5 W + 2 x 20 W on 70 V', 50, 14, 'unknown'], ['12 x 5 W + 2 x 20 W on 70 V 120 W', 50, 14, 'tight'], ['20 x 6 W on 100 V 250 W', 83.33, 20, 'good'],
    // the same with other spacing, units, case and signs
    ['4X8Ohms Parallel', 2, 4, 'unknown'], ['4 × 8Ω in parallel', 2, 4, 'unknown'], ['8ohm//8\u2126', 4, 2, 'unknown'], ['8 parallel 8', 4, 2, 'unknown'],
    ['12x5w+2x20watts ON 70.7v 120watt', 50, 14, 'tight'], ['12 x 5 W || 2 x 20 W on 120 W at 70 V', 50, 14, 'tight'], ['2k2 || 2.2k', 1100, 2, 'unknown'],
    ['8 into 100 W at 8 ohms and 150 W at 4', 8, 1, 'good'], ['2 x (8 + 8) parallel on 0.3kW at 8', 8, 4, 'good'], ['4 x 8 parallel on 100 W at 8 from 4', 2, 4, 'stop'],
    ['8 ohm 100 W || 8 ohm 100 W on 400 W at 4', 4, 2, 'good'], ['8 || 16 on 100 W at 4', 5.333, 2, 'tight'], ['8 on 70 V 100 W', 8, 1, 'stop'],
  ])('%s', (text, loadOhm, members, grade) => {
    const answer = quickAnswer(text)
    expect(Math.abs(answer.loadOhm! / loadOhm - 1)).toBeLessThan(1e-3)
    expect([answer.members.length, answer.grade]).toEqual([members, grade])
    expect(answer.members.reduce((sum, m) => sum + m.share, 0)).toBeCloseTo(1, 9)
    quickAnswerSchema.parse(answer)
    readJob(toDocument(quick(text).job))
  })

  test.each([
    ['', 0, '4 x'], ['8 +', 3, '('], ['(8 + 8', 6, ')'], ['8 | 8', 2, '||'], ['4 x 8', 5, 'parallel'], ['12 x 5 W', 8, 'on 70 V'], ['8 on', 4, '300 W at 4'],
    ['8 on 300 W', 10, 'at 4'], ['8 + 5 W', 4, '8'], ['8 8', 2, '+'], ['foo', 0, '('], ['8 on 300 W at', 13, '70 V'], ['4 x 5 W series on 70 V', 8, '+'],
    ['8 on 300 W at 4, from 8', 22, '4'], ['8 on 70 V 100 W at 4', 19, '70 V 120 W'], ['0.5 x 8 parallel', 0, '4'], ['5 W on 100 W at 8', 17 - 1, '70 V'],
    ['8 on 300 W at 4 please', 16, ', from 2'], ['8 & 8', 2, '||'],
  ])('“%s” is refused at %d, where “%s” could stand', (text, position, could) => {
    expect(refused(text)).toMatchObject({ position, could: expect.arrayContaining([could]) })
  })

  test.each(['0', '8 || 0', '1e9', '8 on 999999 W at 4', '2001 x 8 parallel', '2000 x (2000 x 8 series) parallel', '('.repeat(3000), '('.repeat(60) + '8'])('“%.20s” ends in a clear refusal', text =>
    expect(refused(text).message.length).toBeGreaterThan(10))

  function refused(text: string) {
    try {
      quickAnswer(text)
    }
    catch (error) {
      if (error instanceof InputError) return { position: error.position, could: [...error.expected], message: error.message }
      throw error
    }
    throw new Error('nothing was refused')
  }
})

test('each driver of two and two gets a quarter; wired otherwise it would not do', () => {
  const line = quick('(4 + 4) || (4 + 4) on 300 W at 4, 180 W at 8, from 2')
  expect(line.evaluation.drops.map(d => d.powerW!.toFixed(1))).toEqual(['75.0', '75.0', '75.0', '75.0'])
  expect(otherWays(line).map(w => [w.how, w.loadOhm, w.underFloor, w.powerW!.toFixed(0)])).toEqual([['parallel', 1, true, '75'], ['series', 16, false, '90']])
})

describe('the numbers beside a quick answer', () => {
  test.each<[string, string[]]>([
    ['(8 + 8) || (8 + 8) on 100 W at 8', ['8 Ω', '100 W · rated here', '25 W · a quarter each: equal', '8 Ω · the load is just at it']],
    ['8 || 4 on 100 W at 4, from 2', ['2.67 Ω', '66.7 W to 150 W · not rated here', '22.2 W to 44.4 W · unequal: see the drawing', '2 Ω · the load is 1.33 times that']],
    ['8 || 8 on 100 W at 8', ['4 Ω', 'not allowed · under its floor', 'not allowed · half each: equal', '8 Ω · the load is under it']],
    ['32 on 100 W at 4', ['32 Ω', '12.5 W · above its highest rated load', '12.5 W · the one driver', '4 Ω · the load is 8 times that; of its 100 W it gives 12.5 W']],
    ['8', ['8 Ω', 'not known · name it after “on”', 'not known · the one driver', 'not known']],
    ['12 x 5 W on 70 V 120 W', ['60 W · 12 speakers, each takes its tap', '70.7 V · all in parallel, always mono', '83.3 Ω', '120 W · 50 % of it is asked', '75 W · “use four fifths”']],
    ['12 x 5 W on 70 V', ['60 W', '70.7 V', '83.3 Ω', 'not known · write its watts after the volts', '75 W']],
  ])('%s', (text, rows) => {
    const told = numberRows(quick(text).evaluation).map(r => r.note === '' ? r.figure : `${r.figure} · ${r.note}`)
    expect(told.map((row, k) => row.startsWith(rows[k] ?? '?') ? rows[k] : row)).toEqual(rows)
  })
})
