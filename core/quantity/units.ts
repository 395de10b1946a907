import { writeNumber } from './write'

/** How a person reads lengths. Inside all is metres. */
export const UNITS = ['metric', 'imperial'] as const
export type Units = (typeof UNITS)[number]
export const FOOT_M = 0.3048 // exact, international foot [P: NIST SP 811]

/** A length in the units of a person, as a plain number. */
export const lengthIn = (lengthM: number, units: Units) => units === 'metric' ? lengthM : lengthM / FOOT_M
export const LENGTH_UNIT: Record<Units, string> = { metric: 'm', imperial: 'ft' }

/** "3.4 m" or "11.2 ft": three figures, more above a hundred; a field to be typed into has more. */
export function writeLength(lengthM: number, units: Units = 'metric', figures?: number): string {
  const value = lengthIn(lengthM, units)
  return `${writeNumber(value, figures ?? (Math.abs(value) >= 100 ? 4 : 3))} ${LENGTH_UNIT[units]}`
}

/** "162 m²" or "1744 ft²". */
export function writeArea(areaM2: number, units: Units): string {
  const value = units === 'metric' ? areaM2 : areaM2 / FOOT_M ** 2
  return `${writeNumber(value, Math.abs(value) >= 1000 ? 4 : 3)} ${units === 'metric' ? 'm²' : 'ft²'}`
}

/** A bare number typed by that person, as text that says its unit: "18" is "18 ft". What says one already stays. */
export function withUnit(typed: string, units: Units): string {
  return units === 'imperial' && /^[\d.,\s]+$/.test(typed) && typed.trim() !== '' ? `${typed.trim()} ft` : typed
}
