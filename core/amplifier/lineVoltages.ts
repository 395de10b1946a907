/** The line that is meant where nothing is said of its voltage. Common practice, no source. */
export const USUAL_LINE_V = 70.71

/**
 * Line voltages in use, by the name printed on the amplifier. "70 V" is 70.71 V, the rms of a 100 V peak.
 * Source: IEC 60268-5 lists 50, 70.7 and 100 V; 25 V is common practice, no source.
 */
export const LINE_VOLTAGES = [
  { name: '25 V', volts: 25 },
  { name: '50 V', volts: 50 },
  { name: '70 V', volts: USUAL_LINE_V },
  { name: '100 V', volts: 100 },
] as const

/** The printed name of a line voltage, "70 V" for 70.71. */
export function lineVoltageName(volts: number): string {
  return LINE_VOLTAGES.find(v => Math.abs(v.volts - volts) < 0.02 * volts)?.name ?? `${volts} V`
}
