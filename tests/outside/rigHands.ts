import type { FaultKind, Reading, ReadingKind, ReadingValue } from '#core/job/schema'
import { passesOf } from '#core/trace/next/passes'
import { isWalk, type TestAt } from '#core/trace/next/test'
import { WALKS } from '#core/trace/next/walk'
import { reading } from './rigJob'
import type { Rig } from './rigs'

/** A rig read by somebody, one test at a time. */

const ohm = (value: number | 'open'): ReadingValue => value === 'open' ? { is: 'open' } : { is: 'ohm', ohm: value }
const at = (id: string | null) => Number(id!.slice(1))

export function read(rig: Rig, kind: ReadingKind, nodeId: string | null, besideId: string | null = null): ReadingValue {
  switch (kind) {
    case 'line-impedance': return ohm(rig.impedance())
    case 'outward-impedance': return ohm(rig.outward(at(nodeId)))
    case 'coil-dcr': return ohm(rig.coil(at(nodeId)))
    case 'sound': return { is: rig.sound(at(nodeId)) as 'plays' }
    case 'level': return { is: 'level', db: rig.levelDb(at(nodeId)), weighting: 'A', signal: 'pink-noise', headV: null }
    case 'beside': return { is: rig.beside(at(nodeId), at(besideId)), besideId: besideId! }
    case 'tap-found': return { is: 'tap', ...rig.dial(at(nodeId)) }
    case 'looked': {
      const fault = rig.looked(nodeId === null ? null : at(nodeId)) as FaultKind | null
      return fault === null ? { is: 'as-it-should' } : { is: 'seen', fault }
    }
    case 'swapped': return { is: rig.goesWithUnit(at(nodeId)) ? 'goes-with-it' : 'stays', withId: besideId }
    case 'leg-earth': return rig.legIsLow() ? { is: 'ohm', ohm: 50 } : { is: 'open' }
    default: return { is: rig.turned(at(nodeId)), how: kind === 'polarity' ? 'battery-run' : 'pulse', against: null }
  }
}

/** What a test reads: one, or of a walk one of each speaker that it has before it. */
export function taken(rig: Rig, { kind, nodeId, besideId }: TestAt, before: readonly Reading[]): Reading[] {
  if (!isWalk(kind)) return [reading(kind, nodeId, read(rig, kind, nodeId, besideId))]
  // Who comes with a meter to a line that is silent notes that it is silent.
  const as = rig.isSilent && WALKS[kind].endsInSilence ? 'walk' : kind
  const { reads } = WALKS[as]
  return passesOf(as, rig.tapsW.map((_, k) => `s${k}`), before).map(id => reading(reads, id, read(rig, reads, id)))
}
