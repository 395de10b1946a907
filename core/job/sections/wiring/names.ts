import { isGroup } from '#core/network/tree'
import type { Naming, Reference } from '../section'
import { named } from '../section'
import type { Amplifier, Branch, Group, Output, Speaker, WireNode } from './schema'

/** What the wiring names of other sections: each speaker its kind and its zone. */

type Path = readonly (string | number)[]
const KEYS = [['kindId', 'kind'], ['zoneId', 'zone']] as const

/** Of what an edit brings in or sets. */
export const ofSpeaker = ({ kindId, zoneId }: Partial<Speaker>): Reference[] => [...named('kind', kindId), ...named('zone', zoneId)]
export function ofNode(node: WireNode): Reference[] {
  return isGroup(node) ? node.children.flatMap(child => ofNode(child.node)) : ofSpeaker(node)
}
export const ofOutput = ({ wiring }: Output): Reference[] => ofNode(wiring)

/** Of amplifiers of a document that stand at `path`. */
export function* namedIn(amplifiers: readonly Amplifier[], path: Path): Generator<Naming> {
  for (const [a, { outputs }] of amplifiers.entries()) {
    for (const [o, { wiring }] of outputs.entries()) yield* inGroup(wiring, [...path, a, 'outputs', o, 'wiring'])
  }
}

function* inGroup({ children }: Group, path: Path): Generator<Naming> {
  for (const [k, child] of children.entries()) yield* inBranch(child, [...path, 'children', k])
}

function* inBranch({ node }: Branch, path: Path): Generator<Naming> {
  if (isGroup(node)) return yield* inGroup(node, [...path, 'node'])
  for (const [key, what] of KEYS) {
    const id = node[key]
    if (id !== null) yield { what, id, by: 'speaker', path: [...path, 'node', key] }
  }
}
