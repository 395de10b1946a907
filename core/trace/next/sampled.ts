import { seeded, type Chance } from '#core/quantity/seeded'
import { speakersOf } from '#core/job/tree'
import { anyLevelDensity, levelAt, levelBy, levelDensity, levelDrawn, likeSpeakers, settingsOf, type LevelAt } from '../levels'
import { middleOf } from '../middle'
import { SLIP } from '../ohms'
import type { Plan } from '../outcome'
import type { Hypothesis, WalkKind } from './test'
import { passedBy, WALKS, type Passed } from './walk'

/**
 * What a walk tells, by all that it finds: so many walks as they may come out, drawn from all that may be there, each as likely as it is, and of each how
 * likely it is with each of what may be there. What lost: the answers that a person tells apart. Of a walk with the level meter by eighteen speakers they
 * hold a third of what the figures tell, of thirty-five a sixteenth, and it was hardly ever named.
 */
const WALKED = 256
const SEED = 27

/** What is noted on a walk, of each speaker a figure; how likely that is with each of what may be there, against the line as drawn. */
export interface Noted {
  draw: (h: number, k: number, chance: Chance) => number
  /** Of one walk: how likely it is with each, against nothing wrong. */
  ratios: (all: readonly number[]) => (h: number) => number
  /** All of them say nothing, and that is noted; and that they do not. */
  silent: (h: number) => number
  on: (h: number) => number
  /** Of the figures of a walk: nothing plays. */
  isSilence: (all: readonly number[]) => boolean
}

/** `weights`: of what may be there. Chances of each of the walks, by what may be there; what they come to together is the weights again. */
export function sampledWalks(
  kind: WalkKind, ids: readonly string[], hypotheses: readonly Pick<Hypothesis, 'outcome'>[], weights: readonly number[], passed: readonly Passed[], plan: Plan,
): Float64Array[] {
  const noted = notedOn(kind, ids, hypotheses, passed, plan)
  const total = weights.reduce((a, b) => a + b, 0)
  const chance = seeded(SEED)
  const chances = hypotheses.map(() => new Float64Array(WALKED))
  const like = new Float64Array(hypotheses.length)
  let h = 0
  let upTo = weights[0] ?? 0
  for (let a = 0; a < WALKED; a++) {
    while (h < hypotheses.length - 1 && upTo < (a + 0.5) / WALKED * total) upTo += weights[++h]!
    const isSilent = chance() < noted.silent(h)
    const all = isSilent ? [] : ids.map((_, k) => noted.draw(h, k, chance))
    const isSilence = isSilent || noted.isSilence(all)
    const ratio = isSilence ? noted.silent : noted.ratios(all)
    let sum = 0
    for (let g = 0; g < like.length; g++) sum += weights[g]! * (like[g] = isSilence ? ratio(g) : noted.on(g) * ratio(g))
    for (let g = 0; g < like.length; g++) chances[g]![a] = ((1 - SLIP) * like[g]! * total / sum + SLIP) / WALKED
  }
  return chances
}

export const notedOn = (kind: WalkKind, ids: readonly string[], hypotheses: readonly Pick<Hypothesis, 'outcome'>[], passed: readonly Passed[], plan: Plan): Noted =>
  kind === 'level-walk' ? byLevel(ids, hypotheses, passed, plan) : byWay(kind, ids, passed, plan)

/** By ear or by a pulse a way that is so little likelier than with nothing wrong, or less likely, is as with nothing wrong. */
const ALIKE = 0.02

/** By ear or by a pulse: of each speaker one of a few ways. */
function byWay(kind: WalkKind, ids: readonly string[], passed: readonly Passed[], plan: Plan): Noted {
  const { ways, whenCut } = WALKS[kind]
  const none = ways.indexOf(whenCut)
  const drawn = passedBy(kind, ids, { outcome: plan.drawn }, plan)
  // Noted of all of them that they say nothing: the amplifier has cut out, or each by itself.
  const silent = passed.map(({ at, cut }) => cut + (1 - cut) * at.reduce((product, p) => product * p[none]!, 1))
  const against = passed.map(({ at }) => ids.flatMap((_, k) => {
    const ratio = at[k]!.map((p, way) => p / drawn.at[k]![way]!)
    return ratio.some(r => Math.abs(r - 1) > ALIKE) ? [{ k, ratio }] : []
  }))
  return {
    draw: (h, k, chance) => {
      const of = passed[h]!.at[k]!
      let left = chance()
      for (let way = 0; way < of.length; way++) if ((left -= of[way]!) < 0) return way
      return 0
    },
    ratios: all => (h) => {
      let product = 1
      for (const { k, ratio } of against[h]!) product *= ratio[all[k]!]!
      return product
    },
    silent: h => silent[h]!, on: h => 1 - passed[h]!.cut,
    isSilence: all => all.every(way => way === none),
  }
}

/** Two levels so near each other are one, dB: a run that feeds many changes all of them by a hundredth. */
const ALIKE_DB = 0.03
/** Of so many and more the setting is that of those that nothing is wrong with, where no more than this part of them is moved. */
const SETTLED_FROM = 10
const SETTLED_PART = 1 / 5

