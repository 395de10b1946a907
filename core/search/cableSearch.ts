import { z } from 'zod'
import { METER_HZ } from '#core/check/readingBands'
import type { Edit, SimpleEdit } from '#core/job/edits'
import { together } from '#core/job/edits'
import type { Branch, Group, Output } from '#core/job/schema'
import { branchesOf } from '#core/job/tree'
import { isGroup } from '#core/network/tree'
import { compile } from '#core/network/compile'
import { conductorOhmPerM, COPPER_OHM_MM2_PER_M } from '#core/network/cable'
import { asJudged } from '#core/network/label'
import { levelDb } from '#core/network/line'
import { solve } from '#core/network/solve'
import { fullyUp } from '#core/line/behind'
import { flowAt, makeSolver, type Solver } from '#core/network/solver'
import { sameCable, type Cable } from '#core/quantity/cable'

/**
 * The thinnest cable that keeps the worst drop of a line within a limit: as one size for all of it, and as sizes that fall along it, behind controls and
 * inside of groups too. Least copper, mm²·m of one conductor; exact where the search came to its end, which `proven` says.
 */
export interface CableSearch {
  single: CablePlan | null
  falling: CablePlan | null
  /** Every better plan was ruled out. */
  proven: boolean
  lengthM: number
}
export interface CablePlan { leads: { nodeId: string, cable: Cable, lengthM: number }[], worstDb: number, copperMm2M: number }

/** So much is solved, drops times solves, before the best that was found is given unproven: some two seconds for forty drops. */
const MOST_WORK = 12_000_000
/** A hair against the last bits of arithmetic. */
const HAIR_DB = 1e-9

/** Copper of one conductor a metre, mm²: its standard's resistance as solid copper would have it, so that gauges and areas compare. */
export const copperMm2 = (cable: Cable): number => COPPER_OHM_MM2_PER_M / conductorOhmPerM(cable)

/** A lead of a stated length; `before`: the one that its current comes through, -1 at the head. None may be thicker than the one before it. */
interface RunLead { branch: Branch & { lead: NonNullable<Branch['lead']> }, before: number }
/** All leads of a stated length, each after the one before it; and for each speaker the last that leads to it. */
function runOf({ wiring }: Output): { run: RunLead[], lastTo: Map<string, number> } {
  const run: RunLead[] = []
  const lastTo = new Map<string, number>()
  const visit = (group: Group, cameBy: number): void => {
    let along = cameBy
    for (const branch of group.children) {
      const before = group.kind === 'chain' ? along : cameBy
      const here = hasLength(branch) ? run.push({ branch, before }) - 1 : before
      if (isGroup(branch.node)) visit(branch.node, here)
      else lastTo.set(branch.node.id, here)
      along = here
    }
  }
  visit(wiring, -1)
  return { run, lastTo }
}
const hasLength = (branch: Branch): branch is RunLead['branch'] => branch.lead !== null && branch.lead.lengthM > 0

/** The line with its run's resistances in the hand: set, solved, read, without anything built anew. */
class Line {
  private readonly solver: Solver
  private readonly leadAt: number[]
  /** Speakers: where they are in the circuit, the last lead to each, and their volts without any lead. */
  private readonly drops: { index: number, last: number, bareV: number }[]
  solves = 0

  constructor(output: Output, run: readonly RunLead[], lastTo: ReadonlyMap<string, number>) {
    const circuit = compile({ lead: null, node: fullyUp(output.wiring) }, asJudged)
    this.solver = makeSolver(circuit)
    const at = new Map(circuit.ids.map((id, k) => [id, k]))
    this.leadAt = run.map(({ branch }) => at.get(branch.node.id)!)
    const bare = makeSolver({ ...circuit, leadOhm: new Float64Array(circuit.count) })
    solve(bare, METER_HZ, 1)
    const volts = (solver: Solver, index: number) => {
      const { vRe, vIm } = flowAt(solver, index)
      return Math.hypot(vRe, vIm)
    }
    this.drops = [...lastTo].map(([id, last]) => ({ index: at.get(id)!, last, bareV: volts(bare, at.get(id)!) })).filter(d => d.bareV > 0)
  }

  /** The worst level of the speakers whose last lead is `from` to `to`, dB; 0 where there are none. */
  worst(ohms: readonly number[], from = -1, to = Infinity): number {
    this.solves++
    this.leadAt.forEach((index, k) => { this.solver.circuit.leadOhm[index] = ohms[k]! })
    solve(this.solver, METER_HZ, 1)
    let worst = 0
    for (const { index, last, bareV } of this.drops) {
      if (last < from || last > to) continue
      const { vRe, vIm } = flowAt(this.solver, index)
      worst = Math.min(worst, levelDb(Math.hypot(vRe, vIm), bareV))
    }
    return worst
  }
}

