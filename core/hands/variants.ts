import { together, type Edit, type SimpleEdit } from '#core/job/edits'
import type { NewId } from './intents'
import type { Amplifier, Branch, Job, Output, Variant, WireNode } from '#core/job/schema'
import { same } from '#core/quantity/same'
import { branchesOf, speakersOf } from '#core/job/tree'
import { isGroup } from '#core/network/tree'

/** Variants of a job: the wiring as it is kept beside, gone over to, told apart. Each gives null where there is nothing to do. */

/** The wiring as it is now, kept under a name. */
export function keepVariant(job: Job, name: string, at: string, newId: NewId): Edit {
  return { kind: 'variant.add', index: job.variants.length, variant: { id: newId(), name, at, amplifiers: job.amplifiers } }
}

/** The job wired as a variant is. Amplifiers that are alike stay; the others are replaced as a whole, so one undo brings all back. */
export function takeVariant(job: Job, variantId: string): Edit | null {
  const variant = job.variants.find(v => v.id === variantId)
  if (!variant) return null
  const wanted = variant.amplifiers.map(a => known(job, a))
  const stays = (a: Amplifier, list: readonly Amplifier[]) => list.some(o => same(o, a))
  const kept = job.amplifiers.filter(a => stays(a, wanted))
  // What stays has to stand in the same order; else all of it is replaced.
  const isInOrder = same(kept.map(a => a.id), wanted.filter(a => stays(a, kept)).map(a => a.id))
  const staying = isInOrder ? kept : []
  const edits: SimpleEdit[] = job.amplifiers.filter(a => !staying.includes(a)).map(a => ({ kind: 'amplifier.remove', amplifierId: a.id, was: a }))
  wanted.forEach((amplifier, index) => { if (!staying.some(a => a.id === amplifier.id)) edits.push({ kind: 'amplifier.add', index, amplifier }) })
  return together(edits)
}

/** Without kinds and zones that the job has no more. */
function known(job: Job, amplifier: Amplifier): Amplifier {
  const isThere = (list: readonly { id: string }[], id: string | null) => id !== null && list.some(x => x.id === id)
  const node = (n: WireNode): WireNode => isGroup(n)
    ? { ...n, children: n.children.map(branch) }
    : { ...n, kindId: isThere(job.kinds, n.kindId) ? n.kindId : null, zoneId: isThere(job.zones, n.zoneId) ? n.zoneId : null }
  const branch = (b: Branch): Branch => ({ ...b, node: node(b.node) })
  const output = (o: Output): Output => ({ ...o, wiring: { ...o.wiring, children: o.wiring.children.map(branch) } })
  return { ...amplifier, outputs: amplifier.outputs.map(output) }
}

/** The job as it would be with a variant's wiring. */
export const withVariant = (job: Job, variant: Variant): Job => ({ ...job, amplifiers: variant.amplifiers.map(a => known(job, a)) })

/** How far one wiring is from another, in pieces that a person would change. */
export interface VariantDiffers extends Record<'speakers' | 'amplifiers', { more: number, less: number }>, Record<'taps' | 'cable' | 'elsewhere', number> {}

export function differsFrom(now: readonly Amplifier[], then: readonly Amplifier[]): VariantDiffers {
  const [before, after] = [partsOf(now), partsOf(then)]
  const ids = (list: readonly Amplifier[]) => new Set(list.map(a => a.id))
  const missing = <T>(a: ReadonlySet<T> | ReadonlyMap<T, unknown>, b: ReadonlySet<T> | ReadonlyMap<T, unknown>) => [...a.keys()].filter(id => !b.has(id)).length
  let [taps, cable, elsewhere] = [0, 0, 0]
  for (const [id, { load, lead, outputId }] of before) {
    const other = after.get(id)
    if (!other) continue
    if (!same(load, other.load)) taps++
    if (!same(lead, other.lead)) cable++
    if (outputId !== other.outputId) elsewhere++
  }
  return {
    speakers: { more: missing(after, before), less: missing(before, after) }, taps, cable, elsewhere,
    amplifiers: { more: missing(ids(then), ids(now)), less: missing(ids(now), ids(then)) },
  }
}

function partsOf(amplifiers: readonly Amplifier[]) {
  const parts = new Map<string, { load: unknown, lead: Branch['lead'], outputId: string }>()
  for (const { outputs } of amplifiers) for (const { id, wiring } of outputs) {
    const loads = new Map(speakersOf(wiring).map(s => [s.id, s.load]))
    for (const { node, lead } of branchesOf(wiring)) if (loads.has(node.id)) parts.set(node.id, { load: loads.get(node.id), lead, outputId: id })
  }
  return parts
}
