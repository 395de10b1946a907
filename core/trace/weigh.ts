import type { JudgedReading } from '#core/check/proof'
import { METER_HZ } from '#core/check/readingBands'
import type { Output, Reading, ReadingKind, ReadingValue, Sound } from '#core/job/schema'
import { branchesOf, speakersOf, throughsIn } from '#core/job/tree'
import { isReactive } from '#core/network/element'
import { isGroup, type WiringNode } from '#core/network/tree'
import { logSum } from './chances'
import { AT_A_COIL, coilOffsets, expectedCoil, likeAnyCoil, likeCoil } from './coils'
import { deviationsOf } from './deviations'
import { anySounds, cutOutChance, heardOf, isSilence, offDb, soundsChance } from './ears'
import { LIKE, likeAnything, likeSpread, SPREAD_OF_ANYTHING, spreadsOf, type Spread } from './evidence'
import type { Given } from './given'
import { levelGroups, levelled, levelsLog, type LevelGroup } from './levels'
import { likeAnyOhm, likeElseOhm, likeOhm, offsets, orSlip, SLIP, type OhmReading } from './ohms'
import { AT_HEAD, planOf, readFrom, type Outcome, type Plan } from './outcome'

/**
 * How well a line with faults in it explains all that was read. What is read in ohms, and on coils, is weighed sample by sample of what the
 * units may be, so that readings of units of one model are not taken for independent of each other; what is seen and heard, each by itself.
 */
export interface Weigher {
  plan: Plan
  /** Logarithm of the likelihood of all readings. `between`: variance of each ohm reading by sizes of a fault that lie between those tried. */
  fitOf: (outcome: Outcome, between?: readonly number[]) => number
  /** The same of something that is not in the list. */
  fitOfAnything: () => number
  /** Logarithm of each reading's likelihood by itself, with what the coils tell of the units. */
  tellings: (outcome: Outcome, between?: readonly number[]) => { judged: JudgedReading, log: number }[]
  ohms: readonly OhmReading[]
  /** Weight of each sample by what coils and other lines tell, as a logarithm; they sum to one. */
  sampleLog: Float64Array
  parts: WeighedParts
  /** Something was read that a line that is cut out does not show: the logarithm of its being a slip; none, 0. */
  playedLog: number
  /** What the samples weigh with these faults and all that was read in ohms, as logarithms. */
  samplesOf: (outcome: Outcome) => Float64Array
  /** Logarithm of what coils tell by themselves with nothing wrong, and of what faults do to it and to what is seen, alone. */
  coilsLog: number
  coilsBy: (outcome: Outcome) => number
  seenBy: (outcome: Outcome) => number
}

/** What the search over pairs takes apart. */
export interface WeighedParts {
  coils: readonly CoilReading[]
  heard: readonly HeardAt[]
  /** What is seen, and heard by a pulse; of what was read more than once each reading. */
  others: readonly JudgedReading[]
  spreads: readonly Spread[]
  levels: readonly LevelGroup[]
}
/** A speaker that was listened at: the last reading of it, and all that was noted since the last repair, oldest first. */
export interface HeardAt { judged: JudgedReading, nodeId: string, sounds: readonly Sound[], any: number }
export interface CoilReading { judged: JudgedReading, nodeId: string, expectedOhm: number | null, off: Float64Array, rightLog: Float64Array }

/**
 * Of something that is not in the list, what a meter at the head sees: most of what works on a line takes current, or keeps it off; of a long line what is at
 * one place is lost among the others. Common practice, no source; checked against rigs with what no list has. What lost: the same share of every line, which
 * on lines of sixteen and more was said twice as often as it was so.
 */
const seenShare = (speakers: number): number => SEEN * Math.sqrt(Math.min(1, SEEN_UP_TO / Math.max(1, speakers)))
const SEEN = 0.8
const SEEN_UP_TO = 6

