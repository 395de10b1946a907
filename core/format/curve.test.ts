import { describe, expect, test } from '@jest/globals'
import { keptCurve, labelAgainst, readCurve, writeCurve } from './curve'
import { curveOf, lookUp } from '#core/network/curve'

/** A driver in free air by a formula of its own: a coil with a resonance, Small's equivalent circuit written out. */
function driver(hz: number): { ohm: number, deg: number } {
  const [re, le, fs, qms, qes] = [6.4, 0.0006, 55, 4.2, 0.55]
  const x = hz / fs
  // Motional branch: res · (j x / qms) / (1 − x² + j x / qms), res = re · qms / qes.
  const [res, d] = [re * qms / qes, { a: 1 - x * x, b: x / qms }]
  const norm = d.a ** 2 + d.b ** 2
  const [real, imag] = [re + res * d.b * d.b / norm, 2 * Math.PI * hz * le + res * d.b * d.a / norm]
  return { ohm: Math.hypot(real, imag), deg: Math.atan2(imag, real) * 180 / Math.PI }
}
const HZ = Array.from({ length: 121 }, (_, k) => 20 * 10 ** (k / 40))
const rows = HZ.map(hz => ({ hz: Number(hz.toFixed(3)), ...driver(hz) }))
const written = (parting: string, comma = false, withPhase = true) => rows.map(({ hz, ohm, deg }) => [hz, ohm.toFixed(4), ...withPhase ? [deg.toFixed(3)] : []]
  .map(v => comma ? String(v).replace('.', ',') : String(v)).join(parting)).join('\n')

describe('a curve made by a formula comes back, however it is written', () => {
  test.each<[string, string]>([
    ['tabs', written('\t')],
    ['blanks', written('   ')],
    ['semicolons', written(';')],
    ['commas and points', written(',')],
    ['commas and blanks', written(', ')],
    ['decimal commas, semicolons', written(';', true)],
    ['decimal commas, tabs', written('\t', true)],
    ['decimal commas, blanks', written('  ', true)],
    ['remarks, a head, empty lines, another system’s line ends', `* measured in free air\n# Hz Ohm Deg\nfreq\tmag\tphase\n\n${written('\t')}\n\n`.replaceAll('\n', '\r\n')],
    ['a byte order mark', `\uFEFF${written(';')}`],
  ])('%s', (_, text) => {
    const read = readCurve(text)
    expect([read.points.length, read.problems]).toEqual([rows.length, []])
    read.points.forEach((p, k) => {
      const { hz, ohm, deg } = rows[k]!
      expect([p.hz, p.ohm, p.deg]).toEqual([hz, expect.closeTo(ohm, 3), expect.closeTo(deg, 2)])
    })
    const lowest = rows.reduce((a, b) => b.ohm < a.ohm ? b : a)
    expect([read.minimumHz, read.minimumOhm, read.nominalOhm]).toEqual([lowest.hz, expect.closeTo(lowest.ohm, 3), 8])
  })
})

test.each<[string, string, RegExp | null]>([
  ['no phase', written('\t', false, false), /^No phase is measured/], ['some phases', `${written('\t')}\n21000\t30`, /^1 of 122 points have no phase/],
  ['begins late', written('\t').split('\n').slice(20).join('\n'), /^It begins at 63\.2 Hz: below that nothing is known/], ['ends early', written('\t').split('\n').slice(0, -20).join('\n'), /^It ends at 6\.32 kHz|^It ends at 6320 Hz/],
  ['a gap', written('\t').split('\n').filter((_, k) => k < 40 || k > 48).join('\n'), /^Between 188\.8 Hz and 335\.8 Hz there is no point/], ['out of order', written('\t').split('\n').toReversed().join('\n'), /^Line 2: .* comes after/],
  ['a phase beyond a right angle', written('\t').replace('\t-', '\t-1'), /^Line \d+: a phase of −?-?1\d+(\.\d+)?°/],
])('%s is said', (_, text, wanted) => expect(readCurve(text).problems).toEqual([expect.stringMatching(wanted!)]))

