import { faultAt, type Fault } from '#core/faults/fault'
import type { FaultKind, Reading, Repair } from '#core/job/schema'
import { nextTests, type NextTest } from '#core/trace/next/best'
import { AT_THE_RACK, mendKey, standingAfter, type Standing } from '#core/trace/next/minutes'
import { isBeside, type Suspect } from '#core/trace/rank'
import { riskOf } from '#core/trace/switchOn'
import { taken } from '../tests/outside/rigHands'
import { isIt, names } from '../tests/outside/rigJob'
import { makeRig, type Rig, type RigFault } from '../tests/outside/rigs'
import { head, rankingOf, WEIGHTS } from './rigRanking'

/** A simulated rig, traced and mended by the tests that are proposed. */

/** What was read and put right of a line so far. Readings and repairs are a minute apart. */
interface Work { readings: Reading[], repairs: Repair[] }
const minute = ({ readings, repairs }: Work) => new Date(Date.UTC(2026, 4, 4, 9, readings.length + repairs.length)).toISOString()
function note(work: Work, readings: readonly Reading[]): void {
  const at = minute(work)
  work.readings.push(...readings.map(r => ({ ...r, at })))
}
const repaired = (work: Work, { kind, nodeId }: Fault): Repair =>
  ({ id: `p${work.repairs.length}`, at: minute(work), outputId: 'out', nodeId, fault: kind, note: '', who: null, withdrawn: false })

function ranked(rig: Rig, { readings, repairs }: Work, standing: Standing, wantsNext: boolean) {
  const { output, proof, given, tried, ranking } = rankingOf(rig, readings, repairs)
  const mayBeOn = riskOf(output, proof, ranking.suspects) === null
  const next = wantsNext ? nextTests(tried, ranking, { standing, mayBeOn }, given.readings).tests[0] ?? null : null
  return { suspects: ranking.suspects, next, read: given.readings.map(j => j.reading) }
}

/** As sure as this, and it is put right. */
const MENDED = 0.5

/** Where the right one stands among suspects, from 0 (-1: not there); whether the line is told to be as drawn before anything else. */
export interface Place {
  at: number
  /** The same among faults of the list: as drawn and something else stand beside them. */
  amongFaults: number
  isDrawn: boolean
  /** What would be opened first has it: the joint, the unit, the dial, the run. */
  isOpenedFirst: boolean
}

/**
 * A rig of the general mix, traced until a fault is named with over one half, mended of that, right or not, and read again at the rack: what may be there
 * then. null: nothing was named so in so many tests.
 */
export function afterMending(seed: number, most: number): { rig: Rig, suspects: readonly Suspect[] } | null {
  let rig = makeRig(seed, WEIGHTS)
  const work: Work = { readings: [], repairs: [] }
  note(work, head(rig))
  let standing: Standing = AT_THE_RACK
  for (let count = 1; count <= most; count++) {
    const { suspects: [first], next, read } = ranked(rig, work, standing, count < most)
    if (first!.probability > MENDED && !isBeside(first!)) {
      work.repairs.push(...first!.faults.map(fault => repaired(work, fault)))
      rig = makeRig(seed, WEIGHTS, undefined, rig.faults.filter(put => first!.faults.some(f => names(f, put, rig))))
      note(work, head(rig))
      return { rig, suspects: ranked(rig, work, AT_THE_RACK, false).suspects }
    }
    if (next === null) return null
    standing = takeNext(rig, work, next, standing, read)
  }
  return null
}

function takeNext(rig: Rig, work: Work, next: NextTest, standing: Standing, read: readonly Reading[]): Standing {
  const more = taken(rig, next, read)
  note(work, more)
  return standingAfter(next, standing, new Map(rig.tapsW.map((_, k) => [`s${k}`, k])), more.at(-1)?.nodeId)
}

/** How likely it is that opening a place, and putting right what is there at one go, puts a fault right. */
function goesOf(suspects: readonly Suspect[]): Map<string, number> {
  const goes = new Map<string, number>()
  for (const { faults, probability } of suspects) for (const f of faults) if (f.kind !== 'something-else') {
    const key = mendKey([f])
    goes.set(key, (goes.get(key) ?? 0) + probability)
  }
  return goes
}
const faultOf = ({ kind, at }: RigFault): Fault => faultAt(kind as FaultKind, at === null ? null : `s${at}`)
const goOf = (put: RigFault): string => mendKey([faultOf(put)])
/** The likeliest that is over so much, or none. */
const likeliest = (goes: ReadonlyMap<string, number>, over: number): string | null =>
  [...goes].reduce<[string | null, number]>((a, b) => b[1] > a[1] ? b : a, [null, over])[0]

/**
 * Plays a rig by the tests that are proposed, so many in all with the line read at the rack, and tells where what it is stands after each. Of two faults the
 * one that is named with over one half is put right, where it is that, the line read again at the rack, and so on: as who works on it would. `byGo`: what
 * is opened with over one half is put right whatever it is by name.
 */
export function playOf(seed: number, mix: readonly [number, number, number], most: number, byGo = false): Place[] {
  let rig = makeRig(seed, WEIGHTS, mix)
  const work: Work = { readings: [], repairs: [] }
  note(work, head(rig))
  let mended: readonly RigFault[] = []
  let standing: Standing = AT_THE_RACK
  const places: Place[] = []
  for (let count = 1; ; count++) {
    const { suspects, next, read } = ranked(rig, work, standing, count < most)
    const [first] = suspects
    const goes = goesOf(suspects)
    const opened = likeliest(goes, MENDED)
    const isRight = (put: RigFault) => byGo ? goOf(put) === opened : first!.probability > MENDED && first!.faults.some(f => names(f, put, rig))
    const right = rig.faults.filter(isRight)
    if (count < most && rig.faults.length + mended.length > 1 && right.length > 0) {
      mended = [...mended, ...right]
      work.repairs.push(...right.map(put => repaired(work, first!.faults.find(f => names(f, put, rig)) ?? faultOf(put))))
      rig = makeRig(seed, WEIGHTS, mix, mended)
      if (rig.faults.length === 0) return [...places, { at: 0, amongFaults: 0, isDrawn: false, isOpenedFirst: true }]
      note(work, head(rig))
      standing = AT_THE_RACK
      continue
    }
    const isOpenedFirst = rig.faults.length === 1 && goOf(rig.faults[0]!) === likeliest(goes, 0)
    const faults = suspects.filter(s => !isBeside(s))
    const [at, amongFaults] = [suspects, faults].map(of => of.findIndex(s => isIt(s.faults, rig))) as [number, number]
    places.push({ at, amongFaults, isDrawn: first?.faults.length === 0, isOpenedFirst })
    if (next === null) return places
    standing = takeNext(rig, work, next, standing, read)
  }
}
