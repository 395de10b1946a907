import { isOverloadedBy } from '#core/check/overload'
import { faultAt, type Fault, type FaultDefinition } from '#core/faults/fault'
import { goOf } from '#core/faults/go'
import { FAULTS } from '#core/faults/index'
import { speakersOf } from '#core/job/tree'
import { logSum } from './chances'
import type { Given } from './given'
import { outcomeOf, type Outcome } from './outcome'
import { goesOf, priorOf, STILL_THERE, type Prior } from './prior'
import { betweenOf, familyOf, lnOf, nextSizes, type Sized } from './sizes'
import { makeWeigher, type Weigher } from './weigh'

/** What may be there: no fault (the line is as drawn), one, or two; and how well that explains the readings. */
export interface Suspect {
  faults: readonly Fault[]
  /** Posterior probability. */
  probability: number
  /** Logarithm of how well it explains the readings, whatever its prior: what reads alike has the same. */
  fit: number
  /** Impedance at the head that it would make, Ω; null when open or short, or not to be said. */
  lineOhm: number | null
  /** The output would be overloaded by it. */
  isOverload: boolean
}

/** What a ranking comes to: the suspects that are told one by one, and what share is not. All of them sum to one. */
export interface Ranking {
  /** Likeliest first. */
  suspects: readonly Suspect[]
  /** Two faults that were tried and are too unlikely to be listed. */
  unlisted: number
  /** Two faults that were not tried: they hold no more than this. 1: two at once were not tried at all yet. */
  untried: number
  /** Two faults that cannot be likely, whatever a meter shows with both in: they hold no more than this together. */
  leftOut: number
  /** How many were tried: single ones, and two at once. */
  tried: { singles: number, pairs: number }
}

/**
 * Something that is not in the list may look just like what is: so often. It is why no percentage of this list comes near to certain. Common
 * practice, no source; checked against rigs with what no list has.
 */
const MIMICS = 0.3

export const SOMETHING_ELSE: Fault = faultAt('something-else', null)
export const isSomethingElse = (faults: readonly Fault[]): boolean => faults[0]?.kind === 'something-else'
/** As drawn, or something that is not in the list: no fault that can be named, and told beside those that can, always. */
export const isBeside = ({ faults }: Pick<Suspect, 'faults'>): boolean => faults.length === 0 || isSomethingElse(faults)

/** One fault, tried. Sizes of one fault at one place are one suspect. */
export interface Single extends Sized {
  definition: FaultDefinition
  /** Logarithm of its prior among single faults: of the line, all sum to one. */
  priorLog: number
  fit: number
}

/** What was tried of single faults: all that pairs and the search for tests need. */
export interface Tried { prior: Prior, weigher: Weigher, singles: readonly Single[], drawnFit: number, otherFit: number }

/** Every single fault that this line could have, each with its share of what is usual: many variants do not make a kind likelier. */
export function singlesOf({ output, others, mended }: Pick<Given, 'output' | 'others' | 'mended'>): { fault: Fault, definition: FaultDefinition, priorLog: number }[] {
  const speakers = speakersOf(output.wiring)
  const goes = goesOf(mended)
  const all = FAULTS.flatMap((definition) => {
    const candidates = definition.candidates(output, speakers, others)
    return candidates.map(fault => ({ fault, definition, prior: definition.prior / candidates.length * (goes.has(goOf(fault)) ? STILL_THERE : 1) }))
  })
  const total = all.reduce((sum, { prior }) => sum + prior, 0)
  return all.map(({ prior, ...rest }) => ({ ...rest, priorLog: Math.log(prior / total) }))
}

