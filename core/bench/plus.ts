import type { UNIT_KINDS } from '#core/job/sections/tickets/schema'
import { nextPreferred } from '#core/quantity/parts'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import { coilBandOhm, SMALL_FROM_OHM } from './intermittent'
import { writtenOf, type Entry, type Ticket } from './ticket'

/** Which tab of a bare unit is plus. Source: IEC 60268-5, AES26: plus on plus moves the cone out. */

type Plus = Entry<'plus'>['what']

/**
 * What one test says: the tab that is marked plus is plus, or the other is. The battery's plus, or the meter's, at the tab that is marked.
 * A cone that is pushed in drives the current against that which would move it out: minus where the mark is right. A mark itself proves nothing.
 */
export function saysOf({ by, seen }: Pick<Plus, 'by' | 'seen'>): 'as-marked' | 'other' | null {
  if (by === 'mark') return null
  switch (seen) {
    case 'cone-out': return by === 'battery' || by === 'pulse' ? 'as-marked' : null
    case 'cone-in': return by === 'battery' || by === 'pulse' ? 'other' : null
    case 'positive': return by === 'millivolts' ? 'other' : by === 'pulse' ? 'as-marked' : null
    case 'negative': return by === 'millivolts' ? 'as-marked' : by === 'pulse' ? 'other' : null
    case 'not-seen': return null
  }
}

/** What all tests of a unit say together: two that say otherwise prove nothing. */
export function plusOf(ticket: Pick<Ticket, 'entries'>, unit: 'this' | 'new'): { says: 'as-marked' | 'other' | 'against-each-other' | null, isProved: boolean } {
  const told = new Set(writtenOf(ticket, 'plus').filter(({ what }) => what.unit === unit).flatMap(({ what }) => saysOf(what) ?? []))
  const says = told.size > 1 ? 'against-each-other' : [...told][0] ?? null
  return { says, isProved: told.size === 1 }
}

export interface Bare {
  kind: (typeof UNIT_KINDS)[number]
  nominalOhm: number | null
  ratedW: number | null
  isHighUnit: boolean
  behind: 'nothing' | 'capacitor' | 'transformer'
}
export interface Battery {
  /** Null: none at all. */
  volts: number | null
  /** In series; 0: none. */
  seriesOhm: number
  /** Most that its coil takes, W; null while its ohms are not known. */
  coilW: number | null
  says: string
}

/** The next that is sold, E12. Source: IEC 60063. */
const nextE12 = (ohm: number): number => nextPreferred(ohm * (1 - 1e-4), 1)

/** What a small coil is given: a cone that moves is seen at less. Common practice, no source. */
const SMALL_A = 0.01
/** Rounded up: it is what the coil takes at most. */
const inCoil = (coilW: number): string => coilW < 0.1 ? `up to ${Math.ceil(1000 * coilW)} mW in its coil` : `up to ${writeQuantity(coilW, 'W', 2)} in its coil`
const TAP_SAYS = 'A tap, not a hold: it is direct current.'

/** The battery for a unit: its size, what stands in series, what the coil takes, or why none is used. */
export function batteryFor({ kind, nominalOhm, ratedW, isHighUnit, behind }: Bare): Battery {
  const none = (says: string): Battery => ({ volts: null, seriesOhm: 0, coilW: null, says })
  if (behind === 'capacitor') return none('No battery: the capacitor lets no direct current through. Test at the unit’s own tabs, behind it.')
  if (behind === 'transformer') return none('No battery: through a transformer there is a click whose direction is hard to see. Test at the driver’s side.')
  const leastOhm = nominalOhm === null ? null : coilBandOhm(nominalOhm).lowOhm
  if (isHighUnit || kind === 'handset' || kind === 'headphone' || (nominalOhm !== null && nominalOhm > SMALL_FROM_OHM)) {
    const what = isHighUnit ? 'a high unit' : 'a small coil'
    // With ohms that nobody knows all of the volts fall on the resistor: more than that no coil is given.
    const seriesOhm = nextE12(Math.max(10, 1.5 / SMALL_A - (leastOhm ?? 0)))
    const coilW = leastOhm === null ? null : (1.5 / (seriesOhm + leastOhm)) ** 2 * leastOhm
    return { volts: 1.5, seriesOhm, coilW, says: `1.5 V through ${writeQuantity(seriesOhm, 'Ω')}, never more on ${what}${coilW === null ? '' : `: ${inCoil(coilW)}`}. ${TAP_SAYS}` }
  }
  if (leastOhm === null) return { volts: 1.5, seriesOhm: 0, coilW: null, says: `1.5 V: its ohms are not known. ${TAP_SAYS}` }
  // A rating that is not stated is that of a small unit.
  const mostW = ratedW ?? 1
  const volts = [18, 9, 1.5].find(v => v ** 2 / leastOhm <= mostW && (v < 18 || mostW >= 150)) ?? 1.5
  const coilW = volts ** 2 / leastOhm
  return { volts, seriesOhm: 0, coilW, says: `${writeNumber(volts)} V: ${inCoil(coilW)}${ratedW === null ? '; its rating is not known, so the smallest that moves it' : ''}. ${TAP_SAYS}` }
}
