import type { Kind } from '#core/job/schema'
import { nominalOhmOf } from '#core/network/tree'
import { isBehindTransformer } from '../facts'
import type { Finding } from '../finding'
import { found, type Rule } from './rule'

/** A unit with a transformer that is wired past it: on a line its dial stands on the low-impedance position. */
export function isPastItsTransformer(kind: Kind | undefined, load: { kind: string }): boolean {
  return load.kind !== 'tap' && kind !== undefined && kind.model.scales.length > 0
}

/** What the kinds of the speakers say that their wiring does not. */
export const kindRemarks: Rule = (line, { kinds }) => {
  const byId = new Map(kinds.map(kind => [kind.id, kind]))
  const findings: Finding[] = []
  const open = new Map<string, string[]>()
  for (const { speaker, behind } of line.drops) {
    const kind = speaker.kindId === null ? undefined : byId.get(speaker.kindId)
    if (!kind) continue
    const { load, label, id } = speaker
    if (line.kind === 'constant-voltage' && line.lineV !== null && load.kind !== 'tap' && isPastItsTransformer(kind, load) && !isBehindTransformer(behind)) {
      const nominalOhm = nominalOhmOf(load)
      findings.push(found(line, { code: 'through-on-line', grade: 'stop', facts: { label, nominalOhm, lineV: line.lineV, wouldTakeW: line.lineV ** 2 / nominalOhm } }, id))
    }
    const { build, remark } = kind.model
    if (build === 'ceiling-open' && ASKS_FOR_CAN.test(remark)) open.set(remark, [...open.get(remark) ?? [], label])
  }
  for (const [remark, labels] of open) findings.push(found(line, { code: 'asks-for-can', grade: 'unknown', facts: { labels, remark } }))
  return findings
}

const ASKS_FOR_CAN = /\b(?:back.?)?(?:can|box|enclosure)\b/i
