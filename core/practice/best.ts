import type { Fault } from '#core/faults/fault'
import { definitionOf } from '#core/faults/index'
import { speakersOf } from '#core/job/tree'
import { predictive } from '#core/trace/next/answers'
import { toldApart } from '#core/trace/next/told'
import { amplifierOf, AT_THE_RACK, isOpened, mendMinutes, minutesOf, openedAt, standingAfter, SWITCH, type Standing } from '#core/trace/next/minutes'
import type { Predictive, TestAt } from '#core/trace/next/test'
import { outcomeOf, type Outcome, type Plan } from '#core/trace/outcome'
import { orderIn, placesOf, testsAt } from './places'
import { candidatesOf, type Rig } from './rig'

/**
 * The best possible play where few faults are possible, by trying everything: every test and every mend in every order, from every place. Nothing misleads
 * in it: a test says of each fault what it most likely says, in the answers that a person tells apart. So no play is quicker in the mean, and with real
 * hands and ears it takes somewhat longer. Beyond so many faults the tracer's play stands for it. Slips and spreads in it, too, were tried: six faults and
 * twenty tests came to no end in a minute, whatever was cut by bounds.
 */

/** Told apart by kind and place. Measured: 8 take a tenth of a second, 12 take one and a half, 16 a minute. */
export const MOST_EXACT = 12

export interface Hypothesis { kind: Fault['kind'], nodeId: string | null, prior: number, of: readonly Fault[] }

/** What may be hidden, by kind and place, with the chance that it is drawn. */
export function hypothesesOf({ exercise }: Pick<Rig, 'exercise'>): Hypothesis[] {
  const all = candidatesOf(exercise)
  const ofKind = new Map<string, number>()
  for (const f of all) ofKind.set(f.kind, (ofKind.get(f.kind) ?? 0) + 1)
  const total = [...ofKind.keys()].reduce((sum, kind) => sum + definitionOf(kind as Fault['kind'])!.prior, 0)
  const by = new Map<string, Fault[]>()
  for (const f of all) by.set(`${f.kind} ${f.nodeId ?? ''}`, [...by.get(`${f.kind} ${f.nodeId ?? ''}`) ?? [], f])
  return [...by.values()].map(of => ({
    kind: of[0]!.kind, nodeId: of[0]!.nodeId, of, prior: definitionOf(of[0]!.kind)!.prior / total * of.length / ofKind.get(of[0]!.kind)!,
  }))
}

/** A test, and of each of what may be there which answer it gives. Nothing is switched on before the head was read. */
export interface Doable { test: TestAt, answers: readonly number[], isHead: boolean, needsHead: boolean }
/** A test; the h-th, which is opened; nothing is left. */
type Does = Doable | number | null

export interface Best {
  /** Expected over all that may be hidden, by their chances. */
  minutes: number
  /** With what is hidden on this rig: its tests in order, and the minutes of all of it. */
  here: { minutes: number, tests: readonly TestAt[] }
}

export interface Problem {
  priors: readonly number[]
  /** Minutes of putting right what each is, and where that leaves somebody; what is opened is off before. */
  mends: readonly ({ minutes: number, isOpened: boolean } & Pick<Standing, 'atId' | 'isUp'>)[]
  doables: readonly Doable[]
  /** Minutes of a test from where somebody stands, and where that leaves them. */
  minutesFor: (test: TestAt, at: Standing) => number
  after: (test: TestAt, at: Standing) => Standing
}

/** null: more may be hidden than can be tried out, or two at once. */
export function bestPlay(rig: Rig): Best | null {
  const problem = problemOf(rig)
  if (problem === null) return null
  const { kind, nodeId } = rig.faults[0]!
  return solved(problem, hypothesesOf(rig).findIndex(h => h.kind === kind && h.nodeId === nodeId))
}

export function problemOf(rig: Rig): Problem | null {
  if (rig.exercise.faults !== 1) return null
  const hypotheses = hypothesesOf(rig)
  if (hypotheses.length > MOST_EXACT) return null
  const speakers = speakersOf(rig.output.wiring).map(s => s.id)
  const order = orderIn(rig.output)
  const standing: Standing = { ...AT_THE_RACK, without: rig.exercise.without ?? [] }
  const priors = hypotheses.map(h => h.prior)
  const outcomes = hypotheses.map(h => h.of.map(f => outcomeOf(rig.plan, [f])))
  const doables = placesOf(rig.output).flatMap(p => testsAt(rig.output, p.id)).flatMap((test): Doable[] => {
    if (minutesOf(test, standing, order, speakers) === null) return []
    const found = foundBy(test, rig.plan, outcomes, speakers)
    const answers = found && toldApart(found, priors).chances.map(c => c.indexOf(Math.max(...c)))
    const isHead = test.kind === 'line-impedance'
    return answers && (isHead || new Set(answers).size > 1) ? [{ test, answers, isHead, needsHead: amplifierOf(test.kind) === 'on' }] : []
  })
  return {
    priors, doables, mends: hypotheses.map(h => ({ minutes: mendMinutes([h.of[0]!]), isOpened: isOpened([h.of[0]!]), ...openedAt(h.nodeId, order) })),
    minutesFor: (test, at) => minutesOf(test, at, order, speakers)!,
    after: (test, at) => standingAfter(test, at, order, speakers.at(-1)),
  }
}

