import { runs } from '#core/testing/runs'
import { beforeAll, describe, expect, test } from '@jest/globals'
import highsLoader from 'highs'
import type { AmplifierModel } from '#core/gear/amplifier'
import { SOURCE_KINDS, type SourceKind } from '#core/gear/inputs'
import { unstatedModel } from '#core/gear/models'
import { jobOf } from '#core/testing/jobs'
import { seeded } from '#core/testing/trees'
import { findAmplifiers } from './amplifierFinder'
import { solverOf, type SolveLp } from './lp'
import { wantedWords, type Wanted } from './wanted'

let solve: SolveLp
beforeAll(async () => { solve = solverOf(await highsLoader()) })

type Outputs = AmplifierModel['outputs']
const lines = (count: number, powerW: number, ...volts: number[]): Outputs =>
  [{ count, points: [], lines: volts.map(lineV => ({ lineV, powerW })), floorOhm: null, valve: null }]
const loads = (count: number, floorOhm: number, ...points: [number, number][]): Outputs =>
  [{ count, points: points.map(([loadOhm, powerW]) => ({ loadOhm, powerW })), lines: [], floorOhm, valve: null }]
const valves = (powerW: number | null, ...tapsOhm: number[]): Outputs => [{ count: 1, points: [], lines: [], floorOhm: null, valve: { powerW, tapsOhm, chosenBy: 'selector' } }]
const model = (name: string, price: number | null, outputs: Outputs): AmplifierModel => ({ ...unstatedModel('amplifier', name), outputs, price })

