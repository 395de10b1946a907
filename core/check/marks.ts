import type { ReadingKind } from '#core/job/schema'
import type { Ask } from './asked'
import { checkKey, isBad, type JudgedReading, type LineProof } from './proof'
import type { Grade } from './verdict'
import { MARKS, KIND_NAMES } from './gradeWords'

/** What is known of the places to prove of one speaker, as they are marked beside it. */
export interface Mark {
  kind: ReadingKind
  /** Of the reading that stands; null while none does. A wrong one that was left so has no grade of its own. */
  grade: Grade | 'left' | null
  mark: string
  /** "coil DCR as it should be", "sound not read". */
  says: string
}

/** The reading that counts at a place to prove: a wrong one before a good one, else the first of its kinds that was read. */
export function standingAt(standing: LineProof['standing'], { kinds, speaker }: Ask): JudgedReading | null {
  const read = kinds.flatMap(kind => standing.get(checkKey(kind, speaker?.id ?? null)) ?? [])
  return read.find(isBad) ?? read.find(j => j.verdict.grade === 'good') ?? read[0] ?? null
}

/** @param nodeId a speaker; null: the head of the line */
export function marksAt({ asksAt, standing }: Pick<LineProof, 'asksAt' | 'standing'>, nodeId: string | null): Mark[] {
  return (asksAt.get(nodeId) ?? []).map(ask => markAt(standing, ask))
}

export function markAt(standing: LineProof['standing'], ask: Ask): Mark {
  const judged = standingAt(standing, ask)
  const kind = judged?.reading.kind ?? ask.kinds[0]!
  const grade = judged === null ? null : judged.left ? 'left' : judged.verdict.grade
  const { mark, says } = grade === null ? { mark: '·', says: 'not read' } : grade === 'left' ? { mark: '–', says: 'found and left' } : MARKS[grade]
  return { kind, grade, mark, says: `${KIND_NAMES[kind]} ${says}` }
}
