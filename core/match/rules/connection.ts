import { isRated } from '#core/amplifier/index'
import { find, type Rule } from './rule'

/** Is there a load at all, and is the amplifier known. */
export const connection: Rule = (line) => {
  if (line.speakers.length === 0) return [find(line, 'nothing-connected', 'unknown', {})]
  const off = line.speakers.filter(s => s.load.kind === 'tap' && s.load.tapW === 0)
    .map(s => find(line, 'tap-off', 'unknown', { label: s.label }, s.id))
  if (line.head === 'short') return [find(line, 'head-short', 'stop', {})]
  if (line.head === 'open') return [find(line, 'head-open', 'tight', {}), ...off]
  return isRated(line.output.rating) ? off : [find(line, 'amplifier-not-known', 'unknown', { kind: line.kind }), ...off]
}