describe('what its header says is taken, or the file is refused', () => {
  const radians = (deg: number) => deg * Math.PI / 180
  const as = (head: string, cells: (row: typeof rows[number]) => (number | string)[]) => `${head}\n${rows.map(r => cells(r).join('\t')).join('\n')}`
  test.each<[string, string]>([
    ['real and imaginary', as('# Freq (Hz)\tReal (ohm)\tImag (ohm)', r => [r.hz, r.ohm * Math.cos(radians(r.deg)), r.ohm * Math.sin(radians(r.deg))])],
    ['imaginary first, with a column between', as('Imag\tNote\tRe\tFrequency', r => [r.ohm * Math.sin(radians(r.deg)), 'x', r.ohm * Math.cos(radians(r.deg)), r.hz])],
    ['radians', as('* Frequency [Hz]\tImpedance [Ohm]\tPhase [rad]', r => [r.hz, r.ohm, radians(r.deg)])],
    ['kilohertz', as('freq (kHz)\t|Z| (Ω)\tphase (°)', r => [r.hz / 1000, r.ohm, r.deg])],
    ['milliohms', as('Hz mOhm Deg', r => [r.hz, r.ohm * 1000, r.deg])],
    ['kilohms', as('Hz\tkOhm\tDeg', r => [r.hz, r.ohm / 1000, r.deg])],
    ['levels beside the impedance', as('Freq(Hz) SPL(dB) Z(ohm) Phase(deg)', r => [r.hz, 88, r.ohm, r.deg])],
    ['its title speaks of levels, too', as('# SPL 88 dB, impedance from 20 Hz on', r => [r.hz, r.ohm, r.deg])],
    ['a sentence is no head', as('# Impedance measured at one volt, freq from 20 Hz', r => [r.hz, r.ohm, r.deg])],
  ])('%s', (_, text) => readCurve(text).points.forEach((p, k) => expect([p.hz, p.ohm, p.deg]).toEqual([expect.closeTo(rows[k]!.hz, 6), expect.closeTo(rows[k]!.ohm, 6), expect.closeTo(rows[k]!.deg, 6)])))
  test.each<[string, string, RegExp]>([
    ['levels and a phase', 'Freq(Hz) SPL(dB) Phase(degrees)\n20 60 10\n30 66 12', /levels in dB, not an impedance/],
    ['levels by another name', 'Frequency\tGain\n20\t60\n30\t66', /levels in dB/],
    ['levels by their title', '# SPL at 1 m, dB\n# Hz\n20 60 10\n30 66 12', /levels in dB/],
    ['a real part alone', 'Hz\tRe\tNote\n20\t6\t1\n30\t7\t1', /a real part and no imaginary one/],
    ['fewer values than it names', 'Hz\tre\tim\n20\t6\t1\n30\t7', /^Line 3 has 2 values; its header names more/],
  ])('%s: refused', (_, text, says) => expect(() => readCurve(text)).toThrow(says))
})

test('out of order it is put in order, of a frequency that stands twice the first counts', () => {
  expect(readCurve('20 7 1\n20 8 1\n25 9 1\n20000 9 1').problems[0]).toMatch(/^Line 2: 20 Hz comes after 20 Hz/)
  expect(readCurve('1000 8 0\n20 7 1\n1000 9 0\n20000 30 40').points.map(p => [p.hz, p.ohm])).toEqual([[20, 7], [1000, 8], [20_000, 30]])
})

test.each<[string, number | null]>([['6.4', 8], ['6.39', 6], ['3.2', 4], ['3.1', 3], ['1.5', null], ['90', 100]])('a minimum of %s Ω allows a label of %s Ω', (ohm, label) => {
  expect(readCurve(`20 ${ohm}\n20000 99`).nominalOhm).toBe(label)
})

test.each<[string, string, number, RegExp]>([
  ['no number', '20 6.8 1\n25 6,x 2', 12, /^Line 2: “6,x” is not a number/],
  ['nothing', '# only a remark', 0, /No point/],
  ['one point', '20 8', 0, /One point/],
  ['no frequency', '0 8\n20 8', 0, /Line 1: a frequency/],
  ['no ohms', '20 8\n30 -4', 5, /Line 2: an impedance/],
  ['one value', '20 8\n30', 5, /Line 2 has 1 value:/], ['four', '20 8 1 2', 0, /Line 1 has 4 values/], ['an empty cell', '20;;3', 3, /“” is not a number/],
])('%s is refused, and where', (_, text, position, message) => {
  expect(() => readCurve(text)).toThrow(message)
  try { readCurve(text) }
  catch (error) { expect((error as { position: number }).position).toBe(position) }
})

