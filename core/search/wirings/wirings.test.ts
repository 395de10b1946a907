import { describe, expect, test } from '@jest/globals'
import { emptyJob } from '#core/job/document'
import { jobOf } from '#core/testing/jobs'
import { seeded } from '#core/testing/trees'
import { evaluateJob } from '#core/line/evaluate'
import { evenNetworks, networkOf, Networks } from './enumerate'
import { findWirings, NOT_WIRED_WORDS, type Wirings, type WiringsAsked } from './finder'
import { connectionsOf, depthOf, ohmOf, sharesOf, writeNetwork, type Network, type Unit } from './network'
import { readUnits } from './readUnits'

const alike = (count: number, ohm = 8): Unit => ({ ohm, count, weight: 1 })
const all = (units: readonly Unit[], fairOnly = false): { network: Network, ohm: number }[] => {
  const found: { network: Network, ohm: number }[] = []
  new Networks(units, fairOnly).forEach((kind, parts, ohm) => found.push({ network: networkOf(kind, parts), ohm }))
  return found
}
const OUTPUT = { kind: 'solid-state' as const, points: [{ loadOhm: 8, powerW: 180 }, { loadOhm: 4, powerW: 300 }], floorOhm: 4, mode: 'single' as const, bridgedFloorOhm: null }
const find = (text: string, over: Partial<WiringsAsked> = {}): Wirings => {
  const found = findWirings({ units: readUnits(text), rating: OUTPUT, isFair: true, ...over })
  if (typeof found === 'string') throw new Error(found)
  return found
}

describe('counts', () => {
  // MacMahon, "The combinations of resistances", The Electrician 1892; distinct resistances of n unit resistors: A. Amengual,
  // Am. J. Phys. 68 (2000) 175. Both lists from memory.
  test.each([[2, 2, 2], [3, 4, 4], [4, 10, 9], [5, 24, 22], [6, 66, 53], [7, 180, 131], [8, 522, 337]])('%i equal ones make %i networks and %i resistances', (n, networks, resistances) => {
    const found = all([alike(n, 1)])
    // As fractions over the product of all that can come below them they would be whole; to nine places they are told apart.
    const ohms = new Set(found.map(f => f.ohm.toFixed(9)))
    expect([found.length, ohms.size, new Networks([alike(n, 1)]).count()]).toEqual([networks, resistances, BigInt(networks)])
  })
  // Series-parallel networks with n labelled edges: 1, 2, 8, 52, 472, 5504, 78416, 1320064 (Riordan and Shannon, J. Math. Phys. 21, 1942; from memory).
  test.each([[2, 2], [3, 8], [4, 52], [5, 472], [6, 5504], [7, 78_416]])('%i that differ make %i', (n, networks) => {
    const units = Array.from({ length: n }, (_, k) => alike(1, 3 + k * Math.SQRT2))
    expect([all(units).length, new Networks(units).count()]).toEqual([networks, BigInt(networks)])
  })
  test('eight that differ are counted, and some alike lie between', () => {
    expect(new Networks(Array.from({ length: 8 }, (_, k) => alike(1, 3 + k))).count()).toBe(1_320_064n)
    expect(new Networks([alike(2, 8), alike(2, 4)]).count()).toBe(BigInt(all([alike(2, 8), alike(2, 4)]).length))
    expect(new Networks([alike(1)]).count()).toBe(1n)
  })
})

/** The same, thought of otherwise: any two become one, until one is left; written in one order, so that equals meet. */
function byPairs(ohms: readonly number[]): Set<string> {
  const written = new Set<string>()
  const seen = new Set<string>()
  type Piece = { text: string, kind: 'one' | 'series' | 'parallel', parts: string[] }
  const join = (a: Piece, b: Piece, kind: 'series' | 'parallel'): Piece => {
    const parts = [...a.kind === kind ? a.parts : [a.text], ...b.kind === kind ? b.parts : [b.text]].sort()
    return { text: `(${parts.join(kind === 'series' ? '+' : '|')})`, kind, parts }
  }
  const go = (pieces: Piece[]): void => {
    const key = pieces.map(p => p.text).sort().join(' ')
    if (seen.has(key)) return
    seen.add(key)
    if (pieces.length === 1) return void written.add(pieces[0]!.text)
    for (let i = 0; i < pieces.length; i++) for (let j = i + 1; j < pieces.length; j++) for (const kind of ['series', 'parallel'] as const) {
      go([...pieces.filter((_, k) => k !== i && k !== j), join(pieces[i]!, pieces[j]!, kind)])
    }
  }
  go(ohms.map(ohm => ({ text: String(ohm), kind: 'one', parts: [] })))
  return written
}
test.each([[[8, 8, 8]], [[8, 8, 8, 8, 8]], [[4, 8, 16]], [[4, 4, 8, 8]], [[4, 4, 4, 8, 8]], [[2, 4, 8, 16, 32]]])('each network of %j stands once, and none is missing', (ohms) => {
  const units = [...new Set(ohms)].map(ohm => alike(ohms.filter(o => o === ohm).length, ohm))
  const sorted = (n: Network): string => n.kind === 'one' ? String(units[n.unit]!.ohm) : `(${n.parts.map(sorted).sort().join(n.kind === 'series' ? '+' : '|')})`
  const found = all(units).map(f => sorted(f.network))
  expect([new Set(found).size, new Set(found)]).toEqual([found.length, byPairs(ohms)])
})

