import { byId } from '#core/quantity/known'
import { likenessOf, same } from '#core/quantity/same'
import { applyEdit } from '#core/job/apply'
import { together, type Edit, type SimpleEdit } from '#core/job/edits'
import { setTap } from '#core/hands/intents'
import type { Job, Speaker } from '#core/job/schema'
import { throughsOf } from '#core/job/tree'
import { allUp, atBest } from './planBound'
import { evaluateJob } from '#core/line/evaluate'
import { dropsById, fieldOf, spaceFacts } from '#core/advice/spaces'
import { configsOf, Grids, groupsOf, levelOf, NO_LEVEL, sum, type LeftWhy, type PlannedGroups } from './choices'
import { decide } from './decide'
import { limitRows, type Limit } from './lineLimits'
import type { SolveLp } from './lp'

/**
 * The tap planner: the taps of all speakers so that every space reaches its target with the least watts, under what each line may carry by the chosen school
 * and what each control is rated for. An integer program, solved to its proven optimum; where no taps do it, the fewest limits that would have to give way,
 * and the taps that come nearest.
 */
export interface TapPlan {
  feasible: boolean
  /** Nothing less does it, or nothing comes nearer, whatever the cable takes. */
  proven: boolean
  /** What all planned speakers draw, W, and less than which no plan can: what they would have to draw on cable that takes nothing. */
  totalW: number
  boundW: number
  taps: PlannedTap[]
  spaces: PlannedSpace[]
  limits: Limit[]
  /** Spaces that keep their taps, and why. */
  left: { name: string, why: LeftWhy }[]
  /** Controls that stand lower than fully up: all levels are those with them up. */
  turnedUp: string[]
  edit: Edit | null
  /** The program as text, to be solved elsewhere. */
  lp: string
}
export interface PlannedTap { nodeId: string, label: string, line: string, tapW: number, wasW: number }
export interface PlannedSpace { spaceId: string, name: string, targetDb: number, reachedDb: number }

export interface PlanAsked {
  /** Kept free for growth: a tenth is 0.1. */
  growth: number
  /** Unlike speakers of one space, and those on other lines, may have other taps; else all of it has one. */
  mayDiffer: boolean
  /** Pieces of floor that a level is averaged over; left out: as many as the plan of a space shows. */
  cells?: number
}
export const PLAN_DEFAULTS: PlanAsked = { growth: 0, mayDiffer: false }

/** Rounds of planning with what the cable takes of the taps of the round before; taps may go to and fro between two rounds for ever. */
const ROUNDS = 4
const MOST_ROUNDS = 12
/** A mean over the floor stands to this, dB: a target met but for it is met. */
const MET_DB = 0.1
/** @param solve solves a program; the core loads no solver itself */
export async function planTaps(job: Job, solve: SolveLp, asked: PlanAsked = PLAN_DEFAULTS): Promise<TapPlan> {
  // A control that is turned down today is no reason for a higher tap: somebody will turn it up.
  const raised = allUp(job)
  const grids = new Grids(asked.cells)
  const plan = await settled(raised, solve, asked, grids)
  const turnedUp = throughsOf(job).flatMap(({ through }) => through.kind === 'control' && through.setDb !== 0 && through.setDb !== null ? [through.label] : [])
  // What cable takes hangs on the taps, and taps on what it takes: of the ways that fit each other one was found, and this bounds all of them.
  const { spaces, rows } = choicesAt(raised, { ...asked, margins: new Map(), grids })
  const bound = await decide(atBest(raised, spaces, grids), rows, solve)
  const isLeast = bound.limits.length === 0 && plan.totalW <= bound.boundW * (1 + 1e-9) + 1e-9
  const isStopped = bound.limits.length > 0 && same(bound.limits.map(nameOf), plan.limits.map(nameOf))
  return { ...plan, turnedUp, proven: plan.feasible ? isLeast : isStopped, boundW: plan.feasible ? Math.min(plan.totalW, bound.boundW) : plan.boundW }
}
const nameOf = ({ kind, label }: Limit) => `${kind} ${label}`

