import { LIKE, likeAnything, likeSpread, SPREAD_OF_ANYTHING } from './evidence'
import { swapElsewhere } from './eyes'
import { orSlip } from './ohms'
import { changed, wayRoundOf, type Told } from './outcome'
import type { Touches } from './pairBound'
import type { Single } from './rank'
import type { Weigher } from './weigh'

/**
 * What two faults do to what is told in words, by a pulse, by who looks, off a dial, found from what each does by itself. What lost: what each tells by
 * itself, added up. Of two places where a pair is crossed each explains that all behind both are turned, and together they turn none of them: such sums held
 * nine tenths of all that may be there, and two that do explain it were not found.
 */
export interface PairTold {
  /** How well all of them are explained by a line with a fault that has nothing to do with them; of each, against the most that anything explains it by. */
  base: number
  under: readonly number[]
  of: (single: Single) => ToldBy
  /** What both do to readings that both touch, against what each does by itself. */
  shared: (a: ToldBy, b: ToldBy) => number
}
/** Readings that are told otherwise with a fault. */
export interface ToldBy extends Touches { single: Single }

/** A reading that a fault makes likelier or less likely by less is not its doing, as a logarithm. */
const TOUCHED_LOG = 0.01

export function pairTold({ plan, parts: { others, spreads } }: Pick<Weigher, 'plan' | 'parts'>): PairTold {
  const told = others.filter(j => j.reading.kind !== 'level')
  const anyOf = (r: number) => r < told.length ? likeAnything(told[r]!) : SPREAD_OF_ANYTHING
  const logBy = (r: number, outcome: Told): number => Math.log(orSlip(r < told.length
    ? LIKE[told[r]!.reading.kind]!(told[r]!, outcome, plan)
    : likeSpread(spreads[r - told.length]!, outcome, plan), anyOf(r)))
  const baseLogs = Array.from({ length: told.length + spreads.length }, (_, r) => {
    const value = told[r]?.reading.value
    return value && 'withId' in value ? Math.log(orSlip(swapElsewhere(value.is), anyOf(r))) : logBy(r, plan.drawn)
  })
  return {
    base: baseLogs.reduce((a, b) => a + b, 0),
    under: baseLogs.map((base, r) => base - Math.log(orSlip(1, anyOf(r)))),
    of: (single) => {
      const delta = Float64Array.from(baseLogs, (base, r) => logBy(r, single.outcome) - base)
      const touched = baseLogs.flatMap((_, r) => Math.abs(delta[r]!) > TOUCHED_LOG ? [r] : [])
      return { single, at: Int16Array.from(touched), delta, sum: delta.reduce((a, b) => a + b, 0) }
    },
    shared: (a, b) => {
      const [few, many] = a.at.length < b.at.length ? [a.at, b.at] : [b.at, a.at]
      let more = 0
      let both: Told | null = null
      for (let k = 0, n = 0; k < few.length && n < many.length; k++) {
        const r = few[k]!
        while (many[n]! < r) n++
        if (many[n] === r) more += logBy(r, both ??= together(a.single, b.single)) - baseLogs[r]! - a.delta[r]! - b.delta[r]!
      }
      return more
    },
  }

  /** A line with both, unsolved: of each speaker the decibels of both, added; the wiring with both in, where somebody asks for it. */
  function together(a: Single, b: Single): Told {
    const faults = [a.fault, b.fault]
    const [one, other] = [a.outcome.watts(), b.outcome.watts()]
    const get = (id: string) => {
      const planned = plan.watts.get(id) ?? 0
      return planned > 0 ? (one.get(id) ?? 0) * (other.get(id) ?? 0) / planned : 0
    }
    const wiring = () => changed(plan.output.wiring, faults, plan.others)
    return { faults, definitions: [a.definition, b.definition], watts: () => ({ get }), get wiring() { return wiring() }, wayRound: () => wayRoundOf(wiring()) }
  }
}
