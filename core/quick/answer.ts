import { z } from 'zod'
import { driveInto, floorOhm } from '#core/amplifier/index'
import type { Job } from '#core/job/schema'
import { outputsOf } from '#core/job/tree'
import { evaluateJob, type LineEvaluation } from '#core/match/evaluate'
import { findingSchema, findingsOf, requiredSchema, requiredOf, tidy } from '#core/match/report'
import { isUnderFloor } from '#core/quantity/tolerance'
import { parseQuick, type QuickLine } from './parse'
import { toJob } from './toJob'

const number = z.number().nullable()

/** What a typed line comes to, as the command line prints it. */
export const quickAnswerSchema = z.strictObject({
  kind: z.enum(['low-impedance', 'constant-voltage']),
  grade: z.enum(['good', 'tight', 'stop', 'unknown']).describe('the worst that was found'),
  loadOhm: number.describe('nominal, at the head, Ω; null when open or short'),
  minimumOhm: number.describe('lowest |Z| that curve or label permits, 20 Hz to 20 kHz, Ω'),
  tapsW: number.describe('sum of taps on this line voltage, W; null on a low-impedance output'),
  drawW: number.describe('what they draw as they are wired, W'),
  lineV: number.describe('line voltage, V; null on a low-impedance output'),
  amplifierW: number.describe('what the amplifier gives into this load at full output, at the least, W; null while not known or not allowed'),
  mostW: number.describe('the most it may give: more only where it is not rated at this load, W'),
  members: z.array(z.strictObject({
    label: z.string(),
    ohm: number,
    powerW: number.describe('at full output, W; null while the amplifier is not known'),
    share: z.number().describe('part of the line’s power, 0 to 1'),
  })),
  required: z.array(requiredSchema),
  findings: z.array(findingSchema),
})
export type QuickAnswer = z.infer<typeof quickAnswerSchema>

/** Ids for a job that nobody keeps. */
function countedIds(): () => string {
  let count = 0
  return () => `q${++count}`
}

export interface Quick { line: QuickLine, job: Job, evaluation: LineEvaluation }

/** Reads, wires and evaluates a typed line. @throws InputError */
export function quick(text: string): Quick {
  const line = parseQuick(text)
  const job = toJob(line, countedIds())
  return { line, job, evaluation: evaluateJob(job)[0]! }
}

export function quickAnswer(text: string): QuickAnswer {
  const { evaluation: e } = quick(text)
  return tidy({
    kind: e.kind, grade: e.grade, loadOhm: e.loadOhm, minimumOhm: e.lowest?.ohm ?? null,
    tapsW: e.tapsW, drawW: e.drawW, lineV: e.lineV, amplifierW: e.amplifierW, mostW: e.mostW,
    members: e.drops.map(({ label, ohm, powerW, share }) => ({ label, ohm, powerW, share })),
    required: requiredOf(e), findings: findingsOf(e),
  })
}

export interface OtherWay { how: 'parallel' | 'series', loadOhm: number, powerW: number | null, underFloor: boolean }

/** All in parallel and all in series, for two to eight equal plain speakers: what the same units would make, wired otherwise. */
export function otherWays({ job, evaluation }: Quick): OtherWay[] {
  const { drops } = evaluation
  const ohm = drops[0]?.ohm
  if (evaluation.kind !== 'low-impedance' || !ohm || drops.length < 2 || drops.length > 8 || drops.some(d => d.ohm !== ohm)) return []
  const { rating } = outputsOf(job)[0]!
  const least = floorOhm(rating)
  return ([['parallel', ohm / drops.length], ['series', ohm * drops.length]] as const)
    .filter(([, loadOhm]) => Math.abs(loadOhm - evaluation.loadOhm!) > 0.01 * loadOhm)
    .map(([how, loadOhm]) => ({
      how, loadOhm,
      powerW: driveInto(rating, loadOhm)?.powerW ?? null,
      underFloor: least !== null && isUnderFloor(loadOhm, least),
    }))
}
