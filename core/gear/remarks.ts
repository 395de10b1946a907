import { contradictionsOf } from '#core/amplifier/index'
import { PEAK_OF_CONTINUOUS, PROGRAM_OF_CONTINUOUS } from '#core/schools/power'
import { nominalOhmOf } from '#core/network/tree'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import type { AmplifierModel } from './amplifier'
import type { GearKind, Models } from './models'
import type { SpeakerModel } from './speaker'

/**
 * What of a sheet does not agree with itself, or with what is usual. Remarks never stop anything: sheets err, and so do rules of
 * thumb. Each says the figures; what a rating's method makes of them is AES2 and IEC 60268-5 for the noise of 6 dB crest, the
 * rest common practice, no source.
 */
export interface Remark { code: string, says: string }

/** Figures on a sheet are round. */
const ROUND = 0.06
const isNear = (value: number, wanted: number, within = ROUND) => Math.abs(value / wanted - 1) <= within

/** Loss of a line transformer as it is usual. Common practice, no source. */
const USUAL_LOSS_DB = { least: 0.5, most: 1.5 }
/** The same name with so many times the rating is another unit, or another way to count. Common practice, no source. */
const GROWN = 1.9
/** A coil's copper against its label. Common practice, no source. */
const COIL_OF_NOMINAL = { least: 0.65, most: 0.95 }

function speakerRemarks(model: SpeakerModel, before: SpeakerModel | null): Remark[] {
  const { continuousW, programW, peakW, scales, nominalOhm, insertionDb, smallSignal, members, lowHz, highHz, sensitivityDb, sensitivityAt, leads } = model
  const w = (value: number) => writeQuantity(value, 'W')
  const remarks: Remark[] = []
  const remark = (code: string, says: string) => { remarks.push({ code, says }) }
  if (continuousW !== null && programW !== null && !isNear(programW, PROGRAM_OF_CONTINUOUS * continuousW)) {
    remark('program', `Program is ${w(programW)}; twice the continuous ${w(continuousW)} would be ${w(PROGRAM_OF_CONTINUOUS * continuousW)}. Which noise was it rated by?`)
  }
  if (continuousW !== null && peakW !== null && !isNear(peakW, PEAK_OF_CONTINUOUS * continuousW)) {
    remark('peak', `Peak is ${w(peakW)}; four times the continuous ${w(continuousW)} would be ${w(PEAK_OF_CONTINUOUS * continuousW)}.`)
  }
  if (continuousW === null && (programW !== null || peakW !== null)) remark('no-continuous', 'Only program or peak is stated: neither can be compared without the continuous rating and its method.')
  if (before?.continuousW && continuousW !== null && continuousW >= GROWN * before.continuousW) {
    remark('grown', `The version before was rated ${w(before.continuousW)}: is ${w(continuousW)} another unit, or another way to count?`)
  }
  for (const { lineV, tapsW } of scales) {
    const most = Math.max(...tapsW)
    if (continuousW !== null && most > continuousW) remark('tap-over-rating', `Its tap of ${w(most)} at ${writeNumber(lineV, 4)} V is over its continuous ${w(continuousW)}.`)
    if (nominalOhm !== null && lineV ** 2 / most < nominalOhm) {
      remark('tap-under-driver', `A tap of ${w(most)} at ${writeNumber(lineV, 4)} V is ${writeQuantity(lineV ** 2 / most, 'Ω')}, less than the ${writeQuantity(nominalOhm, 'Ω')} behind it.`)
    }
  }
  const [first, ...others] = scales
  for (const other of others) {
    const times = (other.lineV / first!.lineV) ** 2
    const [a, b] = [first!.tapsW, other.tapsW].map(taps => [...taps].sort((x, y) => x - y)) as [number[], number[]]
    if (a.length === b.length && a.some((tapW, k) => !isNear(b[k]!, tapW * times, 0.15))) {
      remark('scales', `One winding takes ${writeNumber(times)} times the watts at ${writeNumber(other.lineV, 4)} V of those at ${writeNumber(first!.lineV, 4)} V: the two scales of its dial do not agree.`)
    }
  }
  if (insertionDb !== null && (insertionDb < USUAL_LOSS_DB.least || insertionDb > USUAL_LOSS_DB.most)) {
    remark('insertion', `A loss of ${writeNumber(insertionDb)} dB is not usual: line transformers lose ${USUAL_LOSS_DB.least} to ${USUAL_LOSS_DB.most} dB.`)
  }
  const coil = nominalOhm !== null && smallSignal ? smallSignal.reOhm / nominalOhm : null
  if (nominalOhm !== null && smallSignal && coil !== null && (coil < COIL_OF_NOMINAL.least || coil > COIL_OF_NOMINAL.most)) {
    remark('coil', `Re of ${writeQuantity(smallSignal.reOhm, 'Ω')} is not what a coil of ${writeQuantity(nominalOhm, 'Ω')} reads: about ${writeQuantity(0.7 * nominalOhm, 'Ω')} to ${writeQuantity(0.9 * nominalOhm, 'Ω')}.`)
  }
  if (nominalOhm !== null && members && !isNear(nominalOhmOf(members), nominalOhm, 0.15)) {
    remark('members', `Its members come to ${writeQuantity(nominalOhmOf(members), 'Ω')} together; the sheet says ${writeQuantity(nominalOhm, 'Ω')}.`)
  }
  if (lowHz !== null && highHz !== null && lowHz >= highHz) remark('range', `Its range begins at ${writeQuantity(lowHz, 'Hz')} and ends at ${writeQuantity(highHz, 'Hz')}.`)
  if (sensitivityDb !== null && sensitivityAt === null) {
    remark('sensitivity', `Sensitivity at 1 W or at 2.83 V is not stated${nominalOhm === null || nominalOhm === 8 ? '' : `: at ${writeQuantity(nominalOhm, 'Ω')} that is ${writeNumber(Math.abs(10 * Math.log10(8 / nominalOhm)))} dB of difference`}.`)
  }
  const unknown = [...new Set(leads.flatMap(l => l.tapW !== null && !scales.some(s => s.tapsW.includes(l.tapW!)) ? [l.tapW] : []))]
  if (unknown.length > 0) remark('lead', `A lead of ${unknown.map(w).join(', ')} is for no tap that it has.`)
  return remarks
}

