import { checkKey, type JudgedReading } from '#core/check/proof'
import type { Fault } from '#core/faults/fault'
import type { Sound, Speaker } from '#core/job/schema'
import { isReadAtHead } from '#core/job/sections/readings/kinds'
import { speakersOf } from '#core/job/tree'
import { likenessOf } from '#core/quantity/same'
import { outcomeOf } from '../outcome'
import { isSomethingElse, type Ranking, type Suspect, type Tried } from '../rank'
import { isTurnedKind } from '../weigh'
import { predictive, weighedSamples } from './answers'
import { muteIn, passesOf } from './passes'
import { toldApart } from './told'
import { isWalk, WALK_KINDS, type AnswerOf, type Hypothesis, type Predictive, type TestAt, type TestKind, type WalkKind } from './test'
import { amplifierOf, ASKED, mendKey, mendMinutes, minutesOf, orderOf, type Standing } from './minutes'
import { afterEach, judgeTest, minutesOfMends, type Mend } from './policy'

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
  /** It was listened at, or told which way round it is, before. */
  isAgain: boolean
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
  /** No test saves time any more: opening the likeliest place is as quick. */
  isMendNext: boolean
  tests: NextTest[]
  /** Of the one that was asked for besides; null: none was, or it cannot be taken. */
  besides: Pick<NextTest, 'minutes' | 'bits' | 'saves'> | null
  /** Chance of all that was weighed. */
  weighed: number
}

/** So many of what may be there are weighed as they are, likeliest first; of all others every so-manieth stands for those around it. */
const AS_THEY_ARE = 150
const STAND_FOR_OTHERS = 150
/** Tests that are told, and the best of each kind besides: who has another meter in hand finds what it is good for. */
const TOLD = 8
/** A test that tells less is none, bits. */
const LEAST_BITS = 0.02
/** Minutes are known no finer than this. */
const LEAST_SAVED = 1.5
/** A walk of fewer is none; a level is held against the middle of those like it. */
const LEAST_PASSED: Record<WalkKind, number> = { 'walk': 1, 'level-walk': 3, 'pulse-walk': 1 }

export interface Asking {
  standing: Standing
  mayBeOn: boolean
  /** Tests that somebody cannot do: `testKey`. */
  cannot?: ReadonlySet<string>
  /** One that is judged beside them, whatever it tells. */
  besides?: TestAt
}
export const testKey = ({ kind, nodeId }: Pick<TestAt, 'kind' | 'nodeId'>): string => isWalk(kind) ? kind : checkKey(kind, nodeId)

