import { drivenInto, floorOhm, isFloorStated, lowestRatedOhm, valveOf } from '#core/amplifier/index'
import { wattDbOf } from '#core/advice/spaces'
import { believedOf } from '#core/hands/kinds'
import type { Kind, Output, Practice } from '#core/job/schema'
import { logFrequencies } from '#core/network/line'
import { BESIDE_SCHOOL, PEAK_OF_CONTINUOUS, POWER_SCHOOLS, powerSchool, PROGRAM_OF_CONTINUOUS, schoolBandW, type PowerSchoolId } from '#core/schools/power'
import { isUnderFloor } from '#core/quantity/tolerance'
import type { LineFacts } from '#core/line/facts'
import { standsContinuousW } from '#core/line/rules/sharing'

/** An output and the speakers on it, on one scale of load and power. */

/** What is played, as it shifts the advice: by which school, and how far its peaks stand above its average. */
export interface Played {
  id: 'speech' | 'open' | 'dense' | 'instrument'
  name: string
  crestDb: number
  /** The school that is meant for it; null: the one chosen for the job stands. */
  school: PowerSchoolId | null
}
/**
 * Crests: average music is 1/8 to 1/3 of its peak power (handbook of the trade: 9 to 5 dB). Which school goes with what: common practice, no source.
 */
export const PLAYED: readonly Played[] = [
  { id: 'open', name: 'open music', crestDb: 9, school: null },
  { id: 'speech', name: 'speech', crestDb: 12, school: null },
  { id: 'dense', name: 'dense music', crestDb: 5, school: 'dense-material' },
  { id: 'instrument', name: 'an instrument', crestDb: 5, school: 'instrument-cabinet' },
]

/**
 * Average power over the rated (sine) power of an amplifier that just does not clip: its peaks are twice its rated power. Source: the crest of
 * a sine is 3.01 dB.
 */
export const averageShare = (crestDb: number): number => 2 / 10 ** (crestDb / 10)

export interface MemberPower {
  nodeId: string
  label: string
  /** At full output, the most; on the average of what is played. W; null while not known or not allowed. */
  fullW: number | null
  averageW: number | null
  continuousW: number | null
  /** Whether that is the rating that somebody believes more than the sheet. */
  isBelieved: boolean
  /** Its full power over what it stands at peaks; the highest of a line limits it. */
  ofPeak: number | null
  /** Level at one metre at full output, dB; null where its sensitivity is not known. */
  levelDb: number | null
}

export type MatchVerdict = 'too-low' | 'under' | 'right' | 'over' | 'not-known'

export interface PowerMatch {
  /** Capability: from the floor up to well beyond the load. */
  gives: { loadOhm: number, powerW: number, mostW: number }[]
  floorOhm: number | null
  isFloorStated: boolean
  at: { loadOhm: number, powerW: number | null, mostW: number | null }
  /** What the line stands as it is wired; null while a rating is not known. */
  stands: { continuousW: number, programW: number, peakW: number } | null
  schools: { id: PowerSchoolId, name: string, risks: string, fromW: number, toW: number, isChosen: boolean }[]
  chosen: PowerSchoolId
  members: MemberPower[]
  /** The member that reaches its limit first; null where that is not known, or all are alike. */
  weakest: MemberPower | null
  /** All members together at one metre, powers added, dB. */
  levelDb: number | null
  verdict: MatchVerdict
}

/** Loads of the scale, Ω. */
export const SCALE_OHM = { least: 1, most: 64 } as const

export function powerMatch(line: LineFacts, practice: Practice, kinds: readonly Kind[], played: Played): PowerMatch | null {
  const { rating } = line.output
  const loadOhm = line.upOhm
  if (line.kind !== 'low-impedance' || loadOhm === null || line.drops.length === 0) return null
  const floor = floorOhm(rating)
  const continuousW = standsContinuousW(line)
  const chosen = played.school ?? practice.power
  const members = line.drops.map((drop): MemberPower => {
    const { continuousW: own, kindId } = drop.speaker
    const kind = kindId === null ? undefined : kinds.find(k => k.id === kindId)
    const wattDb = kind ? wattDbOf(kind) : null
    return {
      nodeId: drop.nodeId, label: drop.label, fullW: drop.mostW, averageW: drop.mostW === null ? null : drop.mostW * averageShare(played.crestDb),
      continuousW: own, isBelieved: believedOf(kind, drop.speaker) !== null,
      ofPeak: drop.mostW === null || own === null ? null : drop.mostW / (PEAK_OF_CONTINUOUS * own),
      levelDb: wattDb === null || drop.mostW === null || drop.mostW === 0 ? null : wattDb + 10 * Math.log10(drop.mostW),
    }
  })
  return {
    gives: capability(line.output, loadOhm), floorOhm: floor, isFloorStated: isFloorStated(rating), at: { loadOhm, powerW: line.amplifierW, mostW: line.mostW },
    stands: continuousW === null ? null : { continuousW, programW: PROGRAM_OF_CONTINUOUS * continuousW, peakW: PEAK_OF_CONTINUOUS * continuousW },
    schools: continuousW === null
      ? []
      : POWER_SCHOOLS.map(s => ({ id: s.id, name: s.name, risks: s.risks, ...schoolBandW(s, continuousW),
          isChosen: s.id === chosen })),
    chosen, members, weakest: weakestOf(members),
    levelDb: members.every(m => m.levelDb !== null) ? 10 * Math.log10(members.reduce((sum, m) => sum + 10 ** (m.levelDb! / 10), 0)) : null,
    verdict: verdictOf(line, loadOhm, floor, continuousW, chosen),
  }
}

