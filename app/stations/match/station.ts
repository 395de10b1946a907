import type { LineState } from '#core/line/jobState'
import type { Station } from '../station'

const pressing = (lines: readonly LineState[]) => [['stop', 'stop'], ['tight', 'tight']]
  .map(([grade, says]) => [lines.filter(l => l.grade === grade).length, says] as const)
  .filter(([count]) => count > 0).map(([count, says]) => `${count} ${says}`).join(', ')

/** “All fits” is said only where every output is known to suit what hangs on it: rated, with speakers, nothing against it. */
const fitting = (lines: readonly LineState[]) => {
  const good = lines.filter(l => l.grade === 'good').length
  if (lines.length === 0) return ''
  return good === lines.length ? 'all fits' : good === 0 ? 'not known yet' : `${good} of ${lines.length} known to fit`
}

export const match: Station = {
  name: 'Match', path: '', key: 'v', keySays: 'to the run sheet',
  state: lines => pressing(lines) || fitting(lines),
  isDone: lines => lines.length > 0 && lines.every(l => l.grade === 'good'),
}
