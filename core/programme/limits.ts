/** Where a limiter stands, what a boost asks, what a low note does: sums that people do on the back of a sheet. */

/** 0 dBu. Source: 1 mW in 600 Ω, √0.6 V. */
const DBU_V = Math.sqrt(0.6)

export interface LimiterAsked {
  /** What the speakers stand for long, W, and the ohms that they are rated at. */
  continuousW: number
  loadOhm: number
  /** From the amplifier's input to its output, dB. */
  gainDb: number
  /** What full scale of the converter before it puts out, dBu; null where that is not known. */
  fullScaleDbu: number | null
}
export interface LimiterSetting { outV: number, inV: number, inDbu: number, dbfs: number | null }

/** Threshold of an rms limiter: √(P·Z) at the speaker, divided by the gain at the input. Source: definition of power and of the decibel. */
export function limiterFor({ continuousW, loadOhm, gainDb, fullScaleDbu }: LimiterAsked): LimiterSetting {
  const outV = Math.sqrt(continuousW * loadOhm)
  const inV = outV / 10 ** (gainDb / 20)
  const inDbu = 20 * Math.log10(inV / DBU_V)
  return { outV, inV, inDbu, dbfs: fullScaleDbu === null ? null : inDbu - fullScaleDbu }
}

/** What a boost of so many decibels asks in its band, as a multiple of the power. Source: definition of the decibel. */
export const boostTimes = (boostDb: number): number => 10 ** (boostDb / 10)

/** Temperature coefficient of copper, per kelvin (IEC 60028). */
const COPPER = 0.00393
/** A coil hotter by so many kelvin: its resistance as a multiple, and the level lost on a source of fixed volts, dB (negative). */
export function hotCoil(byK: number): { times: number, lossDb: number } {
  const times = 1 + COPPER * byK
  return { times, lossDb: -10 * Math.log10(times) }
}

/**
 * How a high-pass stands to the tuning of a vented box: below its tuning the cone is held by nothing. Common practice, no source: at the
 * tuning, or a little below (down to four fifths of it).
 */
export type HighPassFit = 'none' | 'too-low' | 'right' | 'above'
export function highPassFit(cornerHz: number | null, tuningHz: number): HighPassFit {
  if (cornerHz === null) return 'none'
  if (cornerHz < 0.8 * tuningHz) return 'too-low'
  return cornerHz > 1.2 * tuningHz ? 'above' : 'right'
}
export const HIGH_PASS_WORDS: Record<HighPassFit, string> = {
  'none': 'Without a high-pass the cone is held by nothing below the tuning: a low note or a dropped microphone drives it to its end.',
  'too-low': 'The high-pass stands too far below the tuning: between them the cone is held by nothing.',
  'right': 'The high-pass stands at the tuning or a little below: nothing that the box cannot hold gets through.',
  'above': 'The high-pass stands above the tuning: safe, and some bass is lost.',
}
