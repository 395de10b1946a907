import { JobError } from '../../jobError'
import { countOf, depthOf } from '../../tree'
import { DEEPEST, MOST_NODES, type Amplifier } from './schema'

/** What the schema cannot say of the wiring as a whole: how deep it nests, how much it is. @throws JobError */
export function checkWiring(amplifiers: readonly Amplifier[]): void {
  let nodes = 0
  for (const { outputs } of amplifiers) {
    for (const { wiring, label } of outputs) {
      nodes += countOf(wiring)
      if (depthOf(wiring) > DEEPEST) throw new JobError(`The wiring of ${label} nests deeper than ${DEEPEST} levels.`, 'amplifiers')
    }
  }
  if (nodes > MOST_NODES) throw new JobError(`More than ${MOST_NODES} speakers and groups.`, 'amplifiers')
}
