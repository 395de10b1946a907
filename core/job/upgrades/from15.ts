import { isFields, type Fields } from './step'
import { same, wiringStep } from './wiringStep'

/** What version 15 called the one source of an amplifier: on each of its channels, of a level that nobody had stated. */
function inputOf({ name, volts, ohm }: Fields): Fields {
  return { label: '', takes: [], count: null, isOver: null, sum: null, source: { name, kind: null, isStereo: null, deviceId: null, volts, ohm } }
}

/** Some fields of an amplifier, or all of them. */
function inInputs(amplifier: unknown): unknown {
  if (!isFields(amplifier) || !('source' in amplifier)) return amplifier
  const { source, ...rest } = amplifier
  return { ...rest, inputs: isFields(source) ? [inputOf(source)] : [] }
}

/**
 * Version 15 knew one source an amplifier. Version 16 has inputs: what fed it comes in at the one input that was meant. Printed terminals,
 * connectors, levels and harness maps: nothing is stated.
 */
export const inputsOfAmplifiers = wiringStep({ amplifier: inInputs, setAmplifier: inInputs, output: same, setOutput: same, kind: same })
