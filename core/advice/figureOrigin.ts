import { ratedW } from '#core/amplifier/index'
import type { Group, Practice } from '#core/job/schema'
import { efficiencyOf } from '#core/network/element'
import { isGroup } from '#core/network/tree'
import { writeCable } from '#core/quantity/cable'
import { reserveSchool } from '#core/schools/reserve'
import { writeLength, type Units } from '#core/quantity/units'
import { writeDb, writeNumber, writeQuantity } from '#core/quantity/write'
import { allowedTapsW } from '#core/line/allowance'
import type { LineEvaluation } from '#core/line/evaluate'
import type { DropFacts, LineFacts } from '#core/line/facts'

/** Where a number of the sheet comes from, as the sum that a person would write on paper. */

/** Cable on the way from the amplifier to a speaker: metres by size, in the order in which they come; what is not stated is not in it. */
function cableTo(wiring: Group, nodeId: string): { cable: string, lengthM: number }[] {
  const find = (group: Group): { cable: string, lengthM: number }[] | null => {
    const run: { cable: string, lengthM: number }[] = []
    for (const { lead, node } of group.children) {
      const own = lead && lead.lengthM > 0 ? [{ cable: writeCable(lead.cable), lengthM: lead.lengthM }] : []
      if (node.id === nodeId) return [...run, ...own]
      const inner = isGroup(node) ? find(node) : null
      if (inner) return [...run, ...own, ...inner]
      // Along a chain the wire runs on from place to place; elsewhere each lead is its own.
      if (group.kind === 'chain') run.push(...own)
    }
    return null
  }
  const sums = new Map<string, number>()
  for (const { cable, lengthM } of find(wiring) ?? []) sums.set(cable, (sums.get(cable) ?? 0) + lengthM)
  return [...sums].map(([cable, lengthM]) => ({ cable, lengthM }))
}

const V = (volts: number) => writeQuantity(volts, 'V')
const inWatts = (watts: number) => writeQuantity(watts, 'W')
/** Less than this is nothing that a meter or a person would see. */
const SEEN_V = 0.005
const ALIKE = 0.005

/** "64.9 V = 70.7 V − 5.8 V in 160 m of 16 AWG"; null where there are no volts to speak of. */
export function voltsWhence(line: LineFacts, drop: DropFacts, units: Units = 'metric'): string | null {
  const headV = line.drive?.volts ?? line.lineV
  if (drop.volts === null || headV === null || drop.volts === 0) return null
  const idealV = drop.volts / 10 ** (drop.lossDb / 20)
  const parts = [V(headV)]
  const share = idealV / headV
  const behind = drop.behind.map(b => b.through.label).join(' and ')
  if (Math.abs(share - 1) > ALIKE) parts.push(`× ${writeNumber(share)}${behind === '' ? ', its part of the load' : ` at ${behind}`}`)
  const lossV = idealV - drop.volts
  const cable = cableTo(line.output.wiring, drop.nodeId).map(c => `${writeLength(c.lengthM, units)} of ${c.cable}`).join(' and ')
  if (lossV >= SEEN_V) parts.push(`− ${V(lossV)} ${cable === '' ? 'on the way' : `in ${cable}`}`)
  return parts.length === 1 ? null : `${V(drop.volts)} = ${parts.join(' ')}`
}

/** "8.4 W = 10 W × (64.9 V / 70.7 V)²", and what its transformer keeps of them; null where it gets what is printed. */
export function wattsWhence({ speaker: { load }, volts, drawnW, powerW }: DropFacts): string | null {
  if (volts === null || drawnW === null || powerW === null) return null
  if (load.kind !== 'tap') return load.kind === 'nominal' ? `${inWatts(powerW)} = (${V(volts)})² / ${writeQuantity(load.nominalOhm, 'Ω')}` : null
  if (load.tapW === 0) return null
  const efficiency = efficiencyOf(load)
  const lost = efficiency === null || efficiency === 1 ? '' : `${inWatts(drawnW)} − ${writeNumber(load.insertionDb!)} dB in its transformer`
  const isAsPrinted = Math.abs(volts / load.ratedV - 1) < ALIKE
  const more = load.tapMeans === 'driver-gets' && lost !== '' ? ` + ${writeNumber(load.insertionDb!)} dB for its transformer` : ''
  const drawn = isAsPrinted && more === '' ? '' : `${inWatts(drawnW)} = ${inWatts(load.tapW)}${isAsPrinted ? '' : ` × (${V(volts)} / ${V(load.ratedV)})²`}${more}`
  return [drawn, lost === '' ? '' : `${inWatts(powerW)} = ${lost}`].filter(Boolean).join('; ') || null
}

/** The figures at the head of a rail: the load, what is given into it and where that goes, the far end, what the rule leaves. */
export function lineWhence(line: LineEvaluation, practice: Practice): string[] {
  const { loadOhm, amplifierW, drawnW, lostW, farthest, cable } = line
  const headV = line.drive?.volts ?? line.lineV
  if (loadOhm === null || line.speakers.length === 0) return []
  const says = [`${writeQuantity(loadOhm, 'Ω')}: all that hangs here by its labels, ${cable.stated > 0 ? 'with the cable that is stated' : 'no cable counted'}`]
  if (amplifierW === null || headV === null || drawnW === null || lostW === null) return says
  says.push(`${inWatts(amplifierW)} = (${V(headV)})² / ${writeQuantity(loadOhm, 'Ω')}`)
  const heatW = Math.max(0, amplifierW - drawnW - lostW)
  const hasHeat = heatW > ALIKE * amplifierW
  if (cable.stated > 0 || hasHeat) {
    const parts = [...(cable.stated > 0 ? [`${inWatts(lostW)} in the wire`] : []), ...(hasHeat ? [`${inWatts(heatW)} in controls and transformers`] : [])]
    says.push(`${inWatts(drawnW)} arrive = ${inWatts(amplifierW)} − ${parts.join(' − ')}`)
  }
  if (farthest && cable.stated > 0 && farthest.lossDb < 0) says.push(`far end ${writeDb(farthest.lossDb)}: at ${farthest.drop.label} a part of ${writeNumber(10 ** (farthest.lossDb / 20))} of the volts is left`)
  const rated = ratedW(line.output.rating)
  const allowed = allowedTapsW(line, practice)
  if (rated !== null && allowed !== null && line.drawW !== null) says.push(`by “${reserveSchool(practice.reserve).name}” ${inWatts(rated)} carry ${inWatts(allowed)} of taps; ${inWatts(line.drawW)} are drawn, every control fully up`)
  return says
}
