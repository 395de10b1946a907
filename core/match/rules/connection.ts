import { isRated } from '#core/amplifier/index'
import { found, type Rule } from './rule'

/** Is there a load at all, and is the amplifier known. */
export const connection: Rule = (line) => {
  if (line.speakers.length === 0) return [found(line, { code: 'nothing-connected', grade: 'unknown', facts: {} })]
  const off = line.speakers.filter(s => s.load.kind === 'tap' && s.load.tapW === 0)
    .map(s => found(line, { code: 'tap-off', grade: 'unknown', facts: { label: s.label } }, s.id))
  if (line.head === 'short') return [found(line, { code: 'head-short', grade: 'stop', facts: {} })]
  if (line.head === 'open') return [found(line, { code: 'head-open', grade: 'tight', facts: {} }), ...off]
  return isRated(line.output.rating) ? off : [found(line, { code: 'amplifier-not-known', grade: 'unknown', facts: { kind: line.kind } }), ...off]
}
