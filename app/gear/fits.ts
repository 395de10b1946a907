import { isSameVoltage } from '#core/quantity/tolerance'
import { LIST_KEYS, type GearRow } from '#core/gear/protocol'
import type { GearKind } from '#core/gear/models'
import { writeNumber, writeQuantity } from '#core/quantity/write'

/** What is known of the place that a model is chosen for. What is not known is left out, and nothing is judged by it. */
export interface Here {
  /** Volts of the line; null: straight on an amplifier. */
  lineV?: number | null
  /** What hangs behind it, every control fully up. */
  behindW?: number | null
  /** Ohms that stand there now. */
  nominalOhm?: number | null
}
export type Fit = { fits: 'yes' | 'no' | 'not-known', why: string }

const volts = (all: readonly number[]) => all.map(v => writeQuantity(v, 'V', 4)).join(', ')
const NOTHING: Fit = { fits: 'not-known', why: '' }

/** Whether a row of the library fits where it is to stand, and why not, in a few words. A limit that is not stated is not known: it is no reason against. */
export function fitHere(kind: GearKind, { values }: GearRow, here: Here): Fit {
  const of = <T>(key: string) => values[LIST_KEYS[kind].indexOf(key)] as T
  switch (kind) {
    case 'control': return behind(of<number[]>('linesV'), of<number | null>('ratingW'), here)
    case 'transformer': return behind(of<{ lineV: number }[]>('scales').map(s => s.lineV), of<number | null>('ratingW'), here)
    case 'speaker': return speaker(of<{ lineV: number, tapsW: number[] }[]>('scales'), of<number | null>('nominalOhm'), here)
    case 'amplifier': case 'cable': case 'harness': return NOTHING
  }
}

function behind(linesV: readonly number[], ratingW: number | null, { lineV, behindW }: Here): Fit {
  if (lineV != null && linesV.length > 0 && !linesV.some(v => isSameVoltage(v, lineV))) return { fits: 'no', why: `for lines of ${volts(linesV)}` }
  if (behindW == null) return NOTHING
  if (ratingW === null) return { fits: 'not-known', why: 'its rating is not stated' }
  if (ratingW < behindW) return { fits: 'no', why: `${writeQuantity(ratingW, 'W')}, and ${writeQuantity(behindW, 'W')} hang behind it` }
  return lineV == null || linesV.length > 0 ? { fits: 'yes', why: '' } : { fits: 'not-known', why: 'for which lines is not stated' }
}

function speaker(scales: readonly { lineV: number, tapsW: number[] }[], ownOhm: number | null, { lineV, nominalOhm }: Here): Fit {
  if (lineV === undefined) return NOTHING
  if (lineV === null) {
    if (ownOhm === null) return scales.length > 0 ? { fits: 'no', why: 'only taps of a line are stated' } : { fits: 'not-known', why: 'its ohms are not stated' }
    return nominalOhm == null || nominalOhm === ownOhm ? { fits: 'yes', why: '' } : { fits: 'not-known', why: `${writeNumber(ownOhm)} Ω; ${writeNumber(nominalOhm)} Ω hang here` }
  }
  if (scales.length === 0) return { fits: 'no', why: 'no line transformer stated' }
  return scales.some(s => isSameVoltage(s.lineV, lineV)) ? { fits: 'yes', why: '' } : { fits: 'no', why: `its taps are for ${volts(scales.map(s => s.lineV))}` }
}

/** Those that fit first, of what carries something the smallest that does; then those of which it is not known. Else each part keeps its order. */
export function fittingFirst(kind: GearKind, rows: readonly GearRow[], here: Here): { row: GearRow, fit: Fit }[] {
  const ratingAt = here.behindW == null ? -1 : LIST_KEYS[kind].indexOf('ratingW')
  const ratingOf = ({ values }: GearRow) => ratingAt === -1 ? 0 : Number(values[ratingAt])
  const judged = rows.map(row => ({ row, fit: fitHere(kind, row, here) }))
  const part = (fits: Fit['fits']) => judged.filter(j => j.fit.fits === fits)
  return [...part('yes').sort((a, b) => ratingOf(a.row) - ratingOf(b.row)), ...part('not-known'), ...part('no')]
}
