import { SOUNDS, type Sound } from '#core/job/sections/readings/schema'
import { ANY_SOUND, cutOutChance, heardOf, offDb, soundChance } from '../ears'
import type { Plan } from '../outcome'
import { slipped, type Hypothesis, type Predictive, type WalkHeard } from './test'

/**
 * A walk along the line with the programme on, each speaker noted as it sounds. What it may find is told apart as a person would tell it: all play; one
 * does not, two do not; all of what a fault takes with it do not, alike; anything else.
 */

const ODD = SOUNDS.filter(s => s !== 'plays')
/** An answer less likely than this by all that may be there is one of anything else. */
const LEAST = 1e-4
/** A speaker that plays less often than this is one that a fault takes. */
const TAKEN = 0.6

/** Chance of a sound at a speaker by what may be there. */
export function soundWith(is: Sound, nodeId: string, { outcome }: Pick<Hypothesis, 'outcome'>, plan: Plan): number {
  if (outcome === null) return ANY_SOUND[is]
  const cut = cutOutChance(outcome.solved.head, plan.drawn.solved.head)
  return (1 - cut) * soundChance(is, offDb(nodeId, outcome, plan), heardOf(nodeId, outcome, plan)) + (is === 'silent' ? cut : 0)
}

interface Heard {
  /** Of each speaker, the amplifier on: that it plays, and each sound, and any but that, against it. */
  at: { plays: number, ratio: Float64Array, odd: number }[]
  allPlay: number
  cut: number
}

export function walked(ids: readonly string[], hypotheses: readonly Hypothesis[], plan: Plan): Predictive | null {
  if (ids.length < 2) return null
  const heard = hypotheses.map(({ outcome }): Heard => {
    const at = ids.map((id) => {
      const raw = Float64Array.from(SOUNDS, s => outcome === null ? ANY_SOUND[s] : soundChance(s, offDb(id, outcome, plan), heardOf(id, outcome, plan)))
      let total = 0
      for (const p of raw) total += p
      // Against its playing: what a set comes to is what all playing comes to, times these.
      const plays = raw[PLAYS]! / total + 1e-12
      return { plays, ratio: raw.map(p => p / total / plays), odd: (1 - plays) / plays }
    })
    const cut = outcome === null ? 0 : cutOutChance(outcome.solved.head, plan.drawn.solved.head)
    return { at, allPlay: (1 - cut) * at.reduce((product, { plays }) => product * plays, 1), cut }
  })
  const answers: WalkHeard[] = []
  const columns: Float64Array[] = []
  const add = (answer: WalkHeard, chance: (h: Heard) => number) => {
    const column = new Float64Array(heard.length)
    let most = 0
    for (let h = 0; h < heard.length; h++) most = Math.max(most, column[h] = chance(heard[h]!))
    if (most < LEAST) return
    answers.push(answer)
    columns.push(column)
  }
  const noted = (set: readonly number[], is: readonly Sound[]) => {
    const sounds = is.map(s => SOUNDS.indexOf(s))
    const isAllSilent = set.length === ids.length && is.every(s => s === 'silent')
    add(set.map((k, n) => ({ nodeId: ids[k]!, is: is[n]! })), (h) => {
      let product = h.allPlay
      for (let n = 0; n < set.length; n++) product *= h.at[set[n]!]!.ratio[sounds[n]!]!
      return product + (isAllSilent ? h.cut : 0)
    })
  }
  noted([], [])
  for (let k = 0; k < ids.length; k++) for (const is of ODD) noted([k], [is])
  // Two that do not: how each sounds is told apart only where a fault, or two, take both.
  const taken = setsTaken(heard, ids.length)
  for (let k = 0; k < ids.length; k++) for (let j = k + 1; j < ids.length; j++) {
    if (taken.has(`${k},${j}`)) for (const one of ODD) for (const other of ODD) noted([k, j], [one, other])
    else add(null, h => h.allPlay * h.at[k]!.odd * h.at[j]!.odd)
  }
  for (const set of taken.values()) if (set.length > 2) for (const is of ODD) noted(set, set.map(() => is))
  return {
    answers: [...answers, null].map(of => ({ heard: of })),
    chances: heard.map((_, h) => {
      const chances = new Float64Array(columns.length + 1)
      let told = 0
      for (let c = 0; c < columns.length; c++) told += chances[c] = columns[c]![h]!
      chances[columns.length] = Math.max(0, 1 - told)
      return slipped(chances)
    }),
  }
}

/** What a fault takes with it, as it is heard: sets of more than one; and all of them. */
function setsTaken(heard: readonly Heard[], count: number): Map<string, number[]> {
  const sets = new Map<string, number[]>()
  for (const { at } of heard) {
    const taken = at.flatMap(({ plays }, k) => plays < TAKEN ? [k] : [])
    if (taken.length > 1) sets.set(taken.join(), taken)
  }
  const all = Array.from({ length: count }, (_, k) => k)
  return sets.set(all.join(), all)
}
const PLAYS = SOUNDS.indexOf('plays')
