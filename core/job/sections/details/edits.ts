import { z } from 'zod'
import { setter } from '../../fields'
import { detailFields } from './schema'

export const detailEdits = [
  z.strictObject({ kind: z.literal('job.set'), ...setter(detailFields) }),
] as const
