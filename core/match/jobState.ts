import { proveLine } from '#core/check/proof'
import type { Grade } from '#core/check/verdict'
import type { Job } from '#core/job/schema'
import type { LineEvaluation } from './evaluate'
import type { LineKind } from './facts'

/** One line of a job in small: for a list of jobs. */
export interface LineState {
  label: string
  name: string
  kind: LineKind
  grade: Grade
  /** Speakers on it. */
  speakers: number
  proved: number
  total: number
  /** Readings that stand and are wrong. */
  wrong: number
  /** Repairs not yet followed by a good reading. */
  unproved: number
}

/** A job in a list of jobs. */
export interface JobSummary {
  id: string
  name: string
  revision: number
  archivedAt: string | null
  updatedAt: string
  sentence: string
  lines: LineState[]
}

export function jobState(job: Job, evaluations: readonly LineEvaluation[]): LineState[] {
  return evaluations.map((line) => {
    const proof = proveLine(job, line.output, line.predicted)
    return {
      label: line.output.label, name: line.output.name, kind: line.kind, grade: line.grade, speakers: line.speakers.length,
      proved: proof.proved, total: line.speakers.length === 0 ? 0 : proof.total, wrong: proof.wrong, unproved: proof.unproved.length,
    }
  })
}

/** The state of a job in one sentence, the most pressing thing first. */
export function stateSentence(lines: readonly LineState[]): string {
  if (lines.length === 0) return 'Nothing drawn yet.'
  const stops = lines.filter(l => l.grade === 'stop')
  const tights = lines.filter(l => l.grade === 'tight')
  const wrong = lines.reduce((sum, l) => sum + l.wrong, 0)
  const unproved = lines.reduce((sum, l) => sum + l.unproved, 0)
  const proved = lines.reduce((sum, l) => sum + l.proved, 0)
  const total = lines.reduce((sum, l) => sum + l.total, 0)
  const said = [
    stops.length > 0 && `${named(stops)} must not be switched on`,
    wrong > 0 && `${wrong} ${wrong === 1 ? 'reading' : 'readings'} wrong`,
    unproved > 0 && `${unproved} ${unproved === 1 ? 'repair' : 'repairs'} to prove`,
    tights.length > 0 && `${named(tights)} tight`,
    total === 0 ? 'no speakers yet' : proved === total ? 'all proved' : proved > 0 ? `${proved} of ${total} proved` : 'nothing proved yet',
  ].filter((part): part is string => typeof part === 'string')
  const sentence = said.join('; ')
  return sentence[0]!.toUpperCase() + sentence.slice(1) + '.'
}

function named(lines: readonly LineState[]): string {
  return lines.length <= 2 ? lines.map(l => l.label).join(' and ') : `${lines.length} lines`
}
