import { writeLength, type Units } from '#core/quantity/units'
import type { ShortPlace } from './shortPlace'

/** Where a pair is shorted: about how far, between which places, not nearer and not farther than what. */
export function shortWords({ lowM, distanceM, highM, after, before }: ShortPlace, units: Units): string {
  const length = (m: number) => writeLength(units === 'metric' ? Math.round(m * 10) / 10 : m, units)
  const span = highM === null ? `${length(lowM)} or farther` : `${length(lowM)} to ${length(highM)}`
  return `As a short it lies about ${length(distanceM)} along, ${span} from the rack: ${after === null ? `before ${before}` : `between ${after} and ${before}`}. Leads nulled, nothing else on the pair: 0.1 Ω is metres.`
}
