import type { LineProof } from '#core/check/proof'
import type { Output } from '#core/job/schema'
import { logSum } from './chances'
import { cutOutChance, NOT_CUT_FROM } from './ears'
import { mostOf, tableOf } from './ohmTable'
import type { OhmPlace, Outcome } from './outcome'
import { columnsOf, mostsFor, mostTogether, type Bounded, type Columns } from './pairBound'
import { pairEars, type Ears } from './pairEars'
import { levelColumns, mostByLevels, pairLevels, type LevelColumns, type LevelsBy } from './pairLevels'
import { pairTold, type ToldBy } from './pairTold'
import { NO_CHANGE, portsOf, sideBySide, type Change, type Ports } from './ports'
import { givenBy } from './given'
import { drained } from '#core/quantity/steps'
import { scoredSingles, trySingles, type Ranking, type Single, type Tried } from './rank'
import { listed, numbered, type Found, type Member } from './pairList'
import { addsUp, betweenOf, lnOf } from './sizes'

/**
 * Two faults at once, up to sixty speakers every two at different places. First the most that two can come to (pairBound.ts): those that cannot be
 * likely, whatever the meter shows, are left out, and what they hold together at most is said. Of the others what a meter shows with both in is found from
 * the ports of the line (ports.ts), what ears find from what each does by itself, decibels added (pairEars.ts); the likeliest are then solved as the
 * changed networks that they are, and weighed with all readings together. Measured on forty drops, all of them listened at: half to three quarters of
 * 860,000 are left out, and what took 580 to 660 ms takes 410 to 480. Most of the rest are plainly too little by the head alone, once it is known: left out
 * there, before eyes and ears are asked, it takes a fifth less again.
 */

/** Beyond so many speakers every fault is tried with the likeliest singles alone. */
export const ALL_UP_TO = 60
const LIKELIEST = 60
/** A pair under this part of all is no candidate to be listed; it is in the sum. */
const NOTED = 1e-6
/** And under this it is not looked at what lies between sizes of both: a million of such come to a thousandth. */
const NEXT_LOG = Math.log(1e-9)

/** Pairs that cannot come to more than this part of all, together, are left out. */
const LEFT_OUT = 0.005
const LEFT_OUT_LOG = -Infinity

/** And under this it is nothing: a million of such come to a billionth. */
const NOTHING_LOG = -36

/** Faults at one place that meters and ears cannot tell from each other: what two of such come to is found once. */
interface Part extends Bounded {
  ears: Ears
  told: ToldBy
  levels: LevelsBy
  members: Member[]
  /** The likeliest of them. */
  first: Single
  /** The changes of its next sizes. */
  next: readonly number[]
}
type PartColumns = Columns & { levels: LevelColumns }
/** A single fault by its number, and what it does to what is heard, told and read by the level meter. */
interface Numbered { single: Single, index: number, ears: Ears, told: ToldBy, levels: LevelsBy }

/**
 * Yields the share done, 0 to 1; ends with singles and pairs ranked together. `most`: pairs that cannot come to more than this part of all, together, are
 * left out.
 */
