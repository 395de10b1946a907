import { InputError } from './inputError'
import { NUMBER, numberOf } from './number'

/** A conductor size, in the system it is sold in. */
export type Cable = { awg: number } | { areaMm2: number }

/** Conductor resistance at 20 °C, maximum for flexible (class 5) plain copper, Ω/km by nominal area in mm². Source: IEC 60228, table 3. */
export const CLASS5_OHM_PER_KM: ReadonlyMap<number, number> = new Map([
  [0.5, 39.0], [0.75, 26.0], [1, 19.5], [1.5, 13.3], [2.5, 7.98], [4, 4.95], [6, 3.30],
])

/** Gauges offered: thinner than 30 is no speaker wire, thicker than 4 no terminal takes. */
export const AWG_RANGE = { thickest: 4, thinnest: 30 } as const

/** Sizes on the shelf of an installer, thinnest first: what a remedy may propose and a list offers. */
export const USUAL_AWG = [22, 20, 18, 16, 14, 12, 10] as const

const EXAMPLES = ['16 AWG', '1.5 mm²'] as const
const AWG_TEXT = new RegExp(`^(?:(?:awg|#)\\s*(\\d+)|(\\d+)\\s*(?:awg|ga|gauge))$`, 'i')
const MM2_TEXT = new RegExp(`^(${NUMBER})\\s*(?:mm2|mm²|mm\\^2|sq\\s*mm|sqmm)$`, 'i')

/**
 * Reads a conductor size: "16 AWG", "AWG 16", "1.5 mm²", "1,5 mm2".
 * @throws InputError for a bare number (16 what?), a gauge outside 4 to 30, an area that IEC 60228 does not list
 */
export function readCable(text: string): Cable {
  const trimmed = text.trim()
  if (trimmed === '') throw new InputError('No cable size given.', 0, EXAMPLES)

  const awg = AWG_TEXT.exec(trimmed)
  if (awg) {
    const gauge = Number(awg[1] ?? awg[2])
    if (gauge < AWG_RANGE.thickest || gauge > AWG_RANGE.thinnest) {
      throw new InputError(`No speaker cable of ${gauge} AWG: it runs from 4 (thick) to 30 (thin).`, 0, EXAMPLES)
    }
    return { awg: gauge }
  }
  const area = MM2_TEXT.exec(trimmed)
  if (area) {
    const areaMm2 = numberOf(area[1]!)
    if (!CLASS5_OHM_PER_KM.has(areaMm2)) {
      const sizes = [...CLASS5_OHM_PER_KM.keys()]
      throw new InputError(`No flexible cable of ${areaMm2} mm²: sizes are ${sizes.join(', ')}.`, 0, sizes.map(s => `${s} mm²`))
    }
    return { areaMm2 }
  }
  if (/^[\d.,]+$/.test(trimmed)) {
    throw new InputError(`“${trimmed}” could be a gauge or an area: say which.`, trimmed.length, ['AWG', 'mm²'])
  }
  throw new InputError(`“${trimmed}” is not a cable size.`, 0, EXAMPLES)
}

/** What a length of cable is called that nobody said the size of. */
export const NO_SIZE = 'no stated size'

export function writeCable(cable: Cable | null): string {
  if (cable === null) return NO_SIZE
  return 'awg' in cable ? `${cable.awg} AWG` : `${cable.areaMm2} mm²`
}

export function sameCable(a: Cable | null, b: Cable | null): boolean {
  return a === b || (a !== null && b !== null && writeCable(a) === writeCable(b))
}
