import type { Fields, Upgrade } from './step'

/**
 * Version 4 knew no kinds. Version 5 has them in the job, and a speaker names its own (`kindId`, null for none). Nothing is gathered
 * into kinds by itself: which of equals belong together is the person's to say.
 */
export const kindsOfSpeakers: Upgrade = {
  document: document => ({
    document: { ...document, kinds: [], ...(Array.isArray(document.amplifiers) ? { amplifiers: document.amplifiers.map(withAmplifier) } : {}) }, remarks: [],
  }),
  edit: (edit) => {
    if (edit.kind === 'batch') return Array.isArray(edit.edits) ? { ...edit, edits: edit.edits.map(part => kindsOfSpeakers.edit(part as Fields)) } : edit
    if (edit.kind === 'amplifier.add') return { ...edit, amplifier: withAmplifier(edit.amplifier) }
    if (edit.kind === 'output.add') return { ...edit, output: withOutput(edit.output) }
    return edit.kind === 'node.add' ? { ...edit, branch: withBranch(edit.branch) } : edit
  },
}

const isFields = (value: unknown): value is Fields => value !== null && typeof value === 'object'
const withAmplifier = (amplifier: unknown): unknown => isFields(amplifier) && Array.isArray(amplifier.outputs)
  ? { ...amplifier, outputs: amplifier.outputs.map(withOutput) }
  : amplifier
const withOutput = (output: unknown): unknown => isFields(output) ? { ...output, wiring: withNode(output.wiring) } : output
const withBranch = (branch: unknown): unknown => isFields(branch) ? { ...branch, node: withNode(branch.node) } : branch
function withNode(node: unknown): unknown {
  if (!isFields(node)) return node
  if (Array.isArray(node.children)) return { ...node, children: node.children.map(withBranch) }
  return node.kind === 'speaker' && !('kindId' in node) ? { ...node, kindId: null } : node
}
