import type { AmplifierModel } from '#core/gear/amplifier'
import type { OutputRating } from '#core/amplifier/rating'
import type { Job } from '#core/job/schema'
import { hasAll, isHopeless, isWanted, NOTHING_WANTED, wantedRows, wantedWords, type Wanted } from './wanted'
import { same } from '#core/quantity/same'
import { evaluateJob } from '#core/line/evaluate'
import { aroundOf, sharedOf } from '#core/line/surroundings'
import { asJudged, bridgedFitOf, fitOf, isFit, needOf, type FindAsked, type Fit, type Need } from './amplifierFit'
import { sum } from './choices'
import { writeLp, type Program, type Row, type SolveLp } from './lp'

/**
 * The amplifier finder: which models, and how many of each, feed all lines of a job, each line on an output of its own that gives what the chosen school asks
 * at its voltage or into its load. An integer program over the models that fit something, solved to its proven optimum three times: the cheapest set, the one
 * of fewest units, and the one with most to spare for a quarter more money than the cheapest. Every model that fits nothing says why.
 */
export interface FoundAmplifiers {
  sets: AmplifierSet[]
  refused: { model: string, why: string }[]
  /** Lines that could not be asked for, and why. */
  left: { line: string, why: string, isUnfed: boolean }[]
  /** What was wanted beside power and no set that feeds every line has, in words; null where one has it, or nothing was wanted. */
  lacks: string | null
}
export type Rank = 'price' | 'units' | 'spare'
/** Most to spare is looked for among sets of up to so many times the least price: of more money there is always more power. */
export const SPARE_FOR = 1.25
export interface AmplifierSet {
  /** What no other set does better. */
  leads: Rank[]
  /** `at`: which of the models asked about. */
  models: { name: string, count: number, at: number }[]
  /** `output` counts from 1 through all units of the model; `isBridged`: it and the next one are bridged. */
  assignment: { line: string, model: string, output: number, outputId: string, at: number, rating: OutputRating, isBridged: boolean }[]
  price: number
  /** What the outputs used give beyond what their lines ask for, W. */
  spareW: number
  proven: boolean
}

/** Of each group of outputs, whether one of them feeds each line, and whether two bridged do (null: not to be bridged). */
interface Candidate { at: number, model: AmplifierModel, fits: Fit[][], bridged: (Fit | null)[][] }

