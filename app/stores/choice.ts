import { likenessOf } from '#core/quantity/same'
import type { Job, Speaker } from '#core/job/schema'
import { allSpeakers, outputsOf, speakersOf } from '#core/job/tree'

/** What several chosen speakers are: the one that is looked at, from where the choice began, and all of them. */
export interface Choice { nodeId: string | null, anchorId: string | null, chosen: ReadonlySet<string> }

export const NONE: ReadonlySet<string> = new Set()

/** Everything from where the choice began to a place, in the order of the rail; other rails' speakers stay out. */
export function upTo(order: readonly string[], choice: Choice, nodeId: string): Choice {
  const from = order.indexOf(choice.anchorId ?? choice.nodeId ?? nodeId)
  const to = order.indexOf(nodeId)
  if (from === -1 || to === -1) return { nodeId, anchorId: nodeId, chosen: NONE }
  return { nodeId, anchorId: order[from]!, chosen: held(order.slice(Math.min(from, to), Math.max(from, to) + 1)) }
}

/** One more, or one less; the last one stays looked at. */
export function toggled(choice: Choice, nodeId: string): Choice {
  const before = choice.chosen.size > 0 ? choice.chosen : new Set(choice.nodeId === null ? [] : [choice.nodeId])
  const chosen = new Set(before)
  if (!chosen.delete(nodeId)) chosen.add(nodeId)
  const last = chosen.has(nodeId) ? nodeId : [...chosen].at(-1) ?? nodeId
  return { nodeId: last, anchorId: last, chosen: held([...chosen]) }
}

/** One alone is no choice of several. */
export function held(ids: readonly string[]): ReadonlySet<string> {
  return ids.length > 1 ? new Set(ids) : NONE
}

/** What is still there of a choice. */
export function stillThere(job: Job, chosen: ReadonlySet<string>): ReadonlySet<string> {
  if (chosen.size === 0) return chosen
  const there = inOrder(job, chosen)
  return there.length === chosen.size ? chosen : held(there)
}

/** The chosen ones in wiring order, rail by rail. */
export function inOrder(job: Job, chosen: ReadonlySet<string>): string[] {
  return allSpeakers(job).filter(s => chosen.has(s.id)).map(s => s.id)
}

/** By what speakers are alike. */
export const ALIKE = {
  all: { says: 'the same in everything', same: (a: Speaker, b: Speaker) => a.name === b.name && a.continuousW === b.continuousW && a.driverOhm === b.driverOhm && loadOf(a) === loadOf(b) },
  tap: { says: 'on the same tap or impedance', same: (a: Speaker, b: Speaker) => tapOf(a) === tapOf(b) },
  name: { says: 'called the same', same: (a: Speaker, b: Speaker) => a.name === b.name },
} as const
export type AlikeBy = keyof typeof ALIKE

const loadOf = ({ load }: Speaker) => likenessOf(load)
const tapOf = ({ load }: Speaker) => load.kind === 'tap' ? `${load.tapW} W at ${load.ratedV} V` : likenessOf(load)

/** All that are like a speaker, on its rail or on all of them. */
export function allAlike(job: Job, like: Speaker, by: AlikeBy, outputId: string | null): string[] {
  return outputsOf(job).filter(o => outputId === null || o.id === outputId).flatMap(o => speakersOf(o.wiring))
    .filter(s => ALIKE[by].same(s, like)).map(s => s.id)
}
