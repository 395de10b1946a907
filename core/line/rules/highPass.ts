import { found, type Rule } from './rule'

/** A line of small transformers wants a high-pass no lower than this, Hz. Common practice, no source: 50 to 80 Hz. */
export const LEAST_CORNER_HZ = 50
export const USUAL_CORNER_HZ = 70

/** Below its lowest note a small transformer saturates and is a short to the amplifier. Said only of what is stated: most sheets are silent. */
export const highPass: Rule = (line, { amplifier: { highPassHz } }) => {
  const count = line.speakers.filter(s => s.load.kind === 'tap' && s.load.tapW > 0).length
  if (line.kind !== 'constant-voltage' || count === 0 || highPassHz === null || (highPassHz !== 'none' && highPassHz >= LEAST_CORNER_HZ)) return []
  return [found(line, { code: 'no-high-pass', grade: 'tight', facts: { hz: highPassHz === 'none' ? null : highPassHz, count } })]
}
