import { z } from 'zod'
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
 * word or a mark are remarks.
 * @throws InputError at the first character that is no measurement
 */
export function readCurve(text: string): CurveReport {
  const points: CurveReport['points'] = []
  const lineOf: number[] = []
  let at = 0
  for (const [k, line] of text.split('\n').entries()) {
    const start = at
    at += line.length + 1
    const plain = line.replace(/\r$/, '').replace(/^\uFEFF/, '')
    if (plain.trim() === '' || REMARK.test(plain)) continue
    const values = valuesOf(plain, k + 1, start)
    const [hz, ohm, deg] = values as [number, number, number | undefined]
    if (!(hz > 0)) throw new InputError(`Line ${k + 1}: a frequency is above zero.`, start, EXAMPLES)
    if (!(ohm > 0)) throw new InputError(`Line ${k + 1}: an impedance is above zero ohms.`, start, EXAMPLES)
    points.push({ hz, ohm, deg: deg ?? null })
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

function valuesOf(line: string, number: number, start: number): number[] {
  // A comma parts values where points are the decimals, or where a blank follows it; else it is the decimal.
  const byMark = /[;\t]/.test(line)
  const isCommaParting = !byMark && /,/.test(line) && (/\./.test(line) || /,\s/.test(line) || !/\S\s+\S/.test(line.trim()))
  const parting = byMark ? /[;\t]/ : isCommaParting ? /,/ : /\s+/
  const values: number[] = []
  let at = line.length - line.trimStart().length
  for (const piece of line.trim().split(parting)) {
    const word = piece.trim()
    const value = Number(isCommaParting ? word : word.replace(',', '.'))
    if (word === '' || !Number.isFinite(value)) {
      throw new InputError(`Line ${number}: “${word}” is not a number.`, start + at, EXAMPLES)
    }
    values.push(value)
    at += piece.length + 1
  }
  if (values.length < 2 || values.length > 3) {
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
