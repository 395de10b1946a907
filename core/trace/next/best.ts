import { checkKey, type JudgedReading } from '#core/check/proof'
import type { Fault } from '#core/faults/fault'
import type { ReadingKind, Speaker } from '#core/job/schema'
import { factsOf, isReadAtHead } from '#core/job/sections/readings/kinds'
import { speakersOf } from '#core/job/tree'
import { likenessOf } from '#core/quantity/same'
import { outcomeOf } from '../outcome'
import { isSomethingElse, type Ranking, type Tried } from '../rank'
import { predictive, weighedSamples, type AnswerOf, type Hypothesis, type Predictive, type TestAt } from './answers'
import { ASKED, mendKey, mendMinutes, minutesOf, type Standing } from './minutes'
import { afterEach, judgeTest, judgeTwo, minutesOfMends, TWO_UP_TO, type Mend } from './policy'

/** The readings that would tell most for their time, over all that may be there. */

export interface Answer {
  answer: AnswerOf
  chance: number
  /** What is likeliest then, and how likely. */
  leaves: { faults: readonly Fault[], probability: number }[]
  /** Minutes until it is right, after it. */
  minutesLeft: number
}
export interface NextTest extends TestAt {
  minutes: number
  /** What it tells, bits: one halves what may be there. */
  bits: number
  /** Minutes that it saves, of all until it is right. */
  saves: number
  answers: Answer[]
}
export interface NextTests {
  /** Minutes until it is right, with the first of these; with mends alone where there is none. */
  minutesInAll: number
  tests: NextTest[]
  /** Chance of all that was weighed. */
  weighed: number
}

/** What may be there, down to this share of the likeliest, and no more than so many. */
const LEAST_OF_MOST = 0.002
const MOST = 64
/** Tests that are told. */
const TOLD = 8
/** A test that tells less is none, bits. */
const LEAST_BITS = 0.02
/** Answers of a meter that are told apart to a person. */
const MOST_ANSWERS = 4

export interface Asking { standing: Standing, mayBeOn: boolean, /** Tests that somebody cannot do: `testKey`. */ cannot?: ReadonlySet<string> }
export const testKey = ({ kind, nodeId }: Pick<TestAt, 'kind' | 'nodeId'>): string => checkKey(kind, nodeId)

export function nextTests({ weigher }: Tried, { suspects }: Pick<Ranking, 'suspects'>, { standing, mayBeOn, cannot }: Asking, readings: readonly JudgedReading[]): NextTests {
  const { plan, ohms } = weigher
  const least = LEAST_OF_MOST * (suspects[0]?.probability ?? 0)
  const weighed = suspects.slice(0, MOST).filter(s => s.probability >= least)
  const weights = weighed.map(s => s.probability)
  const hypotheses = weighed.map((s): Hypothesis => {
    const outcome = isSomethingElse(s.faults) ? null : outcomeOf(plan, s.faults)
    return { outcome, sampleWeight: weighedSamples(outcome === null || ohms.length === 0 ? weigher.sampleLog : weigher.samplesOf(outcome)) }
  })
  const mends = mendsOf(weighed.map(s => s.faults))
  const without = minutesOfMends(weights, mends)
  const speakers = speakersOf(plan.output.wiring)
  const order = new Map(speakers.map((s, k) => [s.id, k]))
  const read = new Set(readings.map(j => testKey(j.reading)))
  const candidates = testsOf(speakers, plan.output.wiring.children.map(c => c.node.id)).filter(t => !read.has(testKey(t)) && !cannot?.has(testKey(t)) && (mayBeOn || factsOf(t.kind).amplifier === 'off'))
  const judged = candidates.flatMap((test) => {
    const minutes = minutesOf(test, standing, order)
    const found = minutes === null ? null : predictive(test, hypotheses, plan, speakers.find(s => s.id === test.nodeId) ?? null)
    if (minutes === null || found === null) return []
    const asTest = { minutes, chances: found.chances }
    const { bits, saves, minutesInAll } = judgeTest(weights, mends, asTest, without)
    return bits < LEAST_BITS ? [] : [{ test, found, asTest, minutes, bits, saves, minutesInAll }]
  })
  // With few left to part, two tests are looked at, one after the other.
  if (weighed.length <= TWO_UP_TO) {
    const tests = judged.map(j => j.asTest)
    judged.forEach((j, t) => { j.minutesInAll = judgeTwo(weights, mends, tests, t) })
  }
  judged.sort((a, b) => a.minutesInAll - b.minutesInAll)
  return {
    minutesInAll: Math.min(without, judged[0]?.minutesInAll ?? Infinity), weighed: weights.reduce((a, b) => a + b, 0),
    tests: judged.slice(0, TOLD).map(({ test, found, minutes, bits, saves }): NextTest => ({ ...test, minutes, bits, saves, answers: answersOf(found,
      weights, weighed.map(s => s.faults), mends) })),
  }
}

