import type { Grade } from '#core/check/verdict'
import { kindOf } from '#core/hands/kinds'
import type { Job, Space } from '#core/job/schema'
import { allSpeakers, throughsOf } from '#core/job/tree'
import { differsFrom, withVariant, type VariantDiffers } from '#core/hands/variants'
import { writeCable } from '#core/quantity/cable'
import { allowedTapsW } from '#core/line/allowance'
import { cableList, USUAL_SLACK } from './cableList'
import { evaluateJob, type LineEvaluation } from '#core/line/evaluate'
import { dropsById, spaceFacts, type SpaceFacts } from './spaces'

/** A job beside its variants: what each draws, keeps, loses, how even it is, what it costs. What is known in part is not known, and says so. */

/** Where a job has nothing of the kind: no transformer line, no space. */
export type OrNone<T> = T | 'none' | null

/** What the library asks for: models by their ids, cable by the metre under what it is written as. */
export interface Prices { models: Readonly<Record<string, number>>, cable: Readonly<Record<string, number>> }

export interface VariantFigures {
  /** What all outputs give at full output, W; null while one with speakers is not known. */
  drawnW: number | null
  lines: Record<Grade, number>
  /** The transformer line with the least left of what the chosen school allows, W, less than nothing where it is over; null while one is not known. */
  tightest: OrNone<{ label: string, spareW: number }>
  /** The space that is least above its target, dB, and the one with the widest spread over its floor; null while one is not known. */
  quietest: OrNone<{ name: string, overDb: number }>
  widest: OrNone<{ name: string, spreadDb: number }>
  /** The speaker that the wire takes most from; null while a length is missing. */
  loss: OrNone<{ at: string, lossDb: number }>
  /** Speakers, amplifiers, controls, transformers, and cable with the usual slack; `unpriced`: things without a price, `missing`: lengths not stated. */
  price: { sum: number, unpriced: number, missing: number }
}
export interface Compared { id: string | null, name: string, figures: VariantFigures, differs: VariantDiffers | null }

/** The job as it is, then its variants. */
export function compareVariants(job: Job, prices: Prices): Compared[] {
  return [
    { id: null, name: 'As it is', figures: figuresOf(job, prices), differs: null },
    ...job.variants.map(v => ({ id: v.id, name: v.name, figures: figuresOf(withVariant(job, v), prices), differs: differsFrom(job.amplifiers, v.amplifiers) })),
  ]
}

/** The least of a list by a figure; null where one is not known. */
function least<T, F>(list: readonly T[], of: (item: T) => F | null, by: (figure: F) => number): OrNone<F> {
  const figures = list.map(of)
  if (figures.length === 0) return 'none'
  if (figures.some(f => f === null)) return null
  return (figures as F[]).reduce((a, b) => by(b) < by(a) ? b : a)
}

export function figuresOf(job: Job, prices: Prices): VariantFigures {
  const lines = evaluateJob(job)
  const live = lines.filter(l => l.speakers.length > 0)
  const drops = dropsById(lines)
  const spaces = job.spaces.filter(s => s.spots.length > 0).map(s => ({ space: s, facts: spaceFacts(job, drops, s) }))
  const count = (grade: Grade) => live.filter(l => l.grade === grade).length
  return {
    drawnW: live.some(l => l.amplifierW === null) ? null : live.reduce((sum, l) => sum + l.amplifierW!, 0),
    lines: { stop: count('stop'), tight: count('tight'), good: count('good'), unknown: count('unknown') },
    tightest: least(live.filter(l => l.kind === 'constant-voltage'), l => tightnessOf(l, job), t => t.spareW),
    quietest: least(spaces, overOf, q => q.overDb),
    widest: least(spaces, ({ space, facts }) => facts.level && { name: space.name, spreadDb: facts.level.spreadDb }, w => -w.spreadDb),
    loss: least(live, lossOf, l => l.lossDb),
    price: priceOf(job, prices),
  }
}

function overOf({ space, facts: { level, targetDb } }: { space: Space, facts: SpaceFacts }): { name: string, overDb: number } | null {
  return level && targetDb !== null ? { name: space.name, overDb: level.meanDb - targetDb } : null
}

function tightnessOf(line: LineEvaluation, { practice }: Job): { label: string, spareW: number } | null {
  const allowedW = allowedTapsW(line, practice)
  return allowedW === null || line.counted === null ? null : { label: line.output.label, spareW: allowedW - line.counted.tapsW }
}

function lossOf({ output, farthest, cable }: LineEvaluation): { at: string, lossDb: number } | null {
  return farthest === null || cable.missing > 0 ? null : { at: `${output.label} ${farthest.drop.label}`, lossDb: farthest.lossDb }
}

function priceOf(job: Job, { models, cable }: Prices): VariantFigures['price'] {
  const list = cableList(job, USUAL_SLACK)
  const known = (id: string | undefined) => id === undefined ? null : models[id] ?? null
  const asked = [
    ...allSpeakers(job).map(s => kindOf(job, s)?.model.price ?? null),
    ...job.amplifiers.filter(a => a.outputs.length > 0).map(a => known(a.from?.modelId)),
    ...throughsOf(job).map(t => known(t.through.from?.modelId)),
    ...list.sizes.map((s) => {
      const perM = cable[writeCable(s.cable)]
      return perM === undefined ? null : perM * s.withSlackM
    }),
  ]
  return { sum: asked.reduce<number>((sum, p) => sum + (p ?? 0), 0), unpriced: asked.filter(p => p === null).length, missing: list.missing }
}