export function makeWeigher(given: Given): Weigher {
  const { output } = given
  const ofCoil = given.readings.filter(j => j.reading.kind === 'coil-dcr' && (j.reading.value.is === 'ohm' || j.reading.value.is === 'open'))
  const deviations = deviationsOf(output, given.lessons, new Set(ofCoil.map(j => j.reading.nodeId!)))
  const plan = planOf(output, deviations, given.others)
  const byId = new Map(speakersOf(output.wiring).map(s => [s.id, s]))
  const coils = ofCoil.flatMap((judged): CoilReading[] => {
    const speaker = byId.get(judged.reading.nodeId!)
    if (!speaker) return []
    const [expectedOhm, off] = [expectedCoil(judged), coilOffsets(deviations, speaker)]
    const any = likeAnyCoil(judged.reading.value)
    return [{ judged, nodeId: speaker.id, expectedOhm, off, rightLog: off.map(o => Math.log(orSlip(likeCoil(judged.reading.value, 'right', expectedOhm, o), any))) }]
  })
  const readOhms = given.readings.flatMap(j => ohmReading(j, output, plan) ?? [])
  const ohms = readOhms.map(r => r.ohm)
  const isOhm = new Set(readOhms.map(r => r.judged))
  const heard = given.readings.filter(j => j.reading.kind === 'sound' && byId.has(j.reading.nodeId!)).map((judged): HeardAt => {
    const nodeId = judged.reading.nodeId!
    const sounds = soundsAt(given, nodeId)
    return { judged, nodeId, sounds, any: anySounds(sounds) }
  })
  const others = given.readings.filter(j => !isOhm.has(j) && j.reading.kind !== 'coil-dcr' && LIKE[j.reading.kind] !== null)
    .flatMap(j => isTurnedKind(j.reading.kind) ? allAt(given, j.reading).map(reading => ({ ...j, reading })) : [j])
  const spreads = spreadsOf(given.history)
  const levels = levelGroups(given.readings, plan)
  const playedLog = given.readings.some(showsThatItPlays) ? Math.log(SLIP) : 0

  const sampleLog = deviations.logWeight.slice()
  for (const { rightLog } of coils) rightLog.forEach((log, s) => { sampleLog[s]! += log })
  const coilsLog = logSum(sampleLog) - logSum(deviations.logWeight)
  const total = logSum(sampleLog)
  sampleLog.forEach((log, s) => { sampleLog[s] = log - total })

  const samplesWith = (outcome: Outcome, between: readonly number[], only: number | null = null): Float64Array => {
    const logs = sampleLog.slice()
    ohms.forEach((ohm, k) => {
      if (only !== null && only !== k) return
      const sight = outcome.sight(ohm.place)
      if (sight === null) return
      const any = likeAnyOhm(ohm)
      const off = offsets(deviations, sight, ohm.place.frequencyHz)
      const variance = sight.variance + (between[k] ?? 0)
      const likeWith = likeOhm(ohm, sight.seen, variance)
      for (let s = 0; s < logs.length; s++) logs[s]! += Math.log(orSlip(likeWith(off[s]!), any))
    })
    return logs
  }
  const withCoils = (logs: Float64Array, outcome: Outcome, of: readonly CoilReading[] = coils): Float64Array => {
    for (const coil of of) outcome.definitions.forEach((d, k) => outcome.faults[k]!.nodeId === coil.nodeId && addCoil(logs, coil, d.coil))
    return logs
  }
  const likeSounds = ({ nodeId, sounds }: HeardAt, outcome: Outcome) => soundsChance(sounds, offDb(nodeId, outcome, plan), heardOf(nodeId, outcome, plan))
  const likeSilence = ({ sounds }: HeardAt) => isSilence(sounds) ? 1 : 0

  const seenLog = (outcome: Outcome) => others.reduce((sum, j) => sum + Math.log(orSlip(LIKE[j.reading.kind]!(j, outcome, plan), likeAnything(j))), 0)
    + spreads.reduce((sum, spread) => sum + Math.log(orSlip(likeSpread(spread, outcome, plan), SPREAD_OF_ANYTHING)), 0) + levelsLog(levels, outcome, plan)

  /** All that was heard, together: an amplifier that cuts out silences every speaker at once, or none. */
  const heardLog = (outcome: Outcome): number => {
    if (heard.length === 0 && playedLog === 0) return 0
    const cut = cutOutChance(outcome.solved.head, plan.drawn.solved.head)
    const logOf = (chance: (h: HeardAt) => number) => heard.reduce((sum, h) => sum + Math.log(orSlip(chance(h), h.any)), 0)
    const on = cut === 1 ? -Infinity : Math.log(1 - cut) + logOf(h => likeSounds(h, outcome))
    return logSum([on, cut === 0 ? -Infinity : Math.log(cut) + playedLog + logOf(likeSilence)])
  }

  return {
    plan, ohms, playedLog, sampleLog, parts: { coils, heard, others, spreads, levels }, coilsLog,
    samplesOf: outcome => withCoils(samplesWith(outcome, []), outcome),
    coilsBy: outcome => logSum(withCoils(sampleLog.slice(), outcome)),
    seenBy: seenLog,
    fitOf: (outcome, between = []) => coilsLog + logSum(withCoils(samplesWith(outcome, between), outcome)) + heardLog(outcome) + seenLog(outcome),
    fitOfAnything: () => {
      const odd = AT_A_COIL / Math.max(1, plan.speakers.length)
      const unseen = logSum(samplesWith(plan.drawn, []))
      const seen = ohms.reduce((sum, ohm) => sum + Math.log(likeElseOhm(ohm)), 0)
      const ofCoils = coils.reduce((sum, { rightLog, judged }) => sum + Math.log((1 - odd) * averageOf(rightLog, deviations.logWeight)
        + odd * likeAnyCoil(judged.reading.value)), 0)
      const logOf = (chance: (h: HeardAt) => number) => heard.reduce((sum, h) => sum + Math.log(orSlip(chance(h), h.any)), 0)
      const ofEars = logSum([
        Math.log(0.5) + logOf(h => soundsChance(h.sounds, 0, null)), Math.log(0.15) + logOf(likeSilence), Math.log(0.35) + logOf(h => h.any),
      ])
      const share = seenShare(plan.speakers.length)
      return logSum([Math.log(1 - share) + unseen, Math.log(share) + seen]) + ofCoils + ofEars + others.reduce((sum, j) => sum + Math.log(likeAnything(j)), 0)
        + spreads.reduce((sum, { isUnsteady }) => sum + Math.log(isUnsteady ? 0.25 : 0.75), 0)
        + levels.reduce((sum, { anyLog }) => sum + anyLog, 0)
    },
    tellings: (outcome, between = []) => given.readings.flatMap((judged) => {
      const k = readOhms.findIndex(r => r.judged === judged)
      if (k >= 0) return [{ judged, log: logSum(samplesWith(outcome, between, k)) }]
      const coil = coils.find(c => c.judged === judged)
      if (coil) {
        const without = sampleLog.map((log, s) => log - coil.rightLog[s]!)
        return [{ judged, log: logSum(withCoils(sampleLog.slice(), outcome, [coil])) - logSum(without) }]
      }
      const at = heard.find(h => h.judged === judged)
      if (at) {
        const cut = cutOutChance(outcome.solved.head, plan.drawn.solved.head)
        return [{ judged, log: Math.log(orSlip((1 - cut) * likeSounds(at, outcome) + cut * likeSilence(at), at.any)) }]
      }
      const level = levelTelling(levels, judged, outcome, plan)
      if (level !== null) return [{ judged, log: level }]
      const all = toldAt(others, judged)
      const like = LIKE[judged.reading.kind]
      if (like === null || all.length === 0) return []
      return [{ judged, log: all.reduce((sum, o) => sum + Math.log(orSlip(like(o, outcome, plan), likeAnything(o))), 0) }]
    }),
  }
}

