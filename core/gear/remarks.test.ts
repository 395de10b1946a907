import { expect, test } from '@jest/globals'
import type { AmplifierModel } from './amplifier'
import { unstatedModel } from './models'
import { remarksOn } from './remarks'
import type { SpeakerModel } from './speaker'

const small = { reOhm: 6, leH: 0, fsHz: 50, qms: 3, qes: 1 }
const coil = { kind: 'nominal' as const, nominalOhm: 4 }
const coils = (joined: 'series' | 'parallel') => ({ kind: 'members' as const, joined, members: [coil, coil] })
/**
 * Program twice and peak four times the continuous rating are AES2 and IEC 60268-5 (noise of 6 dB crest); P·(V/V₀)² is the
 * definition of power; all else common practice, no source.
 */
test.each<[string, Partial<SpeakerModel>, string[]]>([
  ['nothing stated', {}, []],
  ['ratings as they go', { continuousW: 50, programW: 100, peakW: 200 }, []],
  ['rounded', { continuousW: 30, programW: 63, peakW: 115 }, []],
  ['program off', { continuousW: 50, programW: 150 }, ['program']],
  ['just off', { continuousW: 50, programW: 107 }, ['program']],
  ['peak off', { continuousW: 50, peakW: 400 }, ['peak']], ['peak alone', { peakW: 400 }, ['no-continuous']], ['program alone', { programW: 400 }, ['no-continuous']],
  ['taps within', { continuousW: 20, scales: [{ lineV: 70.71, tapsW: [5, 20] }] }, []], ['a tap over its rating', { continuousW: 20, scales: [{ lineV: 70.71, tapsW: [5, 30] }] }, ['tap-over-rating']],
  ['scales that agree', { scales: [{ lineV: 70.71, tapsW: [5, 10] }, { lineV: 100, tapsW: [20, 10] }] }, []], ['the same watts on both', { scales: [{ lineV: 70.71, tapsW: [5, 10] }, { lineV: 100, tapsW: [5, 10] }] }, ['scales']],
  ['of another length they are not compared', { scales: [{ lineV: 70.71, tapsW: [5, 10, 20] }, { lineV: 100, tapsW: [10, 20] }] }, []],
  ['a tap heavier than its driver', { nominalOhm: 16, scales: [{ lineV: 25, tapsW: [60] }] }, ['tap-under-driver']], ['lighter', { nominalOhm: 8, scales: [{ lineV: 25, tapsW: [60] }] }, []],
  ['loss as usual', { insertionDb: 0.5 }, []], ['1.5', { insertionDb: 1.5 }, []], ['too good', { insertionDb: 0.1 }, ['insertion']], ['too much', { insertionDb: 3 }, ['insertion']],
  ['a coil as labelled', { nominalOhm: 8, smallSignal: small }, []], ['one that is not', { nominalOhm: 4, smallSignal: small }, ['coil']], ['nor low', { nominalOhm: 16, smallSignal: small }, ['coil']],
  ['two coils in series', { nominalOhm: 8, members: coils('series') }, []], ['in parallel', { nominalOhm: 8, members: coils('parallel') }, ['members']],
  ['a range', { lowHz: 50, highHz: 15_000 }, []],
  ['backwards', { lowHz: 15_000, highHz: 50 }, ['range']],
  ['sensitivity with its drive', { sensitivityDb: 89, sensitivityAt: '1 W' }, []],
  ['without', { sensitivityDb: 89, nominalOhm: 4 }, ['sensitivity']],
  ['leads for its taps', { scales: [{ lineV: 70.71, tapsW: [5] }], leads: [{ tapW: null, base: 'black', stripe: '' }, { tapW: 5, base: 'red', stripe: '' }] }, []],
  ['a lead too many', { scales: [{ lineV: 70.71, tapsW: [5] }], leads: [{ tapW: 7.5, base: 'red', stripe: '' }] }, ['lead']],
])('a speaker: %s', (_, stated, codes) => expect(remarksOn('speaker', { ...unstatedModel('speaker', 'x'), ...stated }).map(r => r.code)).toEqual(codes))

test('a version rated twice the one before', () => {
  const of = (continuousW: number) => ({ ...unstatedModel('speaker', 'x'), continuousW })
  expect([remarksOn('speaker', of(100), of(50)), remarksOn('speaker', of(60), of(50)), remarksOn('speaker', of(100), of(100))].map(r => r.map(x => x.code))).toEqual([['grown'], [], []])
  expect(remarksOn('speaker', of(100), of(50))[0]!.says).toBe('The version before was rated 50 W: is 100 W another unit, or another way to count?')
})

const outputs = (points: [number, number][], floorOhm: number | null = null, lines: [number, number][] = []): AmplifierModel['outputs'] =>
  [{ count: 2, points: points.map(([loadOhm, powerW]) => ({ loadOhm, powerW })), lines: lines.map(([lineV, powerW]) => ({ lineV, powerW })),
    floorOhm, valve: null }]
test.each<[string, Partial<AmplifierModel>, string[]]>([
  ['nothing stated', {}, []],
  ['as it goes', { outputs: outputs([[8, 200], [4, 350]], 4) }, []],
  ['more volts into less', { outputs: outputs([[8, 100], [4, 350]]) }, ['contradicts']],
  ['rated under its floor', { outputs: outputs([[4, 100]], 8) }, ['floor']],
  ['gain as input and output', { outputs: outputs([[8, 200]]), gainDb: 32, inputV: 1 }, []],
  ['gain that is not', { outputs: outputs([[8, 200]]), gainDb: 26, inputV: 1 }, ['gain']],
  ['by the line', { outputs: outputs([], null, [[100, 240]]), gainDb: 40, inputV: 1 }, []],
])('an amplifier: %s', (_, stated, codes) => expect(remarksOn('amplifier', { ...unstatedModel('amplifier', 'x'), ...stated }).map(r => r.code)).toEqual(codes))

test('a transformer by itself; the others say nothing', () => {
  expect([remarksOn('transformer', { ...unstatedModel('transformer', 'x'), insertionDb: 2 }), remarksOn('transformer', { ...unstatedModel('transformer', 'x'), insertionDb: 1 }), remarksOn('control', { ...unstatedModel('control', 'x'), insertionDb: 4 })].map(r => r.length)).toEqual([1, 0, 0])
})

// 20·log10(56.57 V / 1 V) is 35.05 dB: a decibel beside it is rounding, more is not. The definition of the decibel.
test.each<[string, Partial<AmplifierModel>, boolean]>([
  ['as it is', { gainDb: 35, inputV: 1 }, false], ['within a decibel', { gainDb: 36, inputV: 1 }, false], ['beyond it', { gainDb: 36.1, inputV: 1 }, true], ['below', { gainDb: 34, inputV: 1 }, true],
  ['without the input', { gainDb: 60, inputV: null }, false], ['without the gain', { gainDb: null, inputV: 1 }, false],
])('the gain of a sheet: %s', (_, fields, isRemarked) => {
  const outputs = [{ count: 1, points: [{ loadOhm: 8, powerW: 400 }], lines: [], floorOhm: null, valve: null }]
  expect(remarksOn('amplifier', { ...unstatedModel('amplifier', 'A'), outputs, ...fields }).map(r => r.code)).toEqual(isRemarked ? ['gain'] : [])
})
