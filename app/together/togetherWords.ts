import type { Disagreement } from '#core/check/disagree'
import { KIND_NAMES } from '#core/check/gradeWords'
import { valueWords } from '#core/check/words'
import { ticketOf } from '#core/bench/ticket'
import type { Other } from '#core/door/here'
import { findOutput, findPlace } from '#core/job/tree'
import { isGroup } from '#core/network/tree'
import type { Job } from '#core/job/schema'
import type { News } from '#core/window/state'

/** What is said of others on the same job. Names are handed in: `nameOf` a device, null the machine that serves. */
export type NameOf = (who: string | null) => string

/** "A1 C7", "A1", the unit of a ticket, "" for a place that is nowhere. */
export function placeWords(job: Job, outputId: string | null, nodeId: string | null): string {
  const place = nodeId === null ? null : findPlace(job, nodeId)
  if (place) {
    const { node } = place.branch
    return `${place.output.label} ${isGroup(node) ? node.through?.label ?? '' : node.label}`.trim()
  }
  return outputId === null ? '' : findOutput(job, outputId)?.output.label ?? ticketOf(job, outputId)?.head.unit ?? ''
}

/** "Anna’s phone at A1 C7 (check)". Several windows of one are told once each where they are. */
export function hereWords(job: Job, others: readonly Other[], nameOf: NameOf): string[] {
  return [...new Set(others.map(({ who, station, outputId, nodeId }) => {
    const at = placeWords(job, outputId, nodeId)
    return `${nameOf(who)}${at === '' ? '' : ` at ${at}`} (${station})`
  }))]
}

/** What each of the others did since, the newest first: by name, how many, and the last of it. */
export function newsWords(news: readonly News[], nameOf: NameOf): { id: string, name: string, count: number, last: string }[] {
  const byName = new Map<string, News[]>()
  for (const item of news) byName.set(nameOf(item.who), [...byName.get(nameOf(item.who)) ?? [], item])
  return [...byName].map(([name, items]) => ({ id: items.at(-1)!.id, name, count: items.length, last: items.at(-1)!.says }))
    .sort((a, b) => news.findIndex(n => n.id === b.id) - news.findIndex(n => n.id === a.id))
}

export interface Contradiction { key: string, outputId: string, nodeId: string | null, says: string }

/** "A1 C7, coil DCR: 6.2 Ω by Anna’s phone, open by this device." */
export function disagreementWords(job: Job, { outputId, nodeId, earlier, later }: Disagreement, nameOf: NameOf): Contradiction {
  const one = (r: Disagreement['earlier']) => `${valueWords(r.value)} by ${nameOf(r.who)}`
  return { key: `${earlier.id} ${later.id}`, outputId, nodeId, says: `${placeWords(job, outputId, nodeId)}, ${KIND_NAMES[later.kind]}: ${one(earlier)}, ${one(later)}.` }
}
