import { faultAt, type FaultDefinition } from './fault'
import { withBranchChanged } from './changeTree'

/** What a driver behind a transformer is taken for where nobody says. Common practice, no source. */
const USUAL_DRIVER_OHM = 8

/** A transformer left on its through position: the driver hangs on the line itself, a near short. */
export const lowImpedancePosition: FaultDefinition = {
  kind: 'low-impedance-position',
  prior: 3,
  candidates: (_, speakers) => speakers.filter(s => s.load.kind === 'tap').map(s => faultAt('low-impedance-position', s.id)),
  change: (chain, { nodeId }) => withBranchChanged(chain, nodeId!, (branch) => {
    const { node } = branch
    if (node.kind !== 'speaker') return branch
    const driverOhm = (node as { driverOhm?: number | null }).driverOhm ?? USUAL_DRIVER_OHM
    return { ...branch, node: { ...node, load: { kind: 'nominal', nominalOhm: driverOhm } } }
  }),
  coil: { right: 1 },
  assumes: ({ driverOhm }) => driverOhm === null ? `its driver taken as ${USUAL_DRIVER_OHM} Ω` : null,
}
