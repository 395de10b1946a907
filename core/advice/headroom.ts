import { floorOhm } from '#core/amplifier/index'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import type { Practice, Speaker } from '#core/job/schema'
import { isUnderFloor } from '#core/quantity/tolerance'
import { allowedTapsW } from '#core/line/allowance'
import type { LineEvaluation } from '#core/line/evaluate'
import { tapDrawW } from '#core/line/facts'
import { isBad } from '#core/line/finding'
import { nominalOhmOf } from '#core/network/tree'

/**
 * How many more like one speaker an output carries, in parallel, by the chosen school (a line) or by its floor (low impedance, of what
 * labels say, without cable). Null where draw, rating, floor or load are not known, and where something is against the line as it is:
 * it has no room to speak of before that is mended.
 */
export interface Room { count: number, leftW: number | null }

/** As many as a job could ever hold; beyond it a figure says nothing. */
const MOST = 999
/** Taps are printed for rounded volts (70.71): so much of one unit is no unit. */
const SLACK = 1e-3

export function roomFor(line: LineEvaluation, practice: Practice, like: Speaker): Room | null {
  if (line.findings.some(isBad)) return null
  return line.kind === 'constant-voltage' ? onLine(line, practice, like) : lowImpedance(line, like)
}

function onLine(line: LineEvaluation, practice: Practice, { load }: Speaker): Room | null {
  const allowedW = allowedTapsW(line, practice)
  if (allowedW === null || line.drawW === null || load.kind !== 'tap' || load.tapW === 0 || line.lineV === null) return null
  const leftW = Math.max(0, allowedW - line.drawW)
  return { count: Math.min(MOST, Math.floor(leftW / tapDrawW(load, line.lineV) + SLACK)), leftW }
}

function lowImpedance(line: LineEvaluation, { load }: Speaker): Room | null {
  const floor = floorOhm(line.output.rating)
  if (floor === null || line.loadOhm === null || load.kind === 'tap') return null
  const { loadOhm } = line
  const withMore = (count: number) => 1 / (1 / loadOhm + count / nominalOhmOf(load))
  let count = 0
  while (count < MOST && !isUnderFloor(withMore(count + 1), floor)) count++
  return { count, leftW: null }
}

/** "room for 5 more of 20 W", "full for one more of 20 W"; empty where it is not known, or over already. */
export function roomWords(room: Room | null, { load }: Speaker): string {
  if (room === null) return ''
  const one = load.kind === 'tap' ? `${writeNumber(load.tapW)} W` : writeQuantity(nominalOhmOf(load), 'Ω')
  return room.count === 0 ? `no room for one more of ${one}` : `room for ${room.count} more of ${one}`
}
