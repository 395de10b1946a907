import { found, type Rule } from './rule'

/** Numbers that several speakers of one line bear: readings and labels of one would be taken for the other's. Nothing is wrong with the load. */
export const repeated: Rule = (line) => {
  const counts = new Map<string, number>()
  for (const { label } of line.speakers) counts.set(label, (counts.get(label) ?? 0) + 1)
  const labels = [...counts].filter(([, count]) => count > 1).map(([label]) => label)
  return labels.length === 0 ? [] : [found(line, { code: 'labels-repeat', grade: 'unknown', facts: { labels } })]
}
