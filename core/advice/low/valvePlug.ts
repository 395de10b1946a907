import { bestTap, tapFit, valveOf, type TapFit } from '#core/amplifier/index'
import { METER_HZ } from '#core/check/readingBands'
import { partsOf, together, type Edit, type SimpleEdit } from '#core/job/edits'
import type { Amplifier, Output, Speaker } from '#core/job/schema'
import { speakersOf } from '#core/job/tree'
import { asLabelled } from '#core/network/element'
import { headOf } from '#core/network/line'
import { isGroup } from '#core/network/tree'
import { writeQuantity } from '#core/quantity/write'

/** How cabinets are plugged to a valve output: which tap, which jack, which position of the switch. */

type Cabinet = Extract<Speaker['load'], { kind: 'cabinet' }>
/** Ways that are looked through: three cabinets of eight positions. */
const MOST_WAYS = 512

export interface Plugged { tapOhm: number, loadOhm: number, fit: TapFit, positions: { nodeId: string, label: string, at: number }[] }

/**
 * Every way to plug the cabinets of a line as it is wired, each on its best tap, the best matched first; positions that drive half of a
 * cabinet are left out.
 */
export function plugWays(output: Output): Plugged[] {
  const rating = valveOf(output.rating)
  if (!rating) return []
  const cabinets = speakersOf(output.wiring).filter((s): s is Speaker & { load: Cabinet } => s.load.kind === 'cabinet')
  const choices = cabinets.map(c => c.load.positions.flatMap((p, at) => p.plays === 'all' ? [at] : []))
  if (choices.some(c => c.length === 0) || choices.reduce((n, c) => n * c.length, 1) > MOST_WAYS) return []
  const ways = choices.reduce<number[][]>((all, own) => all.flatMap(way => own.map(at => [...way, at])), [[]])
  return ways.flatMap((way): Plugged[] => {
    const ats = new Map(cabinets.map((c, k) => [c.id, way[k]!]))
    const head = headOf({ lead: null, node: pluggedAs(output.wiring, ats) }, asLabelled, METER_HZ)
    if (head.state !== 'finite') return []
    const tapOhm = bestTap(rating.tapsOhm, head.ohm)
    if (tapOhm === null) return []
    return [{ tapOhm, loadOhm: head.ohm, fit: tapFit(head.ohm, tapOhm), positions: cabinets.map((c, k) => ({ nodeId: c.id, label: c.label, at: way[k]! })) }]
  }).sort((a, b) => off(a) - off(b) || b.loadOhm - a.loadOhm)
}

/** How far a load is off its tap, by ratio. */
const off = ({ loadOhm, tapOhm }: Plugged) => Math.abs(Math.log(loadOhm / tapOhm))

function pluggedAs<N extends Output['wiring']['children'][number]['node'] | Output['wiring']>(node: N, ats: ReadonlyMap<string, number>): N {
  if (isGroup(node)) return { ...node, children: node.children.map(branch => ({ ...branch, node: pluggedAs(branch.node, ats) })) }
  const at = ats.get(node.id)
  return at === undefined || node.kind !== 'speaker' || node.load.kind !== 'cabinet' ? node : { ...node, load: { ...node.load, at } }
}

/** Plugs them so, one edit; null where they are. */
export function plugEdit(output: Output, { tapOhm, positions }: Plugged): Edit | null {
  const rating = valveOf(output.rating)
  if (!rating) return null
  const edits: SimpleEdit[] = speakersOf(output.wiring).flatMap((speaker): SimpleEdit[] => {
    const at = positions.find(p => p.nodeId === speaker.id)?.at
    return at === undefined || speaker.load.kind !== 'cabinet' || speaker.load.at === at
      ? []
      : [{ kind: 'speaker.set', nodeId: speaker.id, was: { load: speaker.load }, to: { load: { ...speaker.load, at } } }]
  })
  if (rating.tapOhm !== tapOhm) edits.push({ kind: 'output.set', outputId: output.id, was: { rating }, to: { rating: { ...rating, tapOhm } } })
  const edit = together(edits)
  return edit && partsOf(edit).length > 0 ? edit : null
}

export const VALVE_CAUTION = 'Valve amplifiers hold lethal voltage, also unplugged: inside works a qualified technician. Speaker cable, never screened instrument cable. Never on with nothing connected.'

/** What a player does, step by step, as the line is drawn; empty while the tap is not known, does not fit, or the cabinets are not simply side by side. */
export function plugSteps(amplifier: Pick<Amplifier, 'name'>, output: Output, fit: TapFit | null): string[] {
  const rating = valveOf(output.rating)
  const { children } = output.wiring
  if (!rating || rating.tapOhm === null || fit === null || fit === 'too-low' || children.length === 0) return []
  const speakers = children.map(c => c.node)
  if (speakers.some(isGroup)) return []
  const tap = writeQuantity(rating.tapOhm, 'Ω')
  const bySocket = rating.chosenBy === 'sockets'
  const steps = [`Switch ${amplifier.name} off.`]
  steps.push(bySocket ? `Leave every socket free but those marked ${tap}.` : rating.chosenBy === 'selector' ? `Turn its selector to ${tap}.` : `Set it to ${tap}: by its selector, or by the sockets so marked.`)
  speakers.forEach((node, k) => {
    if (node.kind !== 'speaker') return
    const position = node.load.kind === 'cabinet' ? node.load.positions[node.load.at]! : null
    const name = node.name === '' ? `speaker ${node.label}` : `${node.name} (${node.label})`
    if (position && position.switchTo !== '') steps.push(`Set the switch of ${name} to “${position.switchTo}”.`)
    const from = k === 0 ? bySocket ? `a socket marked ${tap}` : 'a speaker socket of the amplifier' : bySocket ? `the other socket marked ${tap}` : 'the next speaker socket of the amplifier'
    const link = k === 0 ? '' : ', or from a second jack of the cabinet before, if it links them side by side'
    steps.push(`Speaker cable from ${from}${link}, to ${position && position.jack !== '' ? position.switchTo !== '' ? `its jack “${position.jack}”` : `the jack “${position.jack}” of ${name}` : name}.`)
  })
  steps.push(`Both ends in? Then on, quietly.${fit === 'a-little-low' ? ' Keep it quiet, and feel whether it gets hotter than usual.' : ''} A smell, a glow or a hum that was not there: off at once.`)
  return steps
}