export function nextTests({ weigher, singles }: Tried, { suspects }: Pick<Ranking, 'suspects'>, { standing, mayBeOn, cannot, besides }: Asking, readings: readonly JudgedReading[]): NextTests {
  const { plan, ohms } = weigher
  const tried = new Map(singles.map(s => [s.fault, s.outcome]))
  const { suspects: weighed, weights } = weighedOf(suspects)
  const hypotheses = weighed.map((s): Hypothesis => {
    const outcome = isSomethingElse(s.faults) ? null : s.faults.length === 1 ? tried.get(s.faults[0]!) ?? outcomeOf(plan, s.faults) : outcomeOf(plan, s.faults)
    return { outcome, sampleWeight: weighedSamples(outcome === null || ohms.length === 0 ? weigher.sampleLog : weigher.samplesOf(outcome)) }
  })
  const mends = mendsOf(weighed.map(s => s.faults))
  const without = minutesOfMends(weights, mends)
  const speakers = speakersOf(plan.output.wiring)
  const order = orderOf(speakers)
  const told = readings.map(j => j.reading)
  const read = new Set(told.map(testKey))
  const isMute = muteIn(told)
  const passed = new Map(WALK_KINDS.map(kind => [kind as TestKind, passesOf(kind, speakers.map(s => s.id), told)]))
  const mayBeAsked = (t: TestAt) => !cannot?.has(testKey(t)) && (mayBeOn || isSafeOnOverload(t.kind)) && !isMute(t.kind, t.nodeId)
    && (isWalk(t.kind)
      ? passed.get(t.kind)!.length > LEAST_PASSED[t.kind]
      : !read.has(testKey(t)) || isHeardAgain(t, heard) || isTurnedAgain(turned.get(testKey(t)) ?? []))
  const turned = new Map<string, string[]>()
  for (const { reading } of weigher.parts.others) {
    const key = testKey(reading)
    if (isTurnedKind(reading.kind)) turned.set(key, [...turned.get(key) ?? [], reading.value.is])
  }
  const heard = new Map(weigher.parts.heard.map(h => [h.nodeId, h.sounds]))
  const candidates = testsOf(speakers, plan.output.wiring.children.map(c => c.node.id), weighed.map(s => s.faults))
    .filter(mayBeAsked)
  const judge = (test: TestAt) => {
    const minutes = minutesOf(test, standing, order, passed.get(test.kind))
    const found = minutes === null ? null : predictive(test, hypotheses, plan, speakers.find(s => s.id === test.nodeId) ?? null, passed.get(test.kind), heard.get(test.nodeId ?? ''), weights)
    if (minutes === null || found === null) return null
    return { test, found, minutes, ...judgeTest(weights, mends, { minutes, chances: found.finer ?? found.chances }, without) }
  }
  const judged = candidates.flatMap((test) => {
    const one = judge(test)
    return one === null || one.bits < LEAST_BITS ? [] : [one]
  })
  // Where none saves as much as minutes are known by, the likeliest place is opened next; who wants to be surer before that asks for what tells most for
  // its minutes.
  const saves = judged.some(j => j.minutesInAll < without - LEAST_SAVED)
  judged.sort((a, b) => saves ? a.minutesInAll - b.minutesInAll : b.bits / b.minutes - a.bits / a.minutes)
  return {
    besides: besides && (!isWalk(besides.kind) || passed.get(besides.kind)!.length > 0) ? judge(besides) : null,
    minutesInAll: Math.min(without, judged[0]?.minutesInAll ?? Infinity), isMendNext: !saves, weighed: weights.reduce((a, b) => a + b, 0),
    tests: toTell(judged).map(({ test, found, minutes, bits, saves }): NextTest => ({ ...test, isAgain: (test.kind === 'sound' && heard.has(test.nodeId!)) || turned.has(testKey(test)), minutes, bits, saves, answers: answersOf(found,
      weights, weighed.map(s => s.faults), mends) })),
  }
}

/**
 * All of what may be there: of forty speakers that is thousands, and nothing of it may be left out, since together it is much. Those that are not weighed
 * as they are, are by a sample at even steps of their chances, so that each is as likely in it as it is.
 */
export function weighedOf(suspects: readonly Suspect[]): { suspects: Suspect[], weights: number[] } {
  if (suspects.length <= AS_THEY_ARE + STAND_FOR_OTHERS) return { suspects: [...suspects], weights: suspects.map(s => s.probability) }
  const [first, rest] = [suspects.slice(0, AS_THEY_ARE), suspects.slice(AS_THEY_ARE)]
  const step = rest.reduce((sum, s) => sum + s.probability, 0) / STAND_FOR_OTHERS
  const drawn: { suspect: Suspect, weight: number }[] = []
  let sum = 0
  for (const s of rest) {
    const before = Math.floor(sum / step + 0.5)
    sum += s.probability
    const times = Math.floor(sum / step + 0.5) - before
    if (times > 0) drawn.push({ suspect: s, weight: times * step })
  }
  return { suspects: [...first, ...drawn.map(d => d.suspect)], weights: [...first.map(s => s.probability), ...drawn.map(d => d.weight)] }
}

function mendsOf(all: readonly (readonly Fault[])[]): Mend[] {
  const keys = all.map(mendKey)
  const minutes = new Map(keys.map((key, h) => [key, mendMinutes(all[h]!)]))
  return [...minutes].map(([key, each]) => ({ minutes: each, of: keys.map(k => k === key) }))
}

const toTell = <T extends { test: TestAt }>(judged: readonly T[]): T[] => {
  const best = new Set(judged.filter((j, k) => judged.findIndex(o => o.test.kind === j.test.kind) === k))
  return judged.filter((j, k) => k < TOLD || best.has(j))
}

/** Where the line may be a short nothing is switched on to it, and no battery is laid across it. */
const isSafeOnOverload = (kind: TestKind): boolean => amplifierOf(kind) === 'off' && kind !== 'polarity'

