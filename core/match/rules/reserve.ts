import { reserveSchool } from '#core/practice/reserve'
import { find, type Rule } from './rule'

/** A hair of tolerance, so that 200 W on a 250 W amplifier at four fifths is not refused by rounding. */
const HAIR = 1 + 1e-6

/** Taps against the amplifier, by the chosen school of reserve. */
export const reserve: Rule = (line, practice) => {
  const { rating } = line.output
  if (rating.kind !== 'constant-voltage' || rating.powerW === null || !line.tapsW) return []
  const { tapsW } = line
  const ratedW = rating.powerW
  if (tapsW > ratedW * HAIR) return [find(line, 'taps-over-amplifier', 'stop', { tapsW, ratedW })]
  const school = reserveSchool(practice.reserve)
  const wireLossW = line.lostW ?? 0
  const requiredW = school.requiredW({ tapsW, wireLossW })
  if (requiredW <= ratedW * HAIR) {
    return [find(line, 'fits-with-reserve', 'good', { tapsW, ratedW, requiredW, practice: practice.reserve })]
  }
  // All schools are straight lines in the taps, the counted one for small changes too.
  const allowedW = tapsW * ratedW / requiredW
  return [find(line, 'reserve-short', 'tight', { tapsW, ratedW, requiredW, allowedW, practice: practice.reserve })]
}
