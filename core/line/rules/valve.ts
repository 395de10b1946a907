import { bestTap, mismatchDb, tapFit, valveOf } from '#core/amplifier/index'
import { found, type Rule } from './rule'

/**
 * A load against the tap that it is on. Below the tap both schools agree; above it the one chosen for the job judges. With nothing
 * connected a valve output must not be driven at all.
 */
export const valve: Rule = (line, { practice }) => {
  const rating = valveOf(line.output.rating)
  if (!rating) return []
  if (line.speakers.length === 0 || line.upHead === 'open') return [found(line, { code: 'valve-open', grade: 'stop', facts: {} })]
  const loadOhm = line.upOhm
  if (loadOhm === null) return []
  const { tapsOhm, tapOhm, powerW } = rating
  const bestOhm = bestTap(tapsOhm, loadOhm)
  // Below all of its taps no choice of one helps.
  if (tapOhm === null) return [found(line, { code: 'valve-tap-not-known', grade: bestOhm === null ? 'stop' : 'unknown', facts: { loadOhm, tapsOhm, bestOhm } })]
  const fit = tapFit(loadOhm, tapOhm)
  switch (fit) {
    case 'matched': return [found(line, { code: 'valve-matched', grade: 'good', facts: { loadOhm, tapOhm, powerW } })]
    case 'too-low':
    case 'a-little-low': return [found(line, { code: 'valve-low', grade: fit === 'too-low' ? 'stop' : 'tight', facts: { loadOhm, tapOhm, bestOhm, isTooLow: fit === 'too-low' } })]
    case 'a-little-high':
    case 'far-too-high': {
      const isFar = fit === 'far-too-high'
      const grade = practice.valve === 'up-is-safe' ? 'good' : isFar ? 'stop' : 'tight'
      return [found(line, { code: 'valve-high', grade, facts: { loadOhm, tapOhm, bestOhm: bestOhm!, lossDb: mismatchDb(loadOhm, tapOhm), practice: practice.valve, isFar } })]
    }
  }
}
