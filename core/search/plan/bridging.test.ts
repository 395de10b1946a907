import { beforeAll, expect, test } from '@jest/globals'
import highsLoader from 'highs'
import { driveInto, floorOhm } from '#core/amplifier/index'
import type { AmplifierModel } from '#core/gear/amplifier'
import { unstatedModel } from '#core/gear/models'
import { putBefore, unknownControl } from '#core/hands/throughs'
import { applyEdit } from '#core/job/apply'
import type { Edit } from '#core/job/edits'
import type { Job } from '#core/job/schema'
import { outputsOf, speakersOf, withBranch } from '#core/job/tree'
import { evaluateJob } from '#core/line/evaluate'
import { counter, jobOf } from '#core/testing/jobs'
import { runs } from '#core/testing/runs'
import { seeded } from '#core/testing/trees'
import { findAmplifiers } from './amplifierFinder'
import { applySet } from './amplifiersEdit'
import { solverOf, type SolveLp } from './lp'

let solve: SolveLp
beforeAll(async () => { solve = solverOf(await highsLoader()) })

const model = (name: string, price: number, count: number, floor: number | null, ...points: [number, number][]): AmplifierModel =>
  ({ ...unstatedModel('amplifier', name), price, outputs: [{ count, points: points.map(([loadOhm, powerW]) => ({ loadOhm, powerW })), lines: [], floorOhm: floor, valve: null }] })

test('600 W into 8 Ω: two channels of 300 W at 4 bridged are less money than one that gives it alone', async () => {
  const job = jobOf('8 ohm 180 W on 100 W at 8')
  const roomy: Job = { ...job, practice: { ...job.practice, power: 'room-to-spare' } }
  const { sets } = await findAmplifiers(roomy, [model('Two', 200, 2, 4, [4, 300], [8, 180]), model('One', 900, 1, 4, [8, 600])], solve)
  const cheapest = sets.find(s => s.leads.includes('price'))!
  expect([cheapest.price, cheapest.assignment]).toEqual([200, [expect.objectContaining({ model: 'Two', output: 1, isBridged: true, rating: expect.objectContaining({ mode: 'bridged' }) })]])
})

test('of three channels one pair: three bridged lines take three units', async () => {
  const job = jobOf('8 ohm 180 W on 100 W at 8', '8 ohm 180 W on 100 W at 8', '8 ohm 180 W on 100 W at 8')
  const { sets } = await findAmplifiers({ ...job, practice: { ...job.practice, power: 'room-to-spare' } }, [model('Three', 200, 3, 4, [4, 300], [8, 180])], solve)
  expect([sets[0]!.price, sets[0]!.assignment.map(a => `${a.output} ${a.isBridged}`)]).toEqual([600, ['1 true', '4 true', '7 true']])
})

/** Random plain lines, some behind a control, some with a curve that dips. */
function randomJob(chance: () => number): Job {
  const any = <T>(...of: T[]) => of[Math.floor(of.length * chance())]!
  const job = jobOf(...Array.from({ length: any(1, 2, 3) }, () => `${any('8 ohm 50 W', '8 ohm 100 W', '4 ohm 100 W', '8 ohm 200 W', '16 ohm 50 W')} on 10 W at 2`))
  return outputsOf(job).reduce((j, o) => {
    const ids = speakersOf(o.wiring).map(s => s.id)
    const dipping = chance() < 0.2 ? withBranch(j, ids[0]!, b => ({ ...b, node: { ...b.node, load: { kind: 'curve', nominalOhm: 8, reOhm: null, points: [[20, 8, 0], [500, any(3, 5.7), 0], [20_000, 9, 0]] } } as typeof b.node })) : j
    const put = chance() < 0.3 ? putBefore(dipping, ids, { ...unknownControl(`V${o.label}`), ratingW: any(20, 500), setDb: any(0, 6, 12) }, counter(`through${o.id}`)) : null
    return put !== null && typeof put === 'object' ? applyEdit(dipping, put.edit as Edit).job : dipping
  }, job)
}
const randomModels = (chance: () => number) => Array.from({ length: 3 }, (_, k) => {
  const any = <T>(...of: T[]) => of[Math.floor(of.length * chance())]!
  const at4 = any(60, 120, 200, 400)
  return model(`M${k}`, 100 + Math.floor(900 * chance()), any(1, 2, 3, 4), any(null, 2, 4), [4, at4], [8, at4 * 0.6])
})

