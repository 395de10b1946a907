import { describe, expect, test } from '@jest/globals'
import { InputError } from '#core/quantity/inputError'
import { toDocument } from '#core/job/document'
import { readJob } from '#core/job/readJob'
import { numberRows } from './numberRows'
import { writeRating } from '#core/amplifier/index'
import { otherWays, quick, waysOf, wiredOtherwise, withWay, type Way } from './answer'
import { quickAnswer, quickAnswerSchema } from './report'
import { UndecidedError } from './parse'
import { piecesOf } from './pieces'

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

  // As a tradesperson writes them: load, members, and what the output is taken for.
  test.each<[string, number, number, string]>([
    ['0,5 ohm', 0.5, 1, ''], ['8 x 1,25 W on 70 V', 500, 8, '70 V'], ['2,5 ohm || 2,5 ohm', 1.25, 2, ''], ['4R7', 4.7, 1, ''], ['1 kohm || 1 kΩ', 500, 2, ''], ['2 x 500 mW on 70V', 5000, 2, '70 V'],
    ['8 ohm x4 parallel', 2, 4, ''], ['5 W x 12 on 70 V', 83.33, 12, '70 V'], ['8 Ω × 2 in series', 16, 2, ''], ['(8 + 8) x 2 parallel', 8, 4, ''],
    ['8 @ 100 W @ 8', 8, 1, '100 W at 8'], ['8 at 100 W into 8', 8, 1, '100 W at 8'], ['8 into 100 W into 8 ohms', 8, 1, '100 W at 8'], ['100 W into 8', 8, 1, '100 W at 8'], ['100W @ 8 ohm', 8, 1, '100 W at 8'],
    ['8 on 100 W 8 ohm', 8, 1, '100 W at 8'], ['8 on a 100 W amp at 8 ohm', 8, 1, '100 W at 8'], ['8 ohm on the 100 W 8 ohm amplifier', 8, 1, '100 W at 8'], ['8 on 300 W at 4 & 180 W at 8', 8, 1, '300 W at 4, 180 W at 8'],
    ['12 x 5 W on a 100V line', 166.67, 12, '100 V'], ['12 x 5 W 100V line', 166.67, 12, '100 V'], ['5W 70V', 1000, 1, '70 V'], ['12 x 5 W @ 70V', 83.33, 12, '70 V'], ['12 x 5 W at 70 V 120 W', 83.33, 12, '70 V 120 W'],
    ['12 x 5 W 70V/120W', 83.33, 12, '70 V 120 W'], ['12 x 5 W on 70V/120W', 83.33, 12, '70 V 120 W'], ['12 x 5 W on 120 watt amp at 70 V', 83.33, 12, '70 V 120 W'], ['12 x 5 W on 70 V, 120 watt amp', 83.33, 12, '70 V 120 W'],
    ['12 x 5 W, 2 x 20 W on 70 V', 50, 14, '70 V'], ['12 x 5 W and 2 x 20 W on 70 V', 50, 14, '70 V'], ['12 x 5 W, 2 x 20 W, 70 V', 50, 14, '70 V'], ['twelve 5 W on 70 V', 83.33, 12, '70 V'], ['5 W on 25.9 V', 134.16, 1, '25.9 V'],
    ['fourteen 5 W ceiling speakers on 70 V', 71.43, 14, '70 V'], ['seventeen 5 W horns on 100 V', 117.65, 17, '100 V'], ['four 8 ohm wall loudspeakers in parallel', 2, 4, ''],
    ['5 W on 70.7 V', 1000, 1, '70 V'], ['4 8-ohm in parallel', 2, 4, ''], ['4 8 ohm speakers in parallel', 2, 4, ''], ['four 8 ohm in parallel', 2, 4, ''], ['four x 8 parallel', 2, 4, ''], ['two 4-ohm drivers in series', 8, 2, ''],
    ['a pair of 8 ohm cabinets in parallel on 100 W at 4', 4, 2, '100 W at 4'], ['8 in parallel with 8', 4, 2, ''], ['8 in series with 4', 12, 2, ''], ['[8 + 8] || [8 + 8]', 8, 4, ''], ['"8 + 8"', 16, 2, ''], ['“8 || 8”', 4, 2, ''],
    ['8 + 8.', 16, 2, ''], ['8 + 8 =', 16, 2, ''], ['\uFF18 \uFF0B \uFF18', 16, 2, ''], ['8 ohm, 50 W || 8 ohm 50 W each on 100 W at 4', 4, 2, '100 W at 4'], ['3 Ohm Par 6 OHM', 2, 2, ''], ['1 x 8', 8, 1, ''],
    ['8 on 300 W into 4, 180 W into 8, min 2', 8, 1, '300 W at 4, 180 W at 8, from 2'], ['4 x 8 ohm parallel 300 W at 4 ohm', 2, 4, '300 W at 4'], ['(8 + 8) 100 W at 16', 16, 2, '100 W at 16'], ['12 x 5 W, 120 W at 70 V', 83.33, 12, '70 V 120 W'],
  ])('“%s”', (text, loadOhm, members, output) => {
    const { line, evaluation } = quick(text)
    expect([evaluation.loadOhm! / loadOhm, evaluation.drops.length, writeRating(line.rating)]).toEqual([expect.closeTo(1, 3), members, output])
  })

  // Words a tradesperson would guess: coils, parts in the way, valve heads, joined channels.
  test.each<[string, number, number, string]>([
    ['2 x dvc 4 series parallel', 4, 2, ''], ['dvc 4 parallel', 2, 1, ''], ['two dual coil 4 ohm series in parallel on 500 W at 4', 4, 2, '500 W at 4'], ['dual voice coil 2 ohm series', 4, 1, ''],
    ['16 || 16 on valve 50 W at 4/8/16', 8, 2, 'valve 50 W at 4/8/16'],
    ['16 on a valve amp 50 watt at 16/8/4 ohm, tap 16', 16, 1, 'valve 50 W at 4/8/16, tap 16'],
    ['8 on tube 18 W at 8', 8, 1, 'valve 18 W at 8'],
    ['8 on valve at 8/16 on the tap 8', 8, 1, 'valve at 8/16, tap 8'],
    ['8 on 2 x 300 W at 4 bridged', 8, 1, '2 x 300 W at 4 bridged'],
    ['8 || 8 on 2 x 300 W at 4, from 4 in parallel', 4, 2, '2 x 300 W at 4, from 4 in parallel'],
    ['8 on 2 x 300 W at 4', 8, 1, '300 W at 4'],
    ['4 on 2 x 60 W at 4, 2 ohm stable bridged from 4', 4, 1, '2 x 60 W at 4, from 2 bridged from 4'],
    ['4 on 60 W at 4, stable at 2', 4, 1, '60 W at 4, from 2'],
    ['8 cap 4700 uF', 8, 1, ''], ['8 coil 0.001 mH', 8, 1, ''], ['(8 || 8) capacitor 4700 µF', 4, 2, ''], ['8 ohm 60 W 92 dB || 8 ohm, 60 W, 92 dB on 100 W at 4', 4, 2, '100 W at 4'], ['8 ohm 92 dB', 8, 1, ''],
  ])('“%s”', (text, loadOhm, members, output) => {
    const { line, evaluation, job } = quick(text)
    expect([evaluation.loadOhm! / loadOhm, evaluation.drops.length, writeRating(line.rating)]).toEqual([expect.closeTo(1, 3), members, output])
    readJob(toDocument(job))
  })
  test('sensitivity gives levels, powers added: two of 92 dB on 50 W each are 112 dB (definition of the decibel)', () => {
    const answer = quickAnswer('8 ohm 60 W 92 dB || 8 ohm 60 W 92 dB on 100 W at 4')
    expect([answer.members.map(m => m.levelDb!.toFixed(2)), answer.levelDb!.toFixed(2)]).toEqual([['108.99', '108.99'], '112.00'])
    expect([quickAnswer('8 ohm 92 dB || 8 on 100 W at 4').levelDb, quick('8 ohm 60 W 92 dB || 8 ohm 60 W 92 dB').job.kinds.map(k => [k.model.name, k.model.sensitivityDb])]).toEqual([null, [['8 Ω, 60 W, 92 dB', 92]]])
  })
  test('a valve head without a word of its tap is kept on the one for its load', () =>
    expect(quick('16 || 16 on valve 50 W at 4/8/16').job.amplifiers[0]!.outputs[0]!.rating).toMatchObject({ tapOhm: 8 }))

  // What may be read in two ways is asked, at its place, and never guessed.
  test.each<[string, number, string, RegExp]>([
    ['8 on 1,000 W at 8', 5, '1000', /1000, or 1\?/], ['8, 8', 1, '+', /in series or in parallel/], ['8 and 8', 2, '||', /in series or in parallel/], ['8 8 ohm on', 10, '300 W at 4', /missing/],
    ['8 paralel 8', 2, '||', /“paralel” cannot stand here/], ['8 || 8 bridgedd', 7, 'on', /“bridgedd” cannot stand here/],
    ['8 100 W at 8', 2, 'on', /“100” cannot stand here/], ['70V/120W', 0, '5 W', /Only an amplifier/], ['12 x 5 W in series on 70 V', 9, '+', /always in parallel/], ['300 W at 4, 180 W at 8', 0, '8', /Only an amplifier/],
    ['(4 x 8) + 4', 6, 'parallel', /4 of them, but/],
    ['dvc 4', 5, 'series', /missing/],
    ['8 on 2 x 300 W at 4 in parallel from 2', 37, 'bridged', /two bridged: is it/],
    ['8 on 300 W at 4 bridged', 16, '2 x 300 W at 4 bridged', /of one channel, or of both/],
    ['8 on 3 x 300 W at 4 bridged', 5, '2 x 300 W at 4 bridged', /Two channels/],
    ['8 on 2 x 120 W at 70 V bridged', 23, '2 x 300 W at 4 bridged', /loads of ohms/],
    ['8 on valve 50 W at 4/8, tap 6', 28, 'tap 4', /no 6 Ω tap among 4\/8/],
    ['5 W on valve 50 W at 8', 21, '70 V', /taps in ohms/],
    ['8 cap 100', 9, 'uF', /missing/],
    ['5 W cap 3 uF on 70 V', 4, '8', /not before a tap/],
    ['8 ohm 100 V 8', 13, 'W', /missing/],
  ])('“%s” is asked back at %d', (text, position, could, says) => {
    const { message, ...error } = refused(text)
    expect(error).toMatchObject({ position, could: expect.arrayContaining([could]) })
    expect(message).toMatch(says)
  })

  test.each([
    ['', 0, '4 x'], ['8 +', 3, '('], ['(8 + 8', 6, ')'], ['8 | 8', 2, '||'], ['4 x 8', 5, 'parallel'], ['12 x 5 W', 8, 'on 70 V'], ['8 on', 4, '300 W at 4'],
    ['8 on 300 W', 10, 'at 4'], ['8 + 5 W', 4, '8'], ['8 8', 2, '+'], ['foo', 0, '('], ['8 on 300 W at', 13, '70 V'], ['4 x 5 W series on 70 V', 8, '+'],
    ['8 on 300 W at 4, from 8', 22, '4'], ['8 on 70 V 100 W at 4', 19, '70 V 120 W'], ['0.5 x 8 parallel', 4, '+'], ['5 W on 100 W at 8', 17 - 1, '70 V'],
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

const shownWays = (ways: Way[]) => ways.map(w => `${w.strings}×${w.inString} ${w.loadOhm.toFixed(2)} Ω ${w.powerW?.toFixed(0) ?? '-'}${w.mostW === w.powerW ? '' : `-${w.mostW?.toFixed(0)}`} ${w.grade}`)

test('each driver of two and two gets a quarter; wired otherwise it would not do', () => {
  const line = quick('(4 + 4) || (4 + 4) on 300 W at 4, 180 W at 8, from 2')
  expect(line.evaluation.drops.map(d => d.powerW!.toFixed(1))).toEqual(['75.0', '75.0', '75.0', '75.0'])
  expect(shownWays(otherWays(line))).toEqual(['4×1 1.00 Ω - stop', '1×4 16.00 Ω 90 good'])
  for (const way of otherWays(line)) expect(quick(wiredOtherwise(line, way)).evaluation.loadOhm).toBeCloseTo(way.loadOhm, 9)
  expect([otherWays(quick('8 + 4')), otherWays(quick('8')), otherWays(quick('4 x 5 W on 70 V'))]).toEqual([[], [], []])
  expect(wiredOtherwise(quick('8 ohm 50 W || 8 ohm 50 W'), otherWays(quick('8 ohm 50 W || 8 ohm 50 W'))[0]!)).toBe('2 x 8 ohm 50 W series')
})

test.each([
  ['4 x 8 ohm 300 W at 4 ohm', ['4×1 2.00 Ω - stop', '2×2 8.00 Ω 150 good', '1×4 32.00 Ω 38 good'], '2 x (2 x 8 ohm series) parallel on 300 W at 4 ohm'],
  ['4 x 8', ['4×1 2.00 Ω - unknown', '2×2 8.00 Ω - unknown', '1×4 32.00 Ω - unknown'], '2 x (2 x 8 series) parallel'],
  ['6 4-ohm on 300 W at 4, from 0.5', ['6×1 0.67 Ω 50-1800 good', '3×2 2.67 Ω 200-450 good', '2×3 6.00 Ω 200 good', '1×6 24.00 Ω 50 good'], '3 x (2 x 4-ohm series) parallel on 300 W at 4, from 0.5'],
  ['8 ohm x 3, 100 W at 8', ['3×1 2.67 Ω - stop', '1×3 24.00 Ω 33 good'], '3 x 8 ohm series, 100 W at 8'],
])('“%s” leaves the wiring open: every way is answered, and can be taken', (text, ways, second) => {
  const error = (() => {
    try { return quick(text) }
    catch (e) { return e }
  })() as UndecidedError
  expect(error).toBeInstanceOf(UndecidedError)
  const all = waysOf(error.count, error.item, error.line.rating)
  expect(shownWays(all)).toEqual(ways)
  expect(withWay(error, all[1]!)).toBe(second)
  for (const way of all) expect(quick(withWay(error, way)).evaluation.loadOhm).toBeCloseTo(way.loadOhm, 9)
  // Pressed as a mending, the word goes where the error is.
  const mended = `${text.slice(0, error.position)} parallel${text.slice(error.position)}`
  expect(quick(mended).evaluation.loadOhm).toBeCloseTo(all[0]!.loadOhm, 9)
})

test('a typed line is shown whole, whatever stands in it', () => {
  for (const text of ['4 x 8,5 || (2k2//8) on 70V', ' é 🔈 ||| ', '']) expect(piecesOf(text).map(p => p.text).join('')).toBe(text)
  expect(piecesOf('8 || 4 on PARALLEL 8,5').filter(p => p.connects).map(p => p.text)).toEqual(['||', 'on', 'PARALLEL'])
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

test.each([['2 x 8', true], ['64 x 8', true], ['65 x 8', false]])('ways of wiring up to 64 are listed; of more a list helps nobody: %s', (text, isListed) => {
  try {
    quick(text)
    throw new Error('was answered')
  }
  catch (error) {
    if (!(error instanceof UndecidedError)) throw error
    expect(waysOf(error.count, error.item, error.line.rating).length > 0).toBe(isListed)
  }
})
