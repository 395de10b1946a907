import { checkKey } from '#core/check/proof'
import type { Reading } from '#core/job/schema'
import type { TestKind, WalkKind } from './test'
import { WALKS } from './walk'

/** Which speakers a test has before it, by what still tells, oldest first. */

type Read = Pick<Reading, 'kind' | 'nodeId' | 'value'>

/**
 * Whether this cannot be told at a speaker: a pulse through what says nothing says nothing. Common practice, no source. What lost: to weigh that its
 * silence may have been a slip of an ear. Of a dead line a pulse was asked for at every speaker, up to three times; and on a walk with one whoever pressed
 * nothing for a silent speaker noted it as the right way round.
 */
export function muteIn(readings: readonly Read[]): (kind: TestKind, nodeId: string | null) => boolean {
  const heard = new Map(readings.filter(r => r.kind === 'sound').map(r => [r.nodeId, r.value.is]))
  return (kind, nodeId) => kind === 'polarity-heard' && heard.get(nodeId) === 'silent'
}

/** Speakers that a walk has before it, in their order: those that were not read so yet. */
export function passesOf(kind: WalkKind, ids: readonly string[], readings: readonly Read[]): string[] {
  const read = new Set(readings.map(r => checkKey(r.kind, r.nodeId)))
  const isMute = muteIn(readings)
  const { reads } = WALKS[kind]
  return ids.filter(id => !read.has(checkKey(reads, id)) && !isMute(reads, id))
}
