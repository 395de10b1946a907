import loadHighs from 'highs'
import wasmUrl from 'highs/runtime?url'
import { fromDocument } from '#core/job/document'
import type { JobDocument } from '#core/job/schema'
import { HIGHS_OPTIONS, solvedByHighs, type HighsAnswer } from '#core/match/plan/lp'
import { planTaps, type PlanAsked, type TapPlan } from '#core/match/plan/tapPlan'

/** Plans taps beside the page: sixty rooms take a second, and the page is not held for it. */
export interface TapsAsked { document: JobDocument, asked: PlanAsked }
export type TapsAnswer = { plan: TapPlan } | { problem: string }

self.onmessage = async ({ data: { document, asked } }: MessageEvent<TapsAsked>) => {
  let answer: TapsAnswer
  try {
    const highs = await loadHighs({ locateFile: () => wasmUrl })
    answer = { plan: await planTaps(fromDocument(document), lp => Promise.resolve(solvedByHighs(highs.solve(lp, HIGHS_OPTIONS) as HighsAnswer)), asked) }
  }
  catch (error) {
    answer = { problem: error instanceof Error ? error.message : String(error) }
  }
  self.postMessage(answer)
}
