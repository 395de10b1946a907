import type { Job, Speaker } from '#core/job/schema'
import { speakersOf, throughsOf } from '#core/job/tree'
import { allowedTapsW } from '#core/line/allowance'
import type { LineEvaluation } from '#core/line/evaluate'
import { tapDrawW } from '#core/line/facts'
import { sum, type Config, type PlannedGroups } from './choices'

/** What stops it: a line that may carry no more, a control rated for less, a space that no tap of its speakers brings to its target. */
export type Limit = { kind: 'line' | 'control', label: string, needsW: number, allowedW: number } | { kind: 'taps', label: string, missingDb: number }
/** What may carry no more than so much, and what a choice puts on it; `fixedW`: what hangs there and is not planned. */
export interface LimitRow { kind: 'line' | 'control', name: string, label: string, allowedW: number, of: (config: Config) => number, fixedW: number }
/** What lines and controls may carry; a line whose amplifier is not known has no limit that is known. */
export function limitRows(job: Job, lines: readonly LineEvaluation[], spaces: readonly PlannedGroups[], growth: number): LimitRow[] {
  const plannedIds = new Set(spaces.flatMap(s => s.groups.flatMap(g => g.speakers.map(x => x.id))))
  const drawOf = (s: Speaker, lineV: number | null) => s.load.kind === 'tap' && lineV !== null ? tapDrawW(s.load, lineV) : 0
  const rows = lines.flatMap((line, k): LimitRow[] => {
    const allowedW = allowedTapsW(line, job.practice)
    if (allowedW === null || line.kind !== 'constant-voltage') return []
    const plannedW = sum(line.speakers.filter(s => plannedIds.has(s.id)).map(s => drawOf(s, line.lineV)))
    const fixedW = Math.max(0, line.counted!.tapsW - plannedW)
    return [{ kind: 'line', name: `line${k}`, label: line.output.label, allowedW: allowedW / (1 + growth), of: c => c.byLine.get(line.outputId) ?? 0, fixedW }]
  })
  const lineVOf = new Map(lines.flatMap(l => l.speakers.map(s => [s.id, l.lineV] as const)))
  return [...rows, ...throughsOf(job).flatMap(({ group, through }, k): LimitRow[] => {
    if (through.kind !== 'control' || through.ratingW === null) return []
    const fixedW = sum(speakersOf(group).filter(s => !plannedIds.has(s.id)).map(s => drawOf(s, lineVOf.get(s.id) ?? null)))
    return [{ kind: 'control', name: `control${k}`, label: through.label, allowedW: through.ratingW, of: c => c.byControl.get(group.id) ?? 0, fixedW }]
  })]
}
