import type { Station } from '../station'

export const wire: Station = {
  name: 'Wire', path: 'wire', key: 'y', keySays: 'to the wires: pairs, joints, which way round',
  // The list of jobs knows no joints; the station itself says what is to be swapped.
  state: (_, job) => {
    if (job === null) return ''
    const named = job.splices.filter(s => s.pair !== null).length
    return named === 0 ? '' : `${named} ${named === 1 ? 'pair' : 'pairs'} named`
  },
  isDone: () => false,
}