/** By the meter: of each speaker a level, at a setting that those which are alike tell together. */
function byLevel(ids: readonly string[], hypotheses: readonly Pick<Hypothesis, 'outcome'>[], passed: readonly Passed[], plan: Plan): Noted {
  const at = hypotheses.map(({ outcome }) => outcome === null ? null : ids.map(id => levelAt(id, outcome, plan)))
  const groups = alikeOf(ids, plan).map((group) => {
    const kinds = kindsOf(at.map(of => of && group.map(k => of[k]!)))
    return { group, ...kinds, ratios: new Float64Array(kinds.kinds.length) }
  })
  return {
    draw: (h, k, chance) => levelDrawn(at[h]?.[k] ?? RIGHT, chance),
    ratios: (all) => {
      const read = groups.map(({ group }) => readOf(Float64Array.from(group, k => all[k]!)))
      const any = read.reduce((product, { dbs, settings, right, own }) => product / own
        * overAll(settings, setting => dbs.reduce((p, db, n) => p * anyLevelDensity(db - setting) / right[n]!, 1)), 1)
      groups.forEach(({ kinds, ratios }, g) => kinds.forEach((of, k) => { ratios[k] = ratioOf(of, read[g]!) }))
      return h => at[h] === null ? any : groups.reduce((product, { kindOf, ratios }) => product * ratios[kindOf[h]!]!, 1)
    },
    silent: h => passed[h]!.silent, on: h => 1 - passed[h]!.silent,
    isSilence: () => false,
  }
}

const RIGHT: LevelAt = { offDb: 0, mute: 0 }
/** What levels may be by what may be there: an open coil, an open joint and none there at all are one. Those that are moved, by their number. */
interface Kind { ats: readonly LevelAt[], offs: Float64Array, mutes: Float64Array, moved: readonly number[] }
/** Each found once for all that are the same of it: of two hundred things that may be wrong on six speakers some thirty. */
function kindsOf(all: readonly (readonly LevelAt[] | null)[]): { kinds: Kind[], kindOf: Int32Array } {
  const numbers = new Map<string, number>()
  const kinds: Kind[] = []
  const kindOf = Int32Array.from(all, (ats) => {
    if (ats === null) return -1
    const name = ats.map(({ offDb, mute }) => `${Math.round(offDb / ALIKE_DB)} ${mute}`).join()
    const known = numbers.get(name)
    if (known !== undefined) return known
    numbers.set(name, kinds.length)
    return kinds.push({
      ats, offs: Float64Array.from(ats, a => a.offDb), mutes: Float64Array.from(ats, a => a.mute),
      moved: ats.flatMap(({ offDb, mute }, n) => mute > 0 || Math.abs(offDb) > ALIKE_DB ? [n] : []),
    }) - 1
  })
  return { kinds, kindOf }
}

/** `right`: of each at its setting with nothing wrong; `own`: of all together, over the settings that there may be, against those. */
interface Read { dbs: Float64Array, settings: Float64Array, setting: number, right: readonly number[], own: number }
function readOf(dbs: Float64Array): Read {
  const settings = settingsOf(dbs.slice())
  const setting = middleOf(dbs.slice())
  const right = Array.from(dbs, db => levelBy(db - setting, RIGHT))
  return { dbs, settings, setting, right, own: overAll(settings, at => dbs.reduce((product, db, n) => product * quick(db - at) / right[n]!, 1)) }
}
function ratioOf({ ats, offs, mutes, moved }: Kind, { dbs, setting, right, own }: Read): number {
  if (moved.length === 0) return 1
  if (dbs.length >= SETTLED_FROM && moved.length <= SETTLED_PART * dbs.length) {
    let product = 1
    for (const n of moved) product *= levelBy(dbs[n]! - setting, ats[n]!) / right[n]!
    return product
  }
  const each = new Float64Array(dbs.length)
  for (let n = 0; n < each.length; n++) each[n] = dbs[n]! - offs[n]!
  let total = 0
  for (const at of settingsOf(each)) {
    let product = 1
    for (let n = 0; n < dbs.length; n++) product *= (mutes[n]! > 0 ? levelBy(dbs[n]! - at, ats[n]!) : quick(dbs[n]! - at - offs[n]!)) / right[n]!
    total += product
  }
  return total / own
}
const overAll = (settings: Float64Array, of: (setting: number) => number): number => {
  let total = 0
  for (const setting of settings) total += of(setting)
  return total
}

/** Densities of a level by how far it lies from what it would be, a twentieth of a decibel apart: an exponential for each took most of the time. */
const PER_DB = 20
const WITHIN_DB = 40
const densities = Float64Array.from({ length: 2 * WITHIN_DB * PER_DB + 1 }, (_, k) => levelDensity(k / PER_DB - WITHIN_DB, 0))
const quick = (db: number): number => densities[Math.max(0, Math.min(densities.length - 1, Math.round((db + WITHIN_DB) * PER_DB)))]!

/** Numbers of those that are alike; of one alone nothing is told. */
function alikeOf(ids: readonly string[], { output }: Plan): number[][] {
  const speakers = new Map(speakersOf(output.wiring).map(s => [s.id, s]))
  const groups: number[][] = []
  ids.forEach((id, k) => {
    const known = groups.find(group => likeSpeakers(speakers.get(ids[group[0]!]!)!, speakers.get(id)!))
    if (known) known.push(k)
    else groups.push([k])
  })
  return groups.filter(group => group.length > 1)
}
