import { writeConductor } from '#core/gear/conductor'
import { connectorFacts, type Connector } from '#core/gear/connector'
import { spliceAt } from '#core/hands/splices'
import { spacesByNode } from '#core/job/heard'
import type { Amplifier, Branch, Job, Kind, Output, Speaker } from '#core/job/schema'
import type { Group } from '#core/job/sections/wiring/schema'
import { speakersOf } from '#core/job/tree'
import { isGroup } from '#core/network/tree'
import { writeCable, type Cable } from '#core/quantity/cable'
import { writeLength, type Units } from '#core/quantity/units'
import { writeNumber } from '#core/quantity/write'
import { wayWords } from './wayWords'

/** Every length of cable of a job, in the order in which it is drawn: where it begins and ends, what it is, what goes on which terminal there. */
export interface CableRun {
  /** On the tags of both its ends: the line, and a number along it. */
  tag: string
  outputId: string
  nodeId: string
  from: string
  to: string
  /** Null where that is not stated. */
  cable: Cable | null
  lengthM: number | null
  /** With what comes on top for corners and ends; null where the length is not stated. */
  withSlackM: number | null
  /** Plus first where the job says which that is; null: not named. */
  conductors: string | null
  /** What somebody wrote of the listing that the local code asks for in that space; null: nothing. The code decides. */
  listing: string | null
  /** What is done at its far end. */
  connect: string[]
}

/** Before anything of it is done. */
export const BEFORE_WIRING = [
  'Amplifier off and disconnected, in a vehicle the battery, too. Constant-voltage outputs can shock; valve amplifiers hold lethal voltage, also unplugged.',
  'Pull and tag every cable first, both ends. Then the joints, from the far end to the rack. Each speaker before its grille goes on.',
  'Plus to the terminal that is marked, or wider. Twisted strands fully inside; strain relieved where a plug latches but does not lock; leads of a transformer that are not used insulated each.',
  'Prove the bare pairs, then each speaker, then the line at the rack. Only then on the amplifier, its level down.',
  'Which cable a wall, a ceiling or an air-handling space asks for: the local code decides.',
] as const

/** @param slack a share on top of lengths that no plan of a space gave with its own */
export function cableSchedule(job: Job, slack: number): CableRun[] {
  const spaceOf = spacesByNode(job)
  const kinds = new Map(job.kinds.map(kind => [kind.id, kind]))
  return job.amplifiers.flatMap(amplifier => amplifier.outputs.flatMap((output) => {
    const runs: CableRun[] = []
    const visit = (group: Group, start: string): void => {
      let along = start
      for (const branch of group.children) {
        const to = endWords(branch)
        runs.push(runOf(branch, runs.length + 1, group.kind === 'chain' ? along : start, to))
        if (isGroup(branch.node)) visit(branch.node, to)
        along = to
      }
    }
    const runOf = ({ lead, node }: Branch, number: number, from: string, to: string): CableRun => {
      const space = spaceOf.get(speakersOf(node)[0]?.id ?? '')
      const { pair, connector } = spliceAt(job, node.id)
      const ends = connector === null ? [] : [endsIn(connector)]
      const lengthM = lead?.lengthM ?? null
      return {
        tag: `${output.label}-${String(number).padStart(2, '0')}`, outputId: output.id, nodeId: node.id, from, to, cable: lead?.cable ?? null, lengthM,
        withSlackM: lengthM === null ? null : space && space.slack > 0 ? lengthM : Number((lengthM * (1 + slack)).toPrecision(12)),
        conductors: pair === null ? null : pair.map(writeConductor).join(', '), listing: space?.cableRemark || null,
        connect: [...isGroup(node) ? groupConnects(node) : speakerConnects(node, node.kindId === null ? null : kinds.get(node.kindId) ?? null), ...ends],
      }
    }
    visit(output.wiring, rackWords(amplifier, output))
    return runs
  }))
}

/** "screw terminals", "a plug-in screw terminal (latches and does not lock, so relieve the strain)". */
function endsIn(connector: Connector): string {
  const { says, mind } = connectorFacts(connector)
  return mind === '' ? says : `${says} (${mind})`
}
const rackWords = ({ name, place }: Amplifier, { label, terminals }: Output): string => {
  const printed = terminals ? [terminals.plus, terminals.minus].filter(Boolean).join(' and ') : ''
  return `${label} on ${name}${place ? `, ${place}` : ''}${printed ? `, terminals ${printed}` : ''}${terminals?.connector ? `, ${endsIn(terminals.connector)}` : ''}`
}
function endWords({ node }: Branch): string {
  if (!isGroup(node)) return `${node.label}${node.name ? ` ${node.name}` : ''}`
  return node.through ? `${node.through.label}${node.through.name ? ` ${node.through.name}` : ''}` : `joint before ${speakersOf(node)[0]?.label ?? 'nothing yet'}`
}

