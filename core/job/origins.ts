import type { SimpleEdit } from './edits'
import type { Job, Origin } from './schema'
import { throughsOf } from './tree'

/** What of a job is made by a model of the library. */

/** Every origin in a job: of its kinds, its amplifiers, its controls and transformers. */
export function originsOf(job: Pick<Job, 'kinds' | 'amplifiers'>): Origin[] {
  const made = [...job.kinds, ...job.amplifiers, ...throughsOf(job).map(t => t.through)]
  return made.flatMap(({ from }) => from ?? [])
}

/** A newer version of a model that has not been answered yet; null for none. */
export function newerThan(from: Origin | null, newest: { id: string, version: number } | null): number | null {
  return from && newest && newest.id === from.modelId && newest.version > Math.max(from.version, from.passed ?? 0) ? newest.version : null
}

/** Whether an edit can add an origin or take one away: what only moves, turns or names things cannot. */
export function mayChangeOrigins(part: SimpleEdit): boolean {
  switch (part.kind) {
    case 'kind.add': case 'kind.remove': case 'amplifier.add': case 'amplifier.remove': case 'output.add': case 'output.remove': case 'node.remove': return true
    case 'kind.set': case 'amplifier.set': return 'from' in part.to
    case 'node.add': return part.branch.node.kind !== 'speaker'
    case 'through.set': return part.was?.from?.modelId !== part.to?.from?.modelId || part.was?.from?.version !== part.to?.from?.version
    default: return false
  }
}