export async function findAmplifiers(job: Job, models: readonly AmplifierModel[], solve: SolveLp, asked: FindAsked = { growth: 0 }): Promise<FoundAmplifiers> {
  const left: FoundAmplifiers['left'] = []
  const needs: Need[] = []
  for (const line of evaluateJob(job)) {
    if (line.speakers.length === 0) continue
    const need = needOf(line, asked)
    if (typeof need === 'string') left.push({ line: line.output.label, why: need, isUnfed: false })
    else needs.push(need)
  }
  const shared = sharedOf(job)
  const refused: FoundAmplifiers['refused'] = []
  const candidates: Candidate[] = []
  for (const [at, model] of models.entries()) {
    if (model.made === 'mixer' || model.outputs.length === 0) {
      refused.push({ model: model.name, why: model.made === 'mixer' ? 'a mixer: no speaker hangs on it' : 'what its outputs give is not stated' })
      continue
    }
    const ask = (of: typeof fitOf | typeof bridgedFitOf) => model.outputs.map(group =>
      needs.map(need => asJudged(of(group, need, model.bridgedFloorOhm), need, aroundOf(job, need.outputId, shared))))
    const [fits, bridged] = [ask(fitOf) as Fit[][], ask(bridgedFitOf)]
    const all = [...fits.flat(), ...bridged.flat().flatMap(f => f ?? [])]
    if (needs.length > 0 && !all.some(isFit)) refused.push({ model: model.name, why: closest(all) })
    else if (model.price === null) refused.push({ model: model.name, why: 'its price is not stated' })
    else candidates.push({ at, model, fits, bridged })
  }
  if (needs.length === 0) return { sets: [], refused, left, lacks: null }
  const unfed = needs.filter((_, l) => !candidates.some(c => [...c.fits, ...c.bridged].some(g => g[l] !== null && isFit(g[l]!))))
  if (unfed.length > 0) {
    return { sets: [], refused, left: [...left, ...unfed.map(n => ({ line: n.label, why: whyUnfed(n, models), isUnfed: true }))], lacks: null }
  }
  const wanted = asked.wanted ?? NOTHING_WANTED
  const useful = undominated(candidates, wanted)
  if (isHopeless(wanted, useful.map(c => c.model))) return { sets: [], refused, left, lacks: wantedWords(wanted) }
  // Of enough units of each there is always one: every line is fed by something.
  const priceOf = (c: Candidate) => c.model.price!
  const cheapest = await solve(writeLp(programOf(useful, needs, { cost: priceOf, wanted })))
  if (cheapest.status === 'infeasible') return { sets: [], refused, left, lacks: wantedWords(wanted) }
  // Of equal units the cheaper: prices weigh together less than one unit.
  const all = 1 + sum(candidates.map(priceOf)) * needs.length
  const fewest = await solve(writeLp(programOf(useful, needs, { cost: c => 1 + priceOf(c) / all, wanted })))
  const roomy = undominated(candidates, wanted, true)
  const most = SPARE_FOR * cheapest.objective
  // Of equal spare the cheaper.
  const roomiest = await solve(writeLp(programOf(roomy, needs, { cost: c => (1 + priceOf(c)) / all, gain: fit => fit.spareW, most, wanted })))
  const sets = [setOf(useful, needs, cheapest.counted), setOf(useful, needs, fewest.counted), setOf(roomy, needs, roomiest.counted)]
  return { sets: merged(sets), refused, left, lacks: null }
}

const unitsOf = (set: AmplifierSet) => sum(set.models.map(m => m.count))
/** Each set once, with all that it leads in, the cheapest first. */
function merged(found: readonly AmplifierSet[]): AmplifierSet[] {
  const sets: AmplifierSet[] = []
  // Of equal units the way of lines onto outputs that leaves more.
  for (const set of [...found].sort((a, b) => b.spareW - a.spareW)) if (!sets.some(s => same(s.models, set.models))) sets.push(set)
  const best = { price: Math.min(...sets.map(s => s.price)), units: Math.min(...sets.map(unitsOf)), spare: Math.max(...sets.map(s => s.spareW)) }
  const leads = (s: AmplifierSet): Rank[] => [...s.price === best.price ? ['price' as const] : [], ...unitsOf(s) === best.units ? ['units' as const] : [], ...s.spareW >= best.spare - 1e-6 ? ['spare' as const] : []]
  return sets.map(s => ({ ...s, leads: leads(s) })).sort((a, b) => a.price - b.price || unitsOf(a) - unitsOf(b))
}

/** The line alone, against every output that is offered. */
function whyUnfed(need: Need, models: readonly AmplifierModel[]): string {
  const fits = models.flatMap(m => m.outputs.map(group => fitOf(group, need, m.bridgedFloorOhm)))
  if (fits.some(isFit)) return 'what would feed it has no price stated'
  return fits.length === 0 ? 'no model is offered' : `no model feeds it; what comes nearest ${nearest(closest(fits))}`
}
/** "short by 14 W on A1" after "what comes nearest". */
const nearest = (why: string) => why.startsWith('short') ? `is ${why}` : why.startsWith('from') ? `works ${why}` : why

/** Of all reasons the one that misses least. */
function closest(fits: readonly Fit[]): string {
  const missed = fits.filter(f => !isFit(f)) as { why: string, shortW: number }[]
  return missed.reduce((a, b) => b.shortW < a.shortW ? b : a).why
}

