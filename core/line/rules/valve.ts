import { bestTap, mismatchDb, tapFit, valveOf } from '#core/amplifier/index'
import type { ValveRating } from '#core/amplifier/rating'
import type { Practice } from '#core/job/schema'
import { exceeds } from '#core/quantity/tolerance'
import type { LineFacts } from '../facts'
import type { Finding } from '../finding'
import { found, type Rule } from './rule'
import { isStandKnown } from './sharing'

/**
 * From so many times its tap on a load is next to none, by every school: they differ over two to four times. Common practice, no source: a control that is
 * off and a small series capacitor are no load, whatever the label says.
 */
export const NO_LOAD = 4

/**
 * A load against the tap that it is on, in every position of its controls. Below the tap both schools agree; above it the one chosen for the job judges. With
 * nothing connected a valve output must not be driven at all.
 */
export const valve: Rule = (line, { practice }) => {
  const rating = valveOf(line.output.rating)
  if (!rating) return []
  if (line.speakers.length === 0 || line.upHead === 'open') return [found(line, { code: 'valve-open', grade: 'stop', facts: {} })]
  const loadOhm = line.upOhm
  return loadOhm === null ? [] : [...unloaded(line, rating, loadOhm, practice), fullyUp(line, rating, loadOhm, practice)]
}

function fullyUp(line: LineFacts, { tapsOhm, tapOhm, powerW }: ValveRating, loadOhm: number, practice: Practice): Finding {
  const bestOhm = bestTap(tapsOhm, loadOhm)
  // Below all of its taps no choice of one helps.
  if (tapOhm === null) return found(line, { code: 'valve-tap-not-known', grade: bestOhm === null ? 'stop' : 'unknown', facts: { loadOhm, tapsOhm, bestOhm } })
  const fit = tapFit(loadOhm, tapOhm)
  switch (fit) {
    case 'matched': return found(line, { code: 'valve-matched', grade: 'good', facts: { loadOhm, tapOhm, powerW, isStandKnown: isStandKnown(line) } })
    case 'too-low':
    case 'a-little-low': return found(line, { code: 'valve-low', grade: fit === 'too-low' ? 'stop' : 'tight', facts: { loadOhm, tapOhm, bestOhm, isTooLow: fit === 'too-low' } })
    case 'a-little-high':
    case 'far-too-high': {
      const isFar = fit === 'far-too-high'
      const grade = exceeds(loadOhm, NO_LOAD * tapOhm) ? 'stop' : practice.valve === 'up-is-safe' ? 'good' : isFar ? 'stop' : 'tight'
      return found(line, { code: 'valve-high', grade, facts: { loadOhm, tapOhm, bestOhm: bestOhm!, lossDb: mismatchDb(loadOhm, tapOhm), practice: practice.valve, isFar } })
    }
  }
}

/** What hands and frequency can leave on it, where that is less of a load than all of it fully up. */
function unloaded(line: LineFacts, { tapOhm }: ValveRating, upOhm: number, { valve: school }: Practice): Finding[] {
  const { highest } = line
  if (!highest) return []
  const { ohm, frequencyHz, off } = highest
  const isByControl = off.length > 0 && (ohm === null || highest.upOhm === null || exceeds(ohm, highest.upOhm))
  const facts = { off: isByControl ? off : [], ohm, frequencyHz, tapOhm, practice: school }
  if (ohm === null) return [found(line, { code: 'valve-unloaded', grade: 'stop', facts })]
  // Of a load that is the same in every position and at every frequency all is said fully up.
  if (tapOhm === null || !exceeds(ohm, upOhm) || tapFit(ohm, tapOhm) === 'matched') return []
  const fit = tapFit(ohm, tapOhm)
  if (fit !== 'a-little-high' && fit !== 'far-too-high') return []
  if (exceeds(ohm, NO_LOAD * tapOhm)) return [found(line, { code: 'valve-unloaded', grade: 'stop', facts })]
  return school === 'up-is-safe' ? [] : [found(line, { code: 'valve-unloaded', grade: fit === 'far-too-high' ? 'stop' : 'tight', facts })]
}