test('against every set of small cases: the cheapest, the fewest units, the most spare for a quarter more', async () => {
  const chance = seeded(41)
  let [found, none] = [0, 0]
  for (let n = 0; n < runs(60); n++) {
    const any = (...list: number[]) => list[Math.floor(list.length * chance())]!
    const needs = Array.from({ length: any(1, 2, 3, 4) }, () => ({ watts: any(40, 80, 120, 200), volts: any(70, 70, 70, 100) }))
    const job = jobOf(...needs.map(({ watts, volts }) => `${watts * 0.8} W on ${volts} V`))
    const volts = () => chance() < 0.4 ? [70.71, 100] : [any(70.71, 100)]
    const models = Array.from({ length: any(1, 2, 3) }, (_, k) =>
      model(`M${k}`, 100 + Math.floor(900 * chance()), [...lines(any(1, 2, 3), any(60, 100, 150, 240), ...volts()), ...chance() < 0.3 ? lines(1, 50, 70.71) : []]))
    // Every number of units of each, and every way of lines onto outputs.
    const mostSpare = (counts: number[]): number => {
      const outputsOf = (m: AmplifierModel) => m.outputs.flatMap(g => Array.from({ length: g.count }, () => g))
      const outputs = models.flatMap((m, k) => Array.from({ length: counts[k]! }, () => outputsOf(m)).flat())
      const spareOf = (o: Outputs[number], l: number) => Math.max(-Infinity, ...o.lines
        .filter(x => Math.round(x.lineV) === (needs[l]!.volts === 70 ? 71 : 100) && x.powerW >= needs[l]!.watts - 1e-9).map(x => x.powerW - needs[l]!.watts))
      const best = (l: number, used: ReadonlySet<number>): number => l === needs.length
        ? 0
        : Math.max(-Infinity, ...outputs.map((o, i) => used.has(i) || spareOf(o, l) < 0 ? -Infinity : spareOf(o, l) + best(l + 1, new Set([...used, i]))))
      return best(0, new Set())
    }
    let [cheapest, fewest] = [Infinity, Infinity]
    const all: { price: number, spare: number }[] = []
    const count = (k: number, counts: number[]): void => {
      if (k === models.length) {
        if (counts.reduce((a, b) => a + b) > needs.length) return
        const spare = mostSpare(counts)
        if (spare === -Infinity) return
        const price = counts.reduce((sum, c, i) => sum + c * models[i]!.price!, 0)
        all.push({ price, spare })
        cheapest = Math.min(cheapest, price)
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
    const roomiest = Math.max(...all.filter(s => s.price <= cheapest * 1.25 + 1e-9).map(s => s.spare))
    const lead = (rank: 'price' | 'units' | 'spare') => sets.filter(s => s.leads.includes(rank))
    expect([n, lead('price').map(s => s.price)[0], lead('units').map(units)[0]]).toEqual([n, cheapest, fewest])
    expect([n, Math.max(...sets.filter(s => s.price <= cheapest * 1.25 + 1e-9).map(s => s.spareW))]).toEqual([n, expect.closeTo(roomiest, 6)])
    expect(lead('spare').every(s => s.spareW >= Math.max(...sets.map(o => o.spareW)) - 1e-6)).toBe(true)
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
    ['too weak', '100 W on 70 V', model('M', 100, lines(1, 111, 70.71)), /^short by 14 W on A1$/],
    ['other volts', '100 W on 100 V', model('M', 100, lines(1, 500, 70.71)), /^gives 70\.7 V only, A1 is 100 V$/],
    ['lines only', '8 ohm 50 W on 100 W at 8', model('M', 100, lines(1, 500, 70.71)), /^gives lines only, A1 is of 8 Ω$/],
    ['a load under its floor', '4 ohm 50 W on 100 W at 4', model('M', 100, loads(2, 8, [8, 100])), /^from 8 Ω on, A1 is 4 Ω$/],
    ['too little into a load', '8 ohm 100 W on 100 W at 8', model('M', 100, loads(2, 4, [8, 50])), /^short by [\d.]+ W on A1$/],
    ['far too much', '8 ohm 50 W on 100 W at 8', model('M', 100, loads(2, 4, [8, 900])), /more than the .* chosen school allows on A1$/],
    ['valves for another load', '6 ohm 50 W on 100 W at 4', model('M', 100, valves(100, 8, 16)), /^has taps of 8, 16 Ω, A1 is 6 Ω$/],
    ['valves for a line', '50 W on 70 V', model('M', 100, valves(100, 8)), /^is a valve output, A1 is a line of 70.7 V$/],
    ['valves that are too weak', '8 ohm 50 W on 100 W at 8', model('M', 100, valves(50, 8)), /^short by [\d.]+ W on A1$/],
    ['valves of a power not stated', '8 ohm 50 W on 100 W at 8', model('M', 100, valves(null, 8)), /power is not stated/],
    ['valves that give too much', '8 ohm 50 W on 100 W at 8', model('M', 100, valves(900, 8)), /more than the .* allows on A1$/],
    ['a swing too small for the line', '50 W on 70 V', model('M', 100, loads(2, 4, [8, 100])), /^reaches 28\.3 V, A1 is 70\.7 V$/], ['no price', '40 W on 70 V', model('M', null, lines(1, 500, 70.71)), /price is not stated/],
  ])('%s', async (_, text, m, why) => {
    const { sets, refused } = await findAmplifiers(jobOf(text), [m], solve)
    expect([sets, refused.map(r => r.model)]).toEqual([[], ['M']])
    expect(refused[0]!.why).toMatch(why)
  })
  // Along the rated points, by hand: 700 W at 8 Ω are 74.8 V and 9.35 A, 1100 W at 4 Ω 66.3 V and 16.6 A; 70.71 V are held up to 12.86 A.
  test.each<[string, Outputs, number | null]>([
    ['625 W at 8 Ω are 70.71 V; at 4 Ω it holds 63 V only', loads(2, 4, [8, 625], [4, 1000]), 625], ['no figure at 4 Ω: what it is rated for', loads(2, 4, [8, 625]), 625],
    ['700 W at 8 Ω, 1100 W at 4 Ω: up to where its volts fall under the line’s', loads(2, 2, [8, 700], [4, 1100]), 909.3], ['1400 W at 4 Ω: beyond it the current is known to be that of its lowest load', loads(2, 2, [8, 700], [4, 1400]), 1322.9],
    ['a floor over it', loads(2, 6, [8, 700], [4, 1400]), 833.3], ['just too few volts', loads(2, 4, [8, 580]), null],
  ])('a plain amplifier on a 70 V line: %s', async (_, outputs, powerW) => {
    const { sets } = await findAmplifiers(jobOf('300 W on 70.71 V'), [model('M', 780, outputs)], solve)
    expect(sets.map(s => s.assignment[0]!.rating)).toEqual(powerW === null ? [] : [{ kind: 'constant-voltage', lineV: 70.71, powerW: expect.closeTo(powerW, 0) }])
  })
  test('valves where a tap is the load; two bridged are not asked of a set, their floor goes along', async () => {
    const { sets } = await findAmplifiers(jobOf('8 ohm 50 W on 100 W at 8'), [model('Head', 780, valves(110, 4, 8, 16))], solve)
    expect(sets[0]!.assignment[0]!.rating).toEqual({ kind: 'valve', powerW: 110, tapsOhm: [4, 8, 16], tapOhm: 8, chosenBy: 'selector' })
    const { sets: [plain] } = await findAmplifiers(jobOf('8 ohm 50 W on 100 W at 8'), [{ ...model('Two', 300, loads(2, 4, [8, 110])), bridgedFloorOhm: 6 }], solve)
    expect(plain!.assignment[0]!.rating).toMatchObject({ kind: 'solid-state', mode: 'single', bridgedFloorOhm: 6 })
  })
  test('lines that ask for nothing known are left, and said; growth asks for more', async () => {
    const m = model('M', 100, lines(1, 125, 70.71))
    expect((await findAmplifiers(jobOf('8 || 8', '100 W on 70 V'), [m], solve)).left).toEqual([{ line: 'A1', why: 'what it asks for is not known: taps or ratings are missing', isUnfed: false }])
    expect([(await findAmplifiers(jobOf('100 W on 70 V'), [m], solve)).sets.length, (await findAmplifiers(jobOf('100 W on 70 V'), [m], solve, { growth: 0.1 })).sets.length]).toEqual([1, 0])
    expect(await findAmplifiers(jobOf('8'), [], solve)).toMatchObject({ sets: [], refused: [] })
  })
})

test('cheap many against one dear: both are named, the cheaper first', async () => {
  const { sets } = await findAmplifiers(jobOf('40 W on 70 V', '40 W on 70 V', '40 W on 70 V'), [model('One line', 100, lines(1, 60, 70.71)), model('Four lines', 400, lines(4, 60, 70.71))], solve)
  expect(sets.map(s => [s.leads, s.models, s.price, s.spareW])).toEqual([[['price', 'spare'], [{ name: 'One line', count: 3, at: 0 }], 300, 30], [['units', 'spare'], [{ name: 'Four lines', count: 1, at: 1 }], 400, 30]])
})

test('a line that nothing feeds is named with what comes nearest', async () => {
  const left = async (text: string, ...models: AmplifierModel[]) => (await findAmplifiers(jobOf(text, '40 W on 70 V'), [model('B', 60, lines(2, 60, 70.71)), ...models], solve)).left
  expect(await left('100 W on 70 V')).toEqual([{ line: 'A1', why: 'no model feeds it; what comes nearest is short by 65 W on A1', isUnfed: true }])
  expect(await left('100 W on 70 V', model('M', 10, lines(1, 111, 70.71)))).toEqual([{ line: 'A1', why: 'no model feeds it; what comes nearest is short by 14 W on A1', isUnfed: true }])
  expect(await left('100 W on 70 V', model('M', null, lines(1, 500, 70.71)))).toEqual([{ line: 'A1', why: 'what would feed it has no price stated', isUnfed: true }])
  expect(await left('2 ohm 50 W on 100 W at 4', model('M', 90, loads(2, 4, [8, 60], [4, 100])))).toEqual([{ line: 'A1', why: 'no model feeds it; what comes nearest gives lines only, A1 is of 2 Ω', isUnfed: true }])
})

const TAKES: SourceKind[][] = [['microphone'], ['media', 'line'], ['microphone', 'line'], ['media'], ['microphone', 'media', 'line']]
test('inputs and zones besides: against every set of small cases; whether each source has an input that takes it is tried out, one by one', async () => {
  const chance = seeded(43)
  const any = <T>(...list: T[]): T => list[Math.floor(list.length * chance())]!
  let [found, none] = [0, 0]
  for (let n = 0; n < runs(60); n++) {
    const job = jobOf(...Array.from({ length: any(1, 2, 3) }, () => `${any(40, 80)} W on 70 V`))
    const needs = job.amplifiers[0]!.outputs.length
    const models = Array.from({ length: any(1, 2, 3) }, (_, k): AmplifierModel => ({
      ...model(`M${k}`, 100 + Math.floor(900 * chance()), lines(any(1, 2), 120, 70.71)), zones: any(null, 1, 2),
      inputs: Array.from({ length: any(0, 1, 2) }, () => ({ count: any(1, 2), takes: any(...TAKES), isOver: null })),
    }))
    const wanted: Wanted = { inputs: { microphone: any(0, 1, 2), media: any(0, 1), line: any(0, 0, 1) }, zones: any(0, 0, 2) }
    const sources = SOURCE_KINDS.flatMap(kind => Array.from({ length: wanted.inputs[kind] }, () => kind))
    const inputsOf = (m: AmplifierModel) => m.inputs.flatMap(g => Array.from({ length: g.count }, () => g.takes))
    const seats = (counts: number[]) => models.flatMap((m, k) => Array.from({ length: counts[k]! }, () => inputsOf(m)).flat())
    const priceOf = (counts: number[]) => counts.reduce((sum, c, i) => sum + c * models[i]!.price!, 0)
    const isSeated = (left: SourceKind[], free: SourceKind[][]): boolean => left.length === 0
      || free.some((takes, i) => takes.includes(left[0]!) && isSeated(left.slice(1), free.filter((_, j) => j !== i)))
    let cheapest = Infinity
    const count = (k: number, counts: number[]): void => {
      if (k < models.length) {
        for (let c = 0; c <= needs; c++) count(k + 1, [...counts, c])
        return
      }
      const units = counts.reduce((a, b) => a + b)
      const outputs = counts.reduce((sum, c, i) => sum + c * models[i]!.outputs[0]!.count, 0)
      const zones = counts.reduce((sum, c, i) => sum + c * (models[i]!.zones ?? 0), 0)
      // No unit without a line of its own.
      if (units <= needs && outputs >= needs && zones >= wanted.zones && isSeated(sources, seats(counts))) cheapest = Math.min(cheapest, priceOf(counts))
    }
    count(0, [])
    const { sets, lacks } = await findAmplifiers(job, models, solve, { growth: 0, wanted })
    if (cheapest === Infinity) {
      none++
      expect([n, sets, lacks]).toEqual([n, [], wantedWords(wanted)])
    }
    else {
      found++
      expect([n, sets[0]!.price, lacks]).toEqual([n, cheapest, null])
      for (const set of sets) {
        const counts = models.map((_, k) => set.models.find(m => m.at === k)?.count ?? 0)
        const zones = counts.reduce((sum, c, i) => sum + c * (models[i]!.zones ?? 0), 0)
        expect([n, isSeated(sources, seats(counts)), zones >= wanted.zones]).toEqual([n, true, true])
      }
    }
  }
  expect([found > 15, none > 10]).toEqual([true, true])
})

test('what feeds no line is refused with its reason: a mixer, and one of which no output is stated', async () => {
  const offered = [{ ...model('Mixer 6', 90, []), made: 'mixer' as const }, model('Bare', 80, []), model('One', 300, lines(1, 120, 70.71))]
  const { sets, refused } = await findAmplifiers(jobOf('80 W on 70 V'), offered, solve)
  expect([sets.map(s => s.models.map(m => m.name)), refused]).toEqual([[['One']], [{ model: 'Mixer 6', why: 'a mixer: no speaker hangs on it' }, { model: 'Bare', why: 'what its outputs give is not stated' }]])
  expect([wantedWords({ inputs: { microphone: 2, media: 1, line: 0 }, zones: 1 }), wantedWords({ inputs: { microphone: 0, media: 0, line: 1 }, zones: 3 })]).toEqual(['inputs for 2 microphones and 1 music player, 1 zone', 'inputs for 1 line, 3 zones'])
})
