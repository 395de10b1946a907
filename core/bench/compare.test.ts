import { unstatedModel } from '#core/gear/models'
import { describe, expect, test } from '@jest/globals'
import { ticket, coil } from '#core/testing/ticket'
import { compared, type Side } from './compare'
import { drawDays } from './days'
import { levelWord } from './levelWord'

const side = (name: string, nominalOhm: number | null, sensitivityDb: number | null, ratedW: number | null = 20): Side => ({ name, nominalOhm, sensitivityDb,
  ratedW })
const SOURCE = { watts: 5, ohm: 4 }

describe('two units side by side', () => {
  // By hand: 5 W at 4 Ω is 4.472 V; into 8 Ω 2.5 W, 3.01 dB less.
  test.each<[string, Side, Side, number | null, RegExp]>([
    ['6 dB more of the same ohms', side('old', 4, 86), side('new', 4, 92), 6, /^It is worth changing: 6 dB louder, plain to hear from the same source, as 4 times the watts would\.$/],
    ['3 dB more at twice the ohms: the same', side('old', 4, 86), side('new', 8, 89.0103), 0, /^For loudness it is not worth changing: as loud/], ['half the ohms', side('old', 8, 88), side('new', 4, 88), 3.0103, /worth changing: 3 dB louder/],
    ['a little', side('old', 4, 86), side('new', 4, 88), 2, /small gain: 2 dB louder, just heard/], ['quieter', side('old', 4, 90), side('new', 4, 86), -4, /not worth changing for loudness: 4 dB quieter/],
    ['nobody knows', side('old', 4, null), side('new', 4, 90), null, /not known: “old” has no stated/], ['it stands less than it is given', side('old', 4, 86), side('new', 4, 92, 2), 6, /gives 5 W into it, and it stands 2 W/],
  ])('%s', (_, was, now, db, says) => {
    const of = compared(was, now, SOURCE, null)
    if (db === null) expect(of.sameVoltsDb).toBeNull()
    else expect(of.sameVoltsDb).toBeCloseTo(db, 3)
    expect(of.says).toMatch(says)
  })
  test('levels and corner of each', () => {
    const { bySourceDb, mostDb, cornerHz } = compared(side('old', 4, 86, 20), side('new', 8, 90, null), SOURCE, 100e-6)
    expect([...bySourceDb, mostDb[0], ...cornerHz].map(v => Math.round(v! * 100) / 100)).toEqual([92.99, 93.98, 99.01, 397.89, 198.94])
    expect(mostDb[1]).toBeNull()
    // On a curve that is 16 Ω at all frequencies the corner is that of 16 Ω, whatever its label says.
    const model = { ...unstatedModel('speaker', 'x'), nominalOhm: 8, curve: [[10, 16, 0], [20_000, 16, 0]] as [number, number, number][] }
    expect(compared(side('old', 8, 90), { ...side('new', 8, 90), model }, SOURCE, 100e-6).cornerHz.map(v => Math.round(v!))).toEqual([199, 99])
  })
  test.each([[0.05, 'as loud'], [-0.5, '0.5 dB quieter, which nobody hears'], [10, '10 dB louder, about twice as loud, or half, to the ear']])('%s dB', (db, says) => expect(levelWord(db)).toBe(says))
})

describe('readings over days, drawn', () => {
  const draw = (...ohms: (number | null)[]) => drawDays(ticket({}, ...ohms.map(o => coil(o))).entries, 'coil', { lowOhm: 27, highOhm: 38 })
  test('equal factors are equal steps; open stands apart; the band lies where it is', () => {
    const { points, lowY, highY } = draw(30, 300, 3000, null)!
    const [a, b, c, open] = points.map(p => p.y)
    expect([b! - a!, open]).toEqual([expect.closeTo(c! - b!, 9), null])
    expect([lowY! < a!, highY! > a!, points.map(p => p.x)]).toEqual([true, true, [0, 1 / 3, 2 / 3, 1].map(x => expect.closeTo(x, 9))])
  })
  test('none, one, a short, and ticks that can be read', () => {
    expect([draw(), draw(30)!.points[0]!.x, draw(0)!.points[0]!.y]).toEqual([null, 0.5, 0])
    for (const most of [40, 400, 40_000, 40e6]) {
      const { ticks } = draw(30, most)!
      expect([ticks.length >= 1 && ticks.length <= 8, ticks.every(t => t.y >= 0 && t.y <= 1)]).toEqual([true, true])
    }
  })
})
