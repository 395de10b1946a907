import { countOf } from '#core/quantity/write'
import type { LineKind } from '#core/amplifier/rating'
import type { Grade } from '#core/check/verdict'
import type { StateId } from '#core/job/protocol'

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

export function sumOf(lines: readonly LineState[], key: 'proved' | 'total' | 'wrong' | 'unproved'): number {
  return lines.reduce((all, line) => all + line[key], 0)
}

/** The grade of a whole job: what is known in part is not known. */
export function gradeOf(lines: readonly LineState[]): Grade {
  const worst = lines.find(l => l.grade === 'stop') ?? lines.find(l => l.grade === 'tight') ?? lines.find(l => l.grade === 'unknown') ?? lines[0]
  return worst?.grade ?? 'unknown'
}

/** What a job's most pressing thing is called, in a list to choose from. */
export const STATE_NAMES: Record<StateId, string> = {
  stop: 'must not be switched on', wrong: 'reads wrong', unproved: 'repairs to prove', tight: 'tight', open: 'to be proved', empty: 'no speakers yet', proved: 'all proved',
}

/** The most pressing thing about a job, for sorting and choosing. */
export function pressing(lines: readonly LineState[]): StateId {
  if (lines.some(l => l.grade === 'stop')) return 'stop'
  if (sumOf(lines, 'wrong') > 0) return 'wrong'
  if (sumOf(lines, 'unproved') > 0) return 'unproved'
  if (lines.some(l => l.grade === 'tight')) return 'tight'
  if (sumOf(lines, 'total') === 0) return 'empty'
  return sumOf(lines, 'proved') < sumOf(lines, 'total') ? 'open' : 'proved'
}

/** The state of a job in one sentence, the most pressing thing first; `spaces`: how many rooms are planned in it. */
export function stateSentence(lines: readonly LineState[], spaces = 0): string {
  if (lines.length === 0) return spaces > 0 ? `${countOf(spaces, 'space')} planned, no line yet.` : 'Nothing drawn yet.'
  const stops = lines.filter(l => l.grade === 'stop')
  const tights = lines.filter(l => l.grade === 'tight')
  const [wrong, unproved, proved, total] = (['wrong', 'unproved', 'proved', 'total'] as const).map(key => sumOf(lines, key)) as [number, number, number, number]
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
