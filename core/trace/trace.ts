import type { Given } from './given'
import { nextTests, type NextTests } from './next/best'
import type { Standing } from './next/minutes'
import { rankPairs } from './pairs'
import { rankOfSingles, trySingles, type Ranking, type Tried } from './rank'
import { reasonsOf, type Reason } from './reasons'
import { shareOfOverload, RISK } from './switchOn'

/** A whole trace of one line: what may be there, what speaks for each, and what to read next. */

export interface TraceAsked {
  standing: Standing
  /** Tests that somebody cannot do (`testKey`). */
  cannot: readonly string[]
  /** What a reading says of switching on by itself; and that somebody answers for it. */
  isBarred: boolean
  isAnswered: boolean
  /** Something reads wrong. */
  isWrong: boolean
}

export interface TraceView {
  ranking: Ranking
  /** Of each suspect, in their order; nothing of the unlikely. */
  reasons: Reason[][]
  /** null: not worked out yet. */
  next: NextTests | null
  mayBeOn: boolean
}

export interface TraceStep { done: number, view: TraceView | null }

/** What may be there, whatever is asked of it: kept, what to read next is told again without trying anything out anew. */
export interface Found extends Pick<TraceView, 'ranking' | 'reasons'> { given: Given, tried: Tried }

/** Single faults are told as soon as they are tried; then every two; then what to read next. */
export function* traceInSteps(given: Given, asked: TraceAsked): Generator<TraceStep, TraceView> {
  return viewOf(yield* findInSteps(given, asked), asked)
}

export function viewOf({ given, tried, ranking, reasons }: Found, asked: TraceAsked): TraceView {
  const may = mayBeOn(ranking, asked)
  const next = nextTests(tried, ranking, { standing: asked.standing, mayBeOn: may, cannot: new Set(asked.cannot) }, given.readings)
  return { ranking, reasons, next, mayBeOn: may }
}

export function* findInSteps(given: Given, asked: TraceAsked): Generator<TraceStep, Found> {
  const singles = trySingles(given)
  let tried: Tried
  for (;;) {
    const step = singles.next()
    if (step.done) {
      tried = step.value
      break
    }
    yield { done: 0.3 * step.value, view: null }
  }
  const first = rankOfSingles(tried)
  yield { done: 0.3, view: { ranking: first, reasons: reasonsOf(tried, first.suspects), next: null, mayBeOn: mayBeOn(first, asked) } }
  const pairs = rankPairs(tried)
  for (;;) {
    const step = pairs.next()
    if (!step.done) {
      yield { done: 0.3 + 0.6 * step.value, view: null }
      continue
    }
    return { given, tried, ranking: step.value, reasons: reasonsOf(tried, step.value.suspects) }
  }
}

function mayBeOn({ suspects }: Ranking, { isBarred, isAnswered, isWrong }: TraceAsked): boolean {
  return isAnswered || (!isBarred && (!isWrong || shareOfOverload(suspects) < RISK))
}
