import { hashOf } from '#core/quantity/hash'
import { walkOver, type JobStop } from '#core/check/walkOrder'
import { checkKey } from '#core/check/proof'
import type { PaperData } from './sheet'

/** The walk as it stands on paper: its stops numbered, and a short code by which the sheet is told from one of another plan when it comes back. */
export interface Numbered { no: number, at: JobStop }
type Data = Pick<PaperData, 'job' | 'lines' | 'proofs' | 'order'>

export function numberedStops({ job, lines, proofs, order }: Data): Numbered[] {
  const proved = lines.flatMap(({ outputId, output }) => {
    const proof = proofs.get(outputId)
    return proof && output.wiring.children.length > 0 ? [{ output, proof }] : []
  })
  return walkOver(job, proved, order).map((at, k) => ({ no: k + 1, at }))
}

/** No letters and digits that look alike by hand. */
const LETTERS = 'ACDEFHKLMNPRTUVWXY34679'
const LENGTH = 4

/** The same for the same stops in the same order: one that was added, taken away or moved since gives another. */
export function walkCode(stops: readonly Numbered[]): string {
  let rest = hashOf(stops.map(({ at: { stop, output } }) => `${output.id} ${checkKey(stop.kind, stop.speaker?.id ?? null)}\n`).join(''))
  return Array.from({ length: LENGTH }, () => {
    const letter = LETTERS[rest % LETTERS.length]!
    rest = Math.floor(rest / LETTERS.length)
    return letter
  }).join('')
}
