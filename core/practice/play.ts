import { predictLine } from '#core/check/predict'
import { makeProver } from '#core/check/proveJob'
import type { Fault } from '#core/faults/fault'
import { Records } from '#core/job/records'
import type { Reading, Sound } from '#core/job/schema'
import { speakersOf } from '#core/job/tree'
import { drained } from '#core/quantity/steps'
import { givenBy } from '#core/trace/given'
import { nextTests, type NextTests } from '#core/trace/next/best'
import { AT_THE_RACK, isOpened, mendMinutes, minutesOf, standingAfter, SWITCH, type Standing } from '#core/trace/next/minutes'
import type { TestAt } from '#core/trace/next/test'
import { rankPairs } from '#core/trace/pairs'
import { isSomethingElse, rankOfSingles, trySingles, type Suspect } from '#core/trace/rank'
import { riskOf } from '#core/trace/switchOn'
import { orderIn } from './places'
import { readRig, type HeardBefore, type Rig } from './rig'

/** A rig played by the tracer: what it reads, in which order, and what is left after each. */

export interface Read {
  nodeId: string | null
  kind: Reading['kind']
  value: Reading['value']
  /** With another tone than usual. */
  toneHz?: number
}
export interface Played {
  test: TestAt
  read: Read[]
  minutes: number
  /** The likeliest after it. */
  suspects: readonly Suspect[]
}
export interface TracerPlay {
  path: readonly Played[]
  /** Minutes of all tests, and of opening the likeliest places in turn until what is hidden is mended. */
  minutes: number
  /** Its rank among the suspects in the end, from 1; null: it is not among them. */
  rank: number | null
}

/** No play goes on for longer: what is not found by then is not found. */
const MOST_TESTS = 24
/** As sure as this, and it is opened. */
const SURE = 0.9
/** What is kept of the suspects after each test. */
const TOLD = 5
const HEAD: TestAt = { kind: 'line-impedance', nodeId: null, besideId: null }

export function played(rig: Rig): TracerPlay {
  const speakers = speakersOf(rig.output.wiring).map(s => s.id)
  const order = orderIn(rig.output)
  const readings: Reading[] = []
  const path: Played[] = []
  let standing: Standing = { ...AT_THE_RACK, without: rig.exercise.without ?? [] }
  let suspects: readonly Suspect[] = []
  let test: TestAt | null = HEAD
  while (test !== null && path.length < MOST_TESTS) {
    const heard = new Set(readings.filter(r => r.kind === 'sound').map(r => r.nodeId))
    const unheard = speakers.filter(id => !heard.has(id))
    const read = readRig(rig, test, unheard, undefined, heardIn(readings))
    if (!read) break
    const minutes = minutesOf(test, standing, order, unheard) ?? 0
    for (const one of read) readings.push(readingOf(rig, readings.length, one))
    standing = standingAfter(test, standing, order, unheard.at(-1))
    const after = rankedBy(rig, readings, standing)
    suspects = after.suspects
    path.push({ test, read, minutes, suspects: suspects.slice(0, TOLD) })
    test = after.next
  }
  const at = suspects.findIndex(s => isIt(s.faults, rig.faults))
  const opened = suspects.slice(0, at === -1 ? TOLD : at + 1)
  const mends = opened.reduce((sum, s) => sum + mendMinutes(s.faults), standing.isOn && opened.some(s => isOpened(s.faults)) ? SWITCH : 0)
  return { path, minutes: path.reduce((sum, p) => sum + p.minutes, 0) + mends, rank: at === -1 ? null : at + 1 }
}

/** What was noted of a speaker in these readings, oldest first. */
export const heardIn = (readings: readonly Pick<Reading, 'kind' | 'nodeId' | 'value'>[]): HeardBefore => nodeId =>
  readings.flatMap(r => r.kind === 'sound' && r.nodeId === nodeId ? [r.value.is as Sound] : [])

function rankedBy(rig: Rig, readings: readonly Reading[], standing: Standing): { suspects: readonly Suspect[], next: TestAt | null } {
  const { suspects, ask } = ranked(rig, readings)
  const [first] = suspects
  // Of something that is in no list nobody can be sure enough to open it.
  if (first && first.probability >= SURE && !isSomethingElse(first.faults)) return { suspects, next: null }
  const { tests, isMendNext } = ask(standing)
  return { suspects, next: isMendNext ? null : tests[0] ?? null }
}

/** Of walks a rig knows the one by ear alone. */
const NOT_HERE: ReadonlySet<string> = new Set(['level-walk', 'pulse-walk'])

/** What may be there after these readings, and what tells most next. */
export interface Ranked { suspects: readonly Suspect[], ask: (standing: Standing, besides?: TestAt, mayBeOn?: boolean) => NextTests }
export function ranked(rig: Rig, readings: readonly Reading[]): Ranked {
  const { output } = rig
  const proof = makeProver()({ readings: Records.of(readings), repairs: Records.of() }, [{ output, predicted: predictLine(output) }]).get(output.id)!
  const given = givenBy(output, proof)
  const tried = drained(trySingles(given))
  const ranking = { suspects: asTold(rig, rig.faults.length > 1 ? drained(rankPairs(tried)).suspects : rankOfSingles(tried).suspects) }
  const mayBeOn = riskOf(output, proof, ranking.suspects) === null
  return { suspects: ranking.suspects, ask: (standing, besides, may = true) => nextTests(tried, ranking, { standing, mayBeOn: may && mayBeOn,
    cannot: NOT_HERE, ...besides
      ? { besides }
      : {} }, given.readings) }
}

/** What whoever plays is told: how many are hidden, and of which kinds. So much the tracer may know, too. */
function asTold({ exercise: { kinds } }: Rig, suspects: readonly Suspect[]): Suspect[] {
  const may = suspects.filter(s => s.faults.length > 0 && !isSomethingElse(s.faults) && (kinds === null || s.faults.every(f => kinds.includes(f.kind))))
  const total = may.reduce((sum, s) => sum + s.probability, 0)
  return total > 0 ? may.map(s => ({ ...s, probability: s.probability / total })) : [...suspects]
}

export function readingOf({ output }: Rig, k: number, { kind, nodeId, value, toneHz }: Read): Reading {
  return { id: `r${k}`, at: '2026-05-04T09:00:00Z', kind, outputId: output.id, nodeId, value, note: '', frequencyHz: toneHz ?? null, supersedes: null, taken: null, who: null, withdrawn: false }
}

/** Same kinds at the same places; how large each is nobody is asked. */
export const isIt = (faults: readonly Fault[], hidden: readonly Fault[]): boolean =>
  faults.length === hidden.length && hidden.every(h => faults.some(f => f.kind === h.kind && f.nodeId === h.nodeId))