test('on random lines every set put in gives what was promised and brings no finding that was not there; none is cheaper (seed 44)', async () => {
  const chance = seeded(44)
  let [put, bridged, none] = [0, 0, 0]
  for (let n = 0; n < runs(60); n++) {
    const [plain, models] = [randomJob(chance), randomModels(chance)]
    const job: Job = { ...plain, practice: { ...plain.practice, power: (['dense-material', 'room-to-spare', 'careful'] as const)[n % 3]! } }
    const { sets, left } = await findAmplifiers(job, models, solve)
    const before = new Map(evaluateJob(job).map(l => [l.outputId, l]))
    // Every line on one channel or a pair of each model, judged by the sheet; then every number of units.
    const fits = models.map(m => [...before.values()].map((l) => {
      const ask = (mode: 'single' | 'bridged') => {
        const rating = { kind: 'solid-state' as const, points: m.outputs[0]!.points, floorOhm: m.outputs[0]!.floorOhm, mode, bridgedFloorOhm: null }
        const drive = driveInto(rating, l.upOhm!)!
        const asked = l.required.find(r => r.chosen)!
        const inside = l.upOhm! >= floorOhm(rating)! * 0.995 && drive.powerW >= asked.powerW! * 0.9 - 1e-9 && drive.mostW <= asked.toW! * 1.1 + 1e-9
        if (!inside) return false
        const amplifiers = job.amplifiers.map(a => ({ ...a, outputs: a.outputs.map(o => o.id === l.outputId ? { ...o, rating } : o) }))
        const after = evaluateJob({ ...job, amplifiers }).find(x => x.outputId === l.outputId)!
        return after.findings.every(f => f.grade === 'good' || f.grade === 'unknown' || l.findings.some(x => x.code === f.code))
      }
      return { one: ask('single'), two: m.outputs[0]!.count >= 2 && ask('bridged') }
    }))
    let cheapest = Infinity
    const lines = [...before.keys()]
    const way = (l: number, used: number[], pairs: number[]): void => {
      if (l === lines.length) {
        const unitsOf = (count: number, k: number) => Math.max(Math.ceil(used[k]! / count), pairs[k]! === 0 ? 0 : Math.ceil(pairs[k]! / Math.floor(count / 2)))
        cheapest = Math.min(cheapest, models.reduce((sum, m, k) => sum + m.price! * unitsOf(m.outputs[0]!.count, k), 0))
        return
      }
      models.forEach((_, k) => {
        if (fits[k]![l]!.one) way(l + 1, used.map((u, j) => j === k ? u + 1 : u), pairs)
        if (fits[k]![l]!.two) way(l + 1, used.map((u, j) => j === k ? u + 2 : u), pairs.map((p, j) => j === k ? p + 1 : p))
      })
    }
    way(0, models.map(() => 0), models.map(() => 0))
    expect([n, sets.length > 0 ? Math.min(...sets.map(s => s.price)) : Infinity]).toEqual([n, cheapest])
    if (sets.length === 0) {
      none++
      expect(left.some(l => l.isUnfed)).toBe(true)
      continue
    }
    for (const set of sets) {
      put++
      const { edit } = applySet(job, set, models.map(m => ({ model: m, from: null })), counter('new'))
      const after = edit ? applyEdit(job, edit).job : job
      for (const line of evaluateJob(after)) {
        const was = before.get(line.outputId)
        if (!was) continue
        const given = set.assignment.find(a => a.outputId === line.outputId)!
        expect([n, line.output.rating]).toEqual([n, given.rating])
        expect([n, line.findings.filter(f => (f.grade === 'stop' || f.grade === 'tight') && !was.findings.some(x => x.code === f.code)).map(f => f.code)]).toEqual([n, []])
        if (given.isBridged) bridged++
      }
      // No unit has more channels in use than its model.
      for (const a of after.amplifiers) {
        const m = models.find(x => a.name === x.name || a.name.startsWith(`${x.name}, no.`))
        if (m) expect(a.outputs.reduce((sum, o) => sum + (o.rating.kind === 'solid-state' && o.rating.mode === 'bridged' ? 2 : 1), 0)).toBeLessThanOrEqual(m.outputs[0]!.count)
      }
    }
  }
  expect([put, bridged, none].map((count, k) => count > [20, 3, 3][k]! ? 'enough' : count)).toEqual(['enough', 'enough', 'enough'])
}, 120_000)
