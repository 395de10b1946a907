import type { HarnessModel, Way } from '#core/gear/harness'
import { partsOf, together, type Edit, type SimpleEdit } from '#core/job/edits'
import { applyEdit } from '#core/job/apply'
import { runsOn, saySplice, spliceAt } from '#core/hands/splices'
import type { Amplifier, Job, Output, Pair } from '#core/job/schema'
import { MOST_EXCEPTIONS } from '#core/job/sections/splices/schema'
import { same } from '#core/quantity/same'
import { plusOf } from './plus'

/** The map of a harness or of a printed list of terminals, put to an amplifier of the job, and made of one: typed once, kept in the library, used again. */

const plain = (text: string) => text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, ' ').trim()
const namesOf = ({ label, name }: Output) => [label, name, `${label} ${name}`].map(plain).filter(text => text !== '')

/**
 * Which output each way leads to, as far as names say it: a proposal, for a person to look at. Where no name says anything, in order.
 * @returns an id of an output for each way of the map, null for none
 */
export function waysTo({ outputs }: Amplifier, { ways }: Pick<HarnessModel, 'ways'>): (string | null)[] {
  const taken = new Set<string>()
  const byName = ways.map((way) => {
    const found = outputs.find(o => !taken.has(o.id) && namesOf(o).includes(plain(way.name)))
    if (found) taken.add(found.id)
    return found?.id ?? null
  })
  return taken.size > 0 ? byName : ways.map((_, k) => outputs[k]?.id ?? null)
}

/** The lead that begins at the terminals of an output. */
const firstLead = ({ wiring }: Output) => wiring.children[0]?.node.id ?? null

/**
 * What a map says, said of the outputs that its ways lead to: what is printed beside their terminals, and the pair of the lead that begins there, its plus on
 * plus. Where the rule of the job takes the other conductor for plus, that pair becomes an exception.
 * @param to an output for each way of the map; null leaves that way out
 * @param goesOn whether the same pair is named all along the line behind it
 */
export function putMap(job: Job, { ways }: Pick<HarnessModel, 'ways'>, to: readonly (string | null)[], goesOn: boolean): Edit | null {
  const edits: SimpleEdit[] = []
  let current = job
  const put = (edit: Edit | null) => {
    for (const part of edit ? partsOf(edit) : []) {
      current = applyEdit(current, part).job
      edits.push(part)
    }
  }
  for (const [k, way] of ways.entries()) {
    const output = job.amplifiers.flatMap(a => a.outputs).find(o => o.id === to[k])
    if (!output) continue
    put(terminalsOf(output, way))
    const nodeId = firstLead(output)
    if (way.pair === null || nodeId === null) continue
    put(exceptionFor(current, way.pair))
    put(saySplice(current, nodeId, { pair: way.pair, start: 'straight', end: spliceAt(current, nodeId).end ?? 'straight' }))
    if (goesOn) put(runsOn(current, nodeId))
  }
  return together(edits)
}

function terminalsOf(output: Output, { terminals }: Way): SimpleEdit | null {
  if (terminals === null) return null
  const to = { plus: terminals[0], minus: terminals[1], connector: output.terminals?.connector ?? null }
  return same(to, output.terminals) ? null : { kind: 'output.set', outputId: output.id, was: { terminals: output.terminals }, to: { terminals: to } }
}

function exceptionFor(job: Job, pair: Pair): SimpleEdit | null {
  if (plusOf(job, pair) === 0) return null
  const others = job.colourExceptions.filter(e => !same(e, pair) && !same([e[1], e[0]], pair))
  return others.length >= MOST_EXCEPTIONS ? null : { kind: 'colours.set', was: job.colourExceptions, to: [...others, pair] }
}

/** Which conductor lies on which terminal of an output, the one on plus first; null: not known. */
export function pairAt(job: Pick<Job, 'splices'>, output: Output): Pair | null {
  const nodeId = firstLead(output)
  const { pair, start } = nodeId === null ? { pair: null, start: null } : spliceAt(job, nodeId)
  return pair === null || start === null ? null : start === 'straight' ? pair : [pair[1], pair[0]]
}

/** A map of what is known of an amplifier's outputs, for the library; null where nothing of it is known. */
export function mapOf(job: Pick<Job, 'splices'>, amplifier: Amplifier): Pick<HarnessModel, 'ways'> | null {
  const taken = new Set<string>()
  const ways = amplifier.outputs.flatMap((output): Way[] => {
    const pair = pairAt(job, output)
    const terminals = output.terminals && output.terminals.plus !== '' && output.terminals.minus !== '' ? [output.terminals.plus, output.terminals.minus] as [string, string] : null
    if (pair === null && terminals === null) return []
    const wanted = (output.name.trim() || output.label).replace(/[;=[\]\n]+/g, ' ').slice(0, 60).trim() || output.label
    const name = taken.has(wanted.toLowerCase()) ? `${output.label} ${wanted}`.slice(0, 60).trim() : wanted
    taken.add(name.toLowerCase())
    return [{ name, terminals, pair }]
  })
  return ways.length === 0 ? null : { ways }
}
