import { z } from 'zod'
import { jobSchema } from '#core/job/schema'
import { exerciseFileSchema, playFileSchema } from '#core/practice/files'
import { GEAR_KINDS, MODEL_SCHEMAS } from '#core/gear/models'
import { VERBS } from '../../cli/verbs'

/** JSON Schema of everything that leaves or enters as a file, by its name in docs/schemas: of the job, of gear, and of what each verb answers. */
export function schemaFiles(): Record<string, string> {
  const write = (schema: z.ZodType) => JSON.stringify(z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' }), null, 2) + '\n'
  return {
    'job.schema.json': write(jobSchema),
    'exercise.schema.json': write(exerciseFileSchema),
    'play.schema.json': write(playFileSchema),
    ...Object.fromEntries(Object.entries(VERBS).map(([name, verb]) => [`${name === 'gear' ? 'gear-check' : name}.schema.json`, write(verb.answer)])),
    ...Object.fromEntries(GEAR_KINDS.map(kind => [`gear-${kind}.schema.json`, write(MODEL_SCHEMAS[kind])])),
  }
}
