import { contradictionsOf, isRated } from '#core/amplifier/index'
import { found, type Rule } from './rule'

/** Is there a load at all, can current reach all of it, and is the amplifier known, by figures that agree with each other. */
export const connection: Rule = (line) => {
  const { rating } = line.output
  const odd = contradictionsOf(rating).map(facts => found(line, { code: 'rating-contradicts', grade: 'unknown', facts }))
  if (line.speakers.length === 0) return [found(line, { code: 'nothing-connected', grade: 'unknown', facts: {} }), ...odd]
  const off = line.speakers.filter(s => s.load.kind === 'tap' && s.load.tapW === 0)
    .map(s => found(line, { code: 'tap-off', grade: 'unknown', facts: { label: s.label } }, s.id))
  if (line.upHead === 'short') return [found(line, { code: 'head-short', grade: 'stop', facts: {} }), ...odd]
  if (line.upHead === 'open') return [found(line, { code: 'head-open', grade: 'tight', facts: {} }), ...off, ...odd]
  const dead = line.dead.map(s => found(line, { code: 'dead-member', grade: 'tight', facts: { label: s.label } }, s.id))
  const unknown = isRated(rating) ? [] : [found(line, { code: 'amplifier-not-known', grade: 'unknown', facts: { kind: line.kind } })]
  return [...dead, ...unknown, ...off, ...odd]
}
