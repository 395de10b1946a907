import { runs } from '#core/testing/runs'
import { describe, expect, test } from '@jest/globals'
import { applyEdit } from '#core/job/apply'
import type { Branch, Group, Job } from '#core/job/schema'
import { putBefore, unknownControl } from '#core/hands/throughs'
import { joinWithNext } from '#core/hands/intents'
import { withBranch } from '#core/job/tree'
import type { Cable } from '#core/quantity/cable'
import { cabled, counter, jobOf, outputOf } from '#core/testing/jobs'
import { seeded } from '#core/testing/trees'
import { cableSearch, copperMm2, layCable } from './cableSearch'
import { fullyUp } from '#core/line/behind'
import { solveOutput } from '#core/line/facts'
import { growthOf } from '#core/line/rules/cableGrows'

const gauges = (...awgs: number[]): Cable[] => awgs.map(awg => ({ awg }))
/** With every control fully up. */
const worst = (job: Job) => Math.min(0, ...solveOutput({ ...outputOf(job), wiring: fullyUp(outputOf(job).wiring) }).drops
  .filter(d => d.ohm !== null).map(d => d.lossDb))

/** Every falling choice of sizes, solved one by one: another road to the same answer. */
function exhaustive(job: Job, limitDb: number, sizes: Cable[]): { single: number | null, falling: number | null } {
  // All leads of a length, each with the one that its current comes through.
  const run: { branch: Branch, before: number }[] = []
  const visit = (group: Group, came: number): void => {
    group.children.reduce((along, branch) => {
      const here = (branch.lead?.lengthM ?? 0) > 0 ? run.push({ branch, before: group.kind === 'chain' ? along : came }) - 1 : along
      if ('children' in branch.node) visit(branch.node, here)
      return group.kind === 'chain' ? here : along
    }, came)
  }
  visit(outputOf(job).wiring, -1)
  const thickFirst = [...sizes].sort((a, b) => copperMm2(b) - copperMm2(a))
  const all: number[][] = []
  const grow = (choice: number[]): void => {
    if (choice.length === run.length) all.push(choice)
    else for (let s = choice[run[choice.length]!.before] ?? 0; s < sizes.length; s++) grow([...choice, s])
  }
  grow([])
  const costs = all.flatMap((choice) => {
    const lay = (j: Job, s: number, k: number) =>
      withBranch(j, run[k]!.branch.node.id, b => ({ ...b, lead: { cable: thickFirst[s]!, lengthM: b.lead!.lengthM } }))
    const laid = choice.reduce(lay, job)
    const copper = choice.reduce((sum, s, k) => sum + copperMm2(thickFirst[s]!) * run[k]!.branch.lead!.lengthM, 0)
    return worst(laid) >= -limitDb - 1e-9 ? [{ isSingle: new Set(choice).size === 1, copper }] : []
  })
  const least = (found: { copper: number }[]) => found.length === 0 ? null : Math.min(...found.map(f => f.copper))
  return { single: least(costs.filter(c => c.isSingle)), falling: least(costs) }
}

test('random lines: the least copper is what trying every choice gives, proven, and within the limit', () => {
  const chance = seeded(11)
  let none = 0
  let fell = 0
  for (let k = 0; k < runs(120); k++) {
    const count = 2 + Math.floor(chance() * 5)
    const texts = [`${count} x ${5 + Math.floor(chance() * 40)} W on 70 V 400 W`, `${count} x 8 parallel on 300 W at 2`, '(8 + 8) || 8 || (4 + 4 + 8) || 16 on 300 W at 2']
    const plain = cabled(jobOf(texts[Math.floor(chance() * 3)]!), { cable: { awg: 18 }, lengthM: 1 })
    const metres = () => ({ cable: { awg: 18 }, lengthM: Math.round(1 + chance() * 25) })
    const straight = outputOf(plain).wiring.children.reduce((j, b) => withBranch(j, b.node.id, x => ({ ...x, lead: metres() })), plain)
    // Some have a control on the way: what hangs behind it has cable of its own.
    const ids = outputOf(straight).wiring.children.map(b => b.node.id)
    const from = Math.floor(chance() * (ids.length - 1))
    const put = chance() < 0.5 ? putBefore(straight, ids.slice(from, from + 2), { ...unknownControl('C1'), setDb: 6 }, counter('through')) : null
    const controlled = put !== null && typeof put === 'object' ? applyEdit(straight, put.edit).job : straight
    // And some hang from one point, each on a lead of its own.
    const star = put === null && chance() < 0.6 ? joinWithNext(controlled, ids[from]!, 'star', counter('star')) : null
    const job = star ? applyEdit(controlled, star).job : controlled
    const limitDb = 0.15 + 1.5 * chance()
    const sizes = chance() < 0.5 ? gauges(12, 14, 16, 18) : gauges(10, 14, 20)
    const wanted = exhaustive(job, limitDb, sizes)
    const found = cableSearch(outputOf(job), limitDb, sizes)!
    const copper = [found.single?.copperMm2M.toFixed(6), found.falling?.copperMm2M.toFixed(6)]
    expect([k, found.proven, ...copper]).toEqual([k, true, wanted.single?.toFixed(6), wanted.falling?.toFixed(6)])
    if (!found.falling) none++
    else {
      const laid = layCable(outputOf(job), found.falling)
      const after = laid ? applyEdit(job, laid).job : job
      expect(worst(after)).toBeCloseTo(found.falling.worstDb, 9)
      // The sheet finds no fault with it.
      expect([k, growthOf(outputOf(after).wiring)]).toEqual([k, null])
      expect(found.falling.worstDb).toBeGreaterThanOrEqual(-limitDb - 1e-6)
      if (found.falling.copperMm2M < (found.single?.copperMm2M ?? Infinity) - 1e-6) fell++
    }
  }
  // The lines are such that both happen often.
  expect([none > runs(120) / 15, fell > runs(120) / 5]).toEqual([true, true])
})

