import { z } from 'zod'
import { instant } from '#core/quantity/fields'
import { MISTAKES } from './game'

/** A play that came to an end, as it is kept with the person. */
export const resultSchema = z.strictObject({
  code: z.string().max(40),
  at: instant,
  minutes: z.number(), tests: z.int(), ladders: z.int(), mistakes: z.int(), risks: z.int(), isFound: z.boolean(), isNamed: z.boolean(),
  /** Minutes of the best there; null: it was not worked out yet. */
  bestMinutes: z.number().nullable(),
  worst: z.enum(MISTAKES).nullable(),
})
export type Result = z.infer<typeof resultSchema>

/** The last so many: what is older is progress no more. */
export const MOST_RESULTS = 300
