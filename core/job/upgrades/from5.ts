import { inAmplifier, inBranch, inOutput, isFields } from './places'
import type { Fields, Upgrade } from './step'

/**
 * Version 5 knew no zones, no loss of a transformer and no high-pass of an amplifier. Version 6 has them, none until somebody states them: a
 * kind that states a loss changes nothing of its speakers behind anybody's back. Controls and transformers before a group are new too;
 * no document of version 5 has any.
 */
export const lossesNotStated: Upgrade = {
  document: document => ({
    document: { ...document, zones: [], ...(Array.isArray(document.amplifiers) ? { amplifiers: document.amplifiers.map(withAmplifier) } : {}) }, remarks: [],
  }),
  edit: (edit) => {
    switch (edit.kind) {
      case 'batch': return Array.isArray(edit.edits) ? { ...edit, edits: edit.edits.map(part => lossesNotStated.edit(part as Fields)) } : edit
      case 'amplifier.add': return { ...edit, amplifier: withAmplifier(edit.amplifier) }
      case 'output.add': return { ...edit, output: inOutput(edit.output, speaker) }
      case 'node.add': return { ...edit, branch: inBranch(edit.branch, speaker) }
      case 'speaker.set': return { ...edit, was: withLoad(edit.was), to: withLoad(edit.to) }
      default: return edit
    }
  },
}

const withLoad = <T>(fields: T): T => isFields(fields) && isFields(fields.load) && fields.load.kind === 'tap'
  ? { ...fields, load: { insertionDb: null, tapMeans: null, ...fields.load } }
  : fields
const speaker = (fields: Fields): Fields => withLoad({ ...fields, zoneId: fields.zoneId ?? null })
const withAmplifier = (amplifier: unknown): unknown => isFields(amplifier)
  ? { highPassHz: null, from: null, ...inAmplifier(amplifier, speaker) as Fields }
  : amplifier
