import { FAULT_WORDS } from '#core/check/faultWords'
import { SWAPPED_WORDS } from '#core/check/lookedWords'
import { SOUND_WORDS, valueWords } from '#core/check/words'
import type { Fault } from '#core/faults/fault'
import { definitionOf } from '#core/faults/index'
import type { Sound, Speaker } from '#core/job/schema'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import type { AnswerOf, TestAt, TestKind, WalkFound, WalkHeard } from './next/test'
import type { Tool } from './next/minutes'

/** Faults, tests and answers as they are said. `nameOf`: what a place is called; null is the whole line. */

export type NameOf = (nodeId: string | null) => string

const WAYS = { up: 'it draws more than planned', down: 'it draws less than planned' } as const

/** One fault at its place, with what is known of it beside its kind. */
export function faultSays(fault: Fault, nameOf: NameOf, speaker: Speaker | null = null): string {
  const assumed = speaker ? definitionOf(fault.kind)?.assumes?.(speaker) ?? null : null
  const more = fault.tapW !== null ? `on ${writeQuantity(fault.tapW, 'W')}` : fault.way ? WAYS[fault.way] : fault.withId !== null ? `with ${nameOf(fault.withId)}` : assumed ?? ''
  return [FAULT_WORDS[fault.kind].at(nameOf(fault.nodeId)), more].filter(Boolean).join(': ')
}

/** What may be there; nothing is the line as drawn. */
export function faultsSay(faults: readonly Fault[], nameOf: NameOf): string {
  return faults.length === 0 ? 'Nothing: the line is as drawn' : faults.map(f => faultSays(f, nameOf)).join('; and ')
}

const TITLES: Partial<Record<TestKind, (place: string, beside: string, isAgain: boolean) => string>> = {
  'walk': () => 'Walk along the line, and listen at every speaker',
  'level-walk': () => 'Walk along the line with the level meter',
  'pulse-walk': () => 'Walk along the line with the pulse on',
  'looked': place => `Look at ${place}`,
  'swapped': (place, beside) => beside ? `${place} and ${beside} in each other’s place` : `A known-good unit in the place of ${place}`,
  'line-impedance': () => 'Read the impedance of the line at the rack',
  'outward-impedance': place => `Part the line before ${place} and read from there on`,
  'coil-dcr': place => `Read the coil of ${place}, its leads off`,
  'sound': (place, _, isAgain) => isAgain ? `Listen at ${place} once more` : `Listen at ${place}`,
  'beside': (place, beside) => `Is ${place} as loud as ${beside}?`,
  'tap-found': place => `Look at the dial of ${place}`,
  'polarity': (place, _, isAgain) => `Which way round is ${place}? A battery at the rack${isAgain ? ', once more' : ''}`,
  'polarity-heard': (place, _, isAgain) => `Which way round is ${place}? A pulse${isAgain ? ' once more' : ''}`,
  'leg-earth': () => 'Read each leg of the line to earth, at the rack',
}
export const testTitle = ({ kind, nodeId, besideId, isAgain = false }: TestAt & { isAgain?: boolean }, nameOf: NameOf): string =>
  (TITLES[kind] ?? (place => `${kind} at ${place}`))(kind === 'looked' && nodeId === null ? 'the rack: lights, knobs, plugs' : nameOf(nodeId), besideId === null ? '' : nameOf(besideId), isAgain)

export const QUESTIONS: Partial<Record<TestKind, string>> = {
  'walk': 'Which do not play as they should?', 'level-walk': 'How loud is it under each?', 'pulse-walk': 'Which are the other way round?', 'looked': 'What do you see?', 'swapped': 'And then?',
  'sound': 'What do you hear?', 'beside': 'Beside it, it is', 'tap-found': 'What does it say?', 'polarity': 'The cone moves', 'polarity-heard': 'The tester says',
}

export const foundSays = (is: WalkFound): string => is === 'reversed' ? 'the other way round' : is === 'cannot-tell' ? 'not to be told' : SOUND_WORDS[is as Sound] ?? is

/** What a walk found: those that do not play as they should, up to so many by name. */
function walkSays(heard: WalkHeard, nameOf: NameOf): string {
  if (heard === null) return 'anything else'
  if (heard.length === 0) return 'all as they should be'
  const alike = heard.every(h => h.is === heard[0]!.is)
  if (heard.length > 3 && alike) return `${nameOf(heard[0]!.nodeId)} to ${nameOf(heard.at(-1)!.nodeId)} ${foundSays(heard[0]!.is)}`
  return alike ? `${heard.map(h => nameOf(h.nodeId)).join(', ')} ${foundSays(heard[0]!.is)}` : heard.map(h => `${nameOf(h.nodeId)} ${foundSays(h.is)}`).join(', ')
}

/** An answer as it is pressed, or the range of a meter. */
export function answerSays(answer: AnswerOf, { besideId }: Pick<TestAt, 'besideId'>, nameOf: NameOf): string {
  if ('isOpen' in answer) return 'open'
  if ('lowOhm' in answer) {
    const [low, high] = [answer.lowOhm, answer.highOhm].map(ohm => ohm === null ? null : writeQuantity(Number(ohm.toPrecision(2)), 'Ω'))
    return low === null ? `under ${high}` : high === null ? `over ${low}` : `${low} to ${high}`
  }
  if ('heard' in answer) return walkSays(answer.heard, nameOf)
  const { value } = answer
  if (value.is === 'seen' || value.is === 'as-it-should') return valueWords(value)
  if ('withId' in value) return SWAPPED_WORDS[value.is]
  if (value.is === 'tap') return value.tapW === 0 ? 'off' : `${writeQuantity(value.tapW, 'W')}, ${writeNumber(Math.floor(value.ratedV))} V scale`
  if ('besideId' in value) return value.is === 'alike' ? `as loud as ${nameOf(besideId)}` : `${value.is} than ${nameOf(besideId)}`
  if (value.is === 'right-way') return 'as it should'
  if (value.is === 'reversed') return 'the other way round'
  if (value.is === 'cannot-tell') return 'cannot tell'
  return SOUND_WORDS[value.is as Sound] ?? value.is
}

export const TOOL_WORDS: Record<Tool, string> = { 'impedance-meter': 'impedance meter', 'ohmmeter': 'ohmmeter', 'battery': 'battery or pulse', 'level-meter': 'sound level meter', 'ladder': 'ladder', 'known-good': 'a known-good unit' }

/** Minutes as they are said: no finer than they are known. */
/** Ladders to be climbed; nothing where there is none. */
export const laddersSay = (ladders: number): string => ladders === 0 ? '' : ladders === 1 ? 'one ladder' : `${ladders} ladders`
export const minutesSay = (minutes: number): string => minutes < 1.5 ? 'a minute' : `${Math.round(minutes)} minutes`
