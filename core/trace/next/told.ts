import type { AnswerOf, Predictive } from './test'

/** Answers as a person tells them apart. */

/** Answers of a meter that are told apart to a person. */
const MOST_ANSWERS = 4

/** Of a meter a few ranges, of a walk what is likeliest. */
export function toldApart(found: Predictive, weights: readonly number[]): Predictive {
  return 'heard' in found.answers[0]! ? likeliest(found, weights) : 'lowOhm' in found.answers[0]! || found.answers.length > 9 ? gathered(found, weights) : found
}

/** Of a walk the likeliest answers; all others are one. */
function likeliest({ answers, chances }: Predictive, weights: readonly number[]): Predictive {
  const chanceOf = (a: number) => weights.reduce((sum, w, h) => sum + w * chances[h]![a]!, 0)
  const last = answers.length - 1
  const isTold = (a: AnswerOf) => 'heard' in a && a.heard !== null
  const told = answers.flatMap((answer, a) => isTold(answer) ? [a] : []).sort((a, b) => chanceOf(b) - chanceOf(a)).slice(0, MOST_WALKS)
  const rest = answers.map((_, a) => a).filter(a => a === last || !told.includes(a))
  return {
    answers: [...told.map(a => answers[a]!), answers[last]!],
    chances: chances.map(c => Float64Array.of(...told.map(a => c[a]!), rest.reduce((sum, a) => sum + c[a]!, 0))),
  }
}
const MOST_WALKS = 6

/** Neighbours are put together as long as there are too many, those first whose parting tells least. */
function gathered({ answers, chances }: Predictive, weights: readonly number[]): Predictive {
  const now = { answers: [...answers], columns: answers.map((_, a) => Float64Array.from(chances, c => c[a]!)) }
  // What a column tells: its chance by each of what may be there against its chance by all. What is lost by putting two together is the difference.
  const tells = (column: Float64Array): number => {
    const all = column.reduce((sum, c, h) => sum + c * weights[h]!, 0)
    return column.reduce((sum, c, h) => c > 0 && all > 0 ? sum + weights[h]! * c * Math.log(c / all) : sum, 0)
  }
  const isRange = (a: AnswerOf) => 'lowOhm' in a
  const told = now.columns.map(tells)
  const lossAt = (k: number): number => k + 1 < now.answers.length && isRange(now.answers[k]!) && isRange(now.answers[k + 1]!)
    ? told[k]! + told[k + 1]! - tells(now.columns[k]!.map((c, h) => c + now.columns[k + 1]![h]!))
    : Infinity
  const losses = now.answers.map((_, k) => lossAt(k))
  while (now.answers.filter(isRange).length > MOST_ANSWERS) {
    const best = losses.indexOf(Math.min(...losses))
    const [a, b] = [now.answers[best]!, now.answers[best + 1]!]
    if (!('lowOhm' in a) || !('lowOhm' in b)) break
    now.answers.splice(best, 2, { lowOhm: a.lowOhm, highOhm: b.highOhm })
    now.columns.splice(best, 2, now.columns[best]!.map((c, h) => c + now.columns[best + 1]![h]!))
    told.splice(best, 2, tells(now.columns[best]!))
    losses.splice(best, 2, 0)
    for (const k of [best - 1, best]) if (k >= 0) losses[k] = lossAt(k)
  }
  return { answers: now.answers, chances: weights.map((_, h) => Float64Array.from(now.columns, column => column[h]!)) }
}
