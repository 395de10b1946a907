import { beforeAll, describe, expect, test } from '@jest/globals'
import highsLoader from 'highs'
import type { AmplifierModel } from '#core/gear/amplifier'
import { unstatedModel } from '#core/gear/models'
import { jobOf } from '#core/testing/jobs'
import { seeded } from '#core/testing/trees'
import { findAmplifiers } from './amplifierFinder'
import { HIGHS_OPTIONS, solvedByHighs, type SolveLp } from './lp'

let highs: Awaited<ReturnType<typeof highsLoader>>
const solve: SolveLp = lp => Promise.resolve(solvedByHighs(highs.solve(lp, HIGHS_OPTIONS) as never))
beforeAll(async () => { highs = await highsLoader() })

type Outputs = AmplifierModel['outputs']
const lines = (count: number, powerW: number, ...volts: number[]): Outputs =>
  [{ count, points: [], lines: volts.map(lineV => ({ lineV, powerW })), floorOhm: null }]
const loads = (count: number, floorOhm: number, ...points: [number, number][]): Outputs =>
  [{ count, points: points.map(([loadOhm, powerW]) => ({ loadOhm, powerW })), lines: [], floorOhm }]
const model = (name: string, price: number | null, outputs: Outputs): AmplifierModel => ({ ...unstatedModel('amplifier', name), outputs, price })

test('against every set of 150 small cases: the cheapest, and the fewest units', async () => {
  const chance = seeded(41)
  let [found, none] = [0, 0]
  for (let n = 0; n < 150; n++) {
    const any = (...list: number[]) => list[Math.floor(list.length * chance())]!
    const needs = Array.from({ length: any(1, 2, 3, 4) }, () => ({ watts: any(40, 80, 120, 200), volts: any(70, 70, 70, 100) }))
    const job = jobOf(...needs.map(({ watts, volts }) => `${watts * 0.8} W on ${volts} V`))
    const volts = () => chance() < 0.4 ? [70.71, 100] : [any(70.71, 100)]
    const models = Array.from({ length: any(1, 2, 3) }, (_, k) =>
      model(`M${k}`, 100 + Math.floor(900 * chance()), [...lines(any(1, 2, 3), any(60, 100, 150, 240), ...volts()), ...chance() < 0.3 ? lines(1, 50, 70.71) : []]))
    // Every number of units of each, and every way of lines onto outputs.
    const canFeed = (counts: number[]): boolean => {
      const outputsOf = (m: AmplifierModel) => m.outputs.flatMap(g => Array.from({ length: g.count }, () => g))
      const outputs = models.flatMap((m, k) => Array.from({ length: counts[k]! }, () => outputsOf(m)).flat())
      const feeds = (o: Outputs[number], l: number) =>
        o.lines.some(x => Math.round(x.lineV) === (needs[l]!.volts === 70 ? 71 : 100) && x.powerW >= needs[l]!.watts - 1e-9)
      const place = (l: number, used: ReadonlySet<number>): boolean =>
        l === needs.length || outputs.some((o, i) => !used.has(i) && feeds(o, l) && place(l + 1, new Set([...used, i])))
      return place(0, new Set())
    }
    let [cheapest, fewest] = [Infinity, Infinity]
    const count = (k: number, counts: number[]): void => {
      if (k === models.length) {
        if (!canFeed(counts)) return
        cheapest = Math.min(cheapest, counts.reduce((sum, c, i) => sum + c * models[i]!.price!, 0))
        fewest = Math.min(fewest, counts.reduce((a, b) => a + b))
        return
      }
      for (let c = 0; c <= needs.length; c++) count(k + 1, [...counts, c])
    }
    count(0, [])
    const { sets } = await findAmplifiers(job, models, solve)
    if (cheapest === Infinity) {
      none++
      expect(sets).toEqual([])
      continue
    }
    found++
    const units = (s: typeof sets[number]) => s.models.reduce((sum, m) => sum + m.count, 0)
    expect([n, Math.min(...sets.map(s => s.price)), Math.min(...sets.map(units))]).toEqual([n, cheapest, fewest])
    for (const s of sets) {
      expect(s.assignment.map(a => a.line)).toEqual(needs.map((_, k) => `A${k + 1}`))
      expect(new Set(s.assignment.map(a => `${a.model} ${a.output}`)).size).toBe(needs.length)
      expect(s.price).toBe(s.models.reduce((sum, m) => sum + m.count * models.find(x => x.name === m.name)!.price!, 0))
    }
  }
  expect(Math.min(found, none)).toBeGreaterThan(15)
}, 60_000)

