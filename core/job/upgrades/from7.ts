import { isFields } from './places'
import type { Fields, Upgrade } from './step'

/**
 * Version 7 knew one channel an output, and no valve outputs. Version 8 names how many channels an output is (one, until somebody says
 * otherwise), and by which school a valve output is judged: of version 7 none was, so that of a new job is taken. A model may have a measured curve,
 * and jacks with a switch: none is stated.
 */
export const oneChannel: Upgrade = {
  document: (document) => {
    const withAmplifiers = (of: Fields): Fields => Array.isArray(of.amplifiers) ? { ...of, amplifiers: of.amplifiers.map(inRatings) } : of
    return {
      document: {
        ...withAmplifiers(document),
        ...(isFields(document.practice) ? { practice: { ...document.practice, valve: 'match-exactly' } } : {}),
        ...(Array.isArray(document.kinds) ? { kinds: document.kinds.map(withModel) } : {}),
        ...(Array.isArray(document.variants) ? { variants: document.variants.map(variant => isFields(variant) ? withAmplifiers(variant) : variant) } : {}),
      },
      remarks: [],
    }
  },
  edit: (edit) => {
    switch (edit.kind) {
      case 'batch': return Array.isArray(edit.edits) ? { ...edit, edits: edit.edits.map(part => oneChannel.edit(part as Fields)) } : edit
      case 'amplifier.add': return { ...edit, amplifier: inRatings(edit.amplifier) }
      case 'output.add': return { ...edit, output: withRating(edit.output) }
      case 'output.set': return { ...edit, was: withRating(edit.was), to: withRating(edit.to) }
      case 'kind.add': return { ...edit, item: withModel(edit.item) }
      case 'kind.set': return { ...edit, was: withModel(edit.was), to: withModel(edit.to) }
      case 'variant.add': return isFields(edit.variant) && Array.isArray(edit.variant.amplifiers)
        ? { ...edit, variant: { ...edit.variant, amplifiers: edit.variant.amplifiers.map(inRatings) } }
        : edit
      default: return edit
    }
  },
}

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