/** Round by round, until the taps and what the cable takes of them fit each other. */
async function settled(job: Job, solve: SolveLp, asked: PlanAsked, grids: Grids): Promise<TapPlan> {
  let now = job
  const margins = new Map<string, number>()
  for (let round = 1; ; round++) {
    const plan = await planned(job, now, solve, { ...asked, margins, grids })
    const next = plan.edit ? applyEdit(job, plan.edit).job : job
    const spaces = reachedBy(next, plan.spaces, grids)
    // What a space loses to the cable with the taps of all others: what it was promised and does not get is asked on top.
    const fallen = spaces.filter((s, k) => plan.spaces[k]!.reachedDb >= s.targetDb && s.reachedDb < s.targetDb - MET_DB)
    const isSettled = tapsOf(next) === tapsOf(now)
    if (fallen.length === 0 && (isSettled || round >= ROUNDS)) return { ...plan, spaces }
    if (round === MOST_ROUNDS) {
      const limits = [...plan.limits, ...fallen.map((f): Limit => ({ kind: 'taps', label: f.name, missingDb: f.targetDb - f.reachedDb }))]
      return { ...plan, feasible: false, spaces, limits }
    }
    if (isSettled || round >= ROUNDS) for (const s of fallen) margins.set(s.spaceId, (margins.get(s.spaceId) ?? 0) + s.targetDb - s.reachedDb)
    now = next
  }
}

const tapsOf = (job: Job) => likenessOf(job.amplifiers.map(a => a.outputs.map(o => o.wiring)))

function reachedBy(job: Job, spaces: readonly PlannedSpace[], grids: Grids): PlannedSpace[] {
  const drops = dropsById(evaluateJob(job))
  return spaces.map((s) => {
    const reachedDb = levelOf(job, drops, byId(job.spaces, s.spaceId), grids)
    return reachedDb === null ? s : { ...s, reachedDb }
  })
}

/** One round: `now` has the taps whose cable losses are counted with; the plan is made of `job`. */
interface Round extends PlanAsked { margins: ReadonlyMap<string, number>, grids: Grids }
/** What there is to choose from, and what limits it. */
function choicesAt(now: Job, { growth, mayDiffer, margins, grids }: Round) {
  const lines = evaluateJob(now)
  const drops = dropsById(lines)
  const left: TapPlan['left'] = []
  const spaces: PlannedGroups[] = []
  for (const [k, space] of now.spaces.entries()) {
    const facts = spaceFacts(now, drops, space, fieldOf(space, NO_LEVEL))
    const groups = groupsOf(facts, drops, lines, mayDiffer)
    if (typeof groups === 'string') left.push({ name: space.name, why: groups })
    else {
      const configs = configsOf(now, { space, facts, groups, prefix: `s${k}`, grids }, drops, lines)
      spaces.push({ space, targetDb: facts.targetDb! + (margins.get(space.id) ?? 0), groups, configs })
    }
  }
  return { lines, left, spaces, rows: limitRows(now, lines, spaces, growth) }
}

async function planned(job: Job, now: Job, solve: SolveLp, round: Round): Promise<TapPlan> {
  const { margins } = round
  const { lines, left, spaces, rows } = choicesAt(now, round)
  const answer = await decide(spaces, rows, solve)
  const chosen = spaces.map((s, k) => ({ ...s, config: answer.configs[k]! }))
  const before = new Map(lines.flatMap(l => l.speakers.map(s => [s.id, l] as const)))
  const own = new Map(evaluateSpeakers(job))
  const taps = chosen.flatMap(({ groups, config }) => groups.flatMap((g, i) => g.speakers.map((s): PlannedTap => {
    const was = own.get(s.id)!.load
    return { nodeId: s.id, label: s.label, line: before.get(s.id)!.output.label, tapW: config.tapsW[i]!, wasW: was.kind === 'tap' ? was.tapW : 0 }
  })))
  const edits = taps.flatMap(t => setTap(own.get(t.nodeId)!, t.tapW) ?? []) as SimpleEdit[]
  return {
    feasible: answer.limits.length === 0, proven: true, totalW: sum(chosen.map(c => c.config.watts)), boundW: answer.boundW, taps,
    spaces: chosen.map(({ space, targetDb, config }) => {
      const marginDb = margins.get(space.id) ?? 0
      return { spaceId: space.id, name: space.name, targetDb: targetDb - marginDb, reachedDb: config.meanDb - marginDb }
    }),
    limits: answer.limits, left, turnedUp: [], edit: together(edits), lp: answer.lp,
  }
}

const evaluateSpeakers = (job: Job): [string, Speaker][] => evaluateJob(job).flatMap(l => l.speakers.map(s => [s.id, s] as [string, Speaker]))
