import { lineKindOf, ratedW } from '#core/amplifier/index'
import { reserveSchool } from '#core/schools/reserve'
import { exceeds } from '#core/quantity/tolerance'
import { allowedTapsW } from '../allowance'
import { found, type Rule } from './rule'

/** Taps against the amplifier, by the chosen school of reserve. */
export const reserve: Rule = (line, { practice }) => {
  const rated = ratedW(line.output.rating)
  const { drawW, counted } = line
  if (lineKindOf(line.output.rating) !== 'constant-voltage' || rated === null || !drawW || !counted) return []
  if (exceeds(drawW, rated)) return [found(line, { code: 'taps-over-amplifier', grade: 'stop', facts: { drawW, ratedW: rated } })]
  const requiredW = reserveSchool(practice.reserve).requiredW(counted)
  const facts = { drawW, ratedW: rated, requiredW, practice: practice.reserve }
  return exceeds(requiredW, rated)
    ? [found(line, { code: 'reserve-short', grade: 'tight', facts: { ...facts, allowedW: allowedTapsW(line, practice)! } })]
    : [found(line, { code: 'fits-with-reserve', grade: 'good', facts })]
}
