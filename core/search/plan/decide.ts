import { sum, type Config, type PlannedGroups } from './choices'
import type { Limit, LimitRow } from './lineLimits'
import { writeLp, type Program, type Row, type Solved, type SolveLp } from './lp'

/** What nobody hears, dB: a target met but for this is met. */
const EQUAL_DB = 1e-6

const reaches = (s: PlannedGroups, c: Config) => c.meanDb >= s.targetDb - EQUAL_DB
export interface Decided { configs: Config[], limits: Limit[], boundW: number, lp: string }

/** The choice of every space, and what stops a better one. */
export async function decide(spaces: readonly PlannedGroups[], all: readonly LimitRow[], solve: SolveLp): Promise<Decided> {
  // What no planned speaker draws on is not this plan's to keep.
  const limits = all.filter(l => spaces.some(s => s.configs.some(c => l.of(c) > 0)))
  // A space that no tap brings there sounds as loud as it can; it stops the plan, whatever the lines carry.
  const short = spaces.filter(s => !s.configs.some(c => reaches(s, c)))
    .map((s): Limit => ({ kind: 'taps', label: s.space.name, missingDb: s.targetDb - Math.max(...s.configs.map(c => c.meanDb)) }))
  const wanted = spaces.map(s => s.configs.filter(c => reaches(s, c)))
  const able = spaces.map((s, k) => wanted[k]!.length > 0 ? wanted[k]! : s.configs)
  const whole = programOf(spaces, wanted, limits, c => c.watts, ['the least watts that bring every space to its target'])
  const lp = writeLp(whole)
  if (short.length === 0) {
    const first = spaces.length === 0 ? { status: 'optimal' as const, objective: 0, taken: new Set<string>(), counted: new Map<string, number>() } : await solve(lp)
    if (first.status === 'optimal') return { configs: picked(wanted, first), limits: [], boundW: first.objective, lp }
  }
  const stops = short.length < spaces.length ? await stoppedBy(spaces, able, limits, solve) : []
  // The nearest that can: the least decibels short in all, then the least watts.
  const every = spaces.map(s => s.configs)
  const shortOf = new Map(spaces.flatMap(s => s.configs.map(c => [c, Math.max(0, s.targetDb - c.meanDb)] as const)))
  const least = await solve(writeLp(programOf(spaces, every, limits, c => shortOf.get(c)!, [])))
  if (least.status === 'infeasible') {
    // Not even the lowest taps fit: they are the nearest.
    const lowest = every.map(configs => configs.reduce((a, b) => b.watts < a.watts ? b : a))
    return { configs: lowest, limits: [...short, ...stops], boundW: sum(lowest.map(c => c.watts)), lp }
  }
  const cap: Row = { name: 'short', sum: new Map(every.flat().map(c => [c.name, shortOf.get(c)!])), is: '<=', value: least.objective + 1e-6 }
  const lightest = programOf(spaces, every, limits, c => c.watts, [])
  const nearest = await solve(writeLp({ ...lightest, rows: [...lightest.rows, cap] }))
  const answer = nearest.status === 'optimal' ? nearest : least
  const configs = picked(every, answer)
  return { configs, limits: [...short, ...stops], boundW: sum(configs.map(c => c.watts)), lp }
}

/** The fewest limits that have to give way for every space to reach what its taps can; with what they then carry. */
async function stoppedBy(spaces: readonly PlannedGroups[], able: readonly Config[][], limits: readonly LimitRow[], solve: SolveLp): Promise<Limit[]> {
  const program = programOf(spaces, able, limits, () => 0, [])
  const gives = limits.map((l, k) => ({ limit: l, name: `gives${k}`, enoughW: l.fixedW + sum(able.map(configs => Math.max(0, ...configs.map(l.of)))) }))
  const rows = program.rows.map((row) => {
    const give = gives.find(g => g.limit.name === row.name)
    return give ? { ...row, sum: new Map([...row.sum, [give.name, -give.enoughW]]) } : row
  })
  // Watts break ties, far below one limit: of the same fewest the plan that draws least.
  const tie = 1 / (1 + sum(able.map(configs => Math.max(0, ...configs.map(c => c.watts)))) * 10)
  const minimize = new Map([...gives.map(g => [g.name, 1] as const), ...able.flat().map(c => [c.name, c.watts * tie] as const)])
  const answer = await solve(writeLp({ ...program, minimize, rows, choices: [...program.choices, ...gives.map(g => g.name)] }))
  const configs = picked(able, answer)
  return gives.filter(g => answer.taken.has(g.name))
    .map(({ limit: l }) => ({ kind: l.kind, label: l.label, allowedW: l.allowedW, needsW: l.fixedW + sum(configs.map(l.of)) }))
}

function programOf(
  spaces: readonly PlannedGroups[], configs: readonly Config[][], limits: readonly LimitRow[], cost: (config: Config) => number, remarks: string[],
): Program {
  const all = configs.flat()
  return {
    remarks: [
      ...remarks, ...spaces.map((s, k) => `${configs[k]![0]?.name.replace(/_c\d+$/, '') ?? `s${k}`}: ${s.space.name}, ${Number(s.targetDb.toFixed(2))} dB`),
      ...limits.map(l => `${l.name}: ${l.kind} ${l.label}, ${Number(l.allowedW.toFixed(3))} W`),
    ],
    minimize: new Map(all.map(c => [c.name, cost(c)])),
    rows: [
      ...configs.map((list, k): Row => ({ name: `one${k}`, sum: new Map(list.map(c => [c.name, 1])), is: '=', value: 1 })),
      ...limits.map((l): Row => ({ name: l.name, sum: new Map(all.map(c => [c.name, l.of(c)])), is: '<=', value: l.allowedW - l.fixedW + 1e-9 })),
    ],
    choices: all.map(c => c.name),
  }
}

const picked = (configs: readonly Config[][], { taken }: Solved): Config[] => configs.map(list => list.find(c => taken.has(c.name)) ?? list[0]!)
