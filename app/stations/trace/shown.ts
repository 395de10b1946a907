import type { SuspectGroup } from '#core/trace/groups'
import { isBeside, type Suspect } from '#core/trace/rank'

/** Groups weaker than this are not shown. */
const LEAST_SUSPICION = 0.01
const MOST_GROUPS = 8
/** Rows of one group that are listed; the rest are counted. */
const MOST_ROWS = 5

/** One fault at several places that read alike: one row. */
export interface SuspectRow { suspects: readonly Suspect[], probability: number }
export interface ShownGroup {
  rows: readonly SuspectRow[]
  probability: number
  /** Rows that are not listed. */
  more: number
  /** Among groups of faults; null: it is no fault of the list, and stands beside them. */
  place: number | null
}

/**
 * What of a ranking is shown: the likely groups, and of each the likeliest rows; of those that were opened (by their place) all. As drawn, and something
 * that is not in the list, stand beside them always, however unlikely: before them where likelier than any, else after them.
 */
export function shownGroups(groups: readonly SuspectGroup[], opened: ReadonlySet<number> = new Set()): ShownGroup[] {
  const standsBeside = ({ suspects: [first] }: SuspectGroup) => isBeside(first!)
  const faults = groups.filter(g => !standsBeside(g) && g.probability >= LEAST_SUSPICION).slice(0, MOST_GROUPS).map((group, place): ShownGroup => {
    const rows = rowsOf(group.suspects)
    const likely = rows.filter((row, n) => n === 0 || row.probability >= LEAST_SUSPICION)
    const most = opened.has(place) ? Infinity : Math.min(MOST_ROWS, likely.length)
    return { rows: rows.slice(0, most), probability: group.probability, more: Math.max(0, rows.length - most), place }
  })
  const beside = groups.filter(standsBeside)
    .map(({ suspects, probability }): ShownGroup => ({ rows: [{ suspects, probability }], probability, more: 0, place: null }))
  const isFirst = ({ probability }: ShownGroup) => probability > (faults[0]?.probability ?? 0)
  return [...beside.filter(isFirst), ...faults, ...beside.filter(g => !isFirst(g))]
}

/** Numbers of rows, as they are told and marked on the rail: of faults; null beside them. */
export function numbersOf(groups: readonly ShownGroup[]): (number | null)[] {
  let count = 0
  return groups.flatMap(({ rows, place }) => rows.map(() => place === null ? null : ++count))
}

/** By kind, likeliest first: what is the same but for its place is one row. */
function rowsOf(suspects: readonly Suspect[]): SuspectRow[] {
  const rows = new Map<string, Suspect[]>()
  suspects.forEach((suspect, k) => {
    const [fault] = suspect.faults
    const isAtPlace = suspect.faults.length === 1 && fault!.nodeId !== null
    const key = isAtPlace ? [fault!.kind, fault!.tapW, fault!.way, fault!.withId].join(' ') : `${k}`
    const known = rows.get(key)
    if (known) known.push(suspect)
    else rows.set(key, [suspect])
  })
  return [...rows.values()]
    .map(all => ({ suspects: all, probability: all.reduce((sum, s) => sum + s.probability, 0) }))
    .sort((a, b) => b.probability - a.probability)
}

/** Places of a row as they are said: so many by name, and how many more. */
const NAMED = 6
export function placesText(names: readonly string[]): string {
  if (names.length <= NAMED) return names.join(', ')
  return `${names.slice(0, NAMED - 1).join(', ')} and ${names.length - NAMED + 1} more`
}

/** A chance as it is said. No finer than calibration carries: simulated rigs hold what is said within a few in a hundred, and no list holds every fault. */
export function shareText(probability: number): string {
  return probability >= 0.97 ? 'over 97 %' : probability < 0.01 ? 'under 1 %' : `${Math.round(probability * 100)} %`
}
