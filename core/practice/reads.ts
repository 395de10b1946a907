import type { Output, Reading, Sound } from '#core/job/schema'

/** What is read of a rig, and the same as a reading of its line. */

export interface Read {
  nodeId: string | null
  kind: Reading['kind']
  value: Reading['value']
  /** With another tone than usual. */
  toneHz?: number
}

/** What was noted of a speaker before, oldest first. */
export const soundsIn = (reads: readonly Read[], nodeId: string): Sound[] => reads.flatMap(r => r.kind === 'sound' && r.nodeId === nodeId ? [r.value.is as Sound] : [])
/** How often a place was read before. */
export const timesIn = (reads: readonly Read[], kind: Read['kind'], nodeId: string | null): number => reads.filter(r => r.kind === kind && r.nodeId === nodeId).length

/** @param at of one place the later reading counts */
export function readingOf({ output }: { output: Pick<Output, 'id'> }, k: number, { kind, nodeId, value, toneHz }: Read, at = '2026-05-04T09:00:00Z'): Reading {
  return { id: `r${k}`, at, kind, outputId: output.id, nodeId, value, note: '', frequencyHz: toneHz ?? null, supersedes: null, taken: null, who: null, withdrawn: false }
}
