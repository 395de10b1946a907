import { singleLoads, type SingleLoad } from '#core/network/tree'
import { isKnownThroughout } from '#core/network/label'
import type { LineFacts } from '../facts'
import { found, type Rule } from './rule'

type Measured = Extract<SingleLoad, { kind: 'curve' }>

/** What measured curves do not say: where they end, and their phase where none was measured. Both are taken as something; here it is named. */
export const curves: Rule = (line) => {
  const measured = measuredOf(line)
  const ends = measured.filter(({ curve }) => !isKnownThroughout(curve))
  const without = measured.filter(({ curve: { points } }) => points.some(p => p[2] === null))
  const labels = (of: typeof measured) => [...new Set(of.map(m => m.label))]
  const fromHz = Math.max(...ends.map(m => m.curve.points[0]![0]))
  const toHz = Math.min(...ends.map(m => m.curve.points.at(-1)![0]))
  return [
    ...(ends.length === 0 ? [] : [found(line, { code: 'curve-ends', grade: 'unknown', facts: { labels: labels(ends), fromHz, toHz } })]),
    ...(without.length === 0 ? [] : [found(line, { code: 'curve-without-phase', grade: 'unknown', facts: { labels: labels(without) } })]),
  ]
}

function measuredOf(line: LineFacts): { label: string, curve: Measured }[] {
  return line.speakers.flatMap(({ label, load }) => singleLoads(load).flatMap(single => single.kind === 'curve' ? [{ label, curve: single }] : []))
}