/** What stands before a group: its terminals, which side the amplifier is. */
function groupConnects({ through, kind }: Group): string[] {
  const members = kind === 'series' ? ['in series: minus of each to plus of the next'] : []
  switch (through?.kind) {
    case undefined: return members
    case 'control': return [`the amplifier on its input, the speakers on its output${through.ratingW === null ? ', its rating not known' : `, rated ${writeNumber(through.ratingW)} W`}`, 'a remote control that rides on a data line loads nothing here: it is not in this run', ...members]
    case 'transformer': return [`the line on its primary, ${through.tapW === 0 ? 'off' : `the ${writeNumber(through.tapW)} W tap`}`, `the speakers on its secondary, for ${writeNumber(through.secondaryOhm)} Ω`, ...members]
    case 'capacitor': case 'inductor': return [`${through.label} in the plus conductor`, ...members]
  }
}

function speakerConnects(speaker: Speaker, kind: Kind | null): string[] {
  const { load } = speaker
  if (load.kind !== 'tap') return ['plus to the marked terminal', ...wayWords(kind)]
  const leads = kind?.model.leads ?? []
  const tap = leads.find(lead => lead.tapW === load.tapW)
  const common = leads.find(lead => lead.tapW === null)
  const scale = kind?.model.scales.find(s => Math.abs(s.lineV / load.ratedV - 1) < 0.02)
  const how = load.tapW === 0
    ? 'transformer off'
    : tap
      ? `${writeConductor(tap)} (${writeNumber(load.tapW)} W); insulate the rest${common ? `; ${writeConductor(common)} is common` : ''}`
      : scale?.tapsW.includes(load.tapW)
        ? `dial at ${writeNumber(load.tapW)} W on its ${writeNumber(Math.floor(load.ratedV))} V scale`
        : `tap ${writeNumber(load.tapW)} W at ${writeNumber(Math.floor(load.ratedV))} V, its lead or dial not known`
  return [how, ...wayWords(kind)]
}

/** One length of a drum, and what is cut from it. */
export interface Drum { cable: Cable | null, drumM: number, cuts: { tag: string, lengthM: number }[], leftM: number }

/**
 * What is cut from which drum: the longest first, each from the first drum that holds it. Few drums, not proven to be the fewest.
 * @param drumM what is on a full drum, m; a length that is longer gets one of its own of that length
 */
export function cutList(runs: readonly CableRun[], drumM: number): Drum[] {
  const drums: Drum[] = []
  const bySize = (cable: Cable | null) => writeCable(cable)
  const lengths = runs.filter((run): run is CableRun & { withSlackM: number } => run.withSlackM !== null && run.withSlackM > 0)
  for (const { cable, tag, withSlackM: lengthM } of [...lengths].sort((a, b) => b.withSlackM - a.withSlackM)) {
    const drum = drums.find(d => bySize(d.cable) === bySize(cable) && d.leftM >= lengthM)
    if (drum) {
      drum.cuts.push({ tag, lengthM })
      drum.leftM -= lengthM
    }
    else drums.push({ cable, drumM: Math.max(drumM, lengthM), cuts: [{ tag, lengthM }], leftM: Math.max(0, drumM - lengthM) })
  }
  return drums.sort((a, b) => bySize(a.cable).localeCompare(bySize(b.cable)))
}

const SCHEDULE_COLUMNS = ['tag', 'from', 'to', 'size', 'conductors', 'length', 'with slack', 'listing', 'connect'] as const

/** The schedule as rows of a table, the names of the columns first. */
export function scheduleRows(runs: readonly CableRun[], units: Units = 'metric'): string[][] {
  const length = (m: number | null) => m === null ? 'not stated' : writeLength(m, units)
  return [[...SCHEDULE_COLUMNS], ...runs.map(run => [
    run.tag, run.from, run.to, writeCable(run.cable), run.conductors ?? 'not named', length(run.lengthM), length(run.withSlackM), run.listing ?? 'not stated: the local code decides', run.connect.join('; '),
  ])]
}