/** What did not play as it should, at its one listening, is listened at once more: an ear slips more often than a speaker fails. */
const isHeardAgain = ({ kind, nodeId }: TestAt, heard: ReadonlyMap<string, readonly Sound[]>): boolean => {
  const sounds = kind === 'sound' ? heard.get(nodeId!) : undefined
  return sounds?.length === 1 && sounds[0] !== 'plays'
}

/** The same of which way round it is: what was not told, or told otherwise than it should be, until two of three say so. */
export const isTurnedAgain = (told: readonly string[]): boolean =>
  told.length > 0 && told.length < 3 && told.some(is => is !== 'right-way') && told.filter(is => is === 'reversed').length < 2

/** Everything that could be read: what is read at the head there, the rest at every speaker, and from every place of the chain outward. */
function testsOf(speakers: readonly Speaker[], places: readonly string[], faults: readonly (readonly Fault[])[]): TestAt[] {
  const suspected = new Set(faults.flat().map(f => f.nodeId))
  /** One beside it that should be as loud, and may change places with it. */
  const neighbourOf = (k: number) => [speakers[k - 1], speakers[k + 1]].find(o => o && likenessOf(o.load) === likenessOf(speakers[k]!.load))
  const at = (kind: TestKind): TestAt[] => {
    if (isWalk(kind)) return [{ kind, nodeId: null, besideId: null }]
    if (kind === 'swapped') return speakers.flatMap((s, k) => {
      if (!suspected.has(s.id)) return []
      const beside = neighbourOf(k)
      return [null, ...beside ? [beside.id] : []].map(besideId => ({ kind, nodeId: s.id, besideId }))
    })
    if (kind === 'looked') return [...suspected].map(nodeId => ({ kind, nodeId, besideId: null }))
    if (isReadAtHead(kind)) return [{ kind, nodeId: null, besideId: null }]
    if (kind === 'outward-impedance') return partedAt(places.slice(1).filter(id => speakers.some(s => s.id === id)), suspected).map(nodeId => ({ kind, nodeId, besideId: null }))
    if (kind === 'tap-found') return speakers.filter(s => s.load.kind === 'tap').map(s => ({ kind, nodeId: s.id, besideId: null }))
    // Through transformers a battery tells nothing: there the pulse.
    if (kind === 'polarity' || kind === 'polarity-heard') return speakers.filter(s => (s.load.kind === 'tap') === (kind === 'polarity-heard')).map(s => ({ kind, nodeId: s.id, besideId: null }))
    if (kind === 'beside') return speakers.flatMap((s, k) => {
      const beside = neighbourOf(k)
      return beside ? [{ kind, nodeId: s.id, besideId: beside.id }] : []
    })
    return speakers.map(s => ({ kind, nodeId: s.id, besideId: null }))
  }
  return ASKED.flatMap(at)
}

/** Where a long run may be parted: every so many places, and beside the likeliest. */
function partedAt(places: readonly string[], suspected: ReadonlySet<string | null>): string[] {
  const likely = new Set([...suspected].slice(0, PARTED_AT_LIKELY))
  const step = Math.ceil(places.length / PARTED_AT)
  return places.filter((id, k) => k % step === 0 || likely.has(id) || likely.has(places[k - 1] ?? null))
}
const PARTED_AT = 12
const PARTED_AT_LIKELY = 5

/** Answers as a person gives them: of a meter those that lie side by side and mean much the same are one. */
function answersOf(found: Predictive, weights: readonly number[], faults: readonly (readonly Fault[])[], mends: readonly Mend[]): Answer[] {
  const total = weights.reduce((a, b) => a + b, 0)
  const merged = toldApart(found, weights)
  const after = afterEach(weights, merged)
  return merged.answers.map((answer, a): Answer => {
    const { chance, weights: left } = after[a]!
    const leaves = faults.map((f, h) => ({ faults: f, probability: chance > 0 ? left[h]! / chance : 0 })).sort((x,
      y) => y.probability - x.probability).slice(0, 3)
    return { answer, chance: chance / total, leaves, minutesLeft: minutesOfMends(left, mends) }
  })
}
