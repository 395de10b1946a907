import { ApiError } from '~/api/client'
import { codeLater } from '~/composables/fetchedLater'

const wire = codeLater(() => import('~/meter/readByWire'))

/** A coil of a rig by the simulated meter; a real one lies at no rig. */
export async function readRigByWire(code: string, outputId: string, nodeId: string): Promise<{ ohm: number | null } | { why: string } | 'no-meter'> {
  try {
    const { askMeter, chosenMeter, readMeters } = await wire()
    const id = chosenMeter()
    if (id === null) return 'no-meter'
    if (!(await readMeters()).find(m => m.id === id)?.isStandIn) return { why: 'The meter that is chosen is a real one: only the simulated meter reads a rig.' }
    const { value } = await askMeter(id, { jobId: code, outputId, nodeId, kind: 'coil-dcr' })
    return value.is === 'open' ? { ohm: null } : value.is === 'ohm' ? { ohm: Number(value.ohm.toPrecision(3)) } : { why: 'The meter says that it is over its range.' }
  }
  catch (error) {
    if (!(error instanceof ApiError)) throw error
    return { why: error.isAway ? 'The meter is read by way of the server, which does not answer.' : error.message }
  }
}
