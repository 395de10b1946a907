import { z } from 'zod'
import { conductorSchema } from '#core/gear/conductor'
import { CONNECTOR_IDS } from '#core/gear/connector'
import { MOST_MEMBERS } from '#core/gear/load'
import { idText, plainText } from '#core/quantity/fields'
import { MOST_NODES } from '../wiring/schema'

/**
 * Which conductor goes where: of each lead its two conductors, how they are joined at its beginning and at its end. It is what is drawn,
 * never what was read. Entries go by the node that the lead ends at, so that the wiring tree stays what the solver takes.
 */

/** How a pair goes on through a joint: the first of it to the first of the next, or crossed. */
export const TURNS = ['straight', 'crossed'] as const
export type Turn = typeof TURNS[number]
const turn = z.enum(TURNS)

/** Two conductors. The first is not the plus one by standing first: which that is, the practice of the job says, and its exceptions. */
export const pairSchema = z.tuple([conductorSchema, conductorSchema])
export type Pair = z.infer<typeof pairSchema>

export const spliceFields = {
  /** The joint at the beginning of the lead, as people call it: "roof junction"; empty: it goes by where it lies. */
  joint: plainText(60),
  /** The conductors of the lead; null: nobody has said their colours. */
  pair: pairSchema.nullable(),
  /** At its beginning: against the pair before, or the terminals of the amplifier (plus first). Null is not known. */
  start: turn.nullable(),
  /** At its end: against the terminals there (plus first). Null is not known. */
  end: turn.nullable(),
  /** What it ends in there; null is not known. */
  connector: z.enum(CONNECTOR_IDS).nullable(),
  /** Of a unit of several coils or drivers, each against the terminals of the unit; null is not known. */
  coils: z.array(turn).min(2).max(MOST_MEMBERS).nullable(),
}
export const spliceSchema = z.strictObject({ nodeId: idText, ...spliceFields })
export type Splice = z.infer<typeof spliceSchema>
export type SpliceFields = Omit<Splice, 'nodeId'>
/** Of a lead of which nothing is said. */
export const UNSTATED_SPLICE: SpliceFields = { joint: '', pair: null, start: null, end: null, connector: null, coils: null }

/** Entries of speakers that are gone stay, so that bringing those back brings them back as they were. */
export const MOST_SPLICES = 2 * MOST_NODES

/** Pairs whose plus is otherwise than the practice of the job says, the plus first. */
export const MOST_EXCEPTIONS = 100