describe('a model is refused with what it misses', () => {
  test.each<[string, string, AmplifierModel, RegExp]>([
    ['too weak', '100 W on 70 V', model('M', 100, lines(1, 111, 70.71)), /^short by 14 W on A1$/], ['other volts', '100 W on 100 V', model('M', 100, lines(1, 500, 70.71)), /^gives 70\.7 V only, A1 is 100 V$/], ['lines only', '8 ohm 50 W on 100 W at 8', model('M', 100, lines(1, 500, 70.71)), /^gives lines only, A1 is of 8 Ω$/],
    ['a load under its floor', '4 ohm 50 W on 100 W at 4', model('M', 100, loads(2, 8, [8, 100])), /^from 8 Ω on, A1 is 4 Ω$/], ['too little into a load', '8 ohm 100 W on 100 W at 8', model('M', 100, loads(2, 4, [8, 50])), /^short by [\d.]+ W on A1$/], ['far too much', '8 ohm 50 W on 100 W at 8', model('M', 100, loads(2, 4, [8, 900])), /more than the .* chosen school allows on A1$/],
    ['a swing too small for the line', '50 W on 70 V', model('M', 100, loads(2, 4, [8, 100])), /^reaches 28\.3 V, A1 is 70\.7 V$/], ['no price', '40 W on 70 V', model('M', null, lines(1, 500, 70.71)), /price is not stated/],
  ])('%s', async (_, text, m, why) => {
    const { sets, refused } = await findAmplifiers(jobOf(text), [m], solve)
    expect([sets, refused.map(r => r.model)]).toEqual([[], ['M']])
    expect(refused[0]!.why).toMatch(why)
  })
  test('a plain amplifier whose swing is the line’s feeds it: 625 W at 8 Ω are 70.7 V', async () => {
    const { sets } = await findAmplifiers(jobOf('300 W on 70 V'), [model('M', 780, loads(2, 4, [8, 625], [4, 1000]))], solve)
    expect(sets.map(s => [s.models, s.assignment])).toEqual([[[{ name: 'M', count: 1 }], [{ line: 'A1', model: 'M', output: 1 }]]])
  })
  test('lines that ask for nothing known are left, and said; growth asks for more', async () => {
    const m = model('M', 100, lines(1, 125, 70.71))
    expect((await findAmplifiers(jobOf('8 || 8', '100 W on 70 V'), [m], solve)).left).toEqual([{ line: 'A1', why: 'what it asks for is not known: taps or ratings are missing' }])
    expect([(await findAmplifiers(jobOf('100 W on 70 V'), [m], solve)).sets.length, (await findAmplifiers(jobOf('100 W on 70 V'), [m], solve, { growth: 0.1 })).sets.length]).toEqual([1, 0])
    expect(await findAmplifiers(jobOf('8'), [], solve)).toMatchObject({ sets: [], refused: [] })
  })
})

test('cheap many against one dear: both are named, the cheaper first', async () => {
  const { sets } = await findAmplifiers(jobOf('40 W on 70 V', '40 W on 70 V', '40 W on 70 V'), [model('One line', 100, lines(1, 60, 70.71)), model('Four lines', 400, lines(4, 60, 70.71))], solve)
  expect(sets.map(s => [s.models, s.price, s.spareW])).toEqual([[[{ name: 'One line', count: 3 }], 300, 30], [[{ name: 'Four lines', count: 1 }], 400, 30]])
})
