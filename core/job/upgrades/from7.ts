import { isFields } from './step'
import { wiringStep } from './wiringStep'

const withRating = (output: unknown): unknown => isFields(output) && isFields(output.rating) && output.rating.kind === 'solid-state'
  ? { ...output, rating: { ...output.rating, mode: 'single' } }
  : output
const inRatings = (amplifier: unknown): unknown => isFields(amplifier) && Array.isArray(amplifier.outputs)
  ? { ...amplifier, outputs: amplifier.outputs.map(withRating) }
  : amplifier
const withModel = (kind: unknown): unknown => isFields(kind) && isFields(kind.model)
  ? { ...kind, model: { ...kind.model, curve: null,
      positions: null } }
  : kind

/**
 * Version 7 knew one channel an output, and no valve outputs. Version 8 names how many channels an output is (one, until somebody says
 * otherwise), and by which school a valve output is judged: of version 7 none was, so that of a new job is taken. A model may have a measured curve,
 * and jacks with a switch: none is stated.
 */
export const oneChannel = wiringStep({
  amplifier: inRatings, output: withRating, setOutput: withRating, kind: withModel,
  document: document => isFields(document.practice) ? { practice: { ...document.practice, valve: 'match-exactly' } } : {},
})
