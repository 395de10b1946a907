import { sure } from '#core/quantity/known'
import { asWired, isGroup } from '#core/network/tree'
import type { Cable } from '#core/quantity/cable'
import type { Amplifier, Branch, Chain, Group, Job, LineThrough, Output, Speaker, WireNode } from './schema'

/** Walks over the job's wiring. All pure; those that change return new objects along the changed path and share the rest. */

export function outputsOf(job: Pick<Job, 'amplifiers'>): Output[] {
  return job.amplifiers.flatMap(amplifier => amplifier.outputs)
}

export function findOutput(job: Pick<Job, 'amplifiers'>, outputId: string): { amplifier: Amplifier, output: Output } | null {
  for (const amplifier of job.amplifiers) {
    const output = amplifier.outputs.find(o => o.id === outputId)
    if (output) return { amplifier, output }
  }
  return null
}

/** An output that is known to be there. @throws Error where it is not */
export const outputOf = (job: Pick<Job, 'amplifiers'>, outputId: string) => sure(findOutput(job, outputId), `output “${outputId}”`)

/** The place of a node that is known to be there. @throws Error where it is not */
export const placeOf = (job: Pick<Job, 'amplifiers'>, nodeId: string): Place => sure(findPlace(job, nodeId), `place of “${nodeId}”`)

/** Speakers of a tree in wiring order. */
export function speakersOf(node: WireNode | Chain): Speaker[] {
  if (!isGroup(node)) return [node]
  return node.children.flatMap(child => speakersOf(child.node))
}

/** Coils or drivers of a speaker: of those that share its terminals, and of a unit whose coils each have their own. One for a plain one. */
export function coilCount(load: Speaker['load']): number {
  if (load.kind === 'coil') return load.of
  const wired = asWired(load)
  return wired.kind === 'members' ? wired.members.length : 1
}

/** Every speaker of a job, rail by rail in wiring order. */
export function allSpeakers(job: Job): Speaker[] {
  return outputsOf(job).flatMap(o => speakersOf(o.wiring))
}

/** Every branch below a group, parents before children. */
export function branchesOf(group: Group | Chain): Branch[] {
  return group.children.flatMap(branch => [branch, ...(isGroup(branch.node) ? branchesOf(branch.node) : [])])
}

/** Every control and transformer of a line, in wiring order, with the group that hangs behind it. */
export function throughsIn(wiring: Group | Chain): { group: Group, through: LineThrough }[] {
  return branchesOf(wiring).flatMap(({ node }) => isGroup(node) && node.through ? [{ group: node, through: node.through }] : [])
}

/** The same of a whole job, rail by rail. */
export function throughsOf(job: Pick<Job, 'amplifiers'>): { group: Group, through: LineThrough }[] {
  return outputsOf(job).flatMap(o => throughsIn(o.wiring))
}

export interface Place { output: Output, parent: Group, index: number, branch: Branch }

/** Where a node hangs; null for the root chains and for what is not there. */
export function findPlace(job: Pick<Job, 'amplifiers'>, nodeId: string): Place | null {
  for (const { outputs } of job.amplifiers) {
    for (const output of outputs) {
      const place = placesIn(output.wiring).get(nodeId)
      if (place) return { output, ...place }
    }
  }
  return null
}

type PlaceIn = Omit<Place, 'output'>
/** Places of every node below a root chain, by id, remembered by the chain itself: a line that no edit touches is never walked again. */
const remembered = new WeakMap<Group | Chain, ReadonlyMap<string, PlaceIn>>()

function placesIn(wiring: Chain): ReadonlyMap<string, PlaceIn> {
  let places = remembered.get(wiring)
  if (!places) {
    const found = new Map<string, PlaceIn>()
    const visit = (parent: Group) => {
      parent.children.forEach((branch, index) => {
        found.set(branch.node.id, { parent, index, branch })
        if (isGroup(branch.node)) visit(branch.node)
      })
    }
    visit(wiring)
    places = found
    remembered.set(wiring, places)
  }
  return places
}

export function findSpeaker(job: Job, nodeId: string): { output: Output, speaker: Speaker } | null {
  const place = findPlace(job, nodeId)
  return place && place.branch.node.kind === 'speaker' ? { output: place.output, speaker: place.branch.node } : null
}

