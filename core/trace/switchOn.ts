import { isWrong } from '#core/check/verdict'
import { checkKey, type JudgedReading, type LineProof } from '#core/check/proof'
import { isOverloadedBy } from '#core/check/overload'
import type { Output } from '#core/job/schema'
import { isWrongNow } from './earlier'
import type { Suspect } from './rank'

/** Whether an amplifier may be switched on to a line that read wrong. */

/** Suspects that would overload the output count from this share on. Common practice, no source: one in twenty is too many to try. */
export const RISK = 0.05

/** Why it must not be switched on: a reading that says so itself, or what may be broken; `share` of all that it may be, `likeliest` of those. */
export type SwitchOnRisk = { why: 'reading', judged: JudgedReading } | { why: 'suspects', share: number, likeliest: Suspect }

/** By what was read alone, also before a repair: until it is read again nobody knows that it is gone. */
export function riskByReading(output: Output, proof: LineProof): SwitchOnRisk | null {
  const impedanceIsRight = proof.standing.get(checkKey('line-impedance', null))?.verdict.grade === 'good'
  for (const judged of proof.standing.values()) {
    const { reading: { kind, value }, verdict } = judged
    // Through windings next to nothing may be right; the impedance tells, once it reads so.
    if (verdict.code === 'short' || (verdict.code === 'next-to-nothing' && !impedanceIsRight)) return { why: 'reading', judged }
    if (kind !== 'line-impedance' && kind !== 'head-volts-amps') continue
    const head = value.is === 'ohm' ? { state: 'finite' as const, ohm: value.ohm } : value.is === 'open' ? { state: 'open' as const } : null
    if (verdict.code === 'far-low' || (head && isWrong(verdict) && isOverloadedBy(output, head))) return { why: 'reading', judged }
  }
  return null
}

/** The line reads ohms that its output stands, as far as anybody can tell: whatever may be broken, it is none of what would overload it. */
function isHeadFine(output: Output, proof: LineProof): boolean {
  const head = proof.standing.get(checkKey('line-impedance', null))
  if (!head || head.stale || head.reading.value.is !== 'ohm' || head.verdict.grade === 'unknown') return false
  return !isOverloadedBy(output, { state: 'finite', ohm: head.reading.value.ohm })
}

/** By what may be broken, of a line of which something reads wrong. `suspects` null: not ranked yet. */
export function riskOf(output: Output, proof: LineProof, suspects: readonly Suspect[] | null): SwitchOnRisk | null {
  const read = riskByReading(output, proof)
  if (read || suspects === null || isHeadFine(output, proof) || !isWrongNow(output, proof)) return read
  const share = shareOfOverload(suspects)
  return share < RISK ? null : { why: 'suspects', share, likeliest: suspects.filter(s => s.isOverload).reduce((a, b) => b.probability > a.probability ? b : a) }
}

/** Share of all that may be there that would overload the output. */
export const shareOfOverload = (suspects: readonly Suspect[]): number => suspects.reduce((sum, s) => s.isOverload ? sum + s.probability : sum, 0)