/** One level by itself, at the setting that all of them tell; null: it is none that tells anything. */
function levelTelling(groups: readonly LevelGroup[], judged: JudgedReading, outcome: Outcome, plan: Plan): number | null {
  for (const group of groups) {
    const k = group.reads.findIndex(r => r.judged === judged)
    if (k < 0) continue
    const { each, none, mute } = levelled(group, outcome, plan)
    return Math.log((1 - mute) * Math.exp(each[k]!) + mute * Math.exp(none[k]!))
  }
  return null
}

/** A level, which way round by a pulse, one louder than another: none of it is read where nothing plays. */
const showsThatItPlays = ({ reading: { kind, value } }: JudgedReading): boolean => kind === 'level'
  || (kind === 'polarity-heard' && value.is !== 'cannot-tell') || (kind === 'beside' && value.is !== 'alike')

/** Puts what a coil may read with a fault in the place of its being right. */
function addCoil(logs: Float64Array, { judged: { reading: { value } }, expectedOhm, off, rightLog }: CoilReading, chances: Outcome['definitions'][number]['coil']): void {
  if (chances.right === 1) return
  const any = likeAnyCoil(value)
  const all = Object.entries(chances) as [keyof typeof chances, number][]
  for (let s = 0; s < logs.length; s++) {
    let like = 0
    for (const [outcome, chance] of all) like += chance * likeCoil(value, outcome, expectedOhm, off[s]!)
    logs[s]! += Math.log(orSlip(like, any)) - rightLog[s]!
  }
}

