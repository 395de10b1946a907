import { CLASS5_OHM_PER_KM, type Cable } from '#core/quantity/cable'

/** Resistivity of annealed copper at 20 °C, Ω·mm²/m. Source: IEC 60028 (1/58). */
export const COPPER_OHM_MM2_PER_M = 1 / 58

/** Diameter of a solid conductor in mm. Source: ASTM B258. */
export function awgDiameterMm(awg: number): number {
  return 0.127 * 92 ** ((36 - awg) / 39)
}

const OHM_PER_M_BY_AWG = new Map<number, number>()

/**
 * Resistance of one conductor, Ω per metre at 20 °C: solid copper by ASTM B258 for a gauge, the class 5 maximum of
 * IEC 60228 for an area (the standard's figure, not ρ/A: stranding and tolerance are in it).
 * @throws RangeError for an area that the standard does not list
 */
export function conductorOhmPerM(cable: Cable): number {
  if ('awg' in cable) {
    // Remembered: a ranking of faults lays thousands of trees flat, and the power function was a third of that.
    let known = OHM_PER_M_BY_AWG.get(cable.awg)
    if (known === undefined) OHM_PER_M_BY_AWG.set(cable.awg, known = COPPER_OHM_MM2_PER_M / (Math.PI / 4 * awgDiameterMm(cable.awg) ** 2))
    return known
  }
  const perKm = CLASS5_OHM_PER_KM.get(cable.areaMm2)
  if (perKm === undefined) throw new RangeError(`no class 5 conductor of ${cable.areaMm2} mm²`)
  return perKm / 1000
}

/** A pair of conductors of some length between two places; `cable` null: of a size that is not stated. */
export interface Lead { cable: Cable | null, lengthM: number }

/** Resistance of a pair, out and back: 2·r·L. A lead that is not stated, or of no stated size, counts as none; say so where the result is shown. */
export function leadOhm(lead: Lead | null): number {
  return lead?.cable == null ? 0 : 2 * conductorOhmPerM(lead.cable) * lead.lengthM
}
