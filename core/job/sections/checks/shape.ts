import { z } from 'zod'
import { setter } from '../../fields'
import { defineShape } from '../shape'
import { checkFields, checksSchema, DEFAULT_CHECKS } from './schema'

export const checks = defineShape({
  name: 'checks',
  fields: { checks: checksSchema },
  empty: { checks: DEFAULT_CHECKS },
  edits: [z.strictObject({ kind: z.literal('checks.set'), ...setter(checkFields) })],
  things: [],
  grows: null,
})
