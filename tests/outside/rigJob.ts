import type { Fault } from '#core/faults/fault'
import type { Output, Reading, ReadingValue } from '#core/job/schema'
import { UNSTATED_OUTPUT } from '#core/job/sections/wiring/schema'
import { LADDER_TAPS, LINE_V, type Rig } from './rigs'

/** A rig as a person draws it, and what is read of it as a person writes it down. */

export function drawnRig(rig: Rig): Output {
  const lead = { cable: { areaMm2: 1.5 as const }, lengthM: rig.reachM }
  return {
    id: 'out', label: 'A1', name: '', rating: rig.kind === 'taps' ? { kind: 'constant-voltage', lineV: LINE_V, powerW: null } : { kind: 'not-known' }, ...UNSTATED_OUTPUT,
    wiring: { kind: 'chain', id: 'c', children: rig.tapsW.map((tapW, k) => ({ lead, node: {
      kind: 'speaker', id: `s${k}`, label: `${k}`, name: '', continuousW: null, driverOhm: rig.kind === 'taps' ? rig.nominalOhm : null, kindId: null, zoneId: null,
      load: rig.kind === 'taps'
        ? { kind: 'tap', tapW, ratedV: LINE_V, tapsW: [...LADDER_TAPS], insertionDb: null, tapMeans: null }
        : rig.motional ? { kind: 'motional', nominalOhm: rig.nominalOhm, ...rig.motional } : { kind: 'nominal', nominalOhm: rig.nominalOhm },
    } })) },
  }
}

let n = 0
export const reading = (kind: Reading['kind'], nodeId: string | null, value: ReadingValue): Reading =>
  ({ id: `r${n++}`, at: '2026-05-04T09:00:00Z', kind, outputId: 'out', nodeId, value, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false })

/** Whether a suspect is what was put in. What is one thing at one place (an open drop and a break before the last) counts as one. */
export const isIt = (faults: readonly Fault[], rig: Rig): boolean => isSo(faults, rig, (f, put) => names(f, put, rig) || isBothEnds(f, put, rig))
/**
 * The same by its name alone, and of a dial by where it stands. Of what is one thing each name has its share: where both counted, tenths of what was said
 * were .02 to .05 too often so.
 */
export const isByName = (faults: readonly Fault[], rig: Rig): boolean => isSo(faults, rig, (f, put) => names(f, put, rig) && stands(f, put))
const stands = (fault: Fault, { tapW, way }: Rig['faults'][number]): boolean =>
  (tapW === undefined || fault.tapW === tapW) && (way === undefined || fault.way === way)
function isSo(faults: readonly Fault[], { outside, faults: all }: Rig, is: (fault: Fault, put: Rig['faults'][number]) => boolean): boolean {
  if (outside !== null) return faults[0]?.kind === 'something-else'
  return faults.length === all.length && all.every(put => faults.some(f => is(f, put)))
}

/** Nothing hangs behind the last one: a break before it is an open drop there. */
function isBothEnds(fault: Fault, put: Rig['faults'][number], rig: Rig): boolean {
  const ends = ['open-at-drop', 'break-in-reach']
  return put.at === rig.count - 1 && fault.nodeId === `s${put.at}` && ends.includes(fault.kind) && ends.includes(put.kind)
}

export function names(fault: Fault, { kind, at }: Rig['faults'][number], { count }: Pick<Rig, 'count'>): boolean {
  if (kind === 'leak-across' && fault.kind === kind) return isNearest(Number(fault.nodeId!.slice(1)), at!, count)
  return fault.kind === kind && (at === null || fault.nodeId === `s${at}`)
}

/** A leak is named at some places along the line alone, eight of a long one, every other one of a short one: the nearest is it. */
function isNearest(named: number, at: number, count: number): boolean {
  const apart = Math.max(2, Math.ceil(count / 8))
  const last = Math.floor((count - 1 - (apart >> 1)) / apart)
  return Math.floor(named / apart) === Math.min(last, Math.floor(at / apart))
}
