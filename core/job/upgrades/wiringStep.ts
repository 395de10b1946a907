import { isFields, type Fields, type Upgrade } from './step'

/** What a step makes of each thing that holds amplifiers, outputs or models; an edit that sets one holds some of its fields. */
export interface WiringChanges {
  amplifier: Change
  setAmplifier?: Change
  output: Change
  setOutput: Change
  kind: Change
  document?: (document: Fields) => Fields
}
type Change = (thing: unknown) => unknown
export const same: Change = thing => thing

/** A step over amplifiers, outputs and models of kinds, wherever a document or an edit has them: in variants and batches too. */
export function wiringStep({ amplifier, setAmplifier = same, output, setOutput, kind, document: beside = () => ({}) }: WiringChanges): Upgrade {
  const withAmplifiers = (of: unknown): unknown => isFields(of) && Array.isArray(of.amplifiers) ? { ...of, amplifiers: of.amplifiers.map(amplifier) } : of
  const step: Upgrade = {
    document: document => ({
      document: {
        ...withAmplifiers(document) as Fields, ...beside(document),
        ...(Array.isArray(document.kinds) ? { kinds: document.kinds.map(kind) } : {}),
        ...(Array.isArray(document.variants) ? { variants: document.variants.map(withAmplifiers) } : {}),
      },
      remarks: [],
    }),
    edit: (edit) => {
      switch (edit.kind) {
        case 'batch': return Array.isArray(edit.edits) ? { ...edit, edits: edit.edits.map(part => step.edit(part as Fields)) } : edit
        case 'amplifier.add': return { ...edit, amplifier: amplifier(edit.amplifier) }
        case 'amplifier.remove': return isFields(edit.was) ? { ...edit, was: amplifier(edit.was) } : edit
        case 'amplifier.set': return { ...edit, was: setAmplifier(edit.was), to: setAmplifier(edit.to) }
        case 'output.add': return { ...edit, output: output(edit.output) }
        case 'output.set': return { ...edit, was: setOutput(edit.was), to: setOutput(edit.to) }
        case 'kind.add': return { ...edit, item: kind(edit.item) }
        case 'kind.set': return { ...edit, was: kind(edit.was), to: kind(edit.to) }
        case 'variant.remove': return isFields(edit.was) ? { ...edit, was: withAmplifiers(edit.was) } : edit
        case 'variant.add': return { ...edit, variant: withAmplifiers(edit.variant) }
        default: return edit
      }
    },
  }
  return step
}
