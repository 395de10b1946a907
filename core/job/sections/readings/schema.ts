import { z } from 'zod'
import { bounded, idText, instant, noteText } from '../../fields'
import { JobError } from '../../jobError'

/** What was read in the field. Never changed: a wrong reading is superseded, once; an undone one is marked withdrawn. */

export const READING_KINDS = ['line-impedance', 'line-dcr', 'coil-dcr', 'sound'] as const
export const MOST_READINGS = 50_000

export const valueSchema = z.discriminatedUnion('is', [
  z.strictObject({ is: z.literal('ohm'), ohm: bounded('Ω', 0, 100e6) }),
  z.strictObject({ is: z.literal('open') }),
  z.strictObject({ is: z.literal('plays') }),
  z.strictObject({ is: z.literal('silent') }),
])
export const readingSchema = z.strictObject({
  id: idText,
  at: instant,
  kind: z.enum(READING_KINDS),
  outputId: idText,
  /** The speaker read at; null is the head of the line. */
  nodeId: idText.nullable(),
  value: valueSchema,
  note: noteText,
  /** The earlier reading of the same place and kind that this one says was wrong. */
  supersedes: idText.nullable(),
  /** Taken back (undo); kept in the history. */
  withdrawn: z.boolean(),
})
export type Reading = z.infer<typeof readingSchema>
export type ReadingKind = Reading['kind']
export type ReadingValue = Reading['value']

/** Read at the head of a line, not at a speaker. */
export function isReadAtHead(kind: ReadingKind): boolean {
  return kind === 'line-impedance' || kind === 'line-dcr'
}

/** A reading's kind, value and place must go together. @throws JobError */
export function checkValue({ kind, value, nodeId }: Pick<Reading, 'kind' | 'value' | 'nodeId'>, path: string): void {
  const heard = value.is === 'plays' || value.is === 'silent'
  if ((kind === 'sound') !== heard) {
    throw new JobError(`A reading of kind ${kind} cannot be “${value.is}”.`, `${path}.value`, kind === 'sound' ? ['plays', 'silent'] : ['ohm', 'open'])
  }
  if (isReadAtHead(kind) !== (nodeId === null)) {
    throw new JobError(isReadAtHead(kind) ? 'A line is read at its head, not at a speaker.' : 'This reading needs its speaker.', `${path}.nodeId`)
  }
}

/** One place and one kind: the readings among which one stands. */
export function isSamePlace(a: Reading, b: Reading): boolean {
  return a.outputId === b.outputId && a.nodeId === b.nodeId && a.kind === b.kind
}
