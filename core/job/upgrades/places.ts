import type { Fields } from './step'

/** Ways into the wiring of a document or an edit of any version: nothing is known of it but where its speakers stand. */

export const isFields = (value: unknown): value is Fields => value !== null && typeof value === 'object'
type Change = (speaker: Fields) => Fields

export const inAmplifier = (amplifier: unknown, change: Change): unknown => isFields(amplifier) && Array.isArray(amplifier.outputs)
  ? { ...amplifier, outputs: amplifier.outputs.map(output => inOutput(output, change)) }
  : amplifier
export const inOutput = (output: unknown, change: Change): unknown => isFields(output) ? { ...output, wiring: inNode(output.wiring, change) } : output
export const inBranch = (branch: unknown, change: Change): unknown => isFields(branch) ? { ...branch, node: inNode(branch.node, change) } : branch
function inNode(node: unknown, change: Change): unknown {
  if (!isFields(node)) return node
  if (Array.isArray(node.children)) return { ...node, children: node.children.map(branch => inBranch(branch, change)) }
  return node.kind === 'speaker' ? change(node) : node
}
