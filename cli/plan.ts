import { writeFileSync } from 'node:fs'
import { planReport } from '#core/match/plan/planReport'
import { planTaps } from '#core/match/plan/tapPlan'
import { InputError } from '#core/quantity/inputError'
import type { Job } from '#core/job/schema'
import { flagsOf, numberOf } from './flags'
import { loadSolver } from './solver'

export const PLAN_TAKES = 'FILE.plainmatch.json [--growth 0.1] [--taps equal|may-differ] [--lp FILE.lp]'

/** The taps of all spaces of a saved job, with the least watts. `--growth`: kept free on every line; `--lp`: the program, to be solved elsewhere. */
export async function planVerb(read: (path: string) => Job, ...words: string[]): Promise<unknown> {
  const { words: [path], flag } = flagsOf(words, PLAN_TAKES, { plain: 1, known: ['growth', 'lp', 'taps'] })
  const taps = flag('taps') ?? 'equal'
  if (taps !== 'equal' && taps !== 'may-differ') throw new InputError(`Taps of one space are “equal”, or “may-differ”.`, 0, ['--taps equal'])
  const growth = numberOf(flag('growth'), 'growth', { least: 0, most: 5, otherwise: 0 })
  const job = read(path!)
  const plan = await planTaps(job, await loadSolver(), { growth, mayDiffer: taps === 'may-differ' })
  const file = flag('lp')
  if (file !== undefined) writeFileSync(file, plan.lp)
  return planReport(plan)
}
