import type { Output, ReadingValue, Speaker } from '#core/job/schema'
import { howFacts } from '#core/job/sections/readings/hows'
import { neighboursOf, usualHow, useHow } from './polarityTaken'

/** The right way round, found out as it was last, beside the usual neighbour where it takes one. */
export function rightWay(output: Output, speaker: Speaker): ReadingValue {
  const neighbours = neighboursOf(output, speaker.id)
  const how = usualHow(useHow().kept.value['polarity-heard'], 'polarity-heard', { output, speaker, hasNeighbour: neighbours.length > 0 })
  return { is: 'right-way', how, against: howFacts(how).proves === 'agreement' ? neighbours[0]?.id ?? null : null }
}
