import { STAND_IN_MODEL } from '#core/meter/scpi'
import type { Truth } from './world'

/**
 * The simulated meter's side of the wire: lines in, answers out. It knows SCPI's own long and short forms, keeps its errors in a queue, and measures as a
 * meter does.
 */

export interface Bench {
  /** What lies between the leads; null: they are in the air. */
  between: () => Truth | null
  /** Noise, evenly from -1 to 1. */
  chance: () => number
  /** It is told where its leads lie. */
  place: (text: string) => void
}

/** Leads and contacts, Ω; noise as a part of the reading, and of its least range. */
const LEADS_OHM = 0.22
const CONTACT_OHM = 0.03
const NOISE = 3e-4
const NOISE_OHM = 2e-3
const NOISE_VOLTS = 2e-4
/** Its probe lies on the bench. */
const ROOM_C = 21
const NOISE_C = 0.05
/** Its largest range, Ω. */
const MOST_OHM = 100e6
const OVER = '+9.90000000E+37'

const nr3 = (value: number) => `${value < 0 ? '-' : '+'}${Math.abs(value).toExponential(8).replace(/e([+-])(\d)$/, 'E$10$2').replace('e', 'E')}`

export function simulatedMeter(bench: Bench): (line: string) => string | null {
  const errors: string[] = []
  let wires: 2 | 4 = 2
  const ohms = (): string => {
    const truth = bench.between()
    if (truth === null || truth > MOST_OHM) return OVER
    const leads = wires === 4 ? 0 : LEADS_OHM + CONTACT_OHM * Math.abs(bench.chance())
    return nr3(truth + leads + bench.chance() * (truth * NOISE + NOISE_OHM))
  }
  const verbs: [RegExp, (match: RegExpExecArray) => string | null][] = [
    [/^\*IDN\?$/i, () => `Plain Match,${STAND_IN_MODEL},0,1.0`],
    [/^\*(CLS|RST)$/i, () => {
      errors.length = 0
      wires = 2
      return null
    }],
    [/^\*OPC\?$/i, () => '1'],
    [/^(?:CONF|CONFIGURE):(F?)(?:RES|RESISTANCE)(?: .*)?$/i, ([, four]) => { wires = four ? 4 : 2; return null }],
    [/^(?:CONF|CONFIGURE)\?$/i, () => `"${wires === 4 ? 'FRES' : 'RES'} +1.00000000E+08,+1.00000000E+01"`],
    [/^READ\?$/i, ohms],
    [/^(?:MEAS|MEASURE):(F?)(?:RES|RESISTANCE)\?(?: .*)?$/i, ([, four]) => { wires = four ? 4 : 2; return ohms() }],
    [/^(?:MEAS|MEASURE):(?:VOLT|VOLTAGE):DC\?(?: .*)?$/i, () => nr3(bench.chance() * NOISE_VOLTS)],
    [/^(?:MEAS|MEASURE):(?:TEMP|TEMPERATURE)\?(?: .*)?$/i, () => nr3(ROOM_C + bench.chance() * NOISE_C)],
    [/^(?:SYST|SYSTEM):(?:ERR|ERROR)(?::NEXT)?\?$/i, () => errors.shift() ?? '+0,"No error"'],
    [/^(?:ROUT|ROUTE):PLACE "([^"]*)"$/i, ([, text]) => { bench.place(text!); return null }],
  ]
  return (line) => {
    const text = line.trim()
    for (const [form, run] of verbs) {
      const match = form.exec(text)
      if (match) return run(match)
    }
    if (text !== '') errors.push('-113,"Undefined header"')
    return null
  }
}
