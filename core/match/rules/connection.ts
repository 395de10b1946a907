import { isRated } from '#core/amplifier/index'
import { found, type Rule } from './rule'

/** Is there a load at all, and is the amplifier known. */
export const connection: Rule = (line) => {
  if (line.speakers.length === 0) return [found(line, 'nothing-connected', 'unknown', {})]
  const off = line.speakers.filter(s => s.load.kind === 'tap' && s.load.tapW === 0)
    .map(s => found(line, 'tap-off', 'unknown', { label: s.label }, s.id))
  if (line.head === 'short') return [found(line, 'head-short', 'stop', {})]
  if (line.head === 'open') return [found(line, 'head-open', 'tight', {}), ...off]
  return isRated(line.output.rating) ? off : [found(line, 'amplifier-not-known', 'unknown', { kind: line.kind }), ...off]
}
