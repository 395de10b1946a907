import { byId } from '#core/quantity/known'
import { same } from '#core/quantity/same'
import { addOutput, type NewId } from '#core/hands/intents'
import { joinChannels } from '#core/hands/channels'
import { partsOf, together, type Edit, type SimpleEdit } from '#core/job/edits'
import { Sequence } from '#core/hands/many/many'
import type { Branch, Job, Output, Speaker } from '#core/job/schema'
import { branchesOf, findOutput, speakersOf, outputOf } from '#core/job/tree'
import { labelledOhm } from '#core/network/element'
import type { LineFacts } from '#core/line/facts'
import type { WiringsAsked } from './finder'
import type { Network } from './network'

/** Speakers of a line as the finder asks for them, and the line wired as it found. */

export type NotAsked = 'transformer-line' | 'nothing' | 'control' | 'unknown'
export const NOT_ASKED_WORDS: Record<NotAsked, string> = {
  'transformer-line': 'Speakers of a transformer line hang in parallel: there is nothing to find.', 'nothing': 'No speaker hangs on this line.',
  'control': 'A control or a transformer stands on this line: take it out first.', 'unknown': 'The ohms of a speaker here are not known.',
}

export type Units = (WiringsAsked['units'][number] & { speakers: Speaker[] })[]
type Asked = Pick<LineFacts, 'output' | 'kind' | 'speakers' | 'throughs'>
/** Whether a unit of several coils hangs there, which may be wired one by one. */
export const hasCoils = ({ speakers }: Asked): boolean => speakers.some(s => s.load.kind === 'members')

/**
 * What hangs on a line, equals together in the order of the line. `coilsAlone`: of units with several coils each by itself, its terminals brought out; the
 * first keeps the id of its unit, the others get theirs where they are wired.
 */
export function unitsOf({ output, kind, speakers, throughs }: Asked, coilsAlone = false): Units | NotAsked {
  if (speakers.length === 0) return 'nothing'
  if (kind === 'constant-voltage') return 'transformer-line'
  if (throughs.length > 0) return 'control'
  const units = new Map<string, Units[number]>()
  for (const speaker of speakersOf(output.wiring).flatMap(s => coilsAlone ? coilsOf(s) : [s])) {
    const ohm = labelledOhm(speaker.load)
    if (ohm === null) return 'unknown'
    const key = `${ohm} ${speaker.continuousW}`
    const unit = units.get(key) ?? { ohm, count: 0, weight: 1, ratingW: speaker.continuousW, speakers: [] }
    units.set(key, { ...unit, count: unit.count + 1, speakers: [...unit.speakers, speaker] })
  }
  return [...units.values()]
}

const LETTERS = 'abcdefghijklmnop'
function coilsOf(speaker: Speaker): Speaker[] {
  const { load, id, label, continuousW } = speaker
  if (load.kind !== 'members') return [speaker]
  const of = load.members.length
  return load.members.map((coil, k) => ({
    ...speaker, id: k === 0 ? id : '', label: `${label}${LETTERS[k]}`.slice(-24), load: { kind: 'coil', unit: label, of, coil }, continuousW: continuousW === null ? null : continuousW / of,
  }))
}

/** Parts of the power as somebody wants them: all the same, as each is rated, or as they are said, a number a kind. */
export function weighted<U extends { ratingW: number | null }>(units: readonly U[], shares: 'same' | 'ratings' | readonly number[]): (U & { weight: number })[] | null {
  if (shares === 'ratings') return units.every(u => u.ratingW !== null) ? units.map(u => ({ ...u, weight: u.ratingW! })) : null
  return units.map((u, k) => ({ ...u, weight: shares === 'same' ? 1 : shares[k] ?? 1 }))
}

/**
 * The speakers of an output wired as a network says, once on each of so many outputs of its amplifier: free ones are taken, else added. The cable that leads to
 * a speaker stays with it; that of the first of a group leads to the group. Bridged, each takes the channel beside it; a sentence where that cannot be.
 */
export function rewire(
  job: Job, outputId: string, units: Units, network: Network, { channels, isBridged = false }: { channels: number, isBridged?: boolean }, newId: NewId,
): { edit: Edit | null, outputIds: string[] } | string {
  const found = findOutput(job, outputId)
  if (!found) return { edit: null, outputIds: [] }
  const leads = new Map(branchesOf(found.output.wiring).map(b => [b.node.id, b.lead]))
  const waiting = units.map(u => [...u.speakers])
  const branch = (n: Network): Branch => {
    if (n.kind === 'one') {
      const speaker = waiting[n.unit]!.shift()!
      return { lead: leads.get(speaker.id) ?? null, node: speaker.id === '' ? { ...speaker, id: newId() } : speaker }
    }
    const [first, ...rest] = n.parts.map(branch)
    return { lead: first!.lead, node: { kind: n.kind === 'series' ? 'series' : 'star', id: newId(), children: [{ ...first!, lead: null }, ...rest] } }
  }
  const sequence = new Sequence(job)
  for (const was of found.output.wiring.children) sequence.do({ kind: 'node.remove', nodeId: was.node.id, was })
  const outputIds: string[] = []
  for (let k = 0; k < channels; k++) {
    const id = k === 0 ? outputId : freeOutput(sequence, found.amplifier.id, outputIds, found.output, newId)
    outputIds.push(id)
    if (isBridged) {
      const joined = joinChannels(sequence.job, id, 'bridged', newId)
      if (typeof joined === 'string') return joined
      for (const edit of joined ? partsOf(joined) : []) sequence.do(edit)
    }
    const { wiring } = outputOf(sequence.job, id).output
    const hung = network.kind === 'parallel' ? network.parts : [network]
    hung.forEach((part, index) => sequence.do({ kind: 'node.add', parentId: wiring.id, index, branch: branch(part) }))
  }
  return { edit: together(sequence.edits), outputIds }
}

/** The next output of the amplifier on which nothing hangs, rated like the first; one more where there is none. */
function freeOutput(sequence: Sequence, amplifierId: string, taken: readonly string[], like: Output, newId: NewId): string {
  const { outputs } = byId(sequence.job.amplifiers, amplifierId)
  const free = outputs.find(o => !taken.includes(o.id) && o.wiring.children.length === 0)
  if (free) {
    const set: SimpleEdit = { kind: 'output.set', outputId: free.id, was: { rating: free.rating }, to: { rating: like.rating } }
    if (!same(free.rating, like.rating)) sequence.do(set)
    return free.id
  }
  const added = addOutput(sequence.job, amplifierId, newId)!
  sequence.do(added.edit.kind === 'output.add' ? { ...added.edit, output: { ...added.edit.output, rating: like.rating } } : added.edit)
  return added.outputId
}
