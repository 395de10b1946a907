import type { Group, LineThrough, Output } from '#core/job/schema'
import { speakersOf, throughsIn } from '#core/job/tree'
import { isGroup, type Through, type WiringNode } from '#core/network/tree'
import { withNode } from './changeTree'
import { faultAt, type Fault, type FaultDefinition } from './fault'

/** What a wall control can have, and all that hangs behind it with it. It is named by its group. */

type Control = Extract<LineThrough, { kind: 'control' }>
const controlsOf = (output: Output) => throughsIn(output.wiring).flatMap(({ group, through }): { group: Group, through: Control }[] => through.kind === 'control' ? [{ group, through }] : [])

const withControl = (wiring: WiringNode, { nodeId }: Fault, change: (control: Extract<Through, { kind: 'control' }>) => Through | undefined): WiringNode => withNode(wiring, nodeId!, (node) => {
  if (!isGroup(node) || node.through?.kind !== 'control') return node
  const { through, ...rest } = node
  const next = change(through)
  return next ? { ...rest, through: next } : rest
})

export const controlAtZero: FaultDefinition = {
  kind: 'control-at-zero',
  looks: 0.99,
  prior: 4,
  why: 'somebody turned it down, and forgot: look at it before anything is opened',
  candidates: output => controlsOf(output).filter(c => c.through.setDb !== 'off').map(c => faultAt('control-at-zero', c.group.id)),
  change: (wiring, fault) => withControl(wiring, fault, control => ({ ...control, setDb: 'off' })),
  coil: { right: 1 },
}

/** How far it is turned down, dB. */
const DOWN_DB = [6, 15] as const
export const controlTurnedDown: FaultDefinition = {
  kind: 'control-turned-down',
  looks: 0.95,
  prior: 3,
  why: 'what a control is for',
  candidates: output => controlsOf(output).filter(c => c.through.setDb !== 'off').flatMap(c => DOWN_DB.map(amount => faultAt('control-turned-down', c.group.id, { amount }))),
  change: (wiring, fault) => withControl(wiring, fault, control => ({ ...control, setDb: (control.setDb === 'off' ? 0 : control.setDb ?? 0) + (fault.amount ?? DOWN_DB[0]) })),
  coil: { right: 1 },
}

export const controlBypassed: FaultDefinition = {
  kind: 'control-bypassed',
  looks: 0.7,
  prior: 1,
  why: 'a branch spliced before its control, or a relay that stays drawn',
  candidates: output => controlsOf(output).filter(c => c.through.setDb === 'off' || (c.through.setDb ?? 0) > 0).map(c => faultAt('control-bypassed', c.group.id)),
  change: (wiring, fault) => withControl(wiring, fault, () => undefined),
  coil: { right: 1 },
}

/** More watts behind it than it is rated for: it saturates, and dulls what it passes. */
export const controlOverrated: FaultDefinition = {
  kind: 'control-overrated',
  looks: 0.6,
  prior: 1.5,
  why: 'a speaker was added behind it',
  candidates: output => controlsOf(output).filter(({ group, through }) => {
    const behindW = speakersOf(group).reduce((sum, { load }) => sum + (load.kind === 'tap' ? load.tapW : 0), 0)
    return through.ratingW !== null && behindW > through.ratingW
  }).map(c => faultAt('control-overrated', c.group.id)),
  change: wiring => wiring,
  coil: { right: 1 },
  heard: { plays: 0.5, thin: 0.2, quiet: 0.15, scratchy: 0.15 },
}
