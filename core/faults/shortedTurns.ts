import { faultAt, type FaultDefinition } from './fault'
import { withLoadTimes } from './changeTree'

/** Part of a load that turns which touch each other leave. Common practice, no source. */
export const LEFT = [0.35, 0.55, 0.75] as const

/** Turns of a coil touch each other: less copper, less inductance, and it has been hot. */
export const shortedTurns: FaultDefinition = {
  kind: 'shorted-turns',
  isOfUnit: true,
  prior: 1.5,
  why: 'a coil that was driven too hard; most then open',
  candidates: (_, speakers) => speakers.flatMap(s => LEFT.map(amount => faultAt('shorted-turns', s.id, { amount }))),
  change: (wiring, { nodeId, amount }) => withLoadTimes(wiring, nodeId!, amount ?? LEFT[1]),
  coil: { low: 1 },
  heard: { 'plays': 0.3, 'scratchy': 0.35, 'quiet': 0.25, 'thin': 0.1 },
}
