import { floorOhm, QUIETLY, ratedW, valveOf, type ValveRating } from '#core/amplifier/index'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import { exceeds, isUnderFloor } from '#core/quantity/tolerance'
import { bandWords } from './playedBand'
import type { LineThrough } from '#core/job/schema'
import type { LineEvaluation } from './evaluate'

/**
 * What stands at the head of a rail: a scale, and words. On a line the scale is watts against the rated power; on low impedance it is
 * current against the most that the floor allows, 1 being all of it. Over is what is not allowed, and nothing else.
 */
export interface HeadFigures {
  used: number
  /** Of the scale too: what the wire takes, after `used`. */
  lost: number
  /** The end of what there is; null while it is not known. */
  room: number | null
  /** How far each school lets a line go; on low impedance the floor. */
  marks: { at: number, chosen: boolean, says: string }[]
  isOver: boolean
  /** What the amplifier gives. */
  says: string
  /** The part of the range that it plays, what arrives and what the wire takes; empty where there is nothing to part. */
  parts: string
}

/** Watts as far as a glance needs them. */
const inWatts = (watts: number) => `${writeNumber(watts, watts >= 100 ? 3 : 2)} W`

export function headFigures(line: LineEvaluation): HeadFigures {
  return line.kind === 'constant-voltage' ? onLine(line) : lowImpedance(line)
}

function onLine(line: LineEvaluation): HeadFigures {
  const room = ratedW(line.output.rating)
  const givesW = line.amplifierW ?? 0
  const lost = lostOf(line)
  const isOver = room !== null && line.drawW !== null && exceeds(line.drawW, room)
  // A school's mark stands where what is given may go up to, every control fully up: given × rated / required.
  const marks = room === null || !line.upW ? [] : line.required.flatMap(r => r.powerW ? [schoolMark(r, line.upW! * room / r.powerW)] : [])
  const rated = room === null ? 'a power not known' : inWatts(room)
  const says = line.speakers.length === 0
    ? room === null ? 'not rated yet' : `gives 0 of ${rated}`
    : line.lineV === null ? 'line voltage not known' : isOver ? `asked for ${inWatts(line.drawW!)}, has ${rated}` : `gives ${inWatts(givesW)} of ${rated}`
  return { used: Math.max(0, givesW - lost), lost, room, marks, isOver, says, parts: isOver ? '' : partsOf(line) }
}

function schoolMark({ name, chosen }: { name: string, chosen: boolean }, at: number): HeadFigures['marks'][number] {
  return { at, chosen, says: `“${name}” lets it give up to ${inWatts(at)}${chosen ? ', the rule chosen' : ''}` }
}

function lowImpedance(line: LineEvaluation): HeadFigures {
  const floor = floorOhm(line.output.rating)
  // Its controls fully up: turned down, they hide what somebody will turn up again.
  const { upOhm: loadOhm, drive } = line
  const used = floor === null || loadOhm === null ? 0 : floor / loadOhm
  const isOver = floor !== null && loadOhm !== null && isUnderFloor(loadOhm, floor)
  const gives = drive === null || line.amplifierW === null ? '' : `gives ${drive.basis === 'not-rated' ? `${inWatts(line.amplifierW)} to ${inWatts(line.mostW!)}` : inWatts(line.amplifierW)}`
  const valve = valveOf(line.output.rating)
  if (valve) return onTap(line, valve, { used, isOver, gives })
  const says = floor === null
    ? 'power not known'
    : line.speakers.length === 0 || loadOhm === null ? `floor ${writeQuantity(floor, 'Ω')}` : isOver ? `not allowed: floor ${writeQuantity(floor, 'Ω')}` : `${gives}, floor ${writeQuantity(floor, 'Ω')}`
  return { used, lost: 0, room: floor === null ? null : 1, marks: floor === null ? [] : [{ at: 1, chosen: true, says: `the floor, ${writeQuantity(floor, 'Ω')}: as much as is allowed` }], isOver, says, parts: isOver ? '' : partsOf(line) }
}

/** A valve output: the scale is how far the load goes below the tap, 1 being as low as is allowed, quietly. */
function onTap(line: LineEvaluation, { tapOhm }: ValveRating, { used, isOver, gives }: { used: number, isOver: boolean, gives: string }): HeadFigures {
  if (tapOhm === null) return { used: 0, lost: 0, room: null, marks: [], isOver: false, says: 'tap not stated', parts: '' }
  const tap = `${writeQuantity(tapOhm, 'Ω')} tap`
  const says = line.speakers.length === 0 || line.upOhm === null ? `nothing on its ${tap}` : isOver ? `not allowed on its ${tap}` : gives === '' ? `on its ${tap}` : `${gives} on its ${tap}`
  const marks = [{ at: QUIETLY, chosen: true, says: `matched to its ${tap}` }, { at: 1, chosen: false, says: `${writeQuantity(QUIETLY * tapOhm, 'Ω')}: as low as it may be driven, quietly` }]
  return { used, lost: 0, room: 1, marks, isOver, says, parts: isOver ? '' : partsOf(line) }
}

/** What neither arrives nor is given: wire, and the copper of controls and transformers of groups. */
function lostOf({ amplifierW, drawnW }: LineEvaluation): number {
  return amplifierW === null || drawnW === null ? 0 : Math.max(0, amplifierW - drawnW)
}

const isTurnedDown = ({ throughs }: LineEvaluation) => throughs.some(({ through }) => through.kind === 'control' && through.setDb !== null && through.setDb !== 0)

function partsOf(line: LineEvaluation): string {
  const { amplifierW, drawnW, lostW, cable, speakers } = line
  const plays = line.output.band ? `plays ${bandWords(line.output.band)}` : ''
  if (amplifierW === null || drawnW === null || lostW === null || speakers.length === 0) return plays
  const heatW = Math.max(0, lostOf(line) - lostW)
  const parts = [
    ...(cable.stated === 0 ? [] : [`${cable.missing > 0 ? 'at least ' : ''}${inWatts(lostW)} in the wire`]),
    ...(heatW > 0.005 * amplifierW ? [`${inWatts(heatW)} in ${heatIn(line)}`] : []),
  ]
  const stand = isTurnedDown(line) ? 'as its controls stand' : ''
  const arrive = [stand, parts.length === 0 ? '' : `${inWatts(drawnW)} arrive, ${parts.join(', ')}`].filter(Boolean).join(': ')
  return [plays, arrive].filter(Boolean).join('; ')
}

const HEAT_WORDS: Record<LineThrough['kind'], string> = { control: 'controls', transformer: 'transformers', capacitor: 'capacitors', inductor: 'coils in the way' }

function heatIn({ throughs }: LineEvaluation): string {
  const kinds = new Set(throughs.map(t => t.through.kind))
  return [...kinds].map(kind => HEAT_WORDS[kind]).join(' and ')
}
