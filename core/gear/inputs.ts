import { z } from 'zod'

/** What may come in, by the level that it brings: a microphone's millivolts, a player's music, a line of a mixer or of another room. */
export const SOURCE_KINDS = ['microphone', 'media', 'line'] as const
export type SourceKind = typeof SOURCE_KINDS[number]
export const sourceKind = z.enum(SOURCE_KINDS)

/** What one input takes: several where a switch chooses; empty is not stated. */
export const takesSchema = z.array(sourceKind).max(SOURCE_KINDS.length).refine(takes => new Set(takes).size === takes.length, 'names one twice')

/**
 * Equal inputs of an amplifier or a mixer. `isOver`: what comes in there puts the others down while it speaks; null is not stated.
 */
export const inputGroupsSchema = z.array(z.strictObject({
  count: z.int().min(1).max(200), takes: takesSchema.min(1, 'must say what they take'), isOver: z.boolean().nullable(),
})).max(20)
export type InputGroup = z.infer<typeof inputGroupsSchema>[number]
