import { isBeside, type Suspect } from './rank'

/** Suspects that the readings so far cannot tell apart. */
export interface SuspectGroup {
  suspects: Suspect[]
  /** Of all of them together. */
  probability: number
}

/** Fits that differ less than this explain the readings alike. */
export const ALIKE = 0.25

/**
 * Ranked suspects in groups of those that read alike so far; as drawn and something else stand for themselves, two faults by themselves. Likeliest group
 * first.
 */
export function groupSuspects(suspects: readonly Suspect[]): SuspectGroup[] {
  const groups: Suspect[][] = []
  for (const suspect of suspects) {
    const group = isBeside(suspect)
      ? undefined
      : groups.find(([first]) => !isBeside(first!) && first!.faults.length === suspect.faults.length
        && Math.abs(first!.fit - suspect.fit) < ALIKE)
    if (group) group.push(suspect)
    else groups.push([suspect])
  }
  return groups
    .map(group => ({ suspects: group, probability: group.reduce((sum, s) => sum + s.probability, 0) }))
    .sort((a, b) => b.probability - a.probability)
}
