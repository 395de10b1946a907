import { logSum } from './chances'
import { outcomeOf } from './outcome'
import { isBeside, isSomethingElse, type Suspect, type Tried } from './rank'
import { likeElseOhm } from './ohms'
import { likeAnything } from './evidence'
import { likeAnyCoil } from './coils'
import { betweenBoth, bothOf } from './sizes'
import { toldAt } from './weigh'

/** What speaks for a suspect and against it: each reading, and how many times likelier it makes it than all that may be there make it together. */
export interface Reason { readingId: string, times: number }

/** Times beyond which a reading speaks for or against; between, it says nothing of it. */
export const SPEAKS = 1.25
/** So many of the likeliest have their reasons worked out, and what stands beside them; the mixture is of all of these. */
const MOST = 40

/** Of each suspect, in their order, what each reading says of it; nothing of those that are not worked out. */
export function reasonsOf({ weigher, singles }: Pick<Tried, 'weigher' | 'singles'>, suspects: readonly Suspect[]): Reason[][] {
  const likeliest = suspects.filter((s, k) => k < MOST || isBeside(s))
  // What lies between the sizes that were tried speaks for a fault as its sizes do.
  const numbers = new Map(singles.map((s, k) => [s.fault, k]))
  const both = bothOf(weigher.plan, singles)
  const all = likeliest.map(({ faults }) => {
    if (isSomethingElse(faults)) return null
    const [one, other] = faults.map(f => numbers.get(f)!)
    if (one === undefined) return weigher.tellings(outcomeOf(weigher.plan, faults))
    if (other === undefined) return weigher.tellings(singles[one]!.outcome, singles[one]!.between)
    return weigher.tellings(both(one, other), betweenBoth(weigher, singles, one, other, both))
  })
  const readings = all.find(t => t !== null)?.map(t => t.judged) ?? []
  const anything = readings.map((judged) => {
    const ohm = weigher.ohms.find(o => o.value === judged.reading.value)
    const heard = weigher.parts.heard.find(h => h.judged === judged)
    const level = weigher.parts.levels.flatMap(g => g.reads).find(r => r.judged === judged)
    const { kind, value } = judged.reading
    if (level) return Math.log(level.any)
    if (heard || ohm || kind === 'coil-dcr') return Math.log(heard ? heard.any : ohm ? likeElseOhm(ohm) : likeAnyCoil(value))
    return toldAt(weigher.parts.others, judged).reduce((sum, o) => sum + Math.log(likeAnything(o)), 0)
  })
  const logs = all.map(t => t?.map(x => x.log) ?? anything)
  const mixture = readings.map((_, r) => logSum(likeliest.map((s, k) => Math.log(s.probability + 1e-12) + logs[k]![r]!)) - logSum(likeliest.map(s =>
    Math.log(s.probability + 1e-12))))
  const of = (k: number) => readings.map((judged, r): Reason => ({ readingId: judged.reading.id, times: Math.exp(logs[k]![r]! - mixture[r]!) }))
  const found = new Map(likeliest.map((s, k) => [s, of(k)]))
  return suspects.map(s => found.get(s) ?? [])
}
