import { isFields } from './places'
import type { Fields } from './step'
import { wiringStep } from './wiringStep'

const withRating = (output: unknown): unknown => isFields(output) && isFields(output.rating) && output.rating.kind === 'solid-state'
  ? { ...output, rating: { ...output.rating, bridgedFloorOhm: null } }
  : output
const withModel = (kind: unknown): unknown => isFields(kind) && isFields(kind.model) ? { ...kind, model: { ...kind.model, magnetMm: null, plusMark: '' } } : kind
const inOutput = (output: unknown): unknown => isFields(output) ? { band: null, limiterV: null, ...withRating(output) as Fields } : output
const inAmplifier = (amplifier: unknown): unknown => isFields(amplifier)
  ? {
      made: null, gainDb: null, inputV: null, inputOhm: null, source: null, protection: '',
      ...amplifier, ...(Array.isArray(amplifier.outputs) ? { outputs: amplifier.outputs.map(inOutput) } : {}),
    }
  : amplifier

/**
 * Of an output version 8 did not know which part of the range it plays nor its limiter, of an amplifier not what feeds it; of two bridged channels
 * it took twice the floor of one; of a speaker neither its magnet nor how its plus is marked. All of that is not stated.
 */
export const everythingPlayed = wiringStep({
  amplifier: inAmplifier, output: inOutput, setOutput: withRating, kind: withModel,
})