function amplifierRemarks({ outputs, gainDb, inputV }: AmplifierModel): Remark[] {
  const w = (value: number) => writeQuantity(value, 'W')
  return outputs.flatMap(({ points, lines, floorOhm }) => {
    const rating = points.length > 0 ? { kind: 'solid-state' as const, points, floorOhm, mode: 'single' as const, bridgedFloorOhm: null } : null
    const remarks: Remark[] = (rating ? contradictionsOf(rating) : []).map(({ heavier, lighter }) => ({
      code: 'contradicts', says: `${w(heavier.powerW)} at ${writeQuantity(heavier.loadOhm, 'Ω')} and ${w(lighter.powerW)} at ${writeQuantity(lighter.loadOhm, 'Ω')} cannot both be of one output.`,
    }))
    const lowest = points.length > 0 ? Math.min(...points.map(p => p.loadOhm)) : null
    if (lowest !== null && floorOhm !== null && lowest < floorOhm) remarks.push({ code: 'floor', says: `Rated at ${writeQuantity(lowest, 'Ω')}, and allowed from ${writeQuantity(floorOhm, 'Ω')} only.` })
    const volts = [...points.map(p => Math.sqrt(p.powerW * p.loadOhm)), ...lines.map(l => l.lineV)]
    const fullV = volts.length > 0 ? Math.max(...volts) : null
    if (gainDb !== null && inputV !== null && fullV !== null && Math.abs(20 * Math.log10(fullV / inputV) - gainDb) > 1) {
      remarks.push({ code: 'gain', says: `${writeNumber(inputV)} V in and ${writeNumber(fullV)} V out are ${writeNumber(20 * Math.log10(fullV / inputV))} dB of gain; the sheet says ${writeNumber(gainDb)} dB.` })
    }
    return remarks
  })
}

/** @param before the version before this one, where there is one */
export function remarksOn<K extends GearKind>(kind: K, model: Models[K], before: Models[K] | null = null): Remark[] {
  if (kind === 'speaker') return speakerRemarks(model as SpeakerModel, before as SpeakerModel | null)
  if (kind === 'amplifier') return amplifierRemarks(model as AmplifierModel)
  const { insertionDb } = model as { insertionDb?: number | null }
  return kind === 'transformer' && typeof insertionDb === 'number' && (insertionDb < USUAL_LOSS_DB.least || insertionDb > USUAL_LOSS_DB.most)
    ? [{ code: 'insertion', says: `A loss of ${writeNumber(insertionDb)} dB is not usual: line transformers lose ${USUAL_LOSS_DB.least} to ${USUAL_LOSS_DB.most} dB.` }]
    : []
}
