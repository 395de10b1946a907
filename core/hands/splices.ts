import type { Conductor } from '#core/gear/conductor'
import { readConductor } from '#core/gear/conductor'
import { partsOf, together, type Edit, type SimpleEdit } from '#core/job/edits'
import type { Job, Output, Pair, SpliceFields, Turn } from '#core/job/schema'
import { UNSTATED_SPLICE } from '#core/job/sections/splices/schema'
import { findOutput, findPlace } from '#core/job/tree'
import { InputError } from '#core/quantity/inputError'
import { same } from '#core/quantity/same'
import { isGroup } from '#core/network/tree'
import type { Group, WireNode } from '#core/job/sections/wiring/schema'

/** What hands say of conductors: which two a lead has, and how they are joined. */

/** What is said of the lead to a node. */
export function spliceAt(job: Pick<Job, 'splices'>, nodeId: string): SpliceFields {
  const found = job.splices.find(s => s.nodeId === nodeId)
  if (!found) return UNSTATED_SPLICE
  const { nodeId: _, ...fields } = found
  return fields
}

/** The edit that says it; null where it is said so already. */
export function saySplice(job: Pick<Job, 'splices'>, nodeId: string, to: Partial<SpliceFields>): Extract<SimpleEdit, { kind: 'splice.set' }> | null {
  const now = spliceAt(job, nodeId) as Record<string, unknown>
  const changed = Object.entries(to).filter(([key, value]) => !same(now[key], value))
  if (changed.length === 0) return null
  return { kind: 'splice.set', nodeId, was: Object.fromEntries(changed.map(([key]) => [key, now[key]])), to: Object.fromEntries(changed) }
}

const EXAMPLES = ['orange, orange/black', 'red, black', 'none']

/**
 * Two conductors as people write them: “orange, orange/black”; a single striped colour stands beside its plain one: “orange/black”.
 * @throws InputError that says what is missing
 */
export function readPair(text: string): Pair | null {
  const typed = text.trim()
  if (typed === '' || /^(none|not known|\?)$/i.test(typed)) return null
  const parts = typed.split(/[,;&+]| and /i).map(part => part.trim()).filter(part => part !== '')
  const conductors = parts.map(conductorOf)
  if (conductors.length === 1 && conductors[0]!.stripe !== '') return [{ base: conductors[0]!.base, stripe: '' }, conductors[0]!]
  if (conductors.length !== 2) throw new InputError(`A pair is two conductors; ${conductors.length === 1 ? 'here is one' : `here are ${conductors.length}`}.`, 0, EXAMPLES)
  if (same(conductors[0], conductors[1])) throw new InputError('Both conductors are written alike: which is which would not be told. Write what tells them apart, as “grey, grey/ridge”.', 0, EXAMPLES)
  return [conductors[0]!, conductors[1]!]
}

/** What a joint is called. @throws InputError where it is too long */
export function readJoint(text: string): string {
  if (text.length > 60) throw new InputError('At most 60 letters: what is written on the box, or where it lies.', 0, ['roof junction'])
  return text
}

/** “orange/black”, “orange with black”, “orange, black stripe” without its comma. */
function conductorOf(text: string): Conductor {
  if (text.split('/').length > 2) throw new InputError(`“${text}” has two strokes: a colour, and one stripe.`, 0, EXAMPLES)
  const { base, stripe } = readConductor(text.replace(/\s+(?:with(?: an?)?|w\/)\s+/i, '/').replace(/\s+stripe$/i, ''))
  if (base === '') throw new InputError(`“${text}” has no colour before its stripe.`, 0, EXAMPLES)
  for (const part of [base, stripe]) if (part.length > 30) throw new InputError(`“${part.slice(0, 20)}…” is too long for a colour: at most 30 letters.`, 0, EXAMPLES)
  return { base, stripe }
}

/**
 * Names the pair of a lead. It is drawn as it is meant: plus on plus at both its ends, until somebody says otherwise. What was said of a joint stays.
 * @param pair its plus first; null: its colours are not known after all
 */
export function namePair(job: Pick<Job, 'splices'>, nodeId: string, pair: Pair | null): Edit | null {
  const { start, end } = spliceAt(job, nodeId)
  return saySplice(job, nodeId, pair === null ? { pair } : { pair, start: start ?? 'straight', end: end ?? 'straight' })
}

/** How a joint goes on after it is turned over: straight, crossed, and what nobody knew becomes crossed. */
export const turnedOver = (turn: Turn | null): Turn => turn === 'crossed' ? 'straight' : 'crossed'

/** Crosses a pair at the beginning of a lead, at its terminals, or a coil against the others; or uncrosses it. */
export function crossAt(job: Pick<Job, 'amplifiers' | 'splices'>, { at, nodeId, coil }: { at: 'start' | 'end' | 'coil', nodeId: string, coil: number | null }): Edit | null {
  const now = spliceAt(job, nodeId)
  if (at !== 'coil') return saySplice(job, nodeId, { [at]: turnedOver(now[at]) })
  return now.coils && coil !== null ? saySplice(job, nodeId, { coils: now.coils.map((turn, k) => k === coil ? turnedOver(turn) : turn) }) : null
}

/** Every lead behind this one along its run that has no name yet has the same pair: one cable runs on. */
export function runsOn(job: Job, nodeId: string): Edit | null {
  const { pair } = spliceAt(job, nodeId)
  const place = findPlace(job, nodeId)
  if (!pair || !place) return null
  const behind = place.parent.children.slice(place.index + 1)
  return together(behind.flatMap(({ node }) => spliceAt(job, node.id).pair ? [] : partsOf(namePair(job, node.id, pair)!)))
}

/** What is said of one line said of another that is built alike, place for place; what is said there already stays. */
export function likeLine(job: Job, fromId: string, toId: string): Edit | null {
  const [from, to] = [findOutput(job, fromId)?.output, findOutput(job, toId)?.output]
  if (!from || !to || from === to) return null
  return together(alike(from.wiring, to.wiring).flatMap(([one, other]) => {
    const said = spliceAt(job, one)
    const there = spliceAt(job, other)
    if (!same(there, UNSTATED_SPLICE)) return []
    // Its joint has a name of its own.
    return saySplice(job, other, { ...said, joint: '' }) ?? []
  }))
}

/** Nodes that stand at the same place of two groups, as far as these are built alike. */
function alike(one: Group | Output['wiring'], other: Group | Output['wiring']): [string, string][] {
  if (one.kind !== other.kind) return []
  return one.children.slice(0, other.children.length).flatMap(({ node }, k): [string, string][] => {
    const beside: WireNode = other.children[k]!.node
    if (isGroup(node) !== isGroup(beside)) return []
    return [[node.id, beside.id], ...isGroup(node) && isGroup(beside) ? alike(node, beside) : []]
  })
}

/** The beginning of the lead to a node goes over to the group that now stands there: its pair, its joint, how it is joined. */
export function splicesToGroup(job: Pick<Job, 'splices'>, nodeId: string, groupId: string): SimpleEdit[] {
  const { joint, pair, start } = spliceAt(job, nodeId)
  const begin = { joint, pair, start }
  if (same(begin, { joint: '', pair: null, start: null })) return []
  const none = { joint: '', pair: null, start: 'straight' as const }
  return [
    { kind: 'splice.set', nodeId: groupId, was: { joint: '', pair: null, start: null }, to: begin },
    // Inside, the node stands where the group begins: nothing is crossed between.
    { kind: 'splice.set', nodeId, was: begin, to: none },
  ]
}
