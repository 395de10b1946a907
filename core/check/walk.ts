import type { ReadingKind, Speaker } from '#core/job/schema'
import { factsOf, LINE_CHECKS, SPEAKER_CHECKS } from '#core/job/sections/readings/kinds'

/** One stop of a walk along a line: what is read, and where; `speaker` null is the head of the line. */
export interface Stop { kind: ReadingKind, speaker: Speaker | null }
/** What the amplifier must be while it is read. */
export type AmplifierState = 'off' | 'on'

export function amplifierFor(kind: ReadingKind): AmplifierState {
  return factsOf(kind).amplifier
}

/** Every reading that proves a line, in two passes along it: all that is read with the amplifier off, then all with it on. It is switched once. */
export function walkOf(speakers: readonly Speaker[]): Stop[] {
  const all: Stop[] = [...LINE_CHECKS.map(kind => ({ kind, speaker: null })), ...speakers.flatMap(speaker => SPEAKER_CHECKS.map(kind => ({ kind, speaker })))]
  return [...all.filter(s => amplifierFor(s.kind) === 'off'), ...all.filter(s => amplifierFor(s.kind) === 'on')]
}

/** The next stop that is not proved, from one place on and round to it again; the next one of all where every one is. Null where there are none. */
export function nextOpen(stops: readonly Stop[], at: number, isProved: (stop: Stop) => boolean): Stop | null {
  const order = [...stops.slice(at + 1), ...stops.slice(0, at + 1)]
  return order.find(s => !isProved(s)) ?? order[0] ?? null
}
