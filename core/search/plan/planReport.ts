import { z } from 'zod'
import type { TapPlan } from './tapPlan'

const watt = z.number()
/** What the command line says of a plan of taps; the JSON Schema is made of it. */
export const planReportSchema = z.strictObject({
  feasible: z.boolean().describe('every space reaches its target within every limit'),
  proven: z.boolean().describe('nothing draws less; where it cannot be done, nothing comes nearer'),
  totalW: watt.describe('what all planned speakers draw, W'),
  boundW: watt.describe('the least that any such plan draws, W'),
  taps: z.array(z.strictObject({ nodeId: z.string(), label: z.string(), line: z.string().describe('its output'), tapW: watt, wasW: watt })),
  spaces: z.array(z.strictObject({
    name: z.string(), targetDb: z.number(), reachedDb: z.number().describe('mean over the floor with these taps and what the cable then takes, dB SPL: direct sound, less what is kept for peaks'),
  })),
  limits: z.array(z.union([
    z.strictObject({ kind: z.enum(['line', 'control']), label: z.string(), needsW: watt.describe('what it would have to carry'), allowedW: watt }),
    z.strictObject({ kind: z.literal('taps'), label: z.string().describe('a space that no tap of its speakers brings to its target'), missingDb: z.number() }),
  ])).describe('where it cannot be done: the fewest limits that would have to give way'),
  left: z.array(z.strictObject({ name: z.string(), why: z.enum(['level-not-known', 'not-all-hang', 'no-taps', 'behind-transformer']) })).describe('spaces that keep their taps'),
})
export type PlanReport = z.infer<typeof planReportSchema>

export function planReport({ feasible, proven, totalW, boundW, taps, spaces, limits, left }: TapPlan): PlanReport {
  return { feasible, proven, totalW, boundW, taps, spaces: spaces.map(({ name, targetDb, reachedDb }) => ({ name, targetDb, reachedDb })), limits, left }
}
