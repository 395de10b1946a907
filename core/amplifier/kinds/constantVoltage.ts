import type { ConstantVoltageRating, Drive } from '../rating'

/** A constant-voltage output reaches its rated power at its line voltage; what it gives is what the line takes there, V²/Z. */
export function driveConstantVoltage(rating: ConstantVoltageRating, loadOhm: number): Drive {
  const powerW = rating.lineV ** 2 / loadOhm
  return { volts: rating.lineV, powerW, mostVolts: rating.lineV, mostW: powerW, basis: 'line' }
}
