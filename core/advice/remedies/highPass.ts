import { findOutput } from '#core/job/tree'
import { USUAL_CORNER_HZ } from '#core/line/rules/highPass'
import type { RemedyMaker } from './remedy'

/** A high-pass in the plan of the amplifier. */
export const highPass: RemedyMaker = ({ job, line, finding }) => {
  const amplifier = findOutput(job, line.outputId)?.amplifier
  if (finding.code !== 'no-high-pass' || !amplifier) return []
  return [{
    code: 'high-pass', facts: { code: 'high-pass', amplifier: amplifier.name, hz: USUAL_CORNER_HZ },
    edit: { kind: 'amplifier.set', amplifierId: amplifier.id, was: { highPassHz: amplifier.highPassHz }, to: { highPassHz: USUAL_CORNER_HZ } },
  }]
}