function verdictOf({ mostW }: LineFacts, loadOhm: number, floor: number | null, continuousW: number | null, chosen: PowerSchoolId): MatchVerdict {
  if (floor !== null && isUnderFloor(loadOhm, floor)) return 'too-low'
  if (mostW === null || continuousW === null || floor === null) return 'not-known'
  const { fromW, toW } = schoolBandW(powerSchool(chosen), continuousW)
  return mostW > toW * (1 + BESIDE_SCHOOL) ? 'over' : mostW < fromW * (1 - BESIDE_SCHOOL) ? 'under' : 'right'
}

function weakestOf(members: readonly MemberPower[]): MemberPower | null {
  if (members.length < 2 || members.some(m => m.ofPeak === null)) return null
  const [first, ...rest] = [...members].sort((a, b) => b.ofPeak! - a.ofPeak!)
  return first!.ofPeak! > 1.02 * rest.at(-1)!.ofPeak! ? first! : null
}

function capability(output: Output, loadOhm: number): PowerMatch['gives'] {
  const { rating } = output
  const floor = floorOhm(rating)
  if (floor === null) return []
  const from = Math.max(floor, Math.min(SCALE_OHM.least, loadOhm))
  const most = Math.max(SCALE_OHM.most, 2 * loadOhm)
  // Where a rating has its corners; a tap is one too.
  const corners = [lowestRatedOhm(rating) ?? from, valveOf(rating)?.tapOhm ?? from, loadOhm]
  return [...new Set([...logFrequencies(from, most, 90), ...corners])].filter(ohm => ohm >= from).sort((a, b) => a - b).flatMap((ohm) => {
    const drive = drivenInto(output, ohm)
    return drive === null || drive.basis === 'under-floor' ? [] : [{ loadOhm: ohm, powerW: drive.powerW, mostW: drive.mostW }]
  })
}

const Watts = (w: number) => `${w >= 100 ? w.toFixed(0) : Number(w.toPrecision(2))} W`
const Ohms = (ohm: number) => `${Number(ohm.toPrecision(3))} Ω`

/** One sentence: how they stand to each other, and the risk. */
export function matchSentence({ verdict, at, floorOhm: floor, stands, schools, chosen }: PowerMatch, played: Played): string {
  const school = powerSchool(chosen)
  const band = schools.find(s => s.id === chosen)
  const span = band ? band.fromW === 0 ? `no more than ${Watts(band.toW)}` : band.toW / band.fromW < 1.02 ? Watts(band.fromW) : `${Watts(band.fromW)} to ${Watts(band.toW)}` : ''
  const by = `for ${played.name}, by “${school.name}”, these speakers want ${span}`
  switch (verdict) {
    case 'too-low': return `Too low a load: ${Ohms(at.loadOhm)} is under the ${Ohms(floor!)} that it may be given. It runs hot, cuts out, or breaks.`
    case 'not-known': return stands === null
      ? 'How much they stand is not known: enter the continuous rating of every speaker on this output.'
      : 'What this output gives is not known: enter its rated powers.'
    case 'right': return `Right: it gives ${Watts(at.mostW!)}; ${by}.`
    case 'under': return `Under: it gives ${Watts(at.mostW!)}; ${by}. Nothing breaks; pushed into clipping it does.`
    case 'over': return `Over: it can give ${Watts(at.mostW!)}; ${by}. ${at.mostW! > stands!.peakW ? 'That is more than their peak rating: ' : ''}${RISK[played.id]}`
  }
}
const RISK: Record<Played['id'], string> = {
  open: 'pushed hard, coils heat and cones travel too far; hold it back, or set a limiter.', speech: 'a dropped microphone or feedback is full power at once; set a limiter.',
  dense: 'long dense power heats the coils; hold it back, or set a limiter.', instrument: 'an amplifier driven hard gives far more than its rating; speakers that stand twice of it.',
}
