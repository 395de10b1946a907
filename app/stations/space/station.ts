import { countOf } from '#core/quantity/write'
import type { Station } from '../station'

export const space: Station = {
  name: 'Space', path: 'space', key: 'p', keySays: 'to the spaces',
  // The list of jobs knows the lines alone.
  state: (_, job, tooQuiet = []) => {
    if (job === null || job.spaces.length === 0) return ''
    const spaces = countOf(job.spaces.length, 'space')
    return tooQuiet.length === 0 ? spaces : `${tooQuiet.length} of ${spaces} too quiet`
  },
  isDone: (_, job) => job !== null && job.spaces.length > 0 && job.spaces.every(s => s.spots.length > 0 && s.spots.every(p => p.nodeId !== null)),
}
