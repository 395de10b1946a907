import { likenessOf } from '#core/quantity/same'
import { marksAt } from '#core/check/marks'
import type { LineProof } from '#core/check/proof'
import type { Chain, Group, Speaker } from '#core/job/schema'
import { isGroup } from '#core/network/tree'
import type { LineEvaluation } from '#core/line/evaluate'

/** Equals side by side on a rail are drawn as one tag; what differs stands out of it. */

/** So many equals are worth folding; three tags are read as quickly. */
const LEAST = 4
/** A rail of more rows than this is drawn folded without being asked. */
const MOST_ROWS = 3

/** How a person wants a rail: as it comes, every tag, or equals as one. */
export type FoldWish = 'open' | 'folded' | undefined

/** What a speaker is, in so far as another may be drawn with it; null where it is to be seen by itself: read wrong, or repaired and not proved. */
function faceOf(speaker: Speaker, proof: LineProof, isAwaiting: (id: string) => boolean, isRepaired: (id: string) => boolean): string | null {
  const grades = marksAt(proof, speaker.id).map(mark => mark.grade ?? 'none')
  if (grades.includes('stop') || grades.includes('tight') || isAwaiting(speaker.id) || isRepaired(speaker.id)) return null
  const { name, load, continuousW, driverOhm, kindId, zoneId } = speaker
  return likenessOf([name, load, continuousW, driverOhm, kindId, zoneId, grades])
}

/** Stretches of equals that hang on the rail itself or behind one of its controls, one after the other, in its order. */
export function stretchesOf(line: LineEvaluation, proof: LineProof): string[][] {
  const repaired = new Set(proof.repairs.map(r => r.nodeId))
  const awaiting = new Set(proof.unproved.map(r => r.nodeId))
  const stretches: { face: string | null, ids: string[] }[] = []
  const visit = (run: Group) => {
    // What hangs behind a control is no neighbour of what hangs beside it.
    stretches.push({ face: null, ids: [] })
    for (const { node } of run.children) {
      const face = node.kind === 'speaker' ? faceOf(node, proof, id => awaiting.has(id), id => repaired.has(id)) : null
      const last = stretches.at(-1)
      if (face !== null && last?.face === face) last.ids.push(node.id)
      else stretches.push({ face, ids: [node.id] })
      if (node.kind === 'chain' && node.through && run === line.output.wiring) visit(node)
    }
    stretches.push({ face: null, ids: [] })
  }
  visit(line.output.wiring)
  return stretches.filter(s => s.face !== null && s.ids.length >= LEAST).map(s => s.ids)
}

/** Whether a rail of so many rows is drawn folded. */
export function isFolding(rows: number, wish: FoldWish): boolean {
  return wish === 'folded' || (wish === undefined && rows > MOST_ROWS)
}

interface LookedAt { nodeId: string | null, chosen: ReadonlySet<string>, suspects: ReadonlySet<string> }
/**
 * The stretches that are drawn as one: none of them that is looked into. One is, when something of it is selected or chosen and not all of it, or when one of
 * its speakers is suspected. Where that is only its first or its last, as when one is added behind forty, that one hangs beside the fold of the others: forty
 * tags that came and went with it were four rows of commotion, and 70 ms of the key.
 */
export function closedFolds(stretches: readonly string[][], at: LookedAt): string[][] {
  const isHeld = (id: string) => at.chosen.has(id) || id === at.nodeId
  const areAlike = (ids: readonly string[]) => ids.every(id => isHeld(id) === isHeld(ids[0]!))
  return stretches.flatMap((ids) => {
    if (ids.some(id => at.suspects.has(id))) return []
    return [ids, ids.slice(1), ids.slice(0, -1)].filter(part => part.length >= LEAST && areAlike(part)).slice(0, 1)
  })
}

/** What the arrow keys go along: speakers, and controls and transformers before what hangs behind them. */
export function orderOf(wiring: Group | Chain): string[] {
  return wiring.children.flatMap(({ node }) => isGroup(node) ? [...node.through ? [node.id] : [], ...orderOf(node)] : [node.id])
}

/** The stops of the arrow keys along a rail: a tag each, a fold as one. */
export function stopsOf(speakerIds: readonly string[], folds: readonly string[][]): string[][] {
  const foldOf = new Map(folds.flatMap(ids => ids.map(id => [id, ids] as const)))
  return [...new Set(speakerIds.map(id => foldOf.get(id) ?? id))].map(stop => typeof stop === 'string' ? [stop] : stop)
}

/** "4.2–5.0"; one figure where both ends are written alike, "—" where any is not known. */
export function rangeText(values: readonly (number | null)[], write: (value: number) => string): string {
  if (values.length === 0 || values.includes(null)) return '—'
  const known = values as readonly number[]
  const [least, most] = [write(Math.min(...known)), write(Math.max(...known))]
  return least === most ? least : `${least}–${most}`
}
