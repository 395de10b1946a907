import { inAmplifier, inBranch, inOutput } from './places'
import type { Fields, Upgrade } from './step'

/**
 * Version 4 knew no kinds. Version 5 has them in the job, and a speaker names its own (`kindId`, null for none). Nothing is gathered
 * into kinds by itself: which of equals belong together is the person's to say.
 */
export const kindsOfSpeakers: Upgrade = {
  document: (document) => {
    const { amplifiers } = document
    const drawn = Array.isArray(amplifiers) ? { amplifiers: amplifiers.map(a => inAmplifier(a, ofNoKind)) } : {}
    return { document: { ...document, kinds: [], ...drawn }, remarks: [] }
  },
  edit: (edit) => {
    switch (edit.kind) {
      case 'batch': return Array.isArray(edit.edits) ? { ...edit, edits: edit.edits.map(part => kindsOfSpeakers.edit(part as Fields)) } : edit
      case 'amplifier.add': return { ...edit, amplifier: inAmplifier(edit.amplifier, ofNoKind) }
      case 'output.add': return { ...edit, output: inOutput(edit.output, ofNoKind) }
      case 'node.add': return { ...edit, branch: inBranch(edit.branch, ofNoKind) }
      default: return edit
    }
  },
}

const ofNoKind = (speaker: Fields): Fields => 'kindId' in speaker ? speaker : { ...speaker, kindId: null }
