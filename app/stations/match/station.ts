import type { LineState } from '#core/match/jobState'
import type { Station } from '../station'

const pressing = (lines: readonly LineState[]) => [['stop', 'stop'], ['tight', 'tight']]
  .map(([grade, says]) => [lines.filter(l => l.grade === grade).length, says] as const)
  .filter(([count]) => count > 0).map(([count, says]) => `${count} ${says}`).join(', ')

export const match: Station = {
  name: 'Match', path: '', key: 'v', keySays: 'to the run sheet',
  state: lines => pressing(lines) || (lines.length > 0 ? 'all fits' : ''),
  isDone: lines => lines.length > 0 && pressing(lines) === '',
}
