import { applyEdit } from '#core/job/apply'
import { retap } from '#core/hands/intents'
import { evaluateJob, makeEvaluator } from '#core/line/evaluate'
import { proveLine } from '#core/check/proof'
import { Records } from '#core/job/records'
import { outputsOf } from '#core/job/tree'
import type { Job, Speaker } from '#core/job/schema'
import { jobOf } from '#core/testing/jobs'
import { jaggedCurve, seeded } from '#core/testing/trees'
import { givenBy } from '#core/trace/given'
import { nextTests } from '#core/trace/next/best'
import { AT_THE_RACK } from '#core/trace/next/minutes'
import { rankPairs } from '#core/trace/pairs'
import { drained } from '#core/quantity/steps'
import { rankOfSingles, trySingles } from '#core/trace/rank'
import { controlledJob, largeJob } from './job'
import { medianMs, quantile } from './timing'
import { twoAtOnceTimes, type TwoAtOnceTimes } from './twoAtOnce'

/** `controlledRatio`: with controls and losses against without, round by round. */
export interface EvaluationTimes {
  wholeMs: number
  controlledMs: number
  controlledRatio: number
  afterEditMs: number
  suspectsMs: number
  two: TwoAtOnceTimes
  nextMs: number
  curvesMs: number
}

/** A line of 200 speakers, each with a measured curve of 200 points on frequencies of its own. */
export function curves(seed: number): Job {
  const chance = seeded(seed)
  const job = jobOf('200 x 8 parallel on 300 W at 4')
  const [amplifier] = job.amplifiers
  const [output] = amplifier!.outputs
  const children = output!.wiring.children.map(b => ({ ...b, node: { ...b.node as Speaker, load: jaggedCurve(chance, 200) } }))
  return { ...job, amplifiers: [{ ...amplifier!, outputs: [{ ...output!, wiring: { ...output!.wiring, children } }] }] }
}

/** Each evaluated once: what is remembered of a curve is not there yet. */
const firstTimeMs = (jobs: readonly Job[]): number => quantile(jobs.map((job) => {
  const from = performance.now()
  evaluateJob(job)
  return performance.now() - from
}), 0.5)

export function evaluationTimes(): EvaluationTimes {
  const job = largeJob()
  const [speaker] = job.amplifiers[0]!.outputs[7]!.wiring.children
  const evaluate = makeEvaluator()
  evaluate(job)
  let current = job
  const afterEditMs = medianMs(() => {
    current = applyEdit(current, retap(current, speaker!.node.id, 1) ?? retap(current, speaker!.node.id, -1)!).job
    evaluate(current)
  })
  const output = outputsOf(job)[0]!
  const reading = { id: 'r', at: '2026-05-04T09:00:00Z', kind: 'line-impedance' as const, outputId: output.id, nodeId: null, value: { is: 'ohm' as const, ohm: 60 }, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false }
  const proof = proveLine({ ...job, readings: Records.of([reading]) }, output)
  const given = givenBy(output, proof)
  const tried = drained(trySingles(given))
  const ranking = drained(rankPairs(tried))
  // Turn and turn about, so that both sides meet the same machine.
  const controlled = controlledJob()
  const rounds = Array.from({ length: 15 }, () => [medianMs(() => void evaluateJob(job), 500), medianMs(() => void evaluateJob(controlled), 500)] as const)
  const middle = (of: (round: typeof rounds[number]) => number) => quantile(rounds.map(of), 0.5)
  return { wholeMs: middle(r => r[0]), controlledMs: middle(r => r[1]), controlledRatio: middle(r => r[1] / r[0]), afterEditMs,
    suspectsMs: medianMs(() => void rankOfSingles(drained(trySingles(given)))),
    two: twoAtOnceTimes(job, output, reading),
    nextMs: medianMs(() => void nextTests(tried, ranking, { standing: AT_THE_RACK, mayBeOn: true }, given.readings)),
    curvesMs: firstTimeMs(Array.from({ length: 7 }, (_, k) => curves(k))) }
}
