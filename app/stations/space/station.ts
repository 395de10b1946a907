import type { Station } from '../station'

export const space: Station = {
  name: 'Space', path: 'space', key: 'p', keySays: 'to the spaces',
  // The list of jobs knows the lines alone.
  state: (_, job) => job === null || job.spaces.length === 0 ? '' : `${job.spaces.length} ${job.spaces.length === 1 ? 'space' : 'spaces'}`,
  isDone: (_, job) => job !== null && job.spaces.length > 0 && job.spaces.every(s => s.spots.length > 0 && s.spots.every(p => p.nodeId !== null)),
}
