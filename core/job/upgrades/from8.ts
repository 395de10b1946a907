import { isFields } from './places'
import type { Fields, Upgrade } from './step'

/**
 * Of an output version 8 did not know which part of the range it plays nor its limiter, of an amplifier not what feeds it; of two bridged channels
 * it took twice the floor of one; of a speaker neither its magnet nor how its plus is marked. All of that is not stated.
 */
export const everythingPlayed: Upgrade = {
  document: (document) => {
    const withAmplifiers = (of: Fields): Fields => Array.isArray(of.amplifiers) ? { ...of, amplifiers: of.amplifiers.map(inAmplifier) } : of
    return {
      document: {
        ...withAmplifiers(document),
        ...(Array.isArray(document.kinds) ? { kinds: document.kinds.map(withModel) } : {}),
        ...(Array.isArray(document.variants) ? { variants: document.variants.map(variant => isFields(variant) ? withAmplifiers(variant) : variant) } : {}),
      },
      remarks: [],
    }
  },
  edit: (edit) => {
    switch (edit.kind) {
      case 'batch': return Array.isArray(edit.edits) ? { ...edit, edits: edit.edits.map(part => everythingPlayed.edit(part as Fields)) } : edit
      case 'amplifier.add': return { ...edit, amplifier: inAmplifier(edit.amplifier) }
      case 'output.add': return { ...edit, output: inOutput(edit.output) }
      case 'output.set': return { ...edit, was: withRating(edit.was), to: withRating(edit.to) }
      case 'kind.add': return { ...edit, item: withModel(edit.item) }
      case 'kind.set': return { ...edit, was: withModel(edit.was), to: withModel(edit.to) }
      case 'variant.add': return isFields(edit.variant) && Array.isArray(edit.variant.amplifiers)
        ? { ...edit, variant: { ...edit.variant, amplifiers: edit.variant.amplifiers.map(inAmplifier) } }
        : edit
      default: return edit
    }
  },
}

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