function mendsOf(all: readonly (readonly Fault[])[]): Mend[] {
  const keys = [...new Set(all.map(mendKey))]
  return keys.map(key => ({ minutes: mendMinutes(all.find(faults => mendKey(faults) === key)!), of: all.map(faults => mendKey(faults) === key) }))
}

/** Everything that could be read: what is read at the head there, the rest at every speaker, and from every place of the chain outward. */
function testsOf(speakers: readonly Speaker[], places: readonly string[]): TestAt[] {
  const at = (kind: ReadingKind): TestAt[] => {
    if (isReadAtHead(kind)) return [{ kind, nodeId: null, besideId: null }]
    if (kind === 'outward-impedance') return places.slice(1).filter(id => speakers.some(s => s.id === id)).map(nodeId => ({ kind, nodeId, besideId: null }))
    if (kind === 'tap-found') return speakers.filter(s => s.load.kind === 'tap').map(s => ({ kind, nodeId: s.id, besideId: null }))
    // Through transformers a battery tells nothing: there the pulse.
    if (kind === 'polarity' || kind === 'polarity-heard') return speakers.filter(s => (s.load.kind === 'tap') === (kind === 'polarity-heard')).map(s => ({ kind, nodeId: s.id, besideId: null }))
    if (kind === 'beside') return speakers.flatMap((s, k) => {
      const beside = [speakers[k - 1], speakers[k + 1]].find(o => o && likenessOf(o.load) === likenessOf(s.load))
      return beside ? [{ kind, nodeId: s.id, besideId: beside.id }] : []
    })
    return speakers.map(s => ({ kind, nodeId: s.id, besideId: null }))
  }
  return ASKED.flatMap(at)
}

/** Answers as a person gives them: of a meter those that lie side by side and mean much the same are one. */
function answersOf(found: Predictive, weights: readonly number[], faults: readonly (readonly Fault[])[], mends: readonly Mend[]): Answer[] {
  const total = weights.reduce((a, b) => a + b, 0)
  const merged = 'lowOhm' in found.answers[0]! || found.answers.length > 9 ? gathered(found, weights) : found
  const after = afterEach(weights, merged)
  return merged.answers.map((answer, a): Answer => {
    const { chance, weights: left } = after[a]!
    const leaves = faults.map((f, h) => ({ faults: f, probability: chance > 0 ? left[h]! / chance : 0 })).sort((x,
      y) => y.probability - x.probability).slice(0, 3)
    return { answer, chance: chance / total, leaves, minutesLeft: minutesOfMends(left, mends) }
  })
}

/** Neighbours are put together as long as there are too many, those first whose parting tells least. */
function gathered({ answers, chances }: Predictive, weights: readonly number[]): Predictive {
  const now = { answers: [...answers], columns: answers.map((_, a) => Float64Array.from(chances, c => c[a]!)) }
  // What a column tells: its chance by each of what may be there against its chance by all. What is lost by putting two together is the difference.
  const tells = (column: Float64Array): number => {
    const all = column.reduce((sum, c, h) => sum + c * weights[h]!, 0)
    return column.reduce((sum, c, h) => c > 0 && all > 0 ? sum + weights[h]! * c * Math.log(c / all) : sum, 0)
  }
  const isRange = (a: AnswerOf) => 'lowOhm' in a
  while (now.answers.filter(isRange).length > MOST_ANSWERS) {
    let best = -1
    let least = Infinity
    for (let k = 0; k + 1 < now.answers.length; k++) {
      if (!isRange(now.answers[k]!) || !isRange(now.answers[k + 1]!)) continue
      const lost = tells(now.columns[k]!) + tells(now.columns[k + 1]!) - tells(now.columns[k]!.map((c, h) => c + now.columns[k + 1]![h]!))
      if (lost < least) [best, least] = [k, lost]
    }
    if (best < 0) break
    const [a, b] = [now.answers[best]!, now.answers[best + 1]!]
    if ('lowOhm' in a && 'lowOhm' in b) now.answers.splice(best, 2, { lowOhm: a.lowOhm, highOhm: b.highOhm })
    now.columns.splice(best, 2, now.columns[best]!.map((c, h) => c + now.columns[best + 1]![h]!))
  }
  return { answers: now.answers, chances: weights.map((_, h) => Float64Array.from(now.columns, column => column[h]!)) }
}
