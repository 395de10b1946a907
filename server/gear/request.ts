import { z } from 'zod'
import { GEAR_KINDS, MODEL_SCHEMAS, type GearKind, type Model } from '#core/gear/models'
import { MOST_MODELS } from '#core/gear/protocol'
import { problem } from '../http/problem'
import { jobIdSchema, refused } from '../http/route'

/** What a request about gear may say. */

export const kindSchema = z.enum(GEAR_KINDS)
export const newModels = z.strictObject({ models: z.array(z.strictObject({ id: jobIdSchema, kind: kindSchema, body: z.unknown() })).min(1).max(MOST_MODELS) })
  .superRefine(({ models }, context) => {
    const seen = new Set<string>()
    for (const [k, { id }] of models.entries()) {
      if (seen.has(id)) context.addIssue({ code: 'custom', path: ['models', k, 'id'], message: 'stands twice in this request' })
      seen.add(id)
    }
  })
export const retiring = z.strictObject({ ids: z.array(jobIdSchema).min(1).max(MOST_MODELS), retired: z.boolean() })

/** A body by the schema of its kind. Throws what is wrong and where. */
export function bodyOf(kind: GearKind, body: unknown, at: string): Model {
  const parsed = MODEL_SCHEMAS[kind].safeParse(body)
  if (!parsed.success) throw refused(parsed.error, at)
  return parsed.data
}

export const noSuchModel = () => problem(404, 'no-such-model', 'There is no such model in the library. It may be of another database.')
