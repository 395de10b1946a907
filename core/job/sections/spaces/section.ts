import { MOST_PLACES } from '#core/room/layout'
import { refuse } from '../../refusal'
import type { Job } from '../../schema'
import { changedBack, guarded, inserted } from '../guard'
import { noneTaken } from '../ids'
import type { Section } from '../section'
import type { spaceEdits } from './edits'
import { MOST_MEASURED, MOST_SPACES, type Space } from './schema'

function found(job: Job, spaceId: string): Space {
  return job.spaces.find(s => s.id === spaceId) ?? refuse({ code: 'not-there', what: 'space', id: spaceId })
}
function foundIn<T extends { id: string }>(list: readonly T[], id: string, what: 'place' | 'measured level'): T {
  return list.find(item => item.id === id) ?? refuse({ code: 'not-there', what, id })
}
const withSpace = (job: Job, space: Space): Job => ({ ...job, spaces: job.spaces.map(s => s.id === space.id ? space : s) })

/** A speaker hangs at one place only. */
function hangsOnce(job: Job, nodeId: string | null | undefined, spotId: string): void {
  if (nodeId === null || nodeId === undefined) return
  const other = job.spaces.find(s => s.spots.some(p => p.nodeId === nodeId && p.id !== spotId))
  if (other) refuse({ code: 'not-valid', message: `That speaker hangs at a place of “${other.name}” already.` })
}

export const spaces: Section<typeof spaceEdits> = {
  name: 'spaces',
  keeps: 'document',
  apply: {
    'space.add': (job, { index, space }) => {
      noneTaken(job, [space.id, ...space.spots.map(s => s.id), ...space.measured.map(m => m.id)])
      if (job.spaces.length >= MOST_SPACES) refuse({ code: 'too-many', what: 'spaces', most: MOST_SPACES })
      for (const { nodeId, id } of space.spots) hangsOnce({ ...job, spaces: [...job.spaces, space] }, nodeId, id)
      return { job: { ...job, spaces: inserted(job.spaces, index, space) }, inverse: { kind: 'space.remove', spaceId: space.id } }
    },
    'space.remove': (job, { spaceId }) => {
      const space = found(job, spaceId)
      return { job: { ...job, spaces: job.spaces.filter(s => s !== space) }, inverse: { kind: 'space.add', index: job.spaces.indexOf(space), space } }
    },
    'space.set': (job, edit) => {
      const space = found(job, edit.spaceId)
      return { job: withSpace(job, { ...space, ...guarded(`the space “${space.name}”`, space, edit) }), inverse: changedBack(space, edit) }
    },
    'spot.add': (job, { spaceId, index, spot }) => {
      const space = found(job, spaceId)
      noneTaken(job, [spot.id])
      if (space.spots.length >= MOST_PLACES) refuse({ code: 'too-many', what: 'places', most: MOST_PLACES })
      hangsOnce(job, spot.nodeId, spot.id)
      return { job: withSpace(job, { ...space, spots: inserted(space.spots, index, spot) }), inverse: { kind: 'spot.remove', spaceId, spotId: spot.id } }
    },
    'spot.remove': (job, { spaceId, spotId }) => {
      const space = found(job, spaceId)
      const spot = foundIn(space.spots, spotId, 'place')
      return { job: withSpace(job, { ...space, spots: space.spots.filter(s => s !== spot) }), inverse: { kind: 'spot.add', spaceId, index: space.spots.indexOf(spot), spot } }
    },
    'spot.set': (job, edit) => {
      const space = found(job, edit.spaceId)
      const spot = foundIn(space.spots, edit.spotId, 'place')
      const changed = { ...spot, ...guarded(`a place of “${space.name}”`, spot, edit) }
      hangsOnce(job, changed.nodeId, spot.id)
      return { job: withSpace(job, { ...space, spots: space.spots.map(s => s === spot ? changed : s) }), inverse: changedBack(spot, edit) }
    },
    'measured.add': (job, { spaceId, index, measured }) => {
      const space = found(job, spaceId)
      noneTaken(job, [measured.id])
      if (space.measured.length >= MOST_MEASURED) refuse({ code: 'too-many', what: 'measured levels', most: MOST_MEASURED })
      return { job: withSpace(job, { ...space, measured: inserted(space.measured, index, measured) }), inverse: { kind: 'measured.remove', spaceId, measuredId: measured.id } }
    },
    'measured.remove': (job, { spaceId, measuredId }) => {
      const space = found(job, spaceId)
      const measured = foundIn(space.measured, measuredId, 'measured level')
      return {
        job: withSpace(job, { ...space, measured: space.measured.filter(m => m !== measured) }),
        inverse: { kind: 'measured.add', spaceId, index: space.measured.indexOf(measured), measured },
      }
    },
  },
  words: {
    'space.add': 'space added', 'space.remove': 'space removed', 'space.set': 'space changed', 'spot.add': 'place added', 'spot.remove': 'place taken off', 'spot.set': 'place moved',
    'measured.add': 'measured level noted', 'measured.remove': 'measured level taken back',
  },
  fields: {
    floor: 'storey', use: 'use', outline: 'floor', heightM: 'height', earsM: 'height of ears', ceiling: 'ceiling', noiseDb: 'noise', overDb: 'level above the noise', peaks: 'reserve for peaks',
    overlap: 'overlap', turnDeg: 'turn of the grid', tapW: 'tap', entry: 'place where the cable comes in', rackM: 'length from the rack', slack: 'slack', cableRemark: 'remark on the cable',
    xM: 'place', yM: 'place', aim: 'aim', nodeId: 'speaker', spots: 'places', measured: 'measured levels', spaces: 'spaces', db: 'level',
  },
}
