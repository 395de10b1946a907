import type { ReadingKind } from '#core/job/schema'
import { factsOf, isTurned } from '#core/job/sections/readings/kinds'

interface Here { asked: ReadonlySet<ReadingKind>, chosen: ReadingKind, stands: (kind: ReadingKind) => boolean }

/**
 * Of all that can be read at a place what stands there at once: what the job asks for, what is read or chosen, what proves something by itself; whether
 * there is a way round, and which way round where nothing is asked for. All else is behind a word.
 */
export function kindsHere(all: readonly ReadingKind[], { asked, chosen, stands }: Here): ReadingKind[] {
  const isUsual = (of: ReadingKind) => asked.has(of) || of === chosen || (factsOf(of).proves && !isTurned(of)) || stands(of)
  return all.filter(of => isUsual(of) || of === 'line-dcr' || (isTurned(of) && asked.size === 0))
}
