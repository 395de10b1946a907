import { z } from 'zod'
import { PLAYED, powerMatch } from '#core/advice/low/powerMatch'
import { valveSaid } from '#core/line/valveSaid'
import { bridgedSchema, findingSchema, findingsOf, requiredSchema, requiredOf, schoolsSchema, tapSchema, tidy } from '#core/line/report'
import { quick, waysOf, withWay } from './answer'
import { UndecidedError } from './parse'

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
  tap: tapSchema, bridged: bridgedSchema, schools: schoolsSchema,
  members: z.array(z.strictObject({
    label: z.string(),
    ohm: number,
    powerW: number.describe('at full output, W; null while the amplifier is not known'),
    share: z.number().describe('part of the line’s power, 0 to 1'),
    levelDb: number.describe('at one metre at full output, dB; null while its sensitivity is not said'),
  })),
  levelDb: number.describe('of all together, powers added, dB'),
  required: z.array(requiredSchema),
  findings: z.array(findingSchema),
})
export type QuickAnswer = z.infer<typeof quickAnswerSchema>

/** What a line comes to of which only the wiring is left open. */
export const quickWaysSchema = z.strictObject({
  asks: z.string(),
  ways: z.array(z.strictObject({
    line: z.string().describe('as it is typed'), loadOhm: number, powerW: number, mostW: number, grade: z.enum(['good', 'tight', 'stop', 'unknown']),
  })),
})

/** The answer to a line, or every way to wire it. @throws InputError */
export function quickAnswerOrWays(text: string): QuickAnswer | z.infer<typeof quickWaysSchema> {
  try {
    return quickAnswer(text)
  }
  catch (error) {
    if (!(error instanceof UndecidedError)) throw error
    const ways = waysOf(error.count, error.item, error.line.rating, error.line.over)
    return tidy({
      asks: error.message, ways: ways.map(way => ({ line: withWay(error, way), loadOhm: way.loadOhm, powerW: way.powerW, mostW: way.mostW, grade: way.grade })),
    })
  }
}

export function quickAnswer(text: string): QuickAnswer {
  const { evaluation: e, job } = quick(text)
  const match = powerMatch(e, job.practice, job.kinds, PLAYED[0]!)
  return tidy({
    kind: e.kind, grade: e.grade, loadOhm: e.loadOhm, minimumOhm: e.lowest?.ohm ?? null,
    tapsW: e.tapsW, drawW: e.drawW, lineV: e.lineV, amplifierW: e.amplifierW, mostW: e.mostW,
    ...valveSaid(e, job),
    members: e.drops.map(({ label, ohm, powerW, share, nodeId }) => ({ label, ohm, powerW, share,
      levelDb: match?.members.find(m => m.nodeId === nodeId)?.levelDb ?? null })),
    levelDb: match?.levelDb ?? null,
    required: requiredOf(e), findings: findingsOf(e),
  })
}
