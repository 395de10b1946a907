import { LOUDNESS, SOUNDS, type Sound } from '#core/job/sections/readings/schema'
import type { ReadingKind } from '#core/job/schema'
import { numbersBy } from '../chances'
import { ANY_SOUND, anySounds, cutOutChance, heardOf, isSilence, offDb, soundChance, soundsChance, turnedThrough } from '../ears'
import { levelChance, levelOffDb, silenceOf } from '../levels'
import type { Outcome, Plan } from '../outcome'
import { slipped, type Hypothesis, type Predictive, type WalkFound, type WalkHeard, type WalkKind } from './test'

/**
 * A walk along the line with the amplifier on, each speaker noted in passing: as it sounds, by the level meter, or by a pulse. What it may find is told
 * apart as a person would tell it: all are as they should be; one is not, two are not; all of what a fault takes with it are not, alike; anything else.
 */
interface Walk {
  /** What is kept of every speaker that was passed. */
  reads: ReadingKind
  /** How a speaker may be found; the first is as it should be. */
  ways: readonly WalkFound[]
  /** Chance of each at a speaker, the amplifier on, by what may be there; null: something that is not in the list. */
  chanceAt: (nodeId: string, outcome: Outcome | null, plan: Plan) => (way: WalkFound) => number
  /** What all of them are noted as where the amplifier has cut out. */
  whenCut: WalkFound
  /** Where nothing plays at all it is not walked: that is noted of all of them. */
  endsInSilence: boolean
}

const ANY_LEVEL: Partial<Record<WalkFound, number>> = { alike: 0.88, quieter: 0.07, louder: 0.05 }
const ANY_WAY: Partial<Record<WalkFound, number>> = { 'right-way': 0.96, 'reversed': 0.03, 'cannot-tell': 0.01 }

export const WALKS: Record<WalkKind, Walk> = {
  'walk': {
    reads: 'sound', ways: ['plays', ...SOUNDS.filter(s => s !== 'plays')], whenCut: 'silent', endsInSilence: false,
    chanceAt: (id, outcome, plan) => {
      if (outcome === null) return way => ANY_SOUND[way as Sound]
      const [db, acting] = [offDb(id, outcome, plan), heardOf(id, outcome, plan)]
      return way => soundChance(way as Sound, db, acting)
    },
  },
  'level-walk': {
    reads: 'level', ways: ['alike', ...LOUDNESS.filter(l => l !== 'alike')], whenCut: 'silent', endsInSilence: true,
    chanceAt: (id, outcome, plan) => {
      if (outcome === null) return way => ANY_LEVEL[way]!
      const db = levelOffDb(id, outcome, plan)
      return way => levelChance(way as 'alike', db)
    },
  },
  'pulse-walk': {
    reads: 'polarity-heard', ways: ['right-way', 'reversed', 'cannot-tell'], whenCut: 'cannot-tell', endsInSilence: false,
    // Here the pulse comes again until it is told: without that one of many is always not told, and nothing of a long walk is foretold.
    chanceAt: (id, outcome, plan) => way => outcome === null ? ANY_WAY[way]! : turnedThrough({ is: way as 'reversed', against: null }, id, outcome, plan, 0),
  },
}

/** An answer less likely than this by all that may be there is one of anything else. */
const LEAST = 1e-4
/** A speaker that is as it should be less often than this is one that a fault takes. */
const TAKEN = 0.6

/** Chance of each sound at a speaker by what may be there, and by what was noted of it before. */
export function soundsWith(nodeId: string, { outcome }: Pick<Hypothesis, 'outcome'>, plan: Plan, before: readonly Sound[] = []): (is: Sound) => number {
  if (outcome === null) return is => anySounds([...before, is]) / anySounds(before)
  const cut = cutOutChance(outcome.solved.head, plan.drawn.solved.head)
  const [db, acting] = [offDb(nodeId, outcome, plan), heardOf(nodeId, outcome, plan)]
  const chanceOf = (all: readonly Sound[]) => (1 - cut) * soundsChance(all, db, acting) + (isSilence(all) ? cut : 0)
  const known = chanceOf(before)
  // What cannot have been heard was a slip: it tells nothing of what is heard now.
  return is => known > 0 ? chanceOf([...before, is]) / known : chanceOf([is])
}

/** How each speaker that is passed may be found with one of what may be there, the amplifier on: chance of each way. */
export interface Passed {
  at: Float64Array[]
  /** The amplifier has cut out. */
  cut: number
  /** It ends in silence: cut out, or, where a walk ends in that, nothing plays by what is there. */
  silent: number
}

