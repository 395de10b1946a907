import { sumOf } from '#core/line/jobState'
import type { Station } from '../station'

export const trace: Station = {
  name: 'Trace', path: 'trace', key: 'T', keySays: 'to the trace',
  state: (lines) => {
    const [wrong, unproved] = [sumOf(lines, 'wrong'), sumOf(lines, 'unproved')]
    return wrong > 0 ? `${wrong} open` : unproved > 0 ? `${unproved} to prove` : 'nothing open'
  },
  // Nothing open is no proof that nothing is broken.
  isDone: () => false,
}
