import { writeNumber, writeQuantity } from '#core/quantity/write'
import type { ClipReport } from './clip'

/** The words of an amplifier that clips. */

/** How far it is overdriven, dB, in the table. */
export const OVERDRIVES_DB = [0, 3, 6, 10] as const

/**
 * `highW`: above the crossover, all units together; `eachW`: of it, at the unit that gets most; `times`: of what it gets without clipping; `ofRated`: of
 * what it stands, null where that is not known.
 */
export interface ClipRow {
  overdriveDb: number
  says: string
  totalW: string
  highW: string
  eachW: string
  times: string
  strange: string
  ofRated: number | null
}
/** @param share part of the line's power that the unit which gets most takes, 0 to 1 */
export function clipRow(overdriveDb: number, { totalW, highW, cleanHighW, harmonicShare }: ClipReport, ratedHighW: number | null, share = 1): ClipRow {
  return {
    eachW: writeQuantity(highW * share, 'W'),
    overdriveDb, says: overdriveDb === 0 ? 'peaks just reach it' : `${overdriveDb} dB over`, totalW: writeQuantity(totalW, 'W'), highW: writeQuantity(highW, 'W'),
    times: cleanHighW > 0 && overdriveDb > 0 ? `${writeNumber(highW / cleanHighW, 2)} times` : '', strange: `${(100 * harmonicShare).toFixed(1)} %`,
    ofRated: ratedHighW === null ? null : highW * share / ratedHighW,
  }
}

/** What it comes to, by the furthest row that the high unit still stands. */
export function clipVerdict(rows: readonly ClipRow[], ratedHighW: number | null): string {
  if (ratedHighW === null) return 'What the high-frequency unit stands is not stated: whether it is safe is not known.'
  const over = rows.find(r => r.ofRated! > 1)
  if (!over) return `The high-frequency unit stands ${writeQuantity(ratedHighW, 'W')}: as far as ${rows.at(-1)!.overdriveDb} dB over it gets less on average.`
  return over.overdriveDb === 0
    ? `The high-frequency unit gets more than the ${writeQuantity(ratedHighW, 'W')} that it stands without any clipping: a smaller amplifier, or a higher crossover.`
    : `From ${over.overdriveDb} dB over on the high-frequency unit gets more than the ${writeQuantity(ratedHighW, 'W')} that it stands: a limiter before that, or turn it down.`
}
