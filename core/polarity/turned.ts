import type { Job, Output, Reading, Repair } from '#core/job/schema'
import { howFacts, type PolarityHow, type Turned } from '#core/job/sections/readings/hows'
import { isTurned } from '#core/job/sections/readings/kinds'
import { readingsKept } from '#core/job/sections/readings/superseded'
import { drawnParity, jointsOf, splicesBy, wayBack, type Joints, type Leaf } from './joints'
import { outputsOf } from '#core/job/tree'

/** Which way round each speaker is: as it is drawn, and as it was read. The two are never one. */

/** 0 as marked, 1 reversed. */
export type Parity = 0 | 1

export interface TurnedLeaf extends Leaf {
  line: Joints
  /** By the joints on its way; null where one of them is not known. */
  drawn: Parity | null
  /** By what was read of the whole way with the unit at its end; null: nothing was. */
  read: Parity | null
  /** What it is taken for: as it was read, else as it is drawn; null is not known. */
  taken: Parity | null
  /** Left as it is, with a reason. */
  isLeft: boolean
}

type Kept = Pick<Job, 'amplifiers' | 'splices' | 'readings' | 'repairs' | 'leavings'>

/** Every end of every line. */
export function turnedLeaves(job: Kept): TurnedLeaf[] {
  const spliceOf = splicesBy(job)
  const lines = outputsOf(job).map(output => jointsOf(output, spliceOf))
  const read = readParities(lines.flatMap(line => standingTurns(job, line)))
  return lines.flatMap((line) => {
    const left = leftOn(job, line.output)
    return line.leaves.map((leaf): TurnedLeaf => {
      const drawn = drawnParity(line, leaf.before)
      const ofUnit = read.get(leaf.speaker.id) ?? null
      // A unit is read as a whole: a coil of it that is opposed to the first is so besides.
      const opposed = leaf.coil === null ? 0 : opposedToFirst(line, leaf)
      const isRead = ofUnit === null ? null : flip(ofUnit, opposed)
      return { ...leaf, line, drawn, read: isRead, taken: isRead ?? drawn, isLeft: left.has(leaf.speaker.id) }
    })
  })
}

export const flip = (parity: Parity, by: Parity): Parity => parity === by ? 0 : 1

function opposedToFirst(line: Joints, { speaker, before }: Leaf): Parity {
  const first = line.leaves.find(leaf => leaf.speaker.id === speaker.id)!
  return line.joints[before]!.turn === line.joints[first.before]!.turn ? 0 : 1
}

interface Stood { nodeId: string, turned: Turned, how: PolarityHow, against: string | null, at: string }

/** Readings that stand and say something of the way round, one of each kind at a speaker; none from before a mend on its way. */
function standingTurns(job: Kept, line: Joints): Stood[] {
  const all = job.readings.under(line.output.id).filter(r => isTurned(r.kind))
  if (all.length === 0) return []
  const mended = mendsOn(job.repairs.under(line.output.id), line)
  const standing = new Map<string, Reading>()
  for (const reading of readingsKept(all)) {
    if (reading.at < (mended.get(reading.nodeId!) ?? '')) continue
    const before = standing.get(`${reading.kind} ${reading.nodeId}`)
    if (!before || before.at <= reading.at) standing.set(`${reading.kind} ${reading.nodeId}`, reading)
  }
  return [...standing.values()].flatMap(({ value, nodeId, at }) => 'how' in value && value.is !== 'cannot-tell'
    ? [{ nodeId: nodeId!, turned: value.is, how: value.how, against: value.against, at }]
    : [])
}

/** When each speaker was last turned round, or something on its way was. */
function mendsOn(repairs: readonly Repair[], line: Joints): Map<string, string> {
  const turned = repairs.filter(r => !r.withdrawn && (r.fault === 'turned-round' || r.fault === 'coil-opposed'))
  if (turned.length === 0) return new Map()
  return new Map(line.leaves.map(({ speaker, before }) => {
    const onWay = new Set([...wayBack(line, before)].map(joint => joint.nodeId))
    return [speaker.id, turned.reduce((last, r) => (r.nodeId === null || onWay.has(r.nodeId)) && r.at > last ? r.at : last, '')]
  }))
}

/** Of each speaker that was read by itself, and of those that agree or do not agree with one that was. */
function readParities(stood: readonly Stood[]): Map<string, Parity> {
  const known = new Map<string, Parity>()
  // What was read last stands against what was read before by another way.
  const byTime = [...stood].sort((a, b) => a.at < b.at ? -1 : a.at > b.at ? 1 : 0)
  for (const { nodeId, turned, how } of byTime) if (howFacts(how).proves === 'run') known.set(nodeId, turned === 'reversed' ? 1 : 0)
  const beside = byTime.filter(s => s.against !== null)
  // A speaker that was proved by itself is a sure neighbour; what agrees with it is sure, too.
  for (let isMore = true; isMore;) {
    isMore = false
    for (const { nodeId, turned, against } of beside) {
      const differs: Parity = turned === 'reversed' ? 1 : 0
      for (const [one, other] of [[nodeId, against!], [against!, nodeId]] as const) {
        const parity = known.get(other)
        if (parity === undefined || known.has(one)) continue
        known.set(one, flip(parity, differs))
        isMore = true
      }
    }
  }
  return known
}

/** Speakers whose way round somebody decided to leave. */
function leftOn(job: Kept, output: Output): Set<string> {
  return new Set([...job.leavings.under(output.id)].flatMap(l => !l.withdrawn && l.nodeId !== null && isTurned(l.kind) ? [l.nodeId] : []))
}
