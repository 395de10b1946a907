import { describe, expect, test } from '@jest/globals'
import { runs, SEED } from '#core/testing/runs'
import { seeded, type Chance } from '#core/testing/trees'
import { coilBandOhm, intermittent, type DayReading } from './intermittent'

const days = (...ohms: (number | null)[]): DayReading[] => ohms.map((ohm, k) => ({ at: `2026-05-${String(k + 1).padStart(2, '0')}T09:00:00Z`, ohm }))
const close = (...ohms: (number | null)[]): DayReading[] => ohms.map((ohm, k) => ({ at: `2026-05-04T09:0${k}:00Z`, ohm }))

test.each([[4, 2.8, 3.6], [8, 5.6, 7.2], [16, 11.2, 19.2], [32, 27.2, 38.4], [600, 510, 720]])('what a coil of %i Ω reads: %f to %f', (nominal, low, high) => {
  const { lowOhm, highOhm } = coilBandOhm(nominal)
  expect([lowOhm, highOhm]).toEqual([expect.closeTo(low, 9), expect.closeTo(high, 9)])
})

test.each<[string, DayReading[], number, string, number | null]>([
  ['36 Ω today and open tomorrow', days(36, null), 4, 'comes-and-goes', null], ['right, tens of ohms, right', days(3.3, 41, 3.4), 4, 'comes-and-goes', 37.7],
  ['the same on seven days', days(3.3, 3.3, 3.4, 3.3, 3.3, 3.4, 3.3), 4, 'right', 0.1], ['open on six days', days(null, null, null, null, null, null), 4, 'open', null],
  ['steady, far above', days(9.1, 9.2, 9.1, 9, 9.1, 9.1, 9.2, 9.1), 4, 'high', 0.2], ['steady, under', days(1.9, 1.9, 2, 1.9, 1.9, 1.9, 2, 1.9), 4, 'low', 0.1],
  ['one look says nothing', days(3.3), 4, 'not-known', null], ['seven readings in seven minutes are one look', close(3.3, 3.3, 3.4, 3.3, 3.3, 3.4, 3.3), 4, 'not-known', 0.1],
  ['while it is wiggled: two figures at one look are two', close(3.3, 3.3, 27, 3.3, null), 4, 'comes-and-goes', 23.7], ['a handset of 150 Ω, steady', days(158, 157, 158, 159, 158, 157, 158), 150, 'right', 2],
  ['a coil of 36 Ω that was never 4', days(36, 36.1, 36, 35.9, 36, 36.1, 36), 4, 'high', 0.2],
])('%s', (_, readings, nominal, verdict, spread) => {
  const told = intermittent(readings, nominal)
  expect([told.verdict, told.spreadOhm]).toEqual([verdict, spread === null ? null : expect.closeTo(spread, 9)])
  expect([told.more > 0, told.says.length > 20]).toEqual([verdict === 'not-known', true])
})

test('as many readings as it says settle it, and one fewer does not', () => {
  for (const n of [1, 2, 3]) {
    const { more } = intermittent(days(...Array<number>(n).fill(3.3)), 4)
    expect([n, ...[more - 1, more].map(m => intermittent(days(...Array<number>(n + m).fill(3.3)), 4).verdict)]).toEqual([n, 'not-known', 'right'])
  }
})

describe('simulated contacts, with physics of their own: 400 of each kind, four to eight days', () => {
  const bell = (chance: Chance) => Array.from({ length: 12 }, chance).reduce((a, b) => a + b) - 6
  const meter = (chance: Chance, ohm: number) => Math.max(0, ohm * (1 + 0.015 * bell(chance)) + 0.05 * bell(chance))
  // A contact's ohms wander: a random walk of their logarithm, mostly far under the coil's, open beyond a thousand ohms.
  const contact = (chance: Chance, count: number): (number | null)[] => {
    let log = -3 + 2 * bell(chance)
    const coil = 3 + 0.5 * chance()
    return Array.from({ length: count }, () => {
      log = 0.4 * log + 0.6 * (0.5 + 2.6 * bell(chance))
      const ohm = Math.exp(log)
      return ohm > 1000 ? null : meter(chance, coil + ohm)
    })
  }
  const steady = (chance: Chance, count: number): (number | null)[] => {
    const coil = chance() < 0.8 ? 2.8 + 0.8 * chance() : 4 + 30 * chance()
    return Array.from({ length: count }, () => meter(chance, coil))
  }
  const share = (make: (chance: Chance, count: number) => (number | null)[]) => {
    const chance = seeded(SEED)
    const count = runs(400)
    const told = Array.from({ length: count }, () => intermittent(days(...make(chance, 4 + Math.floor(5 * chance()))), 4).verdict)
    return (of: (v: string) => boolean) => told.filter(of).length / count
  }
  test('a steady one is hardly ever condemned: false alarms under one in a hundred', () => {
    expect([`seed ${SEED}`, share(steady)(v => v === 'comes-and-goes') < 0.01]).toEqual([`seed ${SEED}`, true])
  })
  test('one that wanders is called right in under three of a hundred, and found in three of four; of the rest more readings are asked for', () => {
    const of = share(contact)
    expect([`seed ${SEED}`, of(v => v === 'right') < 0.03, of(v => v === 'comes-and-goes') > 0.75, of(v => v === 'high' || v === 'low' || v === 'open') < 0.02]).toEqual([`seed ${SEED}`, true, true, true])
  })
})

test.each<[string, DayReading[], RegExp]>([
  ['no readings', [], /No readings/], ['a time that is none', [{ at: 'yesterday', ohm: 3 }], /Reading 1: “yesterday” is no time/], ['ohms that are none', [{ at: '2026-05-01', ohm: -3 }], /Reading 1: ohms/],
])('bad input is told: %s', (_, readings, says) => expect(() => intermittent(readings, 4)).toThrow(says))
