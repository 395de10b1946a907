import { sumOf } from '#core/line/jobState'
import type { Station } from '../station'

export const check: Station = {
  name: 'Check', path: 'check', key: 'k', keySays: 'to the checks',
  state: lines => sumOf(lines, 'total') > 0 ? `${sumOf(lines, 'proved')} of ${sumOf(lines, 'total')} proved` : '',
  isDone: lines => sumOf(lines, 'total') > 0 && sumOf(lines, 'proved') === sumOf(lines, 'total'),
}