test('from one point each way has its own sizes: a light one beside a heavy one stays thin', () => {
  const plain = jobOf('5 W + 60 W on 70 V 400 W')
  const ids = outputOf(plain).wiring.children.map(b => b.node.id)
  const star = applyEdit(plain, joinWithNext(plain, ids[0]!, 'star', counter('star'))!).job
  const job = [5, 60].reduce((j, lengthM, k) => withBranch(j, ids[k]!, b => ({ ...b, lead: { cable: { awg: 18 }, lengthM } })), star)
  const found = cableSearch(outputOf(job), 0.15, gauges(12, 14, 16, 18))!
  expect([found.proven, found.falling!.leads.map(l => (l.cable as { awg: number }).awg)]).toEqual([true, [18, 14]])
  expect(found.falling!.copperMm2M).toBeCloseTo(exhaustive(job, 0.15, gauges(12, 14, 16, 18)).falling!, 6)
})

describe('the handbook’s ladder of twenty drops of 10 W, 8 m of 16 AWG between, −0.75 dB at its end', () => {
  const ladder = cabled(jobOf('20 x 10 W on 70 V 400 W'), { cable: { awg: 16 }, lengthM: 8 })
  test.each<[number, number | null]>([[0.75, 16], [0.74, 14], [0.35, 12], [0.01, null]])('within %d dB one size is %j AWG', (limitDb, awg) => {
    const found = cableSearch(outputOf(ladder), limitDb, gauges(12, 14, 16, 18))!
    expect([found.single && (found.single.leads[0]!.cable as { awg: number }).awg, found.lengthM, found.proven]).toEqual([awg, 160, true])
  })
  test('falling sizes need less copper than one, thick at the head', () => {
    const { single, falling } = cableSearch(outputOf(ladder), 0.5, gauges(12, 14, 16, 18))!
    const awgs = falling!.leads.map(l => (l.cable as { awg: number }).awg)
    expect([...awgs].sort((a, b) => a - b)).toEqual(awgs)
    expect([new Set(awgs).size > 1, falling!.copperMm2M < single!.copperMm2M]).toEqual([true, true])
  })
})

test('areas of IEC 60228 as well; nothing to search where no length is stated; a run that is so already is no edit', () => {
  const job = cabled(jobOf('4 x 20 W on 100 V 100 W'), { cable: { areaMm2: 1.5 }, lengthM: 30 })
  const found = cableSearch(outputOf(job), 0.5, [{ areaMm2: 0.75 }, { areaMm2: 1.5 }, { areaMm2: 2.5 }])!
  expect(found.single!.leads.map(l => l.cable)).toEqual(Array(4).fill({ areaMm2: 0.75 }))
  const laid = layCable(outputOf(job), found.single!)!
  expect(layCable(outputOf(applyEdit(job, laid).job), found.single!)).toBeNull()
  // Lengths of no stated size are what it is for.
  const unsized = cabled(job, { cable: null, lengthM: 30 })
  const chosen = cableSearch(outputOf(unsized), 0.5, [{ areaMm2: 0.75 }, { areaMm2: 1.5 }])!
  const done = applyEdit(unsized, layCable(outputOf(unsized), chosen.single!)!).job
  expect([chosen.single, done]).toEqual([found.single, applyEdit(job, laid).job])
  expect([cableSearch(outputOf(jobOf('8')), 0.5, gauges(16)), cableSearch(outputOf(job), 0.5, [])]).toEqual([null, null])
})
