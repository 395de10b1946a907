import { writeExact } from '#core/quantity/write'
import { notStated, type RatingKind } from '../kind'
import { lineVoltageName } from '../lineVoltages'
import type { ConstantVoltageRating, Drive } from '../rating'

/** A constant-voltage output reaches its rated power at its line voltage; what it gives is what the line takes there, V²/Z. */
function drive(rating: ConstantVoltageRating, loadOhm: number): Drive {
  const powerW = rating.lineV ** 2 / loadOhm
  return { volts: rating.lineV, powerW, mostVolts: rating.lineV, mostW: powerW, basis: 'line' }
}

export const constantVoltage: RatingKind<ConstantVoltageRating> = {
  lineKind: 'constant-voltage',
  ratedW: rating => rating.powerW,
  ratedV: rating => rating.lineV,
  lineV: rating => rating.lineV,
  floorOhm: notStated, isFloorStated: () => false, lowestRatedOhm: notStated, mode: () => 'single',
  drive,
  contradictions: () => [],
  // Its volts are the line's: more power of it is another amplifier, and no louder.
  times: rating => rating,
  write: ({ lineV, powerW }) => lineVoltageName(lineV) + (powerW === null ? '' : ` ${writeExact(powerW)} W`),
  next: ({ powerW }) => powerW === null ? ['120 W'] : [],
}