test('goes out as text and comes in the same; a phase that was not measured stays so', () => {
  const { points } = keptCurve(readCurve('20 7.5 -3\n90 8\n20000 31.25 40'))
  expect(readCurve(writeCurve(points, 'Box\n4').replace('40', '400')).points).toHaveLength(3)
  expect(keptCurve(readCurve(writeCurve(points, 'Box\n4')))).toEqual({ points: [[20, 7.5, -3], [90, 8, null], [20_000, 31.25, 40]], of: 3, off: 0 })
  expect(keptCurve(readCurve('20 7 350\n90 8 -190')).points.map(p => p[2])).toEqual([-10, 170])
})

test('of more points than a speaker keeps those stay that the others lie between: the driver’s formula is met everywhere', () => {
  const fine = Array.from({ length: 5000 }, (_, k) => 20 * 1000 ** (k / 4999)).map(hz => ({ hz, ...driver(hz) }))
  const { points, of, off } = keptCurve({ points: fine })
  expect([points.length > 100, points.length <= 600, of]).toEqual([true, true, 5000])
  const curve = curveOf(points)
  for (const { hz, ohm, deg } of fine) {
    const seen = lookUp(curve, Math.log(hz))!
    expect(Math.abs(seen.ohm / ohm - 1)).toBeLessThan(1.01 * off)
    expect(Math.abs(seen.phase * 180 / Math.PI - deg)).toBeLessThan(51 * off)
  }
  // Phases end somewhere: both sides of that place stay.
  const cut = keptCurve({ points: fine.map((p, k) => k < 2500 ? p : { ...p, deg: null }) })
  expect(cut.points.findIndex(p => p[2] === null)).toBe(cut.points.findIndex(p => p[0] === fine[2500]!.hz))
})

test.each<[number, string]>([[8, ''], [8.01, 'Its lowest point, 6.4 Ω, is under four fifths of a label of 8.01 Ω; 8 Ω would fit.'], [16, 'Its lowest point, 6.4 Ω, is under four fifths of a label of 16 Ω; 8 Ω would fit.']])('a label of %d Ω over a minimum of 6.4 Ω (IEC 60268-5)', (labelOhm, says) =>
  expect(labelAgainst(readCurve('20 6.4\n20000 30'), labelOhm)).toBe(says))

describe('phase between the points of a curve, straight over the logarithm of the frequency', () => {
  // Half way from 100 to 10,000 Hz is 1,000 Hz; by hand.
  test.each<[string, [number, number, number | null][], number, number, number]>([
    ['measured at both ends', [[100, 8, -40], [10_000, 12, 20]], 1000, 10, -10], ['measured in the middle alone', [[100, 8, null], [1000, 10, 30], [10_000, 12, null]], 100, 8, 30],
    ['missing in the middle: between those beside it', [[100, 8, -40], [1000, 9, null], [10_000, 12, 20]], 1000, 9, -10], ['nowhere measured', [[100, 8, null], [10_000, 12, null]], 1000, 10, 0],
    ['three quarters of the way', [[100, 8, 0], [10_000, 12, 60]], 10 ** 3.5, 11, 45],
  ])('%s', (_, points, hz, ohm, phaseDeg) => {
    const seen = lookUp(curveOf(points), Math.log(hz))!
    expect([seen.ohm, seen.phase * 180 / Math.PI]).toEqual([expect.closeTo(ohm, 9), expect.closeTo(phaseDeg, 9)])
  })
})

test.each([[20, true], [20 * (1 - 1e-10), true], [19.9, false], [20_000, true], [20_000 * (1 + 1e-10), true], [20_100, false]])('a curve from 20 Hz to 20 kHz says something at %d Hz: %s', (hz, isKnown) =>
  expect(lookUp(curveOf([[20, 8, 0], [20_000, 12, 0]]), Math.log(hz)) !== null).toBe(isKnown))
