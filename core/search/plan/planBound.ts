import { dropsById } from '#core/advice/spaces'
import { setTap } from '#core/hands/intents'
import { applyEdit } from '#core/job/apply'
import { partsOf, together } from '#core/job/edits'
import type { Job } from '#core/job/schema'
import { outputsOf, speakersOf } from '#core/job/tree'
import { sure } from '#core/quantity/known'
import { fullyUp } from '#core/line/behind'
import { makeEvaluator } from '#core/line/evaluate'
import { levelOf, type Config, type Grids, type PlannedGroups } from './choices'

/** What no plan of taps can do better than. */

/** The job with every control fully up; itself where none is turned down. */
export function allUp(job: Job): Job {
  const amplifiers = job.amplifiers.map((a) => {
    const outputs = a.outputs.map((o) => {
      const wiring = fullyUp(o.wiring)
      return wiring === o.wiring ? o : { ...o, wiring }
    })
    return outputs.every((o, k) => o === a.outputs[k]) ? a : { ...a, outputs }
  })
  return amplifiers.every((a, k) => a === job.amplifiers[k]) ? job : { ...job, amplifiers }
}

/**
 * Every choice with the level that it has at best: all other spaces on their lowest taps. A higher tap anywhere takes more current through cable, and no
 * space gets louder by that of another; so what does not reach its target here reaches it in no plan, and the least watts of a program over these are
 * less than no plan can draw. Source: Kirchhoff, of loads that take power from one source.
 */
export function atBest(job: Job, spaces: readonly PlannedGroups[], grids: Grids): PlannedGroups[] {
  const evaluate = makeEvaluator()
  const lowest = spaces.reduce((j, s) => withTaps(j, s, s.groups.map(g => g.tapsW[0]!)), job)
  return spaces.map(s => ({
    ...s, configs: s.configs.map((config): Config => {
      const own = withTaps(lowest, s, config.tapsW)
      const bestDb = levelOf(own, dropsById(evaluate(own).lines), s.space, grids)
      return bestDb === null ? config : { ...config, meanDb: bestDb }
    }),
  }))
}

function withTaps(job: Job, { groups }: PlannedGroups, tapsW: readonly number[]): Job {
  const now = new Map(outputsOf(job).flatMap(o => speakersOf(o.wiring)).map(s => [s.id, s]))
  const edit = together(groups.flatMap((g, k) => g.speakers.flatMap(({ id }) => {
    const set = setTap(sure(now.get(id), 'speaker of a plan'), tapsW[k]!)
    return set ? partsOf(set) : []
  })))
  return edit ? applyEdit(job, edit).job : job
}
