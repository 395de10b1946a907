import { z } from 'zod'
import { setter } from '../../fields'
import { defineShape } from '../shape'
import { detailFields } from './schema'

export const details = defineShape({
  name: 'details',
  fields: detailFields,
  empty: { name: '', note: '', units: null },
  edits: [z.strictObject({ kind: z.literal('job.set'), ...setter(detailFields) })],
  things: [],
  grows: null,
})