/** Readings of a place since the last repair, oldest first. */
const allAt = ({ history }: Pick<Given, 'history'>, { kind, nodeId }: Pick<Reading, 'kind' | 'nodeId'>): Reading[] =>
  history.filter(r => r.kind === kind && r.nodeId === nodeId).sort((a, b) => a.at < b.at ? -1 : a.at > b.at ? 1 : 0)
/** What was noted of a speaker since the last repair, oldest first. */
export const soundsAt = (given: Pick<Given, 'history'>, nodeId: string): Sound[] => allAt(given, { kind: 'sound', nodeId }).map(r => r.value.is as Sound)
/** Which way round something is, is told by a slip in one of thirty: of what was read more than once each reading tells, and slips anew. */
export const isTurnedKind = (kind: ReadingKind): boolean => kind === 'polarity' || kind === 'polarity-heard'
/** All that was read at the place of a reading: what was read more than once tells all together. */
export const toldAt = (others: readonly JudgedReading[], { reading: { kind, nodeId } }: JudgedReading): JudgedReading[] =>
  others.filter(o => o.reading.kind === kind && o.reading.nodeId === nodeId)

function averageOf(logs: Float64Array, weights: Float64Array): number {
  return Math.exp(logSum(logs.map((log, s) => log + weights[s]!)) - logSum(weights))
}

/** A reading in ohms, where it is one: of the copper only where that can be foretold. */
function ohmReading(judged: JudgedReading, output: Output, plan: Plan): { judged: JudgedReading, ohm: OhmReading } | null {
  const { kind, value, nodeId, frequencyHz } = judged.reading
  const hz = frequencyHz ?? METER_HZ
  const made = (place: OhmReading['place'], read: ReadingValue = value): { judged: JudgedReading, ohm: OhmReading } => {
    const seen = plan.drawn.sight(place)?.seen
    return { judged, ohm: { place, value: read, lengthM: lengthFrom(output.wiring, place.nodeId), plannedOhm: seen?.state === 'finite' ? seen.ohm : null } }
  }
  if (kind === 'line-impedance') return made({ nodeId: null, frequencyHz: hz })
  if (kind === 'head-volts-amps') return value.is === 'volts-amps' ? made({ nodeId: null, frequencyHz: hz }, { is: 'ohm', ohm: value.volts / value.amps }) : null
  if (kind === 'outward-impedance') return readFrom(output.wiring, nodeId) === null ? null : made({ nodeId, frequencyHz: hz })
  if (kind === 'line-dcr') return isPlain(output) ? made({ ...AT_HEAD, frequencyHz: 0 }) : null
  return null
}

/** Whether an ohmmeter at the head sees coils, and not windings. */
const isPlain = ({ wiring }: Output): boolean => !speakersOf(wiring).some(s => s.load.kind === 'tap') && throughsIn(wiring).every(({ through }) => isReactive(through))

/** Cable that lies at a place and onward, m; null where some of it is not stated. */
function lengthFrom(wiring: Output['wiring'], nodeId: string | null): number | null {
  const node = readFrom(wiring as WiringNode, nodeId)
  if (!node || !isGroup(node)) return null
  const leads = branchesOf(node as Output['wiring']).map(b => b.lead)
  return leads.slice(nodeId === null ? 0 : 1).some(lead => lead === null) ? null : leads.reduce((sum, lead) => sum + (lead?.lengthM ?? 0), 0)
}