/**
 * Without those for which another of the same outputs does at least the same for no more; with models of unlike outputs nothing is left out.
 * @param bySpare whether the other has to leave as much to spare, too
 */
function undominated(candidates: readonly Candidate[], wanted: Wanted, bySpare = false): Candidate[] {
  const sorted = [...candidates].sort((a, b) => a.model.price! - b.model.price! || b.model.outputs[0]!.count - a.model.outputs[0]!.count)
  const kept: Candidate[] = []
  for (const c of sorted) {
    const [group] = c.fits
    const isPlain = c.fits.length === 1
    const better = isPlain && kept.some(k => k.fits.length === 1 && k.model.outputs[0]!.count >= c.model.outputs[0]!.count
      && (!isWanted(wanted) || hasAll(k.model, c.model))
      && group!.every((fit, l) => !isFit(fit) || atLeast(k.fits[0]![l]!, bySpare ? fit.spareW : 0))
      // One output of the other does as well as two of this.
      && c.bridged[0]!.every((fit, l) => fit === null || !isFit(fit)
        || [k.fits[0]![l]!, k.bridged[0]![l] ?? null].some(f => f !== null && atLeast(f, bySpare ? fit.spareW : 0))))
    if (!better) kept.push(c)
  }
  return kept
}

const atLeast = (fit: Fit, spareW: number) => isFit(fit) && fit.spareW >= spareW

const unit = (m: number) => `u${m}`
const on = (t: number, m: number, g: number) => `x${t}_${m}_${g}`
const onTwo = (t: number, m: number, g: number) => `y${t}_${m}_${g}`

/** Lines that ask for the same are one kind with a count: which of them goes where is nobody's choice, and to try all of it took five times as long. */
interface Alike { lines: number[] }
function alikeOf(needs: readonly Need[], candidates: readonly Candidate[]): Alike[] {
  const kinds = new Map<string, Alike>()
  needs.forEach(({ lineV, powerW, toW, loadOhm }, l) => {
    // Of one load the sheet may judge otherwise: by its curves and its controls.
    const feeds = lineV === null ? candidates.map(c => [...c.fits, ...c.bridged].map(g => g[l] !== null && isFit(g[l]!) ? 1 : 0).join('')).join(' ') : ''
    const key = [lineV, powerW, toW, lineV === null ? loadOhm : '', feeds].join(' ')
    kinds.set(key, { lines: [...kinds.get(key)?.lines ?? [], l] })
  })
  return [...kinds.values()]
}

