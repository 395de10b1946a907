import { spacesByNode } from '#core/job/heard'
import type { Job, Output } from '#core/job/schema'
import { PHASES } from '#core/job/sections/readings/kinds'
import { AT_THE_RACK, IN_NO_ROOM, roomName } from '#core/job/sections/shares/schema'
import { outputsOf } from '#core/job/tree'
import { askedOf, type Asked } from './asked'
import { proveLine, type LineProof } from './proof'
import { phaseOf, walkOf, type Stop } from './walk'

/** The stops of a whole job in the order in which they are walked, along the lines or room by room. */

/** `line`: along each line; `room`: within a phase the speakers room by room, as the rooms stand in the job. */
export type WalkOrder = 'line' | 'room'

export interface JobStop { stop: Stop, proof: LineProof, output: Output }
interface Proved { output: Output, proof: LineProof }

/** Every stop of every line, a phase at a time over all lines. */
export function walkOfJob(job: Job, by: WalkOrder, asked: Asked = askedOf(job)): JobStop[] {
  const outputs = outputsOf(job).filter(o => o.wiring.children.length > 0)
  return walkOver(job, outputs.map(output => ({ output, proof: proveLine(job, output, undefined, asked) })), by)
}

/** The same of lines that are proved already. */
export function walkOver(job: Pick<Job, 'spaces'>, lines: readonly Proved[], by: WalkOrder): JobStop[] {
  const rooms = new Map(job.spaces.flatMap((space, room) => space.spots.flatMap(({ nodeId }, k) =>
    nodeId === null ? [] : [[nodeId, room * 10_000 + k] as const])))
  const all = lines.flatMap(({ output, proof }) => walkOf(proof.asks).map((stop): JobStop => ({ stop, proof, output })))
  // A speaker that hangs in no room comes after those that do; the order along the line stays within one room.
  const roomOf = ({ stop: { speaker } }: JobStop) => by === 'line' || speaker === null ? -1 : rooms.get(speaker.id) ?? Infinity
  return PHASES.flatMap((phase) => {
    const here = all.filter(({ stop }) => phaseOf(stop) === phase)
    return by === 'line' ? here : here.map((at, k) => ({ at, k })).sort((a, b) => roomOf(a.at) - roomOf(b.at) || a.k - b.k).map(({ at }) => at)
  })
}

/** Where one stands for a stop: a room, the rack, or a place of which no room is drawn. */
export interface WalkRoom { id: string, name: string, stops: JobStop[] }

/** The stops of a walk by the room that they are in; rooms without one are left out. The rack stands first, what hangs in no room last. */
export function roomsOf(job: Pick<Job, 'spaces'>, stops: readonly JobStop[]): WalkRoom[] {
  const spaceOf = spacesByNode(job)
  const rooms = [AT_THE_RACK, ...job.spaces.map(s => s.id), IN_NO_ROOM].map(id => ({ id, name: roomName(job, id) }))
  const roomOf = ({ stop: { speaker } }: JobStop) => speaker === null ? AT_THE_RACK : spaceOf.get(speaker.id)?.id ?? IN_NO_ROOM
  const by = new Map<string, JobStop[]>(rooms.map(room => [room.id, []]))
  for (const stop of stops) by.get(roomOf(stop))!.push(stop)
  return rooms.flatMap(({ id, name }) => by.get(id)!.length === 0 ? [] : [{ id, name, stops: by.get(id)! }])
}
