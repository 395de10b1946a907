import { faultAt, type Fault } from '#core/faults/fault'
import type { Reading } from '#core/job/schema'
import { drained } from '#core/quantity/steps'
import { amplifierOf, isOpened, mendKey, mendMinutes } from '#core/trace/next/minutes'
import { isSomethingElse, type Suspect } from '#core/trace/rank'
import { beginPlay, minutesFor, standingIn, stepped, sumOf, type Act, type Play, type Sum } from './game'
import type { RigTest } from './places'
import { ranked, type Ranked } from './possible'
import { readingOf } from './reads'
import type { Rig } from './rig'

/**
 * A rig played by the tracer, by the rules that a person plays it by: what tells most for its minutes is read; what it is sure enough of is opened; what
 * was put right is another line, read anew from its head. What was opened and is right is out of the question.
 */
export interface TracerPlay extends Sum {
  acts: readonly Act[]
  play: Play
  /** The likeliest after each act. */
  suspects: readonly (readonly Suspect[])[]
}

/** For each that is hidden. Who has tested so much opens one place after the other, so that every play comes to its end. */
const MOST_TESTS = 24
/** As sure as this of a place, and it is opened: no test saves minutes then, and asking for one takes half a second of forty. */
const SURE = 0.9
/** What is kept of the suspects after each act. */
const TOLD = 5
const HEAD: RigTest = { kind: 'line-impedance', nodeId: null, besideId: null }

export const played = (rig: Rig): TracerPlay => drained(playing(rig))

/** Yields after each act how many there were, since each is a ranking of its own: of forty speakers with two hidden it takes a minute in all. */
export function* playing(rig: Rig): Generator<number, TracerPlay> {
  let play = beginPlay(rig)
  const acts: Act[] = []
  const suspects: (readonly Suspect[])[] = []
  let readings: Reading[] = []
  const opened = new Set<string>()
  let now = ranked(rig, readings, opened)
  const act = (next: Act) => {
    play = stepped(play, next)
    acts.push(next)
    const { read, mended } = play.steps.at(-1)!
    if (next.do === 'name') opened.add(mendKey([faultAt(next.kind, next.nodeId)]))
    if (mended) readings = []
    for (const one of read) readings.push(readingOf(rig, readings.length, one))
    if (mended || read.length > 0) now = play.isOver ? now : ranked(play.rig, readings, opened)
    else if (next.do === 'name') now = now.without(opened)
    suspects.push(now.suspects.slice(0, TOLD))
  }
  const switched = (on: boolean) => {
    if (play.isOn !== on) act({ do: 'amplifier', on })
  }
  act({ do: 'null-leads' })
  let tests = 0
  while (!play.isOver) {
    const next = !play.isHeadRead && minutesFor(play, HEAD) !== null ? HEAD : nextOf(now, play, tests < MOST_TESTS * rig.faults.length)
    if (next === null) break
    if ('besideId' in next) {
      switched(amplifierOf(next.kind) === 'on')
      act({ do: 'test', ...next })
      tests++
    }
    else {
      if (isOpened([next])) switched(false)
      act({ do: 'name', kind: next.kind, nodeId: next.nodeId })
    }
    yield acts.length
  }
  return { acts, play, suspects, ...sumOf(play) }
}

/** A test, or a place to open; null: there is nothing left to do. */
function nextOf({ suspects, ask }: Ranked, play: Play, mayTest: boolean): RigTest | Fault | null {
  const places = suspectedPlaces(suspects)
  const sure = places.find(p => p.share >= SURE)
  if (sure) return sure.fault
  const { tests: [first], isMendNext } = mayTest ? ask(standingIn(play), undefined, play.isHeadRead) : { tests: [], isMendNext: true }
  if (first && !isMendNext) return { kind: first.kind as RigTest['kind'], nodeId: first.nodeId, besideId: first.besideId }
  // Likeliest for its minutes: the shortest search, as mends are weighed everywhere.
  return places.reduce<{ fault: Fault, worth: number } | null>((best, { fault, share }) => {
    const worth = share / mendMinutes([fault])
    return best === null || worth > best.worth ? { fault, worth } : best
  }, null)?.fault ?? null
}

/** Places that may be opened, each with the chance that something is wrong there and what it most likely is. */
function suspectedPlaces(suspects: readonly Suspect[]): { fault: Fault, share: number }[] {
  const places = new Map<string, { fault: Fault, most: number, share: number }>()
  for (const { faults, probability } of suspects) for (const fault of faults) {
    if (isSomethingElse([fault])) continue
    const key = mendKey([fault])
    const known = places.get(key)
    if (!known) places.set(key, { fault, most: probability, share: probability })
    else {
      known.share += probability
      if (probability > known.most) Object.assign(known, { fault, most: probability })
    }
  }
  return [...places.values()].sort((a, b) => b.share - a.share)
}
