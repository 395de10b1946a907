import { z } from 'zod'
import { idText } from '#core/quantity/fields'
import { index, setter } from '../../fields'
import { defineShape } from '../shape'
import { amplifierFields, amplifierSchema, branchSchema, leadSchema, MOST_AMPLIFIERS, outputFields, outputSchema, speakerFields } from './schema'
import { throughSchema } from './through'

export const wiring = defineShape({
  name: 'wiring',
  fields: { amplifiers: z.array(amplifierSchema).max(MOST_AMPLIFIERS) },
  empty: { amplifiers: [] },
  edits: [
    z.strictObject({ kind: z.literal('amplifier.add'), index, amplifier: amplifierSchema }),
    /** `was`: all that it is, so that nothing that somebody else set meanwhile goes with it; null: not said. */
    z.strictObject({ kind: z.literal('amplifier.remove'), amplifierId: idText, was: amplifierSchema.nullable() }),
    z.strictObject({ kind: z.literal('amplifier.set'), amplifierId: idText, ...setter(amplifierFields) }),
    z.strictObject({ kind: z.literal('output.add'), amplifierId: idText, index, output: outputSchema }),
    z.strictObject({ kind: z.literal('output.remove'), outputId: idText, was: outputSchema.nullable() }),
    /** Takes an output, with its line and all that was read on it, to another amplifier; index counts among the outputs there once it is taken out. */
    z.strictObject({ kind: z.literal('output.move'), outputId: idText, amplifierId: idText, index }),
    z.strictObject({ kind: z.literal('output.set'), outputId: idText, ...setter(outputFields) }),
    /** parentId is a group or the root chain of an output. */
    z.strictObject({ kind: z.literal('node.add'), parentId: idText, index, branch: branchSchema }),
    z.strictObject({ kind: z.literal('node.remove'), nodeId: idText, was: branchSchema.nullable() }),
    /** index counts among the children that are there once the node is taken out. The lead goes with the node. */
    z.strictObject({ kind: z.literal('node.move'), nodeId: idText, parentId: idText, index }),
    z.strictObject({ kind: z.literal('speaker.set'), nodeId: idText, ...setter(speakerFields) }),
    z.strictObject({ kind: z.literal('lead.set'), nodeId: idText, was: leadSchema.nullable(), to: leadSchema.nullable() }),
    /** Puts a control or a transformer before a group, changes it, or takes it out; null is none. */
    z.strictObject({ kind: z.literal('through.set'), nodeId: idText, was: throughSchema.nullable(), to: throughSchema.nullable() }),
  ],
  things: ['amplifier', 'output', 'speaker', 'group'],
  grows: null,
})
