import type { Job } from '#core/job/schema'
import { findPlace, speakersOf } from '#core/job/tree'
import { isGroup } from '#core/network/tree'
import { countOf } from '#core/quantity/write'
import { splicesBy, type Joint, type Joints } from './joints'
import { conductorWords } from './plus'
import type { Correction, PolarityGroup } from './report'
import type { TurnedLeaf } from './turned'

/** What is said of joints, of which way round something is, and of what to swap where. */

type Named = Pick<Job, 'amplifiers' | 'splices'>

/** What a node is called: a speaker by its label, a control or transformer by its own, any other group by the first speaker in it. */
export function nodeWords(job: Pick<Job, 'amplifiers'>, nodeId: string): string {
  const node = findPlace(job, nodeId)?.branch.node
  if (!node) return 'what is gone'
  if (!isGroup(node)) return node.label
  return node.through?.label ?? `the group with ${speakersOf(node)[0]?.label ?? 'nothing in it'}`
}

/** "the roof junction", "the joint before B2 02", "the terminals of B2 01". */
export function jointWords(job: Named, { output }: Pick<Joints, 'output'>, { at, nodeId, coil }: Joint): string {
  const node = `${output.label} ${nodeWords(job, nodeId)}`
  if (at === 'coil') return `coil ${coil! + 1} of ${node}`
  if (at === 'end') return `the terminals of ${node}`
  const { joint } = splicesBy(job)(nodeId)
  if (joint !== '') return /^the /i.test(joint) ? joint : `the ${joint}`
  return isFirst(output, nodeId) ? `the amplifier’s terminals of ${output.label}` : `the joint before ${node}`
}

const isFirst = ({ wiring }: Joints['output'], nodeId: string): boolean => wiring.children[0]?.node.id === nodeId

/** The node whose lead comes before the beginning of this one; null where that is the amplifier. */
export function leadBefore({ joints }: Pick<Joints, 'joints'>, joint: Joint): string | null {
  for (let k = joint.before; k !== null; k = joints[k]!.before) if (joints[k]!.at === 'start') return joints[k]!.nodeId
  return null
}

/** What to do at one joint, in one sentence: which goes to which where the colours are known. */
export function swapWords(job: Named, { line, joint }: Pick<Correction, 'line' | 'joint'>): string {
  const place = jointWords(job, line, joint)
  const spliceOf = splicesBy(job)
  const out = spliceOf(joint.nodeId).pair
  const before = joint.at === 'start' ? leadBefore(line, joint) : null
  const into = joint.at === 'start' ? (before === null ? null : spliceOf(before).pair) : out
  const sentence = (text: string) => `At ${place}, ${text}`
  if (joint.at === 'coil') return sentence('swap its two leads.')
  if (joint.at === 'start' && out && into && joint.turn !== null) {
    // What goes to which once it is swapped.
    const [first, second] = joint.turn === 'crossed' ? [0, 1] as const : [1, 0] as const
    return sentence(`${conductorWords(into[0])} goes to ${conductorWords(out[first])}, and ${conductorWords(into[1])} to ${conductorWords(out[second])}.`)
  }
  const pair = out ?? into
  return sentence(pair ? `swap ${conductorWords(pair[0])} with ${conductorWords(pair[1])}.` : 'swap the two conductors.')
}

/** "Then 01 and 02 are right." */
export function turnsWords(turns: readonly TurnedLeaf[]): string {
  const labels = [...new Set(turns.filter(t => t.taken === 1).map(t => t.speaker.label))]
  const others = [...new Set(turns.filter(t => t.taken !== 1).map(t => t.speaker.label))]
  const said = (list: string[]) => list.length > 4 ? `${list.slice(0, 3).join(', ')} and ${list.length - 3} more` : list.join(' and ')
  return [labels.length > 0 ? `It turns ${said(labels)} the right way round` : `It turns ${said(others)} round`, labels.length > 0 && others.length > 0 ? `and ${said(others)} with ${labels.length === 1 ? 'it' : 'them'}` : ''].filter(Boolean).join(', ') + '.'
}

/** What a space hears. */
export function groupWords({ leaves, is, notKnown, name, by }: PolarityGroup): string {
  const speakers = new Set(leaves.map(l => l.speaker.id)).size
  const known = leaves.filter(l => l.taken !== null && !l.isLeft)
  const reversed = new Set(known.filter(l => l.taken === 1).map(l => l.speaker.id)).size
  const right = new Set(known.filter(l => l.taken === 0).map(l => l.speaker.id)).size
  const what = speakers === 1 ? 'its one speaker' : `its ${speakers} speakers`
  const heard = by === 'line' ? `${name}, of which nobody has said where it hangs: ` : `${name}: `
  const open = notKnown > 0 ? ` Of ${countOf(notKnown, 'other')} nobody knows.` : ''
  if (is === 'apart' && speakers === 1) return `${heard}its coils are against each other. Next to nothing is heard of it.${open}`
  if (is === 'apart') return `${heard}${right} of ${what} ${right === 1 ? 'is' : 'are'} as marked, ${reversed} ${reversed === 1 ? 'is' : 'are'} turned round. Half way between them the bass goes.${open}`
  if (is === 'open') return `${heard}which way round ${speakers === 1 ? 'it is' : 'they are'} is not known.`
  return `${heard}${notKnown > 0 ? 'those that are known agree' : speakers === 1 ? 'nothing beside it to disagree with' : `${what} agree`}${reversed > 0 && right === 0 && speakers > 1 ? ', all of them turned round' : ''}.${open}`
}
