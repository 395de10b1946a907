import { z } from 'zod'

/** Which readings this job asks for before it counts as proved, and when somebody is to come again. */

/** Of every speaker, of a few of each line, of none. */
export const ASKED_OF = ['every', 'samples', 'none'] as const
/** Which way round: of speakers that are heard together with others, of every one, of none. */
export const POLARITY_ASKED_OF = ['together', 'every', 'none'] as const
/** Bare pairs, before speakers hang. */
export const PAIRS_ASKED_OF = ['every', 'none'] as const

export const checkFields = {
  coils: z.enum(ASKED_OF),
  sounds: z.enum(ASKED_OF),
  polarity: z.enum(POLARITY_ASKED_OF),
  pairs: z.enum(PAIRS_ASKED_OF),
  /** The day on which all is to be looked at again; null: none. */
  again: z.iso.date('must be a day, as 2026-05-04').nullable(),
}
export const checksSchema = z.strictObject(checkFields)
export type Checks = z.infer<typeof checksSchema>

/** What earlier versions asked for, and which way round besides: a speaker turned round reads the right ohms, and plays. */
export const DEFAULT_CHECKS: Checks = { coils: 'every', sounds: 'every', polarity: 'together', pairs: 'none', again: null }
