/** Level that a speaker makes at a metre on its axis, from what its sheet states. */
export interface Sounding { sensitivityDb: number | null, sensitivityAt: '1 W' | '2.83 V' | null, nominalOhm: number | null }

/**
 * Sensitivity for one watt at a metre, dB. For 2.83 V it is 10 log₁₀(8/Z) less: into 4 Ω those are two watts.
 * @returns null where it is not stated, or stated for 2.83 V into an impedance that is not
 * Source: definition of the decibel.
 */
export function wattSensitivityDb({ sensitivityDb, sensitivityAt, nominalOhm }: Sounding): number | null {
  if (sensitivityDb === null || sensitivityAt === null) return null
  if (sensitivityAt === '1 W') return sensitivityDb
  return nominalOhm === null ? null : sensitivityDb - 10 * Math.log10(8 / nominalOhm)
}

/** Decibels of a power against one watt. */
export const wattsDb = (powerW: number) => 10 * Math.log10(powerW)
/** Watts of so many decibels above one. */
export const dbWatts = (db: number) => 10 ** (db / 10)

/** The lowest of these taps that gives a driver `neededW`; null where none does. `toDriver`: what of a tap's watts reaches the driver. */
export function lowestTap(tapsW: readonly number[], neededW: number, toDriver: (tapW: number) => number): number | null {
  // A thousandth of a decibel is nothing that can be heard, and all that rounding leaves.
  const enough = tapsW.filter(tapW => tapW > 0 && toDriver(tapW) >= neededW * 10 ** -0.0001)
  return enough.length === 0 ? null : Math.min(...enough)
}