test('what quick match makes of the text is what was found: load, and what each gets', () => {
  const chance = seeded(5)
  for (const text of ['4 x 8', '3 x 8, 2 x 4', '8, 4, 16', '6 x 8']) {
    const { wirings } = find(text, { isFair: false })
    for (let k = 0; k < 12; k++) {
      const w = wirings[Math.floor(wirings.length * chance())]!
      const [line] = evaluateJob({ ...emptyJob('x'), amplifiers: jobOf(`${w.text} on 300 W at 4, 180 W at 8, from 4`).amplifiers })
      expect([w.text, line!.loadOhm, line!.amplifierW]).toEqual([w.text, expect.closeTo(w.loadOhm, 9), expect.closeTo(w.amplifierW!, 6)])
      expect(line!.drops.map(d => Number(d.powerW!.toPrecision(9)))).toEqual(w.powerW.map(p => Number(p.toPrecision(9))))
    }
  }
})

test('four of 8 Ω at 4 Ω and more, all the same: two strings of two, then all in series; the rest is refused or uneven', () => {
  const { wirings, refused, distinct, unfair, isWhole } = find('4 x 8')
  expect(wirings.map(w => [w.text, w.loadOhm, w.amplifierW, w.powerW, w.connections])).toEqual([
    ['8 + 8 + 8 + 8', 32, expect.closeTo(45, 9), [11.25, 11.25, 11.25, 11.25].map(p => expect.closeTo(p, 9)), 5],
    ['(8 + 8) || (8 + 8)', 8, 180, [45, 45, 45, 45], 6], ['(8 || 8) + (8 || 8)', 8, 180, [45, 45, 45, 45], 7],
  ])
  expect([refused, distinct, unfair, isWhole]).toEqual([[{ text: '8 || 8 || 8 || 8', loadOhm: 2, why: '2 Ω is under the 4 Ω that the output allows', isTooLow: true }], 10, 6, true])
})

test('the simplest first: fewest joints, of equals those where series and parallel alternate least', () => {
  for (const text of ['6 x 8', '8 x 8', '3 x 8, 2 x 16, 4']) {
    const costs = find(text, { isFair: false, rating: { kind: 'not-known' } }).wirings.map(w => 100 * connectionsOf(w.network) + depthOf(w.network))
    expect([costs.length > 50, costs]).toEqual([true, costs.toSorted((a, b) => a - b)])
  }
})

test('what is refused stands with the nearest to what is allowed first', () => {
  const loads = find('5 x 4', { isFair: false }).refused.map(r => r.loadOhm)
  expect([loads.length > 8, loads]).toEqual([true, loads.toSorted((a, b) => b - a)])
})

describe('equal shares', () => {
  test('those found are just those of all in which all get the same', () => {
    const weighted = [{ ...alike(2, 8), weight: 2 }, { ...alike(2, 4), weight: 1 }]
    for (const units of [[alike(6)], [alike(7)], [alike(8)], [alike(2, 8), alike(1, 4)], [alike(2, 4), alike(2, 16)], weighted]) {
      const isFair = (n: Network) => {
        const per = sharesOf(n, units).map(s => s.share / units[s.unit]!.weight)
        return per.every(p => Math.abs(p / per[0]! - 1) < 1e-6)
      }
      const wanted = all(units).map(f => f.network).filter(isFair).map(n => writeNetwork(n, String)).sort()
      expect(all(units, true).map(f => writeNetwork(f.network, String)).sort()).toEqual(wanted)
      const { unfair } = find('8', { units: units.map(u => ({ ...u, ratingW: null })) })
      expect(wanted.length + unfair!).toBe(all(units).length)
    }
  })
  test('64 equal ones: loads from a 64th to 64 times, all even; the simplest of each load first', () => {
    const found = find('64 x 8', { rating: { kind: 'not-known' } })
    expect([found.isWhole, found.distinct, found.unfair, found.refused.length]).toEqual([false, null, null, 0])
    expect(new Set(found.wirings.map(w => w.loadOhm))).toEqual(new Set([512, 128, 32, 8, 2, 0.5, 0.125]))
    for (const w of found.wirings) expect(Math.max(...w.powerW) / Math.min(...w.powerW)).toBeCloseTo(1, 9)
    // Ordered factorisations of 64, series or parallel outermost: 2 × 32.
    expect(evenNetworks(64)).toHaveLength(64)
    expect(evenNetworks(12).map(n => ohmOf(n, [alike(12, 1)]))).toHaveLength(16)
  })
})

