import { believedOf } from '#core/hands/kinds'
import { found, type Rule } from './rule'

/** Where watts go by a rating that somebody believes more than the sheet, that is said: once for each kind on the line. */
export const believed: Rule = (line, { kinds }) => kinds.flatMap((kind) => {
  const own = line.speakers.filter(s => s.kindId === kind.id && believedOf(kind, s) !== null)
  const [first] = own
  return first ? [found(line, { code: 'rating-believed', grade: 'unknown', facts: { labels: own.map(s => s.label), ...believedOf(kind, first)! } })] : []
})
