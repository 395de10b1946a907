import { removeNode, setSpeaker } from '#core/hands/intents'
import { together } from '#core/job/edits'
import type { Speaker } from '#core/job/schema'
import { findSpeaker } from '#core/job/tree'
import type { Load, SpeakerNode, WiringNode } from '#core/network/tree'
import { isGroup } from '#core/network/tree'
import { likenessOf } from '#core/quantity/same'
import { withNode } from './changeTree'
import { faultAt, type FaultDefinition } from './fault'

/** What hangs there is not what is drawn. */

/** A speaker less than drawn: it was never hung, or taken down. */
export const speakerMissing: FaultDefinition = {
  kind: 'speaker-missing',
  looks: 0.98,
  prior: 1.5,
  why: 'taken down for paint, or left for later',
  candidates: (_, speakers) => speakers.length < 2 ? [] : speakers.map(s => faultAt('speaker-missing', s.id)),
  change: (wiring, { nodeId }) => withNode(wiring, nodeId!, () => ({ kind: 'open', id: nodeId! })),
  coil: { open: 1 },
  plan: ({ job, fault }) => findSpeaker(job, fault.nodeId!) ? removeNode(job, fault.nodeId!) : null,
}

/** Two speakers hang in each other's place: the next one along the line that is not alike. */
export const dropsExchanged: FaultDefinition = {
  kind: 'drops-exchanged',
  prior: 1,
  why: 'two boxes in one van',
  candidates: (_, speakers) => speakers.flatMap((s, k) => {
    const other = speakers.slice(k + 1).find(o => likenessOf(o.load) !== likenessOf(s.load))
    return other ? [faultAt('drops-exchanged', s.id, { withId: other.id })] : []
  }),
  change: (wiring, { nodeId, withId }) => {
    const [one, other] = [loadOf(wiring, nodeId!), loadOf(wiring, withId!)]
    if (!one || !other) return wiring
    const put = (load: Load) => (node: WiringNode): WiringNode => node.kind === 'speaker' ? { ...node, load } : node
    return withNode(withNode(wiring, nodeId!, put(other)), withId!, put(one))
  },
  coil: { right: 0.7, high: 0.15, low: 0.15 },
  plan: ({ job, fault }) => {
    const [one, other] = [fault.nodeId, fault.withId].map(id => findSpeaker(job, id!)?.speaker)
    if (!one || !other) return null
    const as = ({ load, name, continuousW, driverOhm, kindId }: Speaker) => ({ load, name, continuousW, driverOhm, kindId })
    return together([setSpeaker(one, as(other)), setSpeaker(other, as(one))])
  },
}

function loadOf(node: WiringNode, nodeId: string): SpeakerNode['load'] | null {
  if (isGroup(node)) return node.children.reduce<Load | null>((found, c) => found ?? loadOf(c.node, nodeId), null)
  return node.kind === 'speaker' && node.id === nodeId ? node.load : null
}

/** A cabinet plugged into another of its jacks, or its switch the other way: `amount` is the place of that in its list. */
export const wrongJack: FaultDefinition = {
  kind: 'wrong-jack',
  looks: 0.95,
  prior: 2,
  why: 'jacks of several impedances side by side',
  candidates: (_, speakers) => speakers.flatMap(({ id, load }) => load.kind === 'cabinet' ? load.positions.flatMap((__, at) => at === load.at ? [] : [faultAt('wrong-jack', id, { amount: at })]) : []),
  change: (wiring, { nodeId, amount }) => withNode(wiring, nodeId!, node => node.kind === 'speaker' && node.load.kind === 'cabinet' && node.load.positions[amount ?? 0]
    ? { ...node, load: { ...node.load, at: amount ?? 0 } }
    : node),
  coil: { right: 0.6, high: 0.2, low: 0.2 },
  plan: ({ job, fault }) => {
    const speaker = findSpeaker(job, fault.nodeId!)?.speaker
    return speaker && speaker.load.kind === 'cabinet' && fault.amount !== null && speaker.load.positions[fault.amount] ? setSpeaker(speaker, { load: { ...speaker.load, at: fault.amount } }) : null
  },
}