/** Tries every single fault, in steps of one each, so that an interface can breathe between them on a long line. Yields the share done, 0 to 1. */
export function* trySingles(given: Given): Generator<number, Tried> {
  const weigher = makeWeigher(given)
  const { plan } = weigher
  const list = singlesOf(given)
  const outcomes: Outcome[] = []
  for (const { fault } of list) {
    outcomes.push(outcomeOf(plan, [fault]))
    // What its meters see is worked out here, in its own step.
    for (const { place } of weigher.ohms) outcomes.at(-1)!.sight(place)
    yield outcomes.length / list.length
  }
  const next = nextSizes(list.map(s => s.fault))
  const lns = weigher.ohms.map(({ place }) => outcomes.map(o => lnOf(o.sight(place)?.seen)))
  const singles = list.map((single, k): Single => {
    const between = lns.map(of => betweenOf(of[k]!, next[k]!.map(n => of[n]!)))
    return { ...single, outcome: outcomes[k]!, next: next[k]!, between, fit: weigher.fitOf(outcomes[k]!, between) }
  })
  return { prior: priorOf(given.mended), weigher, singles, drawnFit: weigher.fitOf(plan.drawn), otherFit: weigher.fitOfAnything() }
}

/** One line of a ranking before it is brought to shares: `log` of prior and fit together. */
export interface Scored { faults: readonly Fault[], log: number, fit: number, outcome: Outcome | null }

/** As drawn, single faults (sizes of one gathered), and something else, each with its prior. */
export function scoredSingles({ prior: { asDrawn, single, other }, weigher: { plan }, singles, drawnFit, otherFit }: Tried): Scored[] {
  const families = new Map<string, Single[]>()
  for (const single of singles) {
    const family = familyOf(single.fault)
    const known = families.get(family)
    if (known) known.push(single)
    else families.set(family, [single])
  }
  return [
    { faults: [], log: Math.log(asDrawn) + drawnFit, fit: drawnFit, outcome: plan.drawn },
    { faults: [SOMETHING_ELSE], log: Math.log(other) + otherFit, fit: otherFit, outcome: null },
    ...[...families.values()].map((sizes): Scored => {
      const likeliest = sizes.reduce((a, b) => b.priorLog + b.fit > a.priorLog + a.fit ? b : a)
      const own = logSum(sizes.map(s => s.priorLog))
      const log = logSum(sizes.map(s => s.priorLog + s.fit))
      return { faults: [likeliest.fault], log: Math.log(single) + log, fit: log - own, outcome: likeliest.outcome }
    }),
  ]
}

/** What is not listed, as logarithms: pairs in the sum; at most, pairs not tried and pairs left out. */
interface Rest { unlistedLog: number, untriedLog: number, leftOutLog: number, tried: Ranking['tried'] }

/** Scores brought to shares of one. */
export function ranked({ prior, weigher: { plan: { output, drawn } } }: Pick<Tried, 'prior' | 'weigher'>, scored: readonly Scored[], rest: Rest): Ranking {
  const inList = logSum([...scored.filter(s => s.outcome !== null && s.faults.length > 0).map(s => s.log), rest.unlistedLog]) - Math.log(prior.single
    + prior.two)
  const withOther = scored.map(s => isSomethingElse(s.faults)
    ? { ...s, log: logSum([s.log + Math.log(1 - MIMICS), Math.log(prior.other * MIMICS)
    + inList]) }
    : s)
  const total = logSum([...withOther.map(s => s.log), rest.unlistedLog])
  const right = drawn.solved.head
  const rightOhm = right.state === 'finite' ? right.ohm : null
  const suspects = withOther.map(({ faults, log, fit, outcome }): Suspect => {
    const head = outcome?.solved.head ?? null
    return { faults, fit, probability: Math.exp(log - total), lineOhm: head?.state === 'finite' ? head.ohm : null, isOverload: head !== null && isOverloadedBy(output, head, rightOhm) }
  }).sort((a, b) => b.probability - a.probability)
  const share = (log: number) => Math.min(1, Math.exp(log - total))
  return { suspects, unlisted: share(rest.unlistedLog), untried: share(rest.untriedLog), leftOut: share(rest.leftOutLog), tried: rest.tried }
}

/** The ranking of single faults alone, for as long as two at once are not tried. */
export function rankOfSingles(tried: Tried): Ranking {
  const rest = { unlistedLog: -Infinity, untriedLog: 0, leftOutLog: -Infinity, tried: { singles: tried.singles.length, pairs: 0 } }
  return ranked(tried, scoredSingles(tried), rest)
}
