import { writeLength, type Units } from '#core/quantity/units'
import type { ShortPlace } from './shortPlace'

const between = ({ after, before }: ShortPlace): string => after === null ? `before ${before}` : `between ${after} and ${before}`
/** So many other places are named. */
const NAMED = 3

/** Where a pair is shorted: about how far, between which places, not nearer and not farther than what; and where else it may be, where the line branches. */
export function shortWords([place, ...others]: readonly [ShortPlace, ...ShortPlace[]], units: Units): string {
  const { lowM, distanceM, highM } = place
  const length = (m: number) => writeLength(units === 'metric' ? Math.round(m * 10) / 10 : m, units)
  const span = highM === null ? `${length(lowM)} or farther` : `${length(lowM)} to ${length(highM)}`
  const more = others.length > NAMED ? `, or at ${others.length - NAMED} places more` : ''
  const or = others.length === 0 ? '' : `, or ${others.slice(0, NAMED).map(o => `${between(o)} (about ${length(o.distanceM)})`).join(', or ')}${more}: the line branches, open a joint and read again`
  return `As a short it lies about ${length(distanceM)} along, ${span} from the rack: ${between(place)}${or}. Leads nulled, nothing else on the pair: 0.1 Ω is metres.`
}
