import { JobError } from '../../jobError'
import { isGroup } from '#core/network/tree'
import { countOf, depthOf } from '../../tree'
import { DEEPEST, MOST_NODES, type Amplifier, type Group, type LineThrough } from './schema'

/** What the schema cannot say of the wiring as a whole: how deep it nests, how much it is, what stands behind what. @throws JobError */
export function checkWiring(amplifiers: readonly Amplifier[], path = 'amplifiers'): void {
  let nodes = 0
  for (const { outputs } of amplifiers) {
    for (const { wiring, label } of outputs) {
      nodes += countOf(wiring)
      checkThroughs(wiring, [], label, path)
      if (depthOf(wiring) > DEEPEST) throw new JobError(`The wiring of ${label} nests deeper than ${DEEPEST} levels.`, path)
    }
  }
  if (nodes > MOST_NODES) throw new JobError(`More than ${MOST_NODES} speakers and groups.`, path)
}

/** A branch behind two controls has two hands on one level; a transformer behind a transformer has no line to stand on. Common practice, no source. */
function checkThroughs(group: Group, above: readonly LineThrough[], output: string, path: string): void {
  const { through } = group
  if (through) {
    const first = above.find(t => t.kind === through.kind)
    if (first && through.kind === 'control') throw new JobError(`On ${output}, ${through.label} would stand behind ${first.label}: a control behind a control has two hands on one level. Put it beside, or take one out.`, path)
    if (first) throw new JobError(`On ${output}, ${through.label} would stand behind ${first.label}: a line transformer wants the line itself.`, path)
  }
  const all = through ? [...above, through] : above
  for (const { node } of group.children) if (isGroup(node)) checkThroughs(node, all, output, path)
}