test.each<[string, Network, number]>([
  ['one', { kind: 'one', unit: 0 }, 2], ['two in series', { kind: 'series', parts: [{ kind: 'one', unit: 0 }, { kind: 'one', unit: 0 }] }, 3], ['two in parallel', { kind: 'parallel', parts: [{ kind: 'one', unit: 0 }, { kind: 'one', unit: 0 }] }, 4],
])('joints of %s', (_, network, joints) => expect(connectionsOf(network)).toBe(joints))

describe('outputs', () => {
  test('bridged: half of the load on each half, twice the floor', () => {
    expect(find('2 x 8', { isBridged: true })).toMatchObject({ wirings: [{ loadOhm: 16, amplifierW: 360 }], refused: [{ text: '8 || 8', loadOhm: 4, why: '4 Ω is under the 8 Ω that the output allows bridged' }] })
  })
  test('a valve output takes what matches a tap of it, whichever it is on now (common practice, no source)', () => {
    const valve = { kind: 'valve' as const, powerW: 50, tapsOhm: [4, 8, 16], tapOhm: 4, chosenBy: null }
    const found = find('4 x 8', { rating: valve, isFair: false })
    expect(found.wirings.map(w => [w.text, w.loadOhm, w.amplifierW])).toEqual([['(8 + 8) || (8 + 8)', 8, 50], ['(8 || 8) + (8 || 8)', 8, 50]])
    expect(found.refused.find(r => r.loadOhm === 32)?.why).toBe('32 Ω matches none of its taps, 4 Ω, 8 Ω, 16 Ω')
  })
  test('over two outputs each has half of them; an odd one is said', () => {
    expect(find('4 x 8', { channels: 2 }).wirings.map(w => [w.text, w.loadOhm])).toEqual([['8 + 8', 16], ['8 || 8', 4]])
    const word = (text: string, over: Partial<WiringsAsked>) => findWirings({ units: readUnits(text), rating: OUTPUT, isFair: true, ...over })
    expect([word('3 x 8', { channels: 2 }), word('65 x 8', {}), word('5 x 8, 4 x 4', {}), word('4 x 8', { rating: { kind: 'constant-voltage', lineV: 70.71, powerW: 100 } }), findWirings({ units: [], rating: OUTPUT, isFair: true })].map(w => typeof w === 'string' ? NOT_WIRED_WORDS[w] : 'found'))
      .toEqual(['They cannot be spread evenly over so many outputs.', 'More than 64 on one output: wire groups of them.', 'More than eight that are not alike cannot be gone through: wire groups of them.', 'On a transformer line they hang in parallel: nothing to find.', 'No speaker to wire.'])
    expect(find('8', {}).wirings.map(w => [w.text, w.powerW])).toEqual([['8', [180]]])
    // Where no floor is stated the lowest rated load is it; where nothing is known nothing is refused, and powers are parts of one.
    expect(find('2 x 4', { rating: { ...OUTPUT, floorOhm: null } }).refused).toHaveLength(1)
    expect(find('2 x 4', { rating: { kind: 'not-known' } }).wirings.map(w => [w.amplifierW, w.powerW])).toEqual([[null, [0.5, 0.5]], [null, [0.5, 0.5]]])
  })
})

test.each<[string, [number, number, number | null][]]>([
  ['4 x 8', [[8, 4, null]]], ['8', [[8, 1, null]]], ['2 × dvc 4', [[4, 4, null]]], ['2 x 8 ohm 100 W, 2 x 4', [[8, 2, 100], [4, 2, null]]], ['8 and 8', [[8, 2, null]]], ['7,5 Ω; 4 Ω 60 watts', [[7.5, 1, null], [4, 1, 60]]],
])('“%s” is read', (text, wanted) => expect(readUnits(text).map(u => [u.ohm, u.count, u.ratingW])).toEqual(wanted))
test.each([
  ['4 x lamp', 0, /“4 x lamp” is not a speaker/],
  ['4 x 8, ', 6, /A speaker is missing here/],
  ['8, 4 x 0', 2, /0\.1 to 10,000/],
  ['0 x 8', 0, /one to a thousand/],
  ['8, 4 y 4', 3, /“4 y 4”/],
] as const)('“%s” is refused at %i', (text, position, message) => {
  expect(() => readUnits(text)).toThrow(message)
  try { readUnits(text) }
  catch (error) { expect(Math.abs((error as { position: number }).position - position)).toBeLessThanOrEqual(1) }
})
