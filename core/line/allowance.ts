import { ratedW } from '#core/amplifier/index'
import type { Practice } from '#core/job/schema'
import { reserveSchool } from '#core/schools/reserve'
import type { LineFacts } from './facts'
import type { Requirement } from './requirements'

/** What the taps of a line may draw on its output, by the chosen school, W; null where draw or rating are not known. */
export function allowedTapsW(line: Pick<LineFacts, 'output' | 'counted'>, practice: Practice): number | null {
  const rated = ratedW(line.output.rating)
  if (rated === null || !line.counted?.tapsW) return null
  // All schools are straight lines in the taps, the counted one for small changes too.
  return line.counted.tapsW * rated / reserveSchool(practice.reserve).requiredW(line.counted)
}

/** What an output has left above what the chosen school asks for its line, W; negative where it asks for more; null where it is not known. */
export function spareW(line: { output: LineFacts['output'], required: readonly Requirement[] }): number | null {
  const rated = ratedW(line.output.rating)
  return rated === null ? null : rated - (line.required.find(r => r.chosen)?.powerW ?? 0)
}
