import { valveOf } from '#core/amplifier/index'
import { cures, lineAfter, type RemedyMaker } from './remedy'

/** The tap that the load is made for. */
export const valveTap: RemedyMaker = ({ job, line, finding }) => {
  const rating = valveOf(line.output.rating)
  if (!rating || (finding.code !== 'valve-tap-not-known' && finding.code !== 'valve-low' && finding.code !== 'valve-high')) return []
  const { bestOhm, loadOhm } = finding.facts
  if (bestOhm === null || bestOhm === rating.tapOhm) return []
  const edit = { kind: 'output.set' as const, outputId: line.outputId, was: { rating: line.output.rating }, to: { rating: { ...rating, tapOhm: bestOhm } } }
  return cures(lineAfter(job, line.outputId, edit), finding) ? [{ code: 'valve-tap', facts: { code: 'valve-tap', tapOhm: bestOhm, loadOhm }, edit }] : []
}
