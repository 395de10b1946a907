import { z } from 'zod'
import type { Fault } from '#core/faults/fault'
import { FAULT_KINDS } from '#core/job/sections/repairs/schema'
import { outputSchema } from '#core/job/sections/wiring/schema'
import { speakersOf } from '#core/job/tree'
import { bounded, idText, instant, nameText, plainText, watt } from '#core/quantity/fields'
import { hashOf } from '#core/quantity/hash'
import { InputError } from '#core/quantity/inputError'
import { PRACTICE_TOOLS } from './places'
import type { Exercise } from './exercises'
import { actSchema, playOf, sumOf, type Sum } from './game'
import { candidatesOf, isIt, rigFrom, type Rig } from './rig'

/** An exercise that somebody made, and a play that came back, as open JSON. */

export const EXERCISE_FORMAT = 'plain-match-exercise'
export const PLAY_FORMAT = 'plain-match-play'
/** Most that a line of an exercise may hold, and most acts of a play. */
export const MOST_SPEAKERS = 60
export const MOST_ACTS = 500

const faultSchema = z.strictObject({
  kind: z.enum(FAULT_KINDS), nodeId: idText.nullable(), tapW: watt.nullable(), way: z.enum(['up', 'down']).nullable(), amount: bounded('', 0, 1e9).nullable(), withId: idText.nullable(),
})
/** What counts: all of it, or tests alone, where minutes are not to be taught. */
export const COUNTED = ['minutes', 'tests'] as const

export const exerciseFileSchema = z.strictObject({
  format: z.literal(EXERCISE_FORMAT),
  version: z.literal(1),
  name: nameText,
  /** What is told before, and after. */
  before: plainText(500),
  after: plainText(500),
  /** The line that hangs there, as it is drawn. */
  line: outputSchema,
  /** What is hidden; null: drawn, by the seed. */
  hidden: z.array(faultSchema).min(1).max(2).nullable(),
  faults: z.union([z.literal(1), z.literal(2)]),
  /** The kinds that are told to be possible; null: any. */
  kinds: z.array(z.enum(FAULT_KINDS)).min(1).nullable(),
  /** Tools that are not at hand. */
  without: z.array(z.enum(PRACTICE_TOOLS)),
  counts: z.enum(COUNTED),
  /** Units, meter and what is drawn follow from it. */
  seed: z.int().min(0).max(2 ** 31),
})
export type ExerciseFile = z.infer<typeof exerciseFileSchema>

export const playFileSchema = z.strictObject({
  format: z.literal(PLAY_FORMAT),
  /** 2: with walks by the pulse. All that 1 could say is said so in 2. */
  version: z.union([z.literal(1), z.literal(2)]),
  /** Of which rig: its code. */
  code: z.string().max(40),
  /** The exercise that somebody made; null: one of the fifteen. */
  exercise: exerciseFileSchema.nullable(),
  who: plainText(80),
  at: instant,
  acts: z.array(actSchema).max(MOST_ACTS),
})
export type PlayFile = z.infer<typeof playFileSchema>

/** @throws InputError with where and what */
function parsed<T>(schema: z.ZodType<T>, text: string, what: string): T {
  let data: unknown
  try {
    data = JSON.parse(text)
  }
  catch {
    throw new InputError(`This is no ${what}: it is not JSON.`, 0, [])
  }
  const read = schema.safeParse(data)
  if (read.success) return read.data
  const [issue] = read.error.issues
  throw new InputError(`This is no ${what} that can be read: at “${issue!.path.join('.') || 'the beginning'}”, ${issue!.message}.`, 0, [])
}

/** @throws InputError */
export function readExercise(text: string): ExerciseFile {
  const file = parsed(exerciseFileSchema, text, 'exercise')
  checkExercise(file)
  return file
}

/** The code of an own exercise: of all that is in it, so that two that differ are two. */
export const codeOfExercise = (file: ExerciseFile): string => `X-${hashOf(JSON.stringify(file)).toString(16).padStart(8, '0').toUpperCase()}`

/** @throws InputError where the line is too long, or cannot have what is hidden on it */
export function checkExercise(file: ExerciseFile): void {
  const count = speakersOf(file.line.wiring).length
  if (count === 0 || count > MOST_SPEAKERS) throw new InputError(`An exercise has 1 to ${MOST_SPEAKERS} speakers; this line has ${count}.`, 0, [])
  if (file.hidden === null) {
    rigOfFile(file)
    return
  }
  if (file.hidden.length !== file.faults) throw new InputError(`${file.faults} are told to be hidden, and ${file.hidden.length} are.`, 0, [])
  const may = candidatesOf({ line: file.line, kinds: null })
  for (const fault of file.hidden) {
    if (!may.some(f => isIt([f], [fault]))) throw new InputError(`This line cannot have “${fault.kind}” there.`, 0, [])
    if (file.kinds && !file.kinds.includes(fault.kind)) throw new InputError(`“${fault.kind}” is hidden and not among the kinds that are told.`, 0, [])
  }
}

const exerciseOf = ({ name, before, after, faults, kinds, line, without }: ExerciseFile): Exercise => ({ name, before, after, faults, kinds, line, without })
/** @throws InputError where nothing can be hidden on its line */
export const rigOfFile = (file: ExerciseFile): Rig => rigFrom(exerciseOf(file), codeOfExercise(file), file.hidden && file.hidden.map(withSize(file)))

/** What was chosen by kind and place is of the size that the catalogue has there. */
const withSize = (file: ExerciseFile) => (fault: Fault): Fault => {
  const all = candidatesOf({ line: file.line, kinds: [fault.kind] }).filter(f => f.nodeId === fault.nodeId)
  return all.find(f => f.tapW === fault.tapW && f.way === fault.way && f.amount === fault.amount && f.withId === fault.withId) ?? all[0] ?? fault
}

/** A play that came back, played again here: nothing of it is taken on trust. @throws InputError */
export function readPlay(text: string, rigOfCode: (code: string) => Rig): { file: PlayFile, rig: Rig, sum: Sum } {
  const file = parsed(playFileSchema, text, 'play')
  if (file.exercise && codeOfExercise(file.exercise) !== file.code) throw new InputError('Its exercise is not the one that its code says: it was changed.', 0, [])
  if (file.exercise) checkExercise(file.exercise)
  const rig = file.exercise ? rigOfFile(file.exercise) : rigOfCode(file.code)
  return { file, rig, sum: sumOf(playOf(rig, file.acts)) }
}
