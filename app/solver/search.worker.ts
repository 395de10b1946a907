import loadHighs from 'highs'
import wasmUrl from 'highs/runtime?url'
import type { AmplifierModel } from '#core/gear/amplifier'
import { seeded } from '#core/quantity/seeded'
import { clipReport, type ClipAsked, type ClipReport } from '#core/programme/clip'
import { fromDocument } from '#core/job/document'
import type { JobDocument } from '#core/job/schema'
import { compareVariants, type Compared, type Prices } from '#core/advice/compare'
import { evaluateJob } from '#core/line/evaluate'
import { findAmplifiers, type FoundAmplifiers } from '#core/search/plan/amplifierFinder'
import type { FindAsked } from '#core/search/plan/amplifierFit'
import { solverOf, type SolveLp } from '#core/search/plan/lp'
import { leastSplit, type LineSplit, type NotSplit } from '#core/search/plan/splitLine'
import { planTaps, type PlanAsked, type TapPlan } from '#core/search/plan/tapPlan'
import { findWirings, type NotWired, type Wirings, type WiringsAsked } from '#core/search/wirings/finder'

/** Searches beside the page: sixty rooms take two seconds, and the page is not held for them. */
export interface Searches {
  taps: { asked: PlanAsked, answer: TapPlan }
  split: { asked: { outputId: string }, answer: LineSplit | NotSplit }
  amplifiers: { asked: { models: readonly AmplifierModel[] } & FindAsked, answer: FoundAmplifiers }
  wirings: { asked: WiringsAsked, answer: Wirings | NotWired }
  clip: { asked: Omit<ClipAsked, 'overdriveDb'> & { overdrivesDb: readonly number[] }, answer: ClipReport[] }
  compare: { asked: Prices, answer: Compared[] }
}
export type SearchName = keyof Searches
export interface SearchAsked<K extends SearchName = SearchName> { what: K, document: JobDocument, asked: Searches[K]['asked'] }
export type SearchAnswer = { answer: Searches[SearchName]['answer'] } | { problem: string }

async function answerTo({ what, document, asked }: SearchAsked, solve: SolveLp): Promise<Searches[SearchName]['answer']> {
  if (what === 'wirings') return findWirings(asked as WiringsAsked)
  if (what === 'clip') {
    const { overdrivesDb, ...clip } = asked as Searches['clip']['asked']
    // The same stretch of signal for every row.
    return overdrivesDb.map(overdriveDb => clipReport({ ...clip, overdriveDb }, seeded(1)))
  }
  const job = fromDocument(document)
  if (what === 'taps') return planTaps(job, solve, asked as PlanAsked)
  if (what === 'compare') return compareVariants(job, asked as Prices)
  if (what === 'amplifiers') {
    const { models, ...found } = asked as Searches['amplifiers']['asked']
    return findAmplifiers(job, models, solve, found)
  }
  const { outputId } = asked as Searches['split']['asked']
  return leastSplit(job, evaluateJob(job).find(l => l.outputId === outputId)!, solve)
}

self.onmessage = async ({ data }: MessageEvent<SearchAsked>) => {
  let answer: SearchAnswer
  try {
    // The solver is fetched by the first that asks it: a comparison does not.
    let solver: SolveLp | null = null
    const solve: SolveLp = async lp => (solver ??= solverOf(await loadHighs({ locateFile: () => wasmUrl })))(lp)
    answer = { answer: await answerTo(data, solve) }
  }
  catch (error) {
    answer = { problem: error instanceof Error ? error.message : String(error) }
  }
  self.postMessage(answer)
}