export function passedBy(kind: WalkKind, ids: readonly string[], { outcome }: Pick<Hypothesis, 'outcome'>, plan: Plan): Passed {
  const { ways, chanceAt, endsInSilence } = WALKS[kind]
  const at = ids.map((id) => {
    const chance = chanceAt(id, outcome, plan)
    const raw = numbersBy(ways.length, k => chance(ways[k]!))
    let total = 0
    for (const p of raw) total += p
    return raw.map(p => p / total)
  })
  const cut = outcome === null ? 0 : cutOutChance(outcome.solved.head, plan.drawn.solved.head)
  return { at, cut, silent: cut + (1 - cut) * (outcome !== null && endsInSilence ? silenceOf(plan.speakers, outcome, plan) : 0) }
}

interface Found {
  /** Of each speaker, the amplifier on: that it is as it should be, and each way, and any but that, against it. */
  at: { right: number, ratio: Float64Array, odd: number }[]
  allRight: number
  /** Of all of them alike that there is nothing to read. */
  cut: number
}

/** `ids`: the speakers that are passed; `passed`: how they may be found, by what may be there. null: it is no walk. */
export function walked(kind: WalkKind, ids: readonly string[], passed: readonly Passed[]): Predictive | null {
  if (ids.length < 2) return null
  const { ways, whenCut, endsInSilence } = WALKS[kind]
  const odds = ways.slice(1)
  const found = passed.map(({ at: all, silent }): Found => {
    // Against its being right: what a set comes to is what all being right comes to, times these.
    const at = all.map((chances) => {
      const right = chances[0]! + 1e-12
      return { right, ratio: chances.map(p => p / right), odd: (1 - right) / right }
    })
    return { at, allRight: (1 - silent) * at.reduce((product, { right }) => product * right, 1), cut: silent }
  })
  const answers: WalkHeard[] = []
  const columns: Float64Array[] = []
  const add = (answer: WalkHeard, chanceOf: (f: Found) => number) => {
    const column = new Float64Array(found.length)
    let most = 0
    for (let h = 0; h < found.length; h++) most = Math.max(most, column[h] = chanceOf(found[h]!))
    if (most < LEAST) return
    answers.push(answer)
    columns.push(column)
  }
  const noted = (set: readonly number[], is: readonly WalkFound[]) => {
    const at = is.map(way => ways.indexOf(way))
    const isAllCut = !endsInSilence && set.length === ids.length && is.every(way => way === whenCut)
    add(set.map((k, n) => ({ nodeId: ids[k]!, is: is[n]! })), (f) => {
      let product = f.allRight
      for (let n = 0; n < set.length; n++) product *= f.at[set[n]!]!.ratio[at[n]!]!
      return product + (isAllCut ? f.cut : 0)
    })
  }
  noted([], [])
  if (endsInSilence) add(ids.map(nodeId => ({ nodeId, is: whenCut })), f => f.cut)
  for (let k = 0; k < ids.length; k++) for (const is of odds) noted([k], [is])
  // Two that are not right: how each is found is told apart only where a fault, or two, take both.
  const taken = setsTaken(found, ids.length)
  for (let k = 0; k < ids.length; k++) for (let j = k + 1; j < ids.length; j++) {
    if (taken.has(`${k},${j}`)) for (const one of odds) for (const other of odds) noted([k, j], [one, other])
    else add(null, f => f.allRight * f.at[k]!.odd * f.at[j]!.odd)
  }
  for (const set of taken.values()) if (set.length > 2) for (const is of odds) noted(set, set.map(() => is))
  return {
    answers: [...answers, null].map(of => ({ heard: of })),
    chances: found.map((_, h) => {
      const chances = new Float64Array(columns.length + 1)
      let told = 0
      for (let c = 0; c < columns.length; c++) told += chances[c] = columns[c]![h]!
      chances[columns.length] = Math.max(0, 1 - told)
      return slipped(chances)
    }),
  }
}

/** What a fault takes with it, as it is found: sets of more than one; and all of them. */
function setsTaken(found: readonly Found[], count: number): Map<string, number[]> {
  const sets = new Map<string, number[]>()
  for (const { at } of found) {
    const taken = at.flatMap(({ right }, k) => right < TAKEN ? [k] : [])
    if (taken.length > 1) sets.set(taken.join(), taken)
  }
  const all = Array.from({ length: count }, (_, k) => k)
  return sets.set(all.join(), all)
}
