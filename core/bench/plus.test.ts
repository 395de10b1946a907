import { describe, expect, test } from '@jest/globals'
import { ticket } from '#core/testing/ticket'
import { batteryFor, plusOf, saysOf, type Bare } from './plus'
import type { Written } from '#core/job/schema'

const plus = (by: string, seen: string, unit = 'this') => ({ is: 'plus', unit, by, seen, note: '' }) as Written

describe('which tab is plus', () => {
  // IEC 60268-5, AES26: plus on plus moves the cone out. Lenz: a cone that is pushed in makes the voltage that would push it out, with its sign turned.
  test.each([
    ['battery', 'cone-out', 'as-marked'], ['battery', 'cone-in', 'other'], ['millivolts', 'negative', 'as-marked'], ['millivolts', 'positive', 'other'], ['pulse', 'positive', 'as-marked'],
    ['pulse', 'negative', 'other'], ['pulse', 'cone-in', 'other'], ['mark', 'positive', null], ['battery', 'not-seen', null], ['battery', 'positive', null], ['millivolts', 'cone-out', null],
  ] as const)('%s, %s: %s', (by, seen, says) => expect(saysOf({ by, seen })).toBe(says))
  test.each<[string, Written[], unknown]>([
    ['none', [], { says: null, isProved: false }], ['a mark', [plus('mark', 'positive')], { says: null, isProved: false }], ['a battery', [plus('battery', 'cone-in')], { says: 'other', isProved: true }],
    ['two that agree', [plus('battery', 'cone-out'), plus('millivolts', 'negative')], { says: 'as-marked', isProved: true }],
    ['two that do not', [plus('battery', 'cone-out'), plus('millivolts', 'positive')], { says: 'against-each-other', isProved: false }], ['of the other unit', [plus('battery', 'cone-out', 'new')], { says: null, isProved: false }],
  ])('%s', (_, whats, says) => expect(plusOf(ticket({}, ...whats), 'this')).toEqual(says))
})

describe('the battery for it', () => {
  const bare = (more: Partial<Bare>): Bare => ({ kind: 'speaker', nominalOhm: 4, ratedW: 50, isHighUnit: false, behind: 'nothing', ...more })
  test.each<[string, Partial<Bare>, [number | null, number]]>([
    ['a cone of 50 W', {}, [9, 0]], ['a small one: 9 V would be 29 W', { ratedW: 10 }, [1.5, 0]], ['a big cone', { ratedW: 300, nominalOhm: 8 }, [18, 0]], ['300 W of 2 Ω still stands 18 V', { ratedW: 300, nominalOhm: 2 }, [18, 0]],
    ['a rating nobody knows', { ratedW: null }, [1.5, 0]], ['ohms nobody knows', { nominalOhm: null, ratedW: 300 }, [1.5, 0]],
    ['a handset', { kind: 'handset', nominalOhm: 32 }, [1.5, 150]], ['a headphone whose ohms nobody knows', { kind: 'headphone', nominalOhm: null }, [1.5, 150]], ['a speaker of 32 Ω is a small coil', { nominalOhm: 32 }, [1.5, 150]], ['of 16 Ω it is a cone', { nominalOhm: 16 }, [9, 0]], ['a high unit', { isHighUnit: true, nominalOhm: 8, ratedW: 100 }, [1.5, 150]],
    ['a headphone of 300 Ω', { kind: 'headphone', nominalOhm: 300 }, [1.5, 10]],
    ['behind a capacitor', { behind: 'capacitor' }, [null, 0]], ['behind a transformer', { behind: 'transformer' }, [null, 0]],
  ])('%s', (_, more, [volts, seriesOhm]) => {
    const battery = batteryFor(bare(more))
    expect([battery.volts, battery.seriesOhm]).toEqual([volts, seriesOhm])
  })
  // 9 V in 4 Ω is up to 20 W by its label (handbook tables of the trade); its coil reads 2.8 Ω at the least.
  test('never more than it stands, and no more than 10 mA through a small coil', () => {
    for (const nominalOhm of [2, 4, 8, 16]) for (const ratedW of [0.5, 5, 20, 60, 150, 400]) {
      const { volts, coilW } = batteryFor(bare({ nominalOhm, ratedW }))
      expect(volts === 1.5 || coilW! <= ratedW).toBe(true)
      expect(coilW).toBeCloseTo(volts! ** 2 / (0.7 * nominalOhm), 9)
      const small = batteryFor(bare({ kind: 'headphone', nominalOhm }))
      expect(1.5 / (small.seriesOhm + 0.7 * nominalOhm)).toBeLessThanOrEqual(0.0101)
    }
  })
})
