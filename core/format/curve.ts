import { z } from 'zod'
import { MOST_POINTS as MOST_KEPT } from '#core/gear/load'
import type { CurvePoint } from '#core/network/tree'
import { columnsOf, isOfLevels, pointOf, type CurveColumns } from './curveColumns'
import { InputError } from '#core/quantity/inputError'
import { writeNumber, writeQuantity } from '#core/quantity/write'

/** A measured impedance curve as text: a frequency a line, its magnitude, its phase if it was measured. */

export const curveReportSchema = z.strictObject({
  points: z.array(z.strictObject({ hz: z.number(), ohm: z.number(), deg: z.number().nullable().describe('phase; null where none was measured') })),
  minimumOhm: z.number(),
  minimumHz: z.number(),
  nominalOhm: z.number().nullable().describe('the highest usual label that its minimum allows: not under four fifths of it; null where it allows none'),
  problems: z.array(z.string()),
})
export type CurveReport = z.infer<typeof curveReportSchema>

const EXAMPLES = ['20 6.8 12.5', '20;6,8;12,5'] as const
const MOST_POINTS = 20_000
/** A line that says something and measures nothing. */
const REMARK = /^\s*(?:[#*;%!"'/]|[a-z_])/i
/** Labels in use. The lowest point of a curve lies at 80 % of the label or above: IEC 60268-5, from memory. */
const LABELS_OHM = [2, 3, 4, 6, 8, 12, 16, 25, 32, 50, 100] as const
const LABEL_SHARE = 0.8
/** Where a speaker is heard; a curve that covers less says nothing of the rest. */
const HEARD_HZ = [20, 20_000] as const
/** Two points further apart than a third of an octave leave room for a dip that was not measured. Common practice, no source. */
const WIDEST_STEP = 2 ** (1 / 3)

/**
 * Reads a curve. Values are parted by tabs, semicolons, commas or blanks; decimals have a point, or a comma where commas part nothing. Lines that begin with a
 * word or a mark are remarks, but for names of columns (curveColumns.ts): kHz, mΩ, radians, real and imaginary are taken as they say, levels are refused.
 * @throws InputError at the first character that is no measurement
 */
export function readCurve(text: string): CurveReport {
  const points: CurveReport['points'] = []
  const remarks: string[] = []
  let columns: CurveColumns | null = null
  const lineOf: number[] = []
  let at = 0
  for (const [k, line] of text.split('\n').entries()) {
    const start = at
    at += line.length + 1
    const plain = line.replace(/\r$/, '').replace(/^\uFEFF/, '')
    if (plain.trim() === '') continue
    if (REMARK.test(plain)) {
      remarks.push(plain)
      const named = columnsOf(plain)
      if (named === 'level') throw new InputError(NOT_IMPEDANCE, start, [])
      if (named && points.length === 0) columns = named
      continue
    }
    if (points.length === 0 && columns === null && isOfLevels(remarks)) throw new InputError(NOT_IMPEDANCE, 0, [])
    const { hz, ohm, deg } = pointIn(plain, k + 1, start, columns)
    if (!(hz > 0)) throw new InputError(`Line ${k + 1}: a frequency is above zero.`, start, EXAMPLES)
    if (!(ohm > 0)) throw new InputError(`Line ${k + 1}: an impedance is above zero ohms.`, start, EXAMPLES)
    points.push({ hz, ohm, deg })
    lineOf.push(k + 1)
    if (points.length > MOST_POINTS) throw new InputError(`More than ${MOST_POINTS} points.`, start, [])
  }
  if (points.length < 2) throw new InputError(points.length === 0 ? 'No point of a curve in it.' : 'One point is no curve.', 0, EXAMPLES)
  const problems = problemsOf(points, lineOf)
  const sorted = points.map((p, k) => ({ ...p, k })).sort((a, b) => a.hz - b.hz || a.k - b.k).filter((p, k, all) => k === 0 || p.hz !== all[k - 1]!.hz)
  const lowest = sorted.reduce((a, b) => b.ohm < a.ohm ? b : a)
  return {
    points: sorted.map(({ hz, ohm, deg }) => ({ hz, ohm, deg })), minimumOhm: lowest.ohm, minimumHz: lowest.hz,
    nominalOhm: LABELS_OHM.findLast(label => lowest.ohm >= LABEL_SHARE * label - 1e-9) ?? null, problems,
  }
}

const NOT_IMPEDANCE = 'Its columns are levels in dB, not an impedance: measure the impedance, in ohms, and take that file.'

/** A row as its header says; without one a frequency, ohms, and degrees if there are any. */
function pointIn(line: string, number: number, start: number, columns: CurveColumns | null): CurveReport['points'][number] {
  const used = columns && [columns.hz, ...Object.values(columns.parts)].flatMap(c => c ? [c.index] : [])
  const values = valuesOf(line, number, start, used)
  if (columns === null) return { hz: values[0]!, ohm: values[1]!, deg: values[2] ?? null }
  return pointOf(columns, values.length, (index) => {
    const value = values[index]
    if (value === undefined) throw new InputError(`Line ${number} has ${values.length} ${values.length === 1 ? 'value' : 'values'}; its header names more.`, start, EXAMPLES)
    return value
  })
}

/** `used`: the columns that count; null: a frequency, an impedance, and a phase if there is one. */
function valuesOf(line: string, number: number, start: number, used: readonly number[] | null): number[] {
  const isUsed = (index: number) => used === null || used.includes(index)
  // A comma parts values where points are the decimals, or where a blank follows it; else it is the decimal.
  const byMark = /[;\t]/.test(line)
  const isCommaParting = !byMark && /,/.test(line) && (/\./.test(line) || /,\s/.test(line) || !/\S\s+\S/.test(line.trim()))
  const parting = byMark ? /[;\t]/ : isCommaParting ? /,/ : /\s+/
  const values: number[] = []
  let at = line.length - line.trimStart().length
  for (const piece of line.trim().split(parting)) {
    const word = piece.trim()
    const value = Number(isCommaParting ? word : word.replace(',', '.'))
    // A column that its header does not name may hold anything.
    if ((word === '' || !Number.isFinite(value)) && isUsed(values.length)) {
      throw new InputError(`Line ${number}: “${word}” is not a number.`, start + at, EXAMPLES)
    }
    values.push(value)
    at += piece.length + 1
  }
  if (used === null && (values.length < 2 || values.length > 3)) {
    throw new InputError(`Line ${number} has ${values.length} ${values.length === 1 ? 'value' : 'values'}: a frequency, an impedance, and a phase if there is one.`, start, EXAMPLES)
  }
  return values
}

function problemsOf(points: CurveReport['points'], lineOf: readonly number[]): string[] {
  const problems: string[] = []
  const Hz = (hz: number) => writeQuantity(hz, 'Hz')
  const phases = points.filter(p => p.deg !== null).length
  if (phases === 0) problems.push('No phase is measured: what it does beside others is known by its magnitude alone.')
  else if (phases < points.length) problems.push(`${points.length - phases} of ${points.length} points have no phase.`)
  const back = points.findIndex((p, k) => k > 0 && p.hz <= points[k - 1]!.hz)
  if (back > 0) problems.push(`Line ${lineOf[back]}: ${Hz(points[back]!.hz)} comes after ${Hz(points[back - 1]!.hz)}; the points are put in order, of a frequency that stands twice the first counts.`)
  const turned = points.findIndex(p => p.deg !== null && Math.abs(p.deg) > 90)
  if (turned >= 0) problems.push(`Line ${lineOf[turned]}: a phase of ${writeNumber(points[turned]!.deg!)}°: what gives no power back stays within ±90°. Was the phase measured in radians, or with leads crossed?`)
  const sorted = [...points].sort((a, b) => a.hz - b.hz)
  const [first, last] = [sorted[0]!, sorted.at(-1)!]
  if (first.hz > HEARD_HZ[0] * 1.01) problems.push(`It begins at ${Hz(first.hz)}: below that nothing is known.`)
  if (last.hz < HEARD_HZ[1] * 0.99) problems.push(`It ends at ${Hz(last.hz)}: above that nothing is known.`)
  const gap = sorted.findIndex((p, k) => k > 0 && p.hz > sorted[k - 1]!.hz * WIDEST_STEP * 1.01)
  if (gap > 0) problems.push(`Between ${Hz(sorted[gap - 1]!.hz)} and ${Hz(sorted[gap]!.hz)} there is no point: a dip may hide there.`)
  return problems
}

/**
 * A curve as a speaker keeps it. `off`: how far what lies between the points kept may be from what was measured, as a part of the ohms; 0
 * where all are kept.
 */
export interface KeptCurve { points: CurvePoint[], of: number, off: number }

/** Takes out points that lie between their neighbours anyway, until no more are left than a speaker keeps. */
export function keptCurve({ points }: Pick<CurveReport, 'points'>): KeptCurve {
  const all = points.map(({ hz, ohm, deg }): CurvePoint => [hz, ohm, deg === null ? null : deg - 360 * Math.round(deg / 360)])
  if (all.length <= MOST_KEPT) return { points: all, of: all.length, off: 0 }
  let off = 1e-4
  let kept = all
  while (kept.length > MOST_KEPT) {
    off *= 2
    kept = thinned(all, off)
  }
  return { points: kept, of: all.length, off }
}

const MOST_CHANGES = 40

/** Ramer, Douglas and Peucker: a stretch is one straight line where no point of it is further off; a degree counts as a fiftieth of the ohms. */
function thinned(points: readonly CurvePoint[], off: number): CurvePoint[] {
  const keep = new Uint8Array(points.length)
  // Where phases begin or end both sides stay; where they come and go all the time, they count for nothing.
  const changes = points.flatMap((p, k) => k > 0 && (p[2] === null) !== (points[k - 1]![2] === null) ? [k - 1, k] : [])
  const ends = [...new Set([0, ...(changes.length > MOST_CHANGES ? [] : changes), points.length - 1])]
  for (const k of ends) keep[k] = 1
  const stretches = ends.slice(1).map((to, k): [number, number] => [ends[k]!, to])
  for (let next = stretches.pop(); next; next = stretches.pop()) {
    const [from, to] = next
    const [a, b] = [points[from]!, points[to]!]
    let [worst, at] = [off, -1]
    for (let k = from + 1; k < to; k++) {
      const [hz, ohm, deg] = points[k]!
      const t = Math.log(hz / a[0]) / Math.log(b[0] / a[0])
      const ohmsOff = Math.abs(a[1] + t * (b[1] - a[1]) - ohm) / ohm
      const hasPhase = deg !== null && a[2] !== null && b[2] !== null
      const degreesOff = hasPhase ? Math.abs(a[2]! + t * (b[2]! - a[2]!) - deg) / 50 : 0
      const isWorse = Math.max(ohmsOff, degreesOff)
      if (isWorse > worst) [worst, at] = [isWorse, k]
    }
    if (at < 0) continue
    keep[at] = 1
    stretches.push([from, at], [at, to])
  }
  return points.filter((_, k) => keep[k])
}

/** The curve as text, as it comes in: a frequency a line, tabs between, decimals with a point. */
export function writeCurve(points: readonly CurvePoint[], title: string): string {
  return [`# ${title.replace(/\s+/g, ' ')}`, '# Hz\tohm\tdegrees', ...points.map(([hz, ohm, deg]) => deg === null ? `${hz}\t${ohm}` : `${hz}\t${ohm}\t${deg}`), ''].join('\n')
}

/** What a label says against a measured minimum (IEC 60268-5: not under four fifths of it); empty where they go together. */
export function labelAgainst({ minimumOhm, nominalOhm }: Pick<CurveReport, 'minimumOhm' | 'nominalOhm'>, labelOhm: number): string {
  if (minimumOhm >= LABEL_SHARE * labelOhm - 1e-9) return ''
  const fits = nominalOhm === null ? '' : `; ${writeQuantity(nominalOhm, 'Ω')} would fit`
  return `Its lowest point, ${writeQuantity(minimumOhm, 'Ω')}, is under four fifths of a label of ${writeQuantity(labelOhm, 'Ω')}${fits}.`
}
