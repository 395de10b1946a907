import { z } from 'zod'
import { idText } from '#core/quantity/fields'
import { index, setter } from '../../fields'
import { defineShape } from '../shape'
import { measuredSchema, MOST_SPACES, spaceFields, spaceSchema, spotFields, spotSchema } from './schema'

const inSpace = { spaceId: idText }

export const spaces = defineShape({
  name: 'spaces',
  fields: { spaces: z.array(spaceSchema).max(MOST_SPACES) },
  empty: { spaces: [] },
  edits: [
    z.strictObject({ kind: z.literal('space.add'), index, space: spaceSchema }),
    /** With its places and what was measured there; the speakers on the rails stay. */
    z.strictObject({ kind: z.literal('space.remove'), ...inSpace, was: spaceSchema.nullable() }),
    z.strictObject({ kind: z.literal('space.set'), ...inSpace, ...setter(spaceFields) }),
    z.strictObject({ kind: z.literal('spot.add'), ...inSpace, index, spot: spotSchema }),
    z.strictObject({ kind: z.literal('spot.remove'), ...inSpace, spotId: idText, was: spotSchema.nullable() }),
    z.strictObject({ kind: z.literal('spot.set'), ...inSpace, spotId: idText, ...setter(spotFields) }),
    z.strictObject({ kind: z.literal('measured.add'), ...inSpace, index, measured: measuredSchema }),
    z.strictObject({ kind: z.literal('measured.remove'), ...inSpace, measuredId: idText, was: measuredSchema.nullable() }),
  ],
  things: ['space', 'place', 'measured level'],
  grows: null,
})
