import { readRig, rigOf, type Rig } from '#core/practice/rig'
import type { ReadingValue } from '#core/job/schema'
import type { TestAt } from '#core/trace/next/test'

/** The first rig of a level that is as a test wants it: another catalogue has another one. */
export function rigWhere(level: number, is: (rig: Rig) => boolean): Rig {
  for (let seed = 1; seed < 2000; seed++) {
    const rig = rigOf({ level, seed })
    if (is(rig)) return rig
  }
  throw new Error(`no rig of level ${level} is so`)
}

/** What one test reads of it. */
export const readOf = (rig: Rig, kind: TestAt['kind'], nodeId: string | null = null, besideId: string | null = null): ReadingValue =>
  readRig(rig, { kind, nodeId, besideId })![0]!.value
