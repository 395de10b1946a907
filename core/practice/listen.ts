import { offDb } from '#core/trace/ears'
import type { Sound } from '#core/job/schema'
import type { Read } from './reads'
import type { Rig } from './rig'
import type { Heard } from './sound'

/**
 * What a reading sounds like: of a speaker by itself; of two one after the other; of two together, where one is heard beside the other. [] where it is
 * silent work.
 */
export function heardIn({ truth, plan }: Rig, read: Read): Heard[] {
  const level = (nodeId: string) => offDb(nodeId, truth, plan)
  if (read.nodeId === null) return []
  if (read.kind === 'sound') return [{ is: read.value.is as Sound, levelDb: level(read.nodeId) }]
  if (read.kind === 'beside' && 'besideId' in read.value) return [read.nodeId, read.value.besideId].map(id => ({ is: 'plays', levelDb: level(id) }))
  if (read.kind === 'polarity-heard') return [{ is: read.value.is === 'reversed' ? 'hollow' : 'full', levelDb: level(read.nodeId) }]
  return []
}
