import { z } from 'zod'
import { bounded, idText, instant, nameText, ohm, plainText, watt } from '#core/quantity/fields'
import { photoHash, MOST_PHOTO_PX } from '../photos/schema'

/**
 * Tickets of the bench: one unit each, from the complaint to the sound. A ticket is what was written on it, a row each, and never changed: what was wrong is
 * taken back, and what was said later counts. So two windows that write on one ticket at once are both right.
 */
export const MOST_TICKET_ENTRIES = 100_000

/** What stands on the bench. It says which cautions hold, and which of the questions are asked. */
export const UNIT_KINDS = ['speaker', 'handset', 'headphone', 'talk-back', 'megaphone', 'radio', 'saddle-speaker', 'cabinet', 'something-else'] as const
export const TICKET_STATES = ['came-in', 'waits', 'on-test', 'again', 'gone-out'] as const

const says = (most: number) => plainText(most)
const mm = bounded('mm', 1, 5000)
const lead = bounded('Ω', 0, 100)
const count = z.int().min(1, 'must be at least 1').max(99, 'must be at most 99')
export const day = z.iso.date('must be a day, as 2026-05-04').max(10)

/** What is known of the unit as it came in. */
export const headFields = {
  unit: nameText,
  kind: z.enum(UNIT_KINDS),
  /** What its label says; null: nothing that can be read. */
  labelOhm: ohm.nullable(),
  labelW: watt.nullable(),
  /** Its body as measured, for what takes its place; null: not measured. */
  frameMm: mm.nullable(),
  cutOutMm: mm.nullable(),
  depthMm: mm.nullable(),
  magnetMm: mm.nullable(),
  sensitivityDb: bounded('dB', 40, 130).nullable(),
  /** Its hole pattern, and how plus is marked at its tabs; '': not looked at. */
  holes: says(120),
  plusMark: says(80),
  /** The owner's words. */
  complaint: says(500),
  /** What everybody says it is. Kept beside the tests, which decide. */
  folklore: says(500),
  /** The tag of a job that it was taken down from; null: it came by itself. */
  from: z.strictObject({ jobId: idText, nodeId: idText, says: says(200) }).nullable(),
}
/** Of which nothing is known yet. */
export const UNMEASURED = { labelOhm: null, labelW: null, frameMm: null, cutOutMm: null, depthMm: null, magnetMm: null, sensitivityDb: null, holes: '', plusMark: '' } as const
export const headSchema = z.strictObject(headFields)
export type TicketHead = z.infer<typeof headSchema>

/** Which one is it: each question with its answers. */
export const ANSWERS = {
  plays: ['plays', 'thin', 'scratchy', 'comes-and-goes', 'silent'],
  twin: ['twin-plays', 'both-the-same'],
  swap: ['follows-the-unit', 'stays-with-the-lead'],
  wiggle: ['cuts-in-and-out', 'nothing-changes'],
  cone: ['moves-freely', 'rubs', 'stuck'],
  look: ['looks-whole', 'torn', 'loose-lead-out', 'green-contact'],
} as const
export type Question = keyof typeof ANSWERS
export const QUESTIONS = Object.keys(ANSWERS) as Question[]
const answers = QUESTIONS.map(to => z.strictObject({ is: z.literal('answer'), to: z.literal(to), answer: z.enum(ANSWERS[to] as readonly [string, ...string[]]) }))

export const PART_KINDS = ['screw', 'clip', 'bushing', 'wire', 'way-round', 'other'] as const
export const OPENING_STEPS = ['off', 'unplugged', 'battery-off', 'discharged'] as const
export const READ_OF = ['coil', 'lead', 'contact'] as const
/** Which of them: the one that was brought, its sound twin, the one that takes its place. */
export const WHICH_UNITS = ['this', 'twin', 'new'] as const
export const CONDITIONS = ['as-it-lay', 'warm', 'cold', 'pressed', 'wiggled'] as const
export const PLUS_WAYS = ['battery', 'millivolts', 'pulse', 'mark'] as const
/** What was seen, each by its way: the cone to a battery, the meter's sign, the tester's light; the maker's mark is a word and no proof. */
export const PLUS_SEEN = ['cone-out', 'cone-in', 'positive', 'negative', 'not-seen'] as const
export const CLOSING_CHECKS = ['power', 'listen', 'balance', 'polarity', 'level', 'snug', 'closed', 'listen-again', 'label'] as const
export const RUNS = ['baseline', 'unknown'] as const

