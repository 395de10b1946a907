import { bestPlay, problemOf, solved, type Problem } from '#core/practice/best'
import { EXERCISES } from '#core/practice/exercises'
import { drained } from '#core/quantity/steps'
import { pathOf } from '#core/practice/path'
import { rigOf } from '#core/practice/rig'
import { seeded } from '#core/quantity/seeded'
import { AT_THE_RACK, SWITCH, type Standing } from '#core/trace/next/minutes'

/** Practice: nobody who plays by chance is quicker in the mean than the best that was worked out; how long the best, and looking back, take. */
export interface PracticeRow { name: string, plays: number, times: number, fewestSure: number, bestTests: number }

const PLAYS = 10_000

/** Of each exercise whose best is exact: 10,000 plays by chance, each of what is drawn by the priors, in the world of the best. */
export function practiceRows(): PracticeRow[] {
  return EXERCISES.flatMap((exercise, k): PracticeRow[] => {
    const problem = problemOf(rigOf({ level: k + 1, seed: 1 }))
    if (!problem) return []
    const chance = seeded(k + 1)
    const best = solved(problem, 0).minutes
    let [minutes, tests, sure] = [0, 0, 0]
    for (let n = 0; n < PLAYS; n++) {
      const play = playedByChance(problem, chance)
      minutes += play.minutes
      if (!play.isSure) continue
      tests += play.tests
      sure++
    }
    const bestTests = problem.priors.reduce((sum, p, h) => sum + p * solved(problem, h).here.tests.length, 0)
    return [{ name: exercise.name, plays: PLAYS, times: minutes / PLAYS / best, fewestSure: sure === 0 ? NaN : tests / sure, bestTests }]
  })
}

/** Tests and mends in any order until what is hidden is put right; sure where it was the only one left when it was opened. */
function playedByChance({ priors, mends, doables, minutesFor, after }: Problem, chance: () => number): { minutes: number, tests: number, isSure: boolean } {
  let at = chance()
  const truth = Math.max(0, priors.findIndex(p => (at -= p) < 0))
  let left = priors.map((_, h) => h)
  let standing: Standing = AT_THE_RACK
  let [minutes, tests, isRead] = [0, 0, false]
  for (;;) {
    const may = doables.filter(d => isRead || !d.needsHead)
    const doable = may[Math.floor(chance() * may.length)]
    if (left.length > 1 && doable && chance() < 0.7) {
      minutes += minutesFor(doable.test, standing)
      tests++
      left = left.filter(h => doable.answers[h] === doable.answers[truth])
      standing = after(doable.test, standing)
      isRead ||= doable.isHead
      continue
    }
    const isSure = left.length === 1
    const h = left[Math.floor(chance() * left.length)]!
    minutes += mends[h]!.minutes + (standing.isOn && mends[h]!.isOpened ? SWITCH : 0)
    if (h === truth) return { minutes, tests, isSure }
    left = left.filter(x => x !== h)
    standing = { ...standing, atId: mends[h]!.atId, isUp: mends[h]!.isUp, isOn: standing.isOn && !mends[h]!.isOpened }
  }
}

/** The longest of the best plays that are exact, ms; and a line of eight looked back on, ms an act. */
export function practiceMs(): { bestMs: number, lookBackMs: number } {
  const timed = (run: () => void) => {
    const from = performance.now()
    run()
    return performance.now() - from
  }
  const bestMs = Math.max(...EXERCISES.map((_, k) => timed(() => bestPlay(rigOf({ level: k + 1, seed: 1 })))))
  const acts = [{ do: 'test', kind: 'line-impedance', nodeId: null, besideId: null }, { do: 'amplifier', on: true }, { do: 'test', kind: 'walk', nodeId: null, besideId: null }, { do: 'give-up' }] as const
  return { bestMs, lookBackMs: timed(() => drained(pathOf(rigOf({ level: 9, seed: 1 }), acts))) / acts.length }
}
