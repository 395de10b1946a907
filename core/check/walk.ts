import type { ReadingKind, Speaker } from '#core/job/schema'
import { factsOf, PHASES, type Phase } from '#core/job/sections/readings/kinds'
import type { Ask } from './asked'

/** One stop of a walk along a line: what is read, and where; `speaker` null is the head of the line. `ask`: what it proves. */
export interface Stop { kind: ReadingKind, speaker: Speaker | null, ask: Ask }
/** What the amplifier must be while it is read. */
export type AmplifierState = 'off' | 'on'

export function amplifierFor(kind: ReadingKind): AmplifierState {
  return factsOf(kind).amplifier
}

/**
 * Every reading that proves a line, in the phases of the work and along the line within each: bare pairs, each speaker as it hangs, the line closed at
 * the rack, the amplifier on. So it is switched once, and whoever stands on the ladder does all that is to be done there.
 */
export function walkOf(asks: readonly Ask[]): Stop[] {
  const all = asks.map((ask): Stop => ({ kind: ask.kinds[0]!, speaker: ask.speaker, ask }))
  return PHASES.flatMap(phase => all.filter(stop => phaseOf(stop) === phase))
}

export const phaseOf = ({ kind }: Pick<Stop, 'kind'>): Phase => factsOf(kind).phase

/**
 * The next stop that is not proved, from one place on and round to it again: all with the amplifier as it is before it is switched, all with it off
 * before it is on.
 * The next one of all where every one is proved; null where there are none.
 */
export function nextOpen(stops: readonly Stop[], at: number, isProved: (stop: Stop) => boolean): Stop | null {
  const order = [...stops.slice(at + 1), ...stops.slice(0, at + 1)]
  const open = order.filter(s => !isProved(s))
  const isOff = (stop: Stop | undefined) => stop !== undefined && amplifierFor(stop.kind) === 'off'
  const now = stops[at] !== undefined && !isOff(stops[at]) ? 'on' : 'off'
  return open.find(s => amplifierFor(s.kind) === now) ?? open[0] ?? order[0] ?? null
}
