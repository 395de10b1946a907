import { labelAgainstCurve, type LabelAgainstCurve } from '#core/network/label'
import { singleLoads } from '#core/network/tree'
import type { Finding } from '../finding'
import { found, type Rule } from './rule'

/** Labels against the curves that are known: what a unit dips to is said, and where the label is another unit's that is a finding on any output. */
export const labels: Rule = (line) => {
  const said = new Map<string, { against: LabelAgainstCurve, labels: string[] }>()
  for (const { label, load } of line.speakers) {
    for (const against of new Set(singleLoads(load).map(labelAgainstCurve))) {
      if (against === null || against.says === 'holds') continue
      const key = `${against.nominalOhm} ${against.lowestOhm}`
      const known = said.get(key)
      if (known) known.labels.push(label)
      else said.set(key, { against, labels: [label] })
    }
  }
  return [...said.values()].map(({ against: { says, nominalOhm, lowestOhm, frequencyHz, judgedOhm }, labels }): Finding => {
    const facts = { labels, nominalOhm, lowestOhm, frequencyHz }
    return says === 'dips'
      ? found(line, { code: 'label-dips', grade: 'unknown', facts })
      : found(line, { code: 'label-contradicts', grade: 'tight', facts: { ...facts, judgedOhm, isUnder: says === 'under' } })
  })
}