/** The group of this id, a root chain included; null when there is none. */
export function findGroup(job: Job, groupId: string): { output: Output, group: Group } | null {
  for (const output of outputsOf(job)) {
    if (output.wiring.id === groupId) return { output, group: output.wiring }
  }
  const place = findPlace(job, groupId)
  return place && isGroup(place.branch.node) ? { output: place.output, group: place.branch.node } : null
}

/** The job with one output replaced; every other output keeps its identity, which is what evaluation is cached by. */
export function withOutput(job: Job, outputId: string, change: (output: Output) => Output): Job {
  return {
    ...job,
    amplifiers: job.amplifiers.map(amplifier => amplifier.outputs.some(o => o.id === outputId)
      ? { ...amplifier, outputs: amplifier.outputs.map(o => o.id === outputId ? change(o) : o) }
      : amplifier),
  }
}

/** The job with the children of one group (or root chain) replaced. The group must exist. */
export function withChildren(job: Job, groupId: string, change: (children: Branch[]) => Branch[]): Job {
  const { output } = findGroup(job, groupId)!
  return withOutput(job, output.id, o => ({ ...o, wiring: rewrite(o.wiring, groupId, change) as Chain }))
}

function rewrite(group: Group, groupId: string, change: (children: Branch[]) => Branch[]): Group {
  if (group.id === groupId) return { ...group, children: change(group.children) }
  let touched = false
  const children = group.children.map((branch) => {
    if (!isGroup(branch.node)) return branch
    const node = rewrite(branch.node, groupId, change)
    if (node === branch.node) return branch
    touched = true
    return { ...branch, node }
  })
  return touched ? { ...group, children } : group
}

/** The job with one branch (lead and node) replaced. The node must exist. */
export function withBranch(job: Job, nodeId: string, change: (branch: Branch) => Branch): Job {
  const { parent } = placeOf(job, nodeId)
  return withChildren(job, parent.id, children => children.map(b => b.node.id === nodeId ? change(b) : b))
}

/** Every id in the wiring: amplifiers, outputs, nodes. */
export function wiringIds({ amplifiers }: Pick<Job, 'amplifiers'>): string[] {
  return amplifiers.flatMap(a => [a.id, ...a.outputs.flatMap(outputIds)])
}

/** Whether anything in the wiring bears this id. */
export function isInWiring(job: Pick<Job, 'amplifiers'>, id: string): boolean {
  return job.amplifiers.some(a => a.id === id || a.outputs.some(o => o.id === id || o.wiring.id === id || placesIn(o.wiring).has(id)))
}

export function outputIds(output: Output): string[] {
  return [output.id, ...nodeIds(output.wiring)]
}

/** Ids of a node and of all below it. */
export function nodeIds(node: WireNode | Chain): string[] {
  return [node.id, ...(isGroup(node) ? branchesOf(node).map(b => b.node.id) : [])]
}

/** How deep groups nest below a root chain. */
export function depthOf(node: WireNode | Chain): number {
  if (!isGroup(node)) return 0
  let deepest = 0
  for (const { node: inner } of node.children) if (isGroup(inner)) deepest = Math.max(deepest, depthOf(inner))
  return 1 + deepest
}

/** Speakers and groups below a root chain. */
export function countOf(group: Group | Chain): number {
  let count = group.children.length
  for (const { node } of group.children) if (isGroup(node)) count += countOf(node)
  return count
}

/** Cables that are stated, by length and size, and that are not. */
export interface CableStated { stated: number, missing: number }

/** Along a chain every length counts; members of a series or a star may stand at one place, and so may a control and the first behind it. */
export function cableStated(node: Chain | WireNode): CableStated {
  if (!isGroup(node)) return { stated: 0, missing: 0 }
  return node.children.reduce((sum, branch: Branch, k) => {
    const isRun = node.kind === 'chain' && !(k === 0 && 'through' in node && node.through)
    const below = cableStated(branch.node)
    return {
      stated: sum.stated + below.stated + (branch.lead?.cable ? 1 : 0),
      missing: sum.missing + below.missing + ((branch.lead ? branch.lead.cable === null : isRun) ? 1 : 0),
    }
  }, { stated: 0, missing: 0 })
}

/** The size of cable that a line is drawn in: that of its first length of a stated one; null for none. */
export function cableOn(wiring: Group | Chain): Cable | null {
  return branchesOf(wiring).find(b => b.lead?.cable)?.lead?.cable ?? null
}
