import type { SuspectGroup } from '#core/trace/groups'

/** Groups weaker than this are not shown. */
const LEAST_SUSPICION = 0.01
const MOST_GROUPS = 8
/** Members of one group that are listed; the rest are counted. */
const MOST_MEMBERS = 5

/** What of a ranking is shown: the likely groups, and of each the likeliest members; of those that were opened (by their place) all. */
export function shownGroups(groups: readonly SuspectGroup[], opened: ReadonlySet<number> = new Set()): (SuspectGroup & { more: number })[] {
  return groups.filter(g => g.probability >= LEAST_SUSPICION).slice(0, MOST_GROUPS).map((group, k) => {
    const likely = group.suspects.filter((s, n) => n === 0 || s.probability >= LEAST_SUSPICION)
    const most = opened.has(k) ? Infinity : Math.min(MOST_MEMBERS, likely.length)
    return { ...group, suspects: group.suspects.slice(0, most), more: Math.max(0, group.suspects.length - most) }
  })
}

/** A chance as it is said. No finer than calibration carries: simulated rigs hold what is said within a few in a hundred, and no list holds every fault. */
export function shareText(probability: number): string {
  return probability >= 0.97 ? 'over 97 %' : probability < 0.01 ? 'under 1 %' : `${Math.round(probability * 100)} %`
}
