import { z } from 'zod'
import { setter } from '../../fields'
import { defineShape } from '../shape'
import { DEFAULT_PRACTICE, practiceSchema } from './schema'

export const practice = defineShape({
  name: 'practice',
  fields: { practice: practiceSchema },
  empty: { practice: DEFAULT_PRACTICE },
  edits: [z.strictObject({ kind: z.literal('practice.set'), ...setter(practiceSchema.shape) })],
  things: [],
  grows: null,
})
