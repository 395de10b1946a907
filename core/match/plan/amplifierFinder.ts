import type { AmplifierModel } from '#core/gear/amplifier'
import type { Job } from '#core/job/schema'
import { evaluateJob } from '../evaluate'
import { fitOf, isFit, needOf, type FindAsked, type Fit, type Need } from './amplifierFit'
import { sum } from './choices'
import { writeLp, type Program, type Row, type SolveLp } from './lp'

/**
 * The amplifier finder: which models, and how many of each, feed all lines of a job, each line on an output of its own that gives what the chosen school asks
 * at its voltage or into its load. An integer program over the models that fit something, solved to its proven optimum: the cheapest set, and the one of
 * fewest units. Every model that fits nothing says why.
 */
export interface FoundAmplifiers {
  sets: AmplifierSet[]
  refused: { model: string, why: string }[]
  /** Lines that could not be asked for, and why. */
  left: { line: string, why: string }[]
}
export interface AmplifierSet {
  models: { name: string, count: number }[]
  assignment: { line: string, model: string, output: number }[]
  price: number
  /** What the outputs used give beyond what their lines ask for, W. */
  spareW: number
  proven: boolean
}

interface Candidate { model: AmplifierModel, fits: (Fit | null)[][] }

export async function findAmplifiers(job: Job, models: readonly AmplifierModel[], solve: SolveLp, asked: FindAsked = { growth: 0 }): Promise<FoundAmplifiers> {
  const left: FoundAmplifiers['left'] = []
  const needs: Need[] = []
  for (const line of evaluateJob(job)) {
    if (line.speakers.length === 0) continue
    const need = needOf(line, asked)
    if (typeof need === 'string') left.push({ line: line.output.label, why: need })
    else needs.push(need)
  }
  const refused: FoundAmplifiers['refused'] = []
  const candidates: Candidate[] = []
  for (const model of models) {
    const fits = model.outputs.map(group => needs.map(need => fitOf(group, need)))
    if (needs.length > 0 && !fits.flat().some(isFit)) refused.push({ model: model.name, why: closest(fits.flat()) })
    else if (model.price === null) refused.push({ model: model.name, why: 'its price is not stated' })
    else candidates.push({ model, fits })
  }
  if (needs.length === 0) return { sets: [], refused, left }
  const unfed = needs.filter((_, l) => !candidates.some(c => c.fits.some(g => isFit(g[l]!))))
  if (unfed.length > 0) return { sets: [], refused, left: [...left, ...unfed.map(n => ({ line: n.label, why: 'no model feeds it' }))] }
  const useful = undominated(candidates)
  // Of enough units of each there is always one: every line is fed by something.
  const cheapest = await solve(writeLp(programOf(useful, needs, c => c.model.price!)))
  // Of equal units the cheaper: prices weigh together less than one unit.
  const all = 1 + sum(candidates.map(c => c.model.price!)) * needs.length
  const fewest = await solve(writeLp(programOf(useful, needs, c => 1 + c.model.price! / all)))
  const sets = [cheapest, fewest].map(answer => setOf(useful, needs, answer.taken))
  const isFirst = (set: AmplifierSet, k: number) => sets.findIndex(o => JSON.stringify(o.models) === JSON.stringify(set.models)) === k
  return { sets: sets.filter(isFirst).sort((a, b) => a.price - b.price), refused, left }
}

/** Of all reasons the one that misses least. */
function closest(fits: readonly Fit[]): string {
  const missed = fits.filter(f => !isFit(f)) as { why: string, shortW: number }[]
  return missed.reduce((a, b) => b.shortW < a.shortW ? b : a).why
}

/** Without those for which another of the same outputs does at least the same for no more; with models of unlike outputs nothing is left out. */
function undominated(candidates: readonly Candidate[]): Candidate[] {
  const sorted = [...candidates].sort((a, b) => a.model.price! - b.model.price! || b.model.outputs[0]!.count - a.model.outputs[0]!.count)
  const kept: Candidate[] = []
  for (const c of sorted) {
    const [group] = c.fits
    const isPlain = c.fits.length === 1
    const better = isPlain && kept.some(k => k.fits.length === 1 && k.model.outputs[0]!.count >= c.model.outputs[0]!.count
      && group!.every((fit, l) => !isFit(fit!) || isFit(k.fits[0]![l]!)))
    if (!better) kept.push(c)
  }
  return kept
}

const unit = (m: number, k: number) => `u${m}_${k}`
const on = (l: number, m: number, g: number) => `x${l}_${m}_${g}`
function programOf(candidates: readonly Candidate[], needs: readonly Need[], cost: (candidate: Candidate) => number): Program {
  const minimize = new Map<string, number>()
  const rows: Row[] = needs.map((_, l) => ({ name: `line${l}`, sum: new Map<string, number>(), is: '=', value: 1 }))
  const choices: string[] = []
  candidates.forEach((c, m) => {
    // As many as could ever be wanted: one a line, fewer where all outputs are alike.
    const most = c.fits.length === 1 ? Math.ceil(needs.length / c.model.outputs[0]!.count) : needs.length
    const units = Array.from({ length: most }, (_, k) => unit(m, k))
    for (const u of units) {
      choices.push(u)
      minimize.set(u, cost(c))
    }
    // Units of one model are alike: the second is taken after the first.
    units.slice(1).forEach((u, k) => rows.push({ name: `next${m}_${k}`, sum: new Map([[u, 1], [units[k]!, -1]]), is: '<=', value: 0 }))
    c.fits.forEach((fits, g) => {
      const used = new Map<string, number>()
      fits.forEach((fit, l) => {
        if (!isFit(fit!)) return
        choices.push(on(l, m, g))
        rows[l]!.sum = new Map([...rows[l]!.sum, [on(l, m, g), 1]])
        used.set(on(l, m, g), 1)
      })
      const given = units.map((u): [string, number] => [u, -c.model.outputs[g]!.count])
      if (used.size > 0) rows.push({ name: `outputs${m}_${g}`, sum: new Map([...used, ...given]), is: '<=', value: 0 })
    })
  })
  return { remarks: [`${needs.length} lines`, ...candidates.map((c, m) => `u${m}: ${c.model.name}`)], minimize, rows, choices }
}

function setOf(candidates: readonly Candidate[], needs: readonly Need[], taken: ReadonlySet<string>): AmplifierSet {
  const models: AmplifierSet['models'] = []
  const assignment: AmplifierSet['assignment'] = []
  let [price, spareW] = [0, 0]
  candidates.forEach((c, m) => {
    const count = [...taken].filter(name => name.startsWith(`u${m}_`)).length
    if (count === 0) return
    models.push({ name: c.model.name, count })
    price += count * c.model.price!
    let before = 0
    c.fits.forEach((fits, g) => {
      let output = 0
      needs.forEach((need, l) => {
        if (!taken.has(on(l, m, g))) return
        // Outputs count through unit by unit: those of the second unit after all of the first.
        const each = c.model.outputs[g]!.count
        const perUnit = sum(c.model.outputs.map(o => o.count))
        assignment.push({ line: need.label, model: c.model.name, output: Math.floor(output / each) * perUnit + before + output % each + 1 })
        spareW += (fits[l] as { spareW: number }).spareW
        output++
      })
      before += c.model.outputs[g]!.count
    })
  })
  const at = (label: string) => needs.findIndex(n => n.label === label)
  return { models, assignment: assignment.sort((a, b) => at(a.line) - at(b.line)), price, spareW, proven: true }
}
