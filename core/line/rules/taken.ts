import { isTakenAs } from '#core/hands/takenAs'
import { found, type Rule } from './rule'

/** What stands for a part of which nothing is known yet: all that is said of its line is said of a guess. */
export const taken: Rule = (line) => {
  const labels = [...line.speakers.filter(isTakenAs).map(s => s.label), ...line.throughs.flatMap(({ through }) => isTakenAs(through) ? [through.label] : [])]
  return labels.length === 0 ? [] : [found(line, { code: 'taken-as', grade: 'unknown', facts: { labels } })]
}
