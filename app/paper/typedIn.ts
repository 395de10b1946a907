import { SOUND_WORDS } from '#core/check/words'
import type { Output, Reading, ReadingKind, ReadingValue, Speaker } from '#core/job/schema'
import { howFacts } from '#core/job/sections/readings/hows'
import { factsOf } from '#core/job/sections/readings/kinds'
import { SOUNDS, type Sound } from '#core/job/sections/readings/schema'
import { InputError } from '#core/quantity/inputError'
import { readQuantity } from '#core/quantity/read'
import { neighboursOf, usualHow } from '~/stations/check/polarityTaken'
import { saysOpen } from '~/stations/check/taken'

/** What somebody wrote on the sheet of the walk, typed in as it stands there. */

const YES = /^(✓|v|y|yes|ok|right|r)$/i
const TURNED = /^(x|✕|reversed|turned|turned round|wrong|n|no)$/i
const UNSURE = /^(\?|cannot tell|unsure)$/i
const SOUND_OF = new Map<string, Sound>(SOUNDS.map(is => [SOUND_WORDS[is], is]))

export interface WrittenAt { kind: ReadingKind, output: Output, speaker: Speaker | null }
/** How which way round it is was found out, for the whole sheet; undefined: as is usual at each place. */
export interface WrittenHow { 'polarity'?: string, 'polarity-heard'?: string }

/** @throws InputError for what means nothing here, with what would */
export function readWritten(text: string, at: WrittenAt, how: WrittenHow = {}): ReadingValue {
  const written = text.trim()
  switch (factsOf(at.kind).value) {
    case 'heard': return { is: soundOf(written) }
    case 'turned': return turnedOf(written, at, how)
    default: return saysOpen(written) ? { is: 'open' } : { is: 'ohm', ohm: readQuantity('resistance', written) }
  }
}

function soundOf(written: string): Sound {
  const named = SOUND_OF.get(written.toLowerCase())
  if (named) return named
  if (YES.test(written)) return 'plays'
  if (TURNED.test(written)) return 'silent'
  throw new InputError(`“${written}” is not what is heard.`, 0, ['plays', 'silent', 'scratchy'])
}

function turnedOf(written: string, { kind, output, speaker }: WrittenAt, how: WrittenHow): ReadingValue {
  const is = YES.test(written) ? 'right-way' : TURNED.test(written) ? 'reversed' : UNSURE.test(written) ? 'cannot-tell' : null
  if (is === null || !speaker) throw new InputError(`“${written}” does not say which way round.`, 0, ['right', 'turned', '?'])
  const of = kind as 'polarity' | 'polarity-heard'
  const neighbours = neighboursOf(output, speaker.id)
  const by = usualHow(how[of], of, { output, speaker, hasNeighbour: neighbours.length > 0 })
  return { is, how: by, against: howFacts(by).proves === 'agreement' ? neighbours[0]?.id ?? null : null }
}

/**
 * When it was read: on the day that stands on the sheet, in the order of the sheet. Of today it is now; of an earlier day its noon, for the hour is not known.
 * @param day as 2026-05-04; '' for today
 * @throws InputError for a day that is none, or has not come yet
 */
export function writtenAt(day: string, no: number, now: Date): string {
  const today = now.toISOString().slice(0, 10)
  if (day === '' || day === today) return now.toISOString()
  const at = Date.parse(`${day}T12:00:00.000Z`)
  if (!/^\d{4}-\d\d-\d\d$/.test(day) || Number.isNaN(at) || new Date(at).toISOString().slice(0, 10) !== day) throw new InputError(`“${day}” is no day.`, 0, ['2026-05-04'])
  if (day > today) throw new InputError(`${day} has not come yet.`, 0, [today])
  return new Date(at + no).toISOString()
}

export interface WrittenWith { taken: Reading['taken'], who: string | null, note: string, at: string, id: string }
export function readingOf(value: ReadingValue, { kind, output, speaker }: WrittenAt, { taken, who, note, at, id }: WrittenWith): Reading {
  return { id, at, kind, outputId: output.id, nodeId: speaker?.id ?? null, value, note, frequencyHz: null, supersedes: null, taken, who, withdrawn: false }
}
