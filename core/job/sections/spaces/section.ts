import { MOST_PLACES } from '#core/room/limits'
import { JobError } from '../../jobError'
import { refuse } from '../../refusal'
import type { Job, JobDocument } from '../../schema'
import { changedBack, guarded, guardedWhole, inserted } from '../guard'
import { byName, named, none, type Reference, type Section } from '../section'
import { MOST_MEASURED, MOST_SPACES, type Space, type Spot } from './schema'
import { spaces as shape } from './shape'

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

/** One that is gone counts as none: the speaker of a place may have been taken off. */
const ofSpot = ({ nodeId }: Partial<Spot>): Reference[] => named('speaker', nodeId).map(reference => ({ ...reference, isLoose: true }))

export const spaces: Section<'spaces'> = {
  shape,
  edits: {
    'space.add': {
      apply: (job, { index, space }) => {
        if (job.spaces.length >= MOST_SPACES) refuse({ code: 'too-many', what: 'spaces', most: MOST_SPACES })
        for (const { nodeId, id } of space.spots) hangsOnce({ ...job, spaces: [...job.spaces, space] }, nodeId, id)
        return { job: { ...job, spaces: inserted(job.spaces, index, space) }, inverse: { kind: 'space.remove', spaceId: space.id, was: space } }
      },
      makes: ({ space }) => [space.id, ...space.spots.map(s => s.id), ...space.measured.map(m => m.id)], refersTo: ({ space }) => [...named('kind', space.kindId), ...space.spots.flatMap(ofSpot)], words: 'space added', leads: 20,
    },
    'space.remove': {
      apply: (job, { spaceId, was }) => {
        const space = found(job, spaceId)
        guardedWhole(`the space “${space.name}”`, space, was)
        return { job: { ...job, spaces: job.spaces.filter(s => s !== space) }, inverse: { kind: 'space.add', index: job.spaces.indexOf(space), space } }
      },
      makes: none, refersTo: none, words: 'space removed', leads: 21,
    },
    'space.set': {
      apply: (job, edit) => {
        const space = found(job, edit.spaceId)
        return { job: withSpace(job, { ...space, ...guarded(`the space “${space.name}”`, space, edit) }), inverse: changedBack(space, edit) }
      },
      makes: none, refersTo: ({ to }) => named('kind', to.kindId), words: 'space changed', leads: 120,
    },
    'spot.add': {
      apply: (job, { spaceId, index, spot }) => {
        const space = found(job, spaceId)
        if (space.spots.length >= MOST_PLACES) refuse({ code: 'too-many', what: 'places', most: MOST_PLACES })
        hangsOnce(job, spot.nodeId, spot.id)
        return { job: withSpace(job, { ...space, spots: inserted(space.spots, index, spot) }), inverse: { kind: 'spot.remove', spaceId, spotId: spot.id, was: spot } }
      },
      makes: ({ spot }) => [spot.id], refersTo: ({ spot }) => ofSpot(spot), words: 'place added', leads: 110,
    },
    'spot.remove': {
      apply: (job, { spaceId, spotId, was }) => {
        const space = found(job, spaceId)
        const spot = foundIn(space.spots, spotId, 'place')
        guardedWhole(`a place of “${space.name}”`, spot, was)
        return { job: withSpace(job, { ...space, spots: space.spots.filter(s => s !== spot) }), inverse: { kind: 'spot.add', spaceId, index: space.spots.indexOf(spot), spot } }
      },
      makes: none, refersTo: none, words: 'place taken off', leads: 111,
    },
    'spot.set': {
      apply: (job, edit) => {
        const space = found(job, edit.spaceId)
        const spot = foundIn(space.spots, edit.spotId, 'place')
        const changed = { ...spot, ...guarded(`a place of “${space.name}”`, spot, edit) }
        hangsOnce(job, changed.nodeId, spot.id)
        return { job: withSpace(job, { ...space, spots: space.spots.map(s => s === spot ? changed : s) }), inverse: changedBack(spot, edit) }
      },
      makes: none, refersTo: ({ to }) => ofSpot(to), words: 'place moved', leads: 112,
    },
    'measured.add': {
      apply: (job, { spaceId, index, measured }) => {
        const space = found(job, spaceId)
        if (space.measured.length >= MOST_MEASURED) refuse({ code: 'too-many', what: 'measured levels', most: MOST_MEASURED })
        return { job: withSpace(job, { ...space, measured: inserted(space.measured, index, measured) }), inverse: { kind: 'measured.remove', spaceId, measuredId: measured.id, was: measured } }
      },
      makes: ({ measured }) => [measured.id], refersTo: none, words: 'measured level noted',
    },
    'measured.remove': {
      apply: (job, { spaceId, measuredId, was }) => {
        const space = found(job, spaceId)
        const measured = foundIn(space.measured, measuredId, 'measured level')
        guardedWhole(`a level measured in “${space.name}”`, measured, was)
        return {
          job: withSpace(job, { ...space, measured: space.measured.filter(m => m !== measured) }),
          inverse: { kind: 'measured.add', spaceId, index: space.measured.indexOf(measured), measured },
        }
      },
      makes: none, refersTo: none, words: 'measured level taken back',
    },
  },
  fields: {
    floor: 'storey', use: 'use', outline: 'floor', heightM: 'height', earsM: 'height of ears', ceiling: 'ceiling', noiseDb: 'noise', overDb: 'level above the noise', peaks: 'reserve for peaks',
    overlap: 'overlap', turnDeg: 'turn of the grid', tapW: 'tap', entry: 'place where the cable comes in', rackM: 'length from the rack', slack: 'slack', cableRemark: 'remark on the cable', picture: 'picture of the plan',
    xM: 'place', yM: 'place', aim: 'aim', nodeId: 'speaker', spots: 'places', measured: 'measured levels', spaces: 'spaces', db: 'level',
  },
  lists: {
    spaces: byName('space'),
    spots: (_, number) => `place no. ${number}`,
    measured: (_, number) => `measured level no. ${number}`,
  },
  has: (job, id) => job.spaces.some(s => s.id === id || s.spots.some(p => p.id === id) || s.measured.some(m => m.id === id)),
  ids: ({ spaces }) => spaces.flatMap(({ id, spots, measured }, k) => [{ id }, ...spots, ...measured].map(item => [item.id, `spaces[${k}]`] as const)),
  names: ({ spaces }) => spaces.flatMap(({ kindId }, k) => kindId === null ? [] : [{ what: 'kind', id: kindId, by: 'space', path: ['spaces', k, 'kindId'] } as const]),
  check: hangOnce,
}

function hangOnce({ spaces }: JobDocument): void {
  const hanging = new Set<string>()
  for (const [k, { spots }] of spaces.entries()) {
    for (const { nodeId } of spots) {
      if (nodeId !== null && hanging.has(nodeId)) throw new JobError(`The speaker “${nodeId}” hangs at two places.`, `spaces[${k}]`)
      if (nodeId !== null) hanging.add(nodeId)
    }
  }
}
