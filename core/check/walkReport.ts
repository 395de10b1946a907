import { z } from 'zod'
import type { Job } from '#core/job/schema'
import { PHASES, READING_KINDS } from '#core/job/sections/readings/kinds'
import { amplifierFor, phaseOf } from './walk'
import { walkOfJob, type WalkOrder } from './walkOrder'
import { KIND_WORDS } from './words'

/** The walk over a whole job: every reading that it asks for, in the phases of the work. */

const number = z.number().nullable()
export const walkReportSchema = z.strictObject({
  steps: z.array(z.strictObject({
    phase: z.enum(PHASES), place: z.string(), kind: z.enum(READING_KINDS),
    low: number, expected: number, high: number, unit: z.literal('Ω').nullable().describe('null: it is seen or heard'),
    how: z.string().describe('the step that matters'), amplifier: z.enum(['off', 'on']),
  })),
})
export type WalkReport = z.infer<typeof walkReportSchema>

export function walkReport(job: Job, by: WalkOrder): WalkReport {
  return {
    steps: walkOfJob(job, by).map(({ stop: { kind, speaker }, proof, output: { label } }) => {
      const plan = proof.foretold(kind, speaker?.id ?? null)
      const isMeasured = plan !== null && kind !== 'sound'
      return {
        phase: phaseOf({ kind }), place: speaker ? `${label} ${speaker.label}` : `${label}, at the rack`, kind,
        low: isMeasured ? plan.low : null, expected: isMeasured ? plan.expected : null, high: isMeasured ? plan.high : null, unit: isMeasured ? 'Ω' : null,
        how: KIND_WORDS[kind].steps[0]!, amplifier: amplifierFor(kind),
      }
    }),
  }
}
