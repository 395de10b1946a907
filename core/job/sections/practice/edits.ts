import { z } from 'zod'
import { setter } from '../../fields'
import { practiceSchema } from './schema'

export const practiceEdits = [
  z.strictObject({ kind: z.literal('practice.set'), ...setter(practiceSchema.shape) }),
] as const