/** @param truth which of them it is, for the play of this one */
export function solved({ priors, mends, doables, minutesFor, after }: Problem, truth: number): Best {
  const known = new Map<string, { minutes: number, does: Does }>()
  const opened = (at: Standing, h: number): Standing => ({ ...at, atId: mends[h]!.atId, isUp: mends[h]!.isUp, isOn: at.isOn && !mends[h]!.isOpened })
  const mendFrom = ({ isOn }: Standing, h: number): number => mends[h]!.minutes + (isOn && mends[h]!.isOpened ? SWITCH : 0)
  const chanceOf = (left: number) => priors.reduce((sum, p, h) => left & (1 << h) ? sum + p : sum, 0)

  /** Minutes times chance from a set of what is left, and what comes first. */
  function least(left: number, at: Standing, isRead: boolean): { minutes: number, does: Does } {
    if (left === 0) return { minutes: 0, does: null }
    const key = `${left} ${at.atId ?? ''} ${at.isUp ? 1 : 0}${at.isOn ? 1 : 0}${isRead ? 1 : 0}`
    const before = known.get(key)
    if (before) return before
    const chance = chanceOf(left)
    let best: { minutes: number, does: Does } = { minutes: Infinity, does: null }
    for (let h = 0; h < mends.length; h++) {
      if (!(left & (1 << h))) continue
      const minutes = mendFrom(at, h) * chance + least(left & ~(1 << h), opened(at, h), isRead).minutes
      if (minutes < best.minutes) best = { minutes, does: h }
    }
    for (const doable of doables) {
      const parts = partsOf(left, doable.answers)
      const cost = minutesFor(doable.test, at) * chance
      // The head is worth reading for what may be done after it.
      const isWorth = parts.length > 1 || (doable.isHead && !isRead)
      if (!isWorth || (doable.needsHead && !isRead) || cost >= best.minutes) continue
      const minutes = parts.reduce((sum, part) => sum + least(part, after(doable.test, at), isRead || doable.isHead).minutes, cost)
      if (minutes < best.minutes - 1e-9) best = { minutes, does: doable }
    }
    known.set(key, best)
    return best
  }

  const all = (1 << priors.length) - 1
  const minutes = least(all, AT_THE_RACK, false).minutes
  let [left, at, spent, isRead] = [all, AT_THE_RACK, 0, false]
  const tests: TestAt[] = []
  for (;;) {
    const { does } = least(left, at, isRead)
    if (does === null) break
    if (typeof does === 'number') {
      spent += mendFrom(at, does)
      if (does === truth) break
      left &= ~(1 << does)
      at = opened(at, does)
      continue
    }
    spent += minutesFor(does.test, at)
    tests.push(does.test)
    left = partsOf(left, does.answers).find(part => part & (1 << truth))!
    at = after(does.test, at)
    isRead ||= does.isHead
  }
  return { minutes, here: { minutes: spent, tests } }
}

/** What is left, by the answer that each would give. */
function partsOf(left: number, answers: readonly number[]): number[] {
  const parts = new Map<number, number>()
  for (let h = 0; h < answers.length; h++) if (left & (1 << h)) parts.set(answers[h]!, (parts.get(answers[h]!) ?? 0) | (1 << h))
  return [...parts.values()]
}

/** Chances of its answers by what may be there; of several sizes of one fault the mean. null: it cannot be taken here. */
function foundBy(test: TestAt, plan: Plan, outcomes: readonly (readonly Outcome[])[], speakers: readonly string[]): Predictive | null {
  const speaker = speakersOf(plan.output.wiring).find(s => s.id === test.nodeId) ?? null
  const sampleWeight = new Float64Array(plan.deviations.samples).fill(1 / plan.deviations.samples)
  const flat = outcomes.flat()
  const found = predictive(test, flat.map(outcome => ({ outcome, sampleWeight })), plan, speaker, speakers)
  if (!found) return null
  let from = 0
  const chances = outcomes.map((of) => {
    const mine = found.chances.slice(from, from += of.length)
    return Float64Array.from(mine[0]!, (_, a) => mine.reduce((sum, c) => sum + c[a]!, 0) / of.length)
  })
  return { answers: found.answers, chances }
}
