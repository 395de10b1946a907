import { writeConductor, type Conductor } from '#core/gear/conductor'
import type { Job, Pair } from '#core/job/schema'
import { same } from '#core/quantity/same'

/** Which conductor of a pair the job takes for plus, by its practice and its exceptions. */

type Practised = Pick<Job, 'practice' | 'colourExceptions'>

/** 0 or 1, by its place in the pair; null where neither the rule nor an exception says: two plain ones, two striped ones. */
export function plusOf(job: Practised, pair: Pair): 0 | 1 | null {
  for (const [plus, minus] of job.colourExceptions) {
    if (same([plus, minus], pair)) return 0
    if (same([minus, plus], pair)) return 1
  }
  const isStriped = pair.map(conductor => conductor.stripe !== '')
  if (isStriped[0] === isStriped[1]) return redOf(pair)
  const striped = isStriped[0] ? 0 : 1
  return job.practice.stripe === 'striped-is-plus' ? striped : striped === 0 ? 1 : 0
}

/** Red is plus beside black, white beside black. Common practice, no source. */
function redOf(pair: Pair): 0 | 1 | null {
  const [a, b] = pair.map(({ base, stripe }) => stripe === '' ? base.trim().toLowerCase() : '')
  if (b === 'black' && (a === 'red' || a === 'white')) return 0
  if (a === 'black' && (b === 'red' || b === 'white')) return 1
  return null
}

/** The pair with its plus first, as far as that is said; as it was given otherwise. */
export function plusFirst(job: Practised, pair: Pair): Pair {
  return plusOf(job, pair) === 1 ? [pair[1], pair[0]] : pair
}

/** "orange with a black stripe". */
export function conductorWords({ base, stripe }: Conductor): string {
  return stripe === '' ? base : `${base} with ${stripe}`
}

export const pairText = (pair: Pair): string => pair.map(writeConductor).join(', ')