/** `gain`: what a line on an output is worth; `most`: what all units may cost together. */
interface Aim { cost: (candidate: Candidate) => number, gain?: (fit: { spareW: number }) => number, most?: number, wanted: Wanted }
function programOf(candidates: readonly Candidate[], needs: readonly Need[], { cost, gain, most, wanted }: Aim): Program {
  const kinds = alikeOf(needs, candidates)
  const minimize = new Map<string, number>()
  const rows: Row[] = kinds.map(({ lines }, t) => ({ name: `lines${t}`, sum: new Map<string, number>(), is: '=', value: lines.length }))
  const counts: { name: string, most: number }[] = []
  candidates.forEach((c, m) => {
    // As many as could ever be wanted: one a line, fewer where all outputs are alike.
    const each = c.model.outputs[0]!.count
    const fewest = c.bridged[0]!.some(f => f !== null && isFit(f)) ? Math.floor(each / 2) : each
    counts.push({ name: unit(m), most: c.fits.length === 1 && !isWanted(wanted) ? Math.ceil(needs.length / fewest) : needs.length })
    const carried = new Map<string, number>()
    minimize.set(unit(m), cost(c))
    c.fits.forEach((fits, g) => {
      const used = new Map<string, number>()
      const put = (fit: Fit | null, name: string, t: number, outputs: number) => {
        if (fit === null || !isFit(fit)) return
        counts.push({ name, most: kinds[t]!.lines.length })
        rows[t]!.sum = new Map([...rows[t]!.sum, [name, 1]])
        used.set(name, outputs)
        if (gain) minimize.set(name, -gain(fit))
      }
      kinds.forEach(({ lines }, t) => {
        put(fits[lines[0]!]!, on(t, m, g), t, 1)
        put(c.bridged[g]![lines[0]!]!, onTwo(t, m, g), t, 2)
      })
      const pairs = [...used].filter(([, outputs]) => outputs === 2).map(([name]) => [name, 1] as const)
      const count = c.model.outputs[g]!.count
      for (const name of used.keys()) carried.set(name, -1)
      if (used.size > 0) rows.push({ name: `outputs${m}_${g}`, sum: new Map([...used, [unit(m), -count]]), is: '<=', value: 0 })
      // Two of one unit: of three outputs one pair.
      if (pairs.length > 0 && count % 2 === 1) rows.push({ name: `pairs${m}_${g}`, sum: new Map([...pairs, [unit(m), -Math.floor(count / 2)]]), is: '<=', value: 0 })
    })
    // No unit for its inputs alone: that is a mixer's work.
    if (isWanted(wanted)) rows.push({ name: `feeds${m}`, sum: new Map([...carried, [unit(m), 1]]), is: '<=', value: 0 })
  })
  if (isWanted(wanted)) rows.push(...wantedRows(wanted, candidates.map(c => c.model), unit))
  if (most !== undefined) rows.push({ name: 'money', sum: new Map(candidates.map((c, m) => [unit(m), c.model.price!])), is: '<=', value: most })
  return { remarks: [`${needs.length} lines`, ...candidates.map((c, m) => `u${m}: ${c.model.name}`)], minimize, rows, choices: [], counts }
}

function setOf(candidates: readonly Candidate[], needs: readonly Need[], counted: ReadonlyMap<string, number>): AmplifierSet {
  const models: AmplifierSet['models'] = []
  const assignment: AmplifierSet['assignment'] = []
  const waiting = alikeOf(needs, candidates).map(k => [...k.lines])
  let [price, spareW] = [0, 0]
  candidates.forEach((c, m) => {
    const count = counted.get(unit(m)) ?? 0
    if (count === 0) return
    models.push({ name: c.model.name, count, at: c.at })
    price += count * c.model.price!
    const perUnit = sum(c.model.outputs.map(o => o.count))
    let before = 0
    c.fits.forEach((fits, g) => {
      const each = c.model.outputs[g]!.count
      const taken = (name: typeof on) => waiting.flatMap((left, t) => left.splice(0, counted.get(name(t, m, g)) ?? 0)).sort((a, b) => a - b)
      const put = (l: number, seat: number, of: (Fit | null)[], isBridged: boolean) => {
        const { spareW: free, rating } = of[l] as Extract<Fit, { spareW: number }>
        const need = needs[l]!
        // Outputs count through unit by unit: those of the second unit after all of the first.
        const at = Math.floor(seat / each) * perUnit + before + seat % each
        assignment.push({ line: need.label, model: c.model.name, output: at + 1, outputId: need.outputId, at: c.at, rating, isBridged })
        spareW += free
      }
      const pairs = taken(onTwo)
      const seatOfPair = (k: number) => Math.floor(k / Math.floor(each / 2)) * each + 2 * (k % Math.floor(each / 2))
      const full = new Set(pairs.flatMap((l, k) => {
        put(l, seatOfPair(k), c.bridged[g]!, true)
        return [seatOfPair(k), seatOfPair(k) + 1]
      }))
      const free = Array.from({ length: count * each }, (_, seat) => seat).filter(seat => !full.has(seat))
      taken(on).forEach((l, k) => put(l, free[k]!, fits, false))
      before += each
    })
  })
  const place = (outputId: string) => needs.findIndex(n => n.outputId === outputId)
  return { leads: [], models, assignment: assignment.sort((a, b) => place(a.outputId) - place(b.outputId)), price, spareW, proven: true }
}
