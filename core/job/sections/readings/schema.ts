import { z } from 'zod'
import { lineV, tapW } from '#core/gear/load'
import { bounded, idText, instant, noteText, plainText } from '#core/quantity/fields'
import { JobError } from '../../jobError'
import { FAULT_KINDS } from '../repairs/schema'
import { howFacts, POLARITY_HOWS, TURNED } from './hows'
import { factsOf, isReadAtHead, READING_KINDS } from './kinds'

/** What was read in the field. Never changed: a wrong reading is superseded, once; an undone one is marked withdrawn. */

export const MOST_READINGS = 50_000

/** What is heard under a speaker. Beside plays and silent: it plays, but not as it should; kept as it was heard. */
export const SOUNDS = ['plays', 'silent', 'scratchy', 'thin', 'quiet', 'hum', 'comes-and-goes'] as const
export type Sound = typeof SOUNDS[number]
/** How loud it is beside one that should be as loud. */
export const LOUDNESS = ['louder', 'alike', 'quieter'] as const
export type Loudness = typeof LOUDNESS[number]

/** What was seen where somebody looked: nothing amiss, or a fault. */
export const SEEN = ['as-it-should', 'seen'] as const
/** A unit changed for another: what was wrong went with it, or stayed at its place. */
export const SWAPPED = ['goes-with-it', 'stays'] as const
export type Swapped = typeof SWAPPED[number]

/** How a level was weighted, and of what it was taken: without both it is no figure to compare. */
export const WEIGHTINGS = ['A', 'C', 'Z'] as const
export const LEVEL_SIGNALS = ['pink-noise', 'speech-noise', 'tone-1k', 'programme'] as const
export type LevelSignal = typeof LEVEL_SIGNALS[number]

export const valueSchema = z.discriminatedUnion('is', [
  z.strictObject({ is: z.literal('ohm'), ohm: bounded('Ω', 0, 100e6) }),
  z.strictObject({ is: z.literal('open') }),
  z.strictObject({ is: z.enum(SOUNDS) }),
  /** `against`: the speaker that it was heard beside; null where it was proved by itself. */
  z.strictObject({ is: z.literal('tap'), tapW: z.union([z.literal(0), tapW]), ratedV: lineV }),
  z.strictObject({ is: z.literal('volts-amps'), volts: bounded('V', 0.001, 2000), amps: bounded('A', 0.0001, 1000) }),
  /** Beside another speaker that should be as loud. */
  z.strictObject({ is: z.enum(LOUDNESS), besideId: idText }),
  /** Sound level at ears under it. `headV`: volts at the head of the line meanwhile; null: not read. */
  z.strictObject({ is: z.literal('level'), db: bounded('dB', 20, 150), weighting: z.enum(WEIGHTINGS), signal: z.enum(LEVEL_SIGNALS), headV: bounded('V', 0.001, 2000).nullable() }),
  z.strictObject({ is: z.literal('as-it-should') }),
  z.strictObject({ is: z.literal('seen'), fault: z.enum(FAULT_KINDS) }),
  /** `withId`: the speaker that it changed places with; null: a unit that is known to be good. */
  z.strictObject({ is: z.enum(SWAPPED), withId: idText.nullable() }),
  z.strictObject({ is: z.enum(TURNED), how: z.enum(POLARITY_HOWS), against: idText.nullable() }),
])
export const readingSchema = z.strictObject({
  id: idText,
  at: instant,
  kind: z.enum(READING_KINDS),
  outputId: idText,
  /** The speaker read at, or where somebody looked what a group hangs behind; null is the head of the line. */
  nodeId: idText.nullable(),
  value: valueSchema,
  /** The meter's tone, Hz; null where it is not stated (1 kHz is taken), and of what is not measured with a tone. */
  frequencyHz: bounded('Hz', 20, 20_000).nullable(),
  note: noteText,
  /** The earlier reading of the same place and kind that this one says was wrong. */
  supersedes: idText.nullable(),
  /**
   * Who read it, with which meter, and what the meter's own leads read, Ω: that has been taken off the value already; 0 is nulled before,
   * null not stated. Null as a whole where nothing of it was said.
   */
  taken: z.strictObject({ by: plainText(80), meter: plainText(80), leadsOhm: bounded('Ω', 0, 10).nullable() }).nullable(),
  /** The person who took it; null while nobody has signed in. */
  who: idText.nullable(),
  /** Taken back (undo); kept in the history. */
  withdrawn: z.boolean(),
})
export type Reading = z.infer<typeof readingSchema>
export type ReadingValue = Reading['value']
export type * from './kinds'
export type * from './hows'

const VALUES = { 'ohm': ['ohm', 'open'], 'heard': SOUNDS, 'turned': TURNED, 'tap': ['tap'], 'volts-amps': ['volts-amps'], 'beside': LOUDNESS, 'level': ['level'], 'seen': SEEN, 'swapped': SWAPPED } as const
function shapeOf(value: z.infer<typeof valueSchema>): keyof typeof VALUES {
  if ('how' in value) return 'turned'
  if ('besideId' in value) return 'beside'
  if ('withId' in value) return 'swapped'
  if (value.is === 'as-it-should' || value.is === 'seen') return 'seen'
  return value.is === 'ohm' || value.is === 'open' ? 'ohm' : value.is === 'tap' || value.is === 'volts-amps' || value.is === 'level' ? value.is : 'heard'
}

/** A reading's kind, value and place must go together. @throws JobError */
export function checkValue({ kind, value, nodeId, frequencyHz }: Pick<Reading, 'kind' | 'value' | 'nodeId' | 'frequencyHz'>, path: string): void {
  const wanted = factsOf(kind).value
  if (wanted !== shapeOf(value)) throw new JobError(`A reading of kind ${kind} cannot be “${value.is}”.`, `${path}.value`, [...VALUES[wanted]])
  if ('how' in value) {
    if (howFacts(value.how).kind !== kind) throw new JobError(`A reading of kind ${kind} is not taken by ${value.how}.`, `${path}.value.how`)
    if ((value.against !== null) !== (howFacts(value.how).proves === 'agreement')) {
      throw new JobError(value.against === null ? 'Heard beside another speaker, but not beside which.' : `By ${value.how} a speaker is proved by itself, not beside another.`, `${path}.value.against`)
    }
  }
  if (frequencyHz !== null && !factsOf(kind).isOfTone) throw new JobError(`A reading of kind ${kind} has no frequency.`, `${path}.frequencyHz`)
  if (factsOf(kind).at !== 'anywhere' && isReadAtHead(kind) !== (nodeId === null)) {
    throw new JobError(isReadAtHead(kind) ? 'A line is read at its head, not at a speaker.' : 'This reading needs its speaker.', `${path}.nodeId`)
  }
}

/** One place and one kind: the readings among which one stands. */
export function isSamePlace(a: Reading, b: Reading): boolean {
  return a.outputId === b.outputId && a.nodeId === b.nodeId && a.kind === b.kind
}