const celsius = bounded('°C', -40, 300)
const whatSchema = z.discriminatedUnion('is', [
  z.strictObject({ is: z.literal('opened'), head: headSchema }),
  /** What was found to be otherwise, of what is known of it. */
  z.strictObject({ is: z.literal('told'), to: headSchema.partial() }),
  z.strictObject({ is: z.literal('state'), state: z.enum(TICKET_STATES), on: day.nullable(), as: z.enum(['proved', 'left-so']).nullable(), reason: says(500) }),
  z.strictObject({ is: z.literal('said'), as: z.enum(['found', 'done', 'left']), text: says(1000).refine(text => text.trim() !== '', 'must say something') }),
  z.discriminatedUnion('to', answers as [typeof answers[number], ...typeof answers]),
  z.strictObject({ is: z.literal('part'), kind: z.enum(PART_KINDS), name: nameText, count, place: says(120) }),
  /** So many of a part went back in. */
  z.strictObject({ is: z.literal('back'), partId: idText, count: z.int().min(0).max(99) }),
  z.strictObject({ is: z.literal('step'), step: z.enum(OPENING_STEPS) }),
  /** ohm null: open. */
  z.strictObject({ is: z.literal('reading'), of: z.enum(READ_OF), unit: z.enum(WHICH_UNITS), ohm: bounded('Ω', 0, 100e6).nullable(), condition: z.enum(CONDITIONS), meter: says(60), leadsOhm: lead.nullable() }),
  z.strictObject({ is: z.literal('plus'), unit: z.enum(['this', 'new']), by: z.enum(PLUS_WAYS), seen: z.enum(PLUS_SEEN), note: says(200) }),
  z.strictObject({ is: z.literal('fit'), name: nameText, nominalOhm: ohm.nullable(), drawerId: idText.nullable(), capacitor: z.enum(['none', 'kept', 'changed', 'taken-out']), note: says(300) }),
  z.strictObject({ is: z.literal('check'), check: z.enum(CLOSING_CHECKS), isRight: z.boolean(), note: says(300) }),
  z.strictObject({ is: z.literal('run'), run: z.enum(RUNS), limitC: celsius.nullable(), note: says(200) }),
  z.strictObject({ is: z.literal('warm'), runId: idText, minute: bounded('min', 0, 1440), celsius }),
  /** The louder-tap test: how loud at one tap against the one that it began with. */
  z.strictObject({ is: z.literal('tap'), tapOhm: ohm, heard: z.enum(['first', 'louder', 'same', 'quieter', 'trouble']) }),
  z.strictObject({ is: z.literal('photo'), hash: photoHash, widthPx: z.int().min(1).max(MOST_PHOTO_PX), heightPx: z.int().min(1).max(MOST_PHOTO_PX), caption: says(200) }),
])
export type Written = z.infer<typeof whatSchema>
/** What was written, in a word or two. */
export const WRITTEN_SHORT: Record<Written['is'], string> = {
  opened: 'opened', told: 'what is known of it', state: 'where it stands', said: 'found, done, left', answer: 'an answer', part: 'a part out', back: 'a part in again', step: 'off and unplugged',
  reading: 'a reading', plus: 'which tab is plus', fit: 'what goes in', check: 'a check', run: 'a run', warm: 'a temperature', tap: 'the louder tap', photo: 'a photo',
}

export const ticketEntrySchema = z.strictObject({
  id: idText,
  at: instant,
  /** The ticket that it stands on: the id of the entry that opened it. */
  ticketId: idText,
  what: whatSchema,
  /** The person who wrote it; null while nobody has signed in. */
  who: idText.nullable(),
  withdrawn: z.boolean(),
})
export type TicketEntry = z.infer<typeof ticketEntrySchema>
