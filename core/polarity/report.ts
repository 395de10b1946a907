import type { Job } from '#core/job/schema'
import { heardTogether, type HeardTogether } from '#core/job/heard'
import { fewestSwaps, type SwapLine } from './fewestSwaps'
import type { Joint, Joints } from './joints'
import { turnedLeaves, type TurnedLeaf } from './turned'

/** All that is known of which way round the speakers of a job are, and the fewest corrections. */
export interface PolarityReport {
  leaves: TurnedLeaf[]
  /** Speakers heard together, each with its ends. */
  groups: PolarityGroup[]
  /** So that the speakers of each group agree; so that all are as marked besides. */
  agree: Corrections
  absolute: Corrections
}

export interface PolarityGroup extends HeardTogether {
  leaves: TurnedLeaf[]
  /**
   * `alike`: all known ends lie alike; `apart`: they do not; `open`: too few are known. What is left as it is counts for neither. With
   * `notKnown` above zero, the word is of the known ones only.
   */
  is: 'alike' | 'apart' | 'open'
  notKnown: number
}

export interface Correction { line: Joints, joint: Joint, /** Speakers behind it. */ turns: TurnedLeaf[] }
export interface Corrections {
  swaps: Correction[]
  /** The search is exact, and nothing that it is of was left out because nobody knows it. */
  isProven: boolean
  /** The search itself is exact: of what is known there are no fewer. */
  isExact: boolean
}

export function polarityOf(job: Pick<Job, 'amplifiers' | 'spaces' | 'zones' | 'splices' | 'readings' | 'repairs' | 'leavings'>): PolarityReport {
  const leaves = turnedLeaves(job)
  const bySpeaker = grouped(leaves)
  const groups = heardTogether(job).map((group): PolarityGroup => {
    const all = group.nodeIds.flatMap(id => bySpeaker.get(id) ?? [])
    const counted = all.filter(leaf => !leaf.isLeft)
    const known = counted.filter(leaf => leaf.taken !== null)
    const isApart = known.some(leaf => leaf.taken !== known[0]!.taken)
    return { ...group, leaves: all, notKnown: counted.length - known.length, is: isApart ? 'apart' : known.length < Math.min(2, counted.length) ? 'open' : 'alike' }
  })
  const groupOf = new Map(groups.flatMap((group, k) => group.leaves.map(leaf => [leaf, String(k)] as const)))
  return {
    leaves, groups,
    agree: corrections(leaves, leaf => groupOf.get(leaf)!, groups.every(g => g.notKnown === 0 || g.leaves.length === 1)),
    absolute: corrections(leaves, () => null, leaves.every(leaf => leaf.taken !== null || leaf.isLeft)),
  }
}

function grouped(leaves: readonly TurnedLeaf[]): Map<string, TurnedLeaf[]> {
  const by = new Map<string, TurnedLeaf[]>()
  for (const leaf of leaves) by.set(leaf.speaker.id, [...by.get(leaf.speaker.id) ?? [], leaf])
  return by
}

function corrections(leaves: readonly TurnedLeaf[], groupOf: (leaf: TurnedLeaf) => string | null, isAllKnown: boolean): Corrections {
  const lines = [...new Set(leaves.map(leaf => leaf.line))]
  const ends = (line: Joints) => leaves.filter(leaf => leaf.line === line && leaf.taken !== null && !leaf.isLeft)
  const asked = lines.map((line): SwapLine => ({ line, ends: ends(line).map(leaf => ({ before: leaf.before, parity: leaf.taken!, group: groupOf(leaf) })) }))
  const { swaps, isProven } = fewestSwaps(asked)
  return {
    swaps: swaps.map(({ line, joint }) => ({ line: lines[line]!, joint, turns: behind(lines[line]!, joint, leaves) })),
    isProven: isProven && isAllKnown, isExact: isProven,
  }
}

/** The ends that a joint leads to. */
export function behind(line: Joints, joint: Joint, leaves: readonly TurnedLeaf[]): TurnedLeaf[] {
  const at = line.joints.indexOf(joint)
  const leads = new Set([at])
  // Joints stand behind those that they hang on.
  for (let k = at + 1; k < line.joints.length; k++) {
    const { before } = line.joints[k]!
    if (before !== null && leads.has(before)) leads.add(k)
  }
  return leaves.filter(leaf => leaf.line === line && leads.has(leaf.before))
}