export function* rankPairs(tried: Tried, most = LEFT_OUT): Generator<number, Ranking> {
  const { prior, weigher, singles } = tried
  const { plan, ohms, coilsLog } = weigher
  const scored = scoredSingles(tried)
  const total0 = logSum(scored.map(s => s.log))
  const tables = ohms.map((_, k) => tableOf(weigher, k))
  const hearing = pairEars(weigher)
  const telling = pairTold(weigher)
  const metering = pairLevels(weigher)
  const bounds = { ears: hearing.rightLogs, told: telling.under }
  const { allRight, allSilent, isHeard } = hearing
  // The head tells whether the amplifier cuts out: it is found whether or not it was read.
  const places = ohms.length > 0 && ohms[0]!.place.nodeId === null ? ohms.map(o => o.place) : [{ nodeId: null, frequencyHz: 1000 }, ...ohms.map(o => o.place)]
  const firstOhm = places.length - ohms.length

  const [numberOfPlace, numberOfHeard] = [numbered(), numbered()]
  const placeNumber = ({ fault: { nodeId } }: Single): number => numberOfPlace(nodeId ?? '')
  const heardNumber = (heard: Ears['heard'][number]): number => heard === null ? -1 : numberOfHeard(JSON.stringify(heard))
  const drawnPorts = places.map(place => portsOf(plan.drawn.wiring, place))
  /** What faults change at one place each, equals once. */
  const drawnChanges: Change[][] = []
  const changeNumbers = new Map<string, number>()
  const partOf = (all: readonly Numbered[], change: number): Part => {
    const members = all.map(({ single, index, ears, told, levels }): Member =>
      ({ index, ownLog: single.priorLog + weigher.coilsBy(single.outcome) + ears.sum + told.sum + levels.sum }))
    const { single, ears, told, levels } = all[0]!
    const ownLog = logSum(members.map(m => m.ownLog))
    return { members, first: single, next: single.next.flatMap(n => changeOf.get(n) ?? []), place: placeNumber(single), ownLog, change, between: single.between,
      ears, told, levels }
  }
  const gathered = new Map<string, { all: Numbered[], change: number }>()
  const bases: Numbered[] = []
  /** Of single faults, by their numbers. */
  const changeOf = new Map<number, number>()
  singles.forEach((single, index) => {
    const changes = changesOn(drawnPorts, places, single.outcome, plan.drawn)
    const numbered = { single, index, ears: hearing.of(single), told: telling.of(single), levels: metering.of(single) }
    if (changes === null) {
      bases.push(numbered)
      return
    }
    const key = changes.map(c => `${c.port} ${c.dRe} ${c.dIm}`).join()
    if (!changeNumbers.has(key)) {
      changeNumbers.set(key, drawnChanges.length)
      drawnChanges.push(changes)
    }
    const change = changeNumbers.get(key)!
    changeOf.set(index, change)
    const { ears, told, levels } = numbered
    // Readings that are otherwise with it, and all that they come to: of another fault that is not the same to the last digit.
    const touches = [ears, told, levels].flatMap(({ at, sum }) => [at.join(), sum])
    const alike = [placeNumber(single), change, ...single.between, Array.from(ears.at, r => heardNumber(ears.heard[r]!)).join(), ...touches].join(' ')
    const known = gathered.get(alike)
    if (known) known.all.push(numbered)
    else gathered.set(alike, { all: [numbered], change })
  })
  const parts = [...gathered.values()].map(({ all, change }) => partOf(all, change)).sort((a, b) => a.change - b.change)

  // Every two are as likely as each by itself, all of them together as often as two are.
  const byPlace = new Map<number, number>()
  for (const s of singles) byPlace.set(placeNumber(s), (byPlace.get(placeNumber(s)) ?? 0) + Math.exp(s.priorLog))
  const apart = singles.reduce((total, s) => total + Math.exp(s.priorLog) * (1 - byPlace.get(placeNumber(s))!), 0) / 2
  const priorLog = Math.log(prior.two) - Math.log(Math.max(apart, 1e-12))
  const constant = priorLog + coilsLog + telling.base + metering.base + allRight - total0

  const found: Found = { log: [], one: [], other: [] }
  let sum = 0
  let pairs = 0
  let leftOut = 0
  const note = (log: number, one: readonly Member[], other: readonly Member[]) => {
    pairs += one.length * other.length
    if (log < NOTHING_LOG) return
    const share = Math.exp(log)
    sum += share
    if (share < NOTED * (1 + sum)) return
    found.log.push(log)
    found.one.push(one)
    found.other.push(other)
  }

  const plannedHead = plan.drawn.solved.head
  const [mosts, levelMosts] = [mostsFor(parts.length + bases.length), mostByLevels(parts.length + bases.length)]
  const rows = places.map(() => new Float64Array(drawnChanges.length + bases.length))
  /** How likely the amplifier cuts out at each head. */
  const cuts = new Float64Array(drawnChanges.length + bases.length)
  const safeLn = plannedHead.state === 'finite' ? Math.log(NOT_CUT_FROM * plannedHead.ohm) : Infinity
  const cutAt = (ln: number) => !isHeard || ln > safeLn ? 0 : ln === -Infinity ? 1 : cutOutChance({ state: 'finite', re: 0, im: 0, ohm: Math.exp(ln) }, plannedHead)
  const sides = places.map((_, p) => sideBySide(drawnChanges.map(c => c[p]!)))
  /** The heads with one change and every other from a number on, for each place in ohms. */
  const rowsOf = (one: Change[], from: number): void => {
    drawnPorts.forEach((ports, p) => {
      if (ports) ports.row(one[p]!, sides[p]!, from, rows[p]!)
      else rows[p]!.fill(NaN)
    })
    if (isHeard) for (let c = from; c < drawnChanges.length; c++) cuts[c] = cutAt(rows[0]![c]!)
  }
  const drawnLns = places.map(place => lnOf(plan.drawn.sight(place)?.seen))
  const changedLns = places.map((_, p) => Float64Array.from(drawnChanges, change => drawnPorts[p]?.both(change[p]!, NO_CHANGE) ?? drawnLns[p]!))
  /** What lies between sizes of both, with ohms (as a logarithm) at a place, is what each has by itself. */
  const isSum = (p: number, ln: number, one: number, other: number): boolean => !drawnPorts[p] || one >= drawnChanges.length || other >= drawnChanges.length
    || addsUp(ln, changedLns[p]![one]!, changedLns[p]![other]!, drawnLns[p]!)
  /** The variance by it. */
  const between = (p: number, ln: number, a: Part, b: Part, sum: number): number => {
    if (isSum(p, ln, a.change, b.change)) return sum
    const [ports, mine, others] = [drawnPorts[p]!, drawnChanges[a.change]![p]!, drawnChanges[b.change]![p]!]
    for (let k = 0; k < a.next.length; k++) nextLns[k] = ports.both(drawnChanges[a.next[k]!]![p]!, others)
    const byMine = betweenOf(ln, nextLns, a.next.length)
    for (let k = 0; k < b.next.length; k++) nextLns[k] = ports.both(mine, drawnChanges[b.next[k]!]![p]!)
    return byMine + betweenOf(ln, nextLns, b.next.length)
  }
  const nextLns = [0, 0]
  /** The most that each reading in ohms and those after it come to. */
  const mostFrom = ohms.map((_, k) => ohms.slice(k).reduce((log, __, j) => log + mostOf(weigher, k + j), 0))
  const tryWith = (a: Part, list: readonly Part[], from: number, skips: ((b: Part) => boolean) | null) => {
    const of = columns(list)
    const own = constant + a.ownLog
    // What is under this cannot be likely, whatever the meter shows.
    const least = leftOutUnder - own - mostByOhms
    metering.atMost(a.levels, of.levels, from, levelMosts)
    mostTogether(a, levelMosts.log, of, from, bounds, mosts)
    // What both come to, or no number where a head is none: two changes at one port, which is not tried. Left out as soon as it is plain that it is too little.
    const both = (n: number, silent: number): number => {
      const [unheard, most] = [mosts.unheard[n]!, mosts.heard[n]!]
      const { ears, told, levels, change, ownLog } = list[n]!
      let [byLevels, under] = [levelMosts.log[n]!, least]
      if (levelMosts.isExact[n] === 0) {
        byLevels = metering.shared(a.levels, levels, least + byLevels - Math.max(most, unheard + silent))
        under += levelMosts.log[n]! - byLevels
        if (most < under && unheard + silent < under) return LEFT_OUT_LOG
      }
      // All of it silent is well explained by an amplifier that cuts out, where it does.
      const cut = cuts[change]!
      const bySilence = silent + Math.log(cut)
      if (most < under && unheard + bySilence < under) return LEFT_OUT_LOG
      let log = own + ownLog + byLevels + telling.shared(a.told, told)
      for (let k = 0; k < ohms.length; k++) {
        const ln = rows[firstOhm + k]![change]!
        const sum = a.between[k]! + of.between[k]![n]!
        log += tables[k]!(ln, sum === 0 || log + mostFrom[k]! < NEXT_LOG ? sum : between(firstOhm + k, ln, a, list[n]!, sum))
      }
      if (log + Math.max(most - unheard, bySilence) < leftOutUnder) return LEFT_OUT_LOG
      if (!isHeard) return log
      // What each does by itself is in its own; where the amplifier silences all, all of that is nothing.
      if (cut > 0.999999) return log + silent
      const on = hearing.shared(a.ears, ears)
      if (cut < 1e-3) return log + on
      const more = Math.max(on, silent)
      return log + more + Math.log((1 - cut) * Math.exp(on - more) + cut * Math.exp(silent - more))
    }
    // Whether both come to too little at the most, with what the meters show, where that is plain by the head alone: of nine in ten it is.
    const isTooLittle = (n: number, most: number): boolean => {
      if (most < least) return true
      const change = of.change[n]!
      let log = own + most
      for (let k = 0; k < ohms.length; k++) log += tables[k]!(rows[firstOhm + k]![change]!, a.between[k]! + of.between[k]![n]!)
      if (!(log < leftOutUnder)) return false
      for (let k = 0; k < ohms.length; k++) {
        if (a.between[k]! + of.between[k]![n]! !== 0 && !isSum(firstOhm + k, rows[firstOhm + k]![change]!, a.change, change)) return false
      }
      return true
    }
    for (let n = from; n < list.length; n++) {
      if (of.place[n] === a.place || (skips !== null && skips(list[n]!))) continue
      const silent = isHeard ? allSilent - allRight - a.ears.sum - of.earsSum[n]! : 0
      const log = isTooLittle(n, isHeard ? Math.max(mosts.heard[n]!, mosts.unheard[n]! + silent) : mosts.heard[n]!) ? LEFT_OUT_LOG : both(n, silent)
      if (log > LEFT_OUT_LOG) note(log, a.members, list[n]!.members)
      else if (log === LEFT_OUT_LOG) {
        leftOut++
        pairs += a.members.length * of.members[n]!
      }
    }
  }

  const known = new Map<readonly Part[], PartColumns>()
  const columns = (list: readonly Part[]): PartColumns =>
    known.get(list) ?? known.set(list, { ...columnsOf(list), levels: levelColumns(list.map(p => p.levels)) }).get(list)!

  const isAll = plan.speakers.length <= ALL_UP_TO
  const firsts = isAll
    ? parts
    : [...parts].sort((x, y) => y.first.priorLog + y.first.fit - x.first.priorLog - x.first.fit).slice(0, LIKELIEST).sort((a,
        b) => a.change - b.change)
  const together = firsts.length * (isAll ? parts.length / 2 : parts.length) + bases.length * (firsts.length + bases.length)
  const leftOutUnder = Math.log(most / Math.max(1, together))
  const mostByOhms = mostFrom[0] ?? 0
  const numberOf = new Map(firsts.map((p, k) => [p, k]))
  const steps = firsts.length + 40 * bases.length
  let row = -1
  for (const [k, a] of firsts.entries()) {
    if (a.change !== row) rowsOf(drawnChanges[row = a.change]!, isAll ? row : 0)
    // Once each: of two that are both first, the earlier with the later.
    if (isAll) tryWith(a, parts, k + 1, null)
    else tryWith(a, parts, 0, b => (numberOf.get(b) ?? Infinity) <= k)
    if (k % 20 === 0) yield k / steps
  }
  // What another changes is taken to be the same part of this line as of the drawn one; the likeliest are solved as they are.
  const basesLns = places.map(place => Float64Array.from(bases, ({ single }) => lnOf(single.outcome.sight(place)?.seen)))
  const baseParts = bases.map((base, k) => partOf([base], drawnChanges.length + k))
  for (const [k, base] of baseParts.entries()) {
    places.forEach((_, p) => {
      const [here, drawn] = [basesLns[p]![k]!, drawnLns[p]!]
      const isKnown = Number.isFinite(here) && Number.isFinite(drawn)
      rows[p] = Float64Array.of(...changedLns[p]!, ...basesLns[p]!).map(ln => !Number.isFinite(ln) ? ln : isKnown ? here + ln - drawn : here)
    })
    rows[0]!.forEach((ln, c) => { cuts[c] = cutAt(ln) })
    tryWith(base, firsts, 0, null)
    tryWith(base, baseParts, k + 1, null)
    yield (firsts.length + 40 * k) / steps
  }
  return listed(tried, scored, found, { sum, total0, priorLog, untriedLog: isAll ? -Infinity : Math.log(prior.two),
    leftOutLog: Math.log(leftOut) + leftOutUnder + total0, pairs })
}

/** All at once, where nobody waits for it on a page. */
export const rankSuspects = (output: Output, proof: LineProof, others: readonly Output[] = []): Ranking =>
  drained(rankPairs(drained(trySingles(givenBy(output, proof, others)))))

/**
 * What it changes, seen from each place; null: no change at one place. Whoever parts the line behind a break, a joint or a short sees nothing of it: until
 * that was said here, one reading from a place of forty onward made a hundred of such a list that is solved one by one, and the trace took seven seconds.
 */
function changesOn(ports: readonly (Ports | null)[], places: readonly OhmPlace[], outcome: Outcome, drawn: Outcome): Change[] | null {
  const changes = ports.map((p, k) => p === null || outcome.sight(places[k]!) === drawn.sight(places[k]!) ? NO_CHANGE : p.changeOf(outcome.wiring))
  return changes.some(c => c === null) ? null : changes as Change[]
}
