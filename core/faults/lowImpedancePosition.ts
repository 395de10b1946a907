import { faultAt, type FaultDefinition } from './fault'
import { withNode } from './changeTree'

/** What a driver behind a transformer is taken for where nobody says. Common practice, no source. */
export const USUAL_DRIVER_OHM = 8

/** A transformer left on its through position: the driver hangs on the line itself, a near short. */
export const lowImpedancePosition: FaultDefinition = {
  kind: 'low-impedance-position',
  looks: 0.95,
  isOfUnit: true,
  prior: 3,
  why: 'one click beyond the last tap, on many dials',
  candidates: (_, speakers) => speakers.filter(s => s.load.kind === 'tap').map(s => faultAt('low-impedance-position', s.id)),
  change: (wiring, { nodeId }) => withNode(wiring, nodeId!, (node) => {
    if (node.kind !== 'speaker') return node
    const driverOhm = (node as { driverOhm?: number | null }).driverOhm ?? USUAL_DRIVER_OHM
    return { ...node, load: { kind: 'nominal', nominalOhm: driverOhm } }
  }),
  coil: { right: 1 },
  assumes: ({ driverOhm }) => driverOhm === null ? `its driver taken as ${USUAL_DRIVER_OHM} Ω` : null,
}