/** One step a few hundred solves, so that a page can draw in between. Null where no length of the run is stated. */
export function* cableSearchInSteps(output: Output, limitDb: number, sizes: readonly Cable[]): Generator<void, CableSearch | null> {
  const { run, lastTo } = runOf(output)
  // Thick first: along every way from the head the index only grows.
  const sorted = [...sizes].sort((a, b) => conductorOhmPerM(a) - conductorOhmPerM(b))
  if (run.length === 0 || sorted.length === 0) return null
  const line = new Line(output, run, lastTo)
  const lengths = run.map(({ branch }) => branch.lead.lengthM)
  const ohm = sorted.map(cable => lengths.map(m => 2 * conductorOhmPerM(cable) * m))
  const copper = sorted.map(cable => lengths.map(m => copperMm2(cable) * m))
  const allowed = -limitDb - HAIR_DB
  const plan = (choice: readonly number[]): CablePlan => ({
    leads: run.map(({ branch }, k) => ({ nodeId: branch.node.id, cable: sorted[choice[k]!]!, lengthM: lengths[k]! })),
    worstDb: line.worst(choice.map((s, k) => ohm[s]![k]!)), copperMm2M: choice.reduce((sum, s, k) => sum + copper[s]![k]!, 0),
  })
  const single = sorted.findLastIndex((_, s) => line.worst(ohm[s]!) >= allowed)
  const result = { single: single === -1 ? null : plan(run.map(() => single)), lengthM: lengths.reduce((a, b) => a + b, 0) }

  const thinnest = sorted.length - 1
  /** The leads on the way to the last one. */
  const lastWay = new Set<number>()
  for (let k = run.length - 1; k >= 0; k = run[k]!.before) lastWay.add(k)
  /** Copper of the leads from k on in the thinnest: less there cannot be. */
  const least = lengths.map((_, k) => copper[thinnest]!.slice(k).reduce((a, b) => a + b, 0))
  let best = { choice: single === -1 ? null : run.map(() => single), copper: result.single?.copperMm2M ?? Infinity }
  const waiting: { choice: number[], copper: number }[] = [{ choice: [], copper: 0 }]
  let steps = 0
  while (waiting.length > 0 && line.solves * run.length < MOST_WORK) {
    const { choice, copper: used } = waiting.pop()!
    const k = choice.length
    if (used + (least[k] ?? 0) >= best.copper - 1e-9) continue
    if (++steps % 200 === 0) yield
    if (k > 0 && !canHold(choice)) continue
    if (k === run.length) {
      best = { choice, copper: used }
      continue
    }
    // The thinnest is tried first: it lies on top.
    for (let s = choice[run[k]!.before] ?? 0; s <= thinnest; s++) waiting.push({ choice: [...choice, s], copper: used + copper[s]![k]! })
  }
  return { ...result, falling: best.choice && plan(best.choice), proven: waiting.every(w => w.copper + (least[w.choice.length] ?? 0) >= best.copper - 1e-9) }

  /**
   * Whether sizes that begin so can keep the limit at all. A speaker gets most with all before it thick and everything else thin (less
   * current): those already reached are asked with the thinnest everywhere else, those at the end of the last way with the thickest that still may come
   * on that way.
   */
  function canHold(choice: readonly number[]): boolean {
    if (line.worst(lengths.map((_, k) => ohm[choice[k] ?? thinnest]![k]!), -1, choice.length - 1) < allowed) return false
    if (choice.length === run.length) return true
    const thickest: number[] = [...choice]
    for (let k = choice.length; k < run.length; k++) thickest[k] = thickest[run[k]!.before] ?? 0
    return line.worst(lengths.map((_, k) => ohm[lastWay.has(k) || k < choice.length ? thickest[k]! : thinnest]![k]!), run.length - 1) >= allowed
  }
}

export function cableSearch(output: Output, limitDb: number, sizes: readonly Cable[]): CableSearch | null {
  const steps = cableSearchInSteps(output, limitDb, sizes)
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
  }
}

/** A plan as one edit; null where the run is so already. */
export function layCable(output: Output, plan: CablePlan): Edit | null {
  const byId = new Map(plan.leads.map(l => [l.nodeId, l.cable]))
  return together(branchesOf(output.wiring).flatMap(({ lead, node }): SimpleEdit[] => {
    const cable = byId.get(node.id)
    return lead && cable && !sameCable(cable, lead.cable) ? [{ kind: 'lead.set', nodeId: node.id, was: lead, to: { ...lead, cable } }] : []
  }))
}

/** The search as the command line prints it: gauges only. */
export const cableReportSchema = z.strictObject({
  single: z.strictObject({ awg: z.int(), worstDb: z.number(), lengthM: z.number() }).nullable().describe('the thinnest single size that keeps the limit; null where none does'),
  falling: z.array(z.strictObject({ nodeId: z.string(), awg: z.int() })).nullable().describe('sizes along the run, none thicker than the one before'),
  fallingMm2M: z.number().nullable().describe('copper of one conductor, mm² times metres'), worstDb: z.number().nullable(), proven: z.boolean(),
})
export function cableReport({ single, falling, proven, lengthM }: CableSearch): z.infer<typeof cableReportSchema> {
  const awgOf = (cable: Cable) => 'awg' in cable ? cable.awg : NaN
  return {
    single: single && { awg: awgOf(single.leads[0]!.cable), worstDb: single.worstDb, lengthM },
    falling: falling?.leads.map(l => ({ nodeId: l.nodeId, awg: awgOf(l.cable) })) ?? null,
    fallingMm2M: falling?.copperMm2M ?? null, worstDb: falling?.worstDb ?? null, proven,
  }
}
