import { z } from 'zod'
import { METER_HZ } from '#core/check/readingBands'
import type { Edit, SimpleEdit } from '#core/job/edits'
import { together } from '#core/job/edits'
import type { Branch, Output } from '#core/job/schema'
import { speakersOf } from '#core/job/tree'
import { compile } from '#core/network/compile'
import { conductorOhmPerM, COPPER_OHM_MM2_PER_M } from '#core/network/cable'
import { asLabelled } from '#core/network/element'
import { levelDb } from '#core/network/line'
import { solve } from '#core/network/solve'
import { flowAt, makeSolver, type Solver } from '#core/network/solver'
import { sameCable, type Cable } from '#core/quantity/cable'

/**
 * The thinnest cable that keeps the worst drop of a line within a limit: as one size for the whole run, and as sizes that fall along
 * it. Least copper, mm²·m of one conductor; exact where the search came to its end, which `proven` says. Leads inside of groups stay
 * as they are.
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

/** The run's own leads: those on the rail with a stated length. */
function runOf(output: Output): (Branch & { lead: NonNullable<Branch['lead']> })[] {
  return output.wiring.children.filter((b): b is Branch & { lead: NonNullable<Branch['lead']> } => b.lead !== null && b.lead.lengthM > 0)
}

/** The line with its run's resistances in the hand: set, solved, read, without anything built anew. */
class Line {
  private readonly solver: Solver
  private readonly leadAt: number[]
  /** Speakers: where they are in the circuit, behind how many leads of the run, and their volts without any lead. */
  private readonly drops: { index: number, behind: number, bareV: number }[]
  solves = 0

  constructor(output: Output, run: Branch[]) {
    const circuit = compile({ lead: null, node: output.wiring }, asLabelled)
    this.solver = makeSolver(circuit)
    const at = new Map(circuit.ids.map((id, k) => [id, k]))
    this.leadAt = run.map(b => at.get(b.node.id)!)
    const bare = makeSolver({ ...circuit, leadOhm: new Float64Array(circuit.count) })
    solve(bare, METER_HZ, 1)
    const volts = (solver: Solver, index: number) => {
      const { vRe, vIm } = flowAt(solver, index)
      return Math.hypot(vRe, vIm)
    }
    let behind = 0
    this.drops = output.wiring.children.flatMap((branch) => {
      if (run[behind] === branch) behind++
      return speakersOf(branch.node).map(s => ({ index: at.get(s.id)!, behind, bareV: volts(bare, at.get(s.id)!) }))
    }).filter(d => d.bareV > 0)
  }

  /** The worst level of the speakers behind `from` to `to` leads of the run, dB; 0 where there are none. */
  worst(ohms: readonly number[], from = 0, to = Infinity): number {
    this.solves++
    this.leadAt.forEach((index, k) => { this.solver.circuit.leadOhm[index] = ohms[k]! })
    solve(this.solver, METER_HZ, 1)
    let worst = 0
    for (const { index, behind, bareV } of this.drops) {
      if (behind < from || behind > to) continue
      const { vRe, vIm } = flowAt(this.solver, index)
      worst = Math.min(worst, levelDb(Math.hypot(vRe, vIm), bareV))
    }
    return worst
  }
}

/** One step a few hundred solves, so that a page can draw in between. Null where no length of the run is stated. */
export function* cableSearchInSteps(output: Output, limitDb: number, sizes: readonly Cable[]): Generator<void, CableSearch | null> {
  const run = runOf(output)
  // Thick first: along the run the index only grows.
  const sorted = [...sizes].sort((a, b) => conductorOhmPerM(a) - conductorOhmPerM(b))
  if (run.length === 0 || sorted.length === 0) return null
  const line = new Line(output, run)
  const lengths = run.map(b => b.lead.lengthM)
  const ohm = sorted.map(cable => lengths.map(m => 2 * conductorOhmPerM(cable) * m))
  const copper = sorted.map(cable => lengths.map(m => copperMm2(cable) * m))
  const allowed = -limitDb - HAIR_DB
  const plan = (choice: readonly number[]): CablePlan => ({
    leads: run.map((b, k) => ({ nodeId: b.node.id, cable: sorted[choice[k]!]!, lengthM: lengths[k]! })),
    worstDb: line.worst(choice.map((s, k) => ohm[s]![k]!)), copperMm2M: choice.reduce((sum, s, k) => sum + copper[s]![k]!, 0),
  })
  const single = sorted.findLastIndex((_, s) => line.worst(ohm[s]!) >= allowed)
  const result = { single: single === -1 ? null : plan(run.map(() => single)), lengthM: lengths.reduce((a, b) => a + b, 0) }

  const thinnest = sorted.length - 1
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
    for (let s = choice.at(-1) ?? 0; s <= thinnest; s++) waiting.push({ choice: [...choice, s], copper: used + copper[s]![k]! })
  }
  return { ...result, falling: best.choice && plan(best.choice), proven: waiting.every(w => w.copper + (least[w.choice.length] ?? 0) >= best.copper - 1e-9) }

  /**
   * Whether sizes that begin so can keep the limit at all. A speaker gets most with all before it thick and all behind it thin (less
   * current): those already reached are asked with the thinnest behind them, the last ones with the thickest that still may come.
   */
  function canHold(choice: readonly number[]): boolean {
    const rest = (s: number) => lengths.map((_, k) => ohm[choice[k] ?? s]![k]!)
    if (line.worst(rest(thinnest), 0, choice.length) < allowed) return false
    return choice.length === run.length || line.worst(rest(choice.at(-1)!), run.length) >= allowed
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
  return together(output.wiring.children.flatMap(({ lead, node }): SimpleEdit[] => {
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
