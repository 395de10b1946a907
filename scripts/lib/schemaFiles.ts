import { z } from 'zod'
import { jobSchema } from '#core/job/schema'
import { gearCheckSchema } from '#core/gear/csv'
import { GEAR_KINDS, MODEL_SCHEMAS } from '#core/gear/models'
import { cableReportSchema } from '#core/match/cableSearch'
import { clipReportSchema } from '#core/programme/clip'
import { curveReportSchema } from '#core/format/curve'
import { reportSchema } from '#core/match/report'
import { coverReportSchema } from '#core/room/cover'
import { amplifiersReportSchema } from '#core/match/plan/amplifiersReport'
import { planReportSchema } from '#core/match/plan/planReport'
import { splitReportSchema } from '#core/match/plan/splitReport'
import { wiringsReportSchema } from '#core/match/wirings/report'
import { quickAnswerSchema } from '#core/quick/answer'

/** JSON Schema of everything that leaves or enters as a file, by its name in docs/schemas. */
export function schemaFiles(): Record<string, string> {
  const write = (schema: z.ZodType) => JSON.stringify(z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' }), null, 2) + '\n'
  return {
    'job.schema.json': write(jobSchema), 'quick.schema.json': write(quickAnswerSchema), 'evaluate.schema.json': write(reportSchema), 'cable.schema.json': write(cableReportSchema), 'cover.schema.json': write(coverReportSchema), 'plan.schema.json': write(planReportSchema), 'amplifiers.schema.json': write(amplifiersReportSchema), 'split.schema.json': write(splitReportSchema), 'wirings.schema.json': write(wiringsReportSchema), 'clip.schema.json': write(clipReportSchema), 'curve.schema.json': write(curveReportSchema), 'gear-check.schema.json': write(gearCheckSchema),
    ...Object.fromEntries(GEAR_KINDS.map(kind => [`gear-${kind}.schema.json`, write(MODEL_SCHEMAS[kind])])),
  }
}
