import { InputError } from '#core/quantity/inputError'

/**
 * What a bench meter says over its wire. IEEE 488.2 defines `*IDN?` (four fields with commas between) and numbers as text; SCPI-99 defines `READ?`, the answer
 * 9.9E37 for more than the range (volume 1, 7.2.1.4: infinity) and 9.91E37 for no number. Clause numbers from memory.
 */
const NO_NUMBER_ANSWER = 9.91e37
/** Other figures of that size are meant so as well: some meters say 1E38 or +9.90000000E+37. */
const AS_GOOD_AS_INFINITE = 9e36

export type MeterValue = { is: 'ohm', ohm: number } | { is: 'open' } | { is: 'volts', volts: number } | { is: 'celsius', celsius: number } | { is: 'over-range' }
export const METER_QUANTITIES = ['ohm', 'volts', 'celsius'] as const
export type MeterQuantity = typeof METER_QUANTITIES[number]

/** `*IDN?`: maker, model, number, version; "0" stands for what is not given. @throws InputError */
export function readIdentity(answer: string): { name: string, isStandIn: boolean } {
  const fields = answer.split(',').map(field => field.trim())
  if (fields.length !== 4 || fields[0] === '') throw new InputError(`It calls itself “${shown(answer)}”, which is not what a meter says of itself (maker, model, number, version).`, 0, [])
  const name = fields.slice(0, 2).filter(field => field !== '' && field !== '0').join(' ')
  return { name: name.slice(0, 80), isStandIn: fields[1] === STAND_IN_MODEL }
}
/** The simulated meter that ships with this; it is told where its leads are. */
export const STAND_IN_MODEL = 'simulated bench meter'

/** What SYSTem:ERRor? answers: `0,"No error"`. Null where there is none. @throws InputError */
export function readError(answer: string): string | null {
  const match = /^\s*([+-]?\d+)\s*,\s*"?([^"]*)"?\s*$/.exec(answer)
  if (!match) throw new InputError(`It answered “${shown(answer)}” where it should say whether it understood.`, 0, [])
  return Number(match[1]) === 0 ? null : match[2]!.trim() || `error ${match[1]}`
}

/** A number as IEEE 488.2 writes it (NR1, NR2, NR3). @throws InputError for anything else, with what was said */
export function readNumber(answer: string): number {
  const text = answer.trim()
  if (!/^[+-]?(\d+(\.\d*)?|\.\d+)([eE][+-]?\d+)?$/.test(text)) throw new InputError(`It answered “${shown(answer)}”, which is not a number.`, 0, [])
  return Number(text)
}

/** What was measured. A little under nothing is what noise and nulled leads leave; ohms far under nothing are none. @throws InputError */
export function readMeasured(quantity: MeterQuantity, answer: string): MeterValue {
  const value = readNumber(answer)
  if (value === NO_NUMBER_ANSWER) throw new InputError('It says that it has no reading.', 0, [])
  if (Math.abs(value) >= AS_GOOD_AS_INFINITE) return quantity === 'ohm' ? { is: 'open' } : { is: 'over-range' }
  if (quantity === 'volts') return { is: 'volts', volts: value }
  if (quantity === 'celsius') return { is: 'celsius', celsius: value }
  if (value < -LEAST_OHM) throw new InputError(`It reads ${value} Ω, less than nothing: null its leads anew, or look whether the line carries a voltage.`, 0, [])
  return { is: 'ohm', ohm: Math.max(0, value) }
}
/** Common practice, no source. */
const LEAST_OHM = 0.5

/** What is asked for at one go. SCPI-99, volume 2, MEASure. */
export const MEASURE = { volts: 'MEAS:VOLT:DC?', celsius: 'MEAS:TEMP?' } as const
/** Four wires measure without the leads. */
export const CONFIGURE = { ohm: { two: 'CONF:RES', four: 'CONF:FRES' } } as const

function shown(text: string): string {
  // eslint-disable-next-line no-control-regex
  return text.replaceAll(/[\u0000-\u001f\u007f-\u009f]/g, '·').slice(0, 60)
}
