import { describe, expect, test } from '@jest/globals'
import { faultAt } from '#core/faults/fault'
import { FAULTS } from '#core/faults/index'
import type { FaultKind } from '#core/job/schema'
import { speakersOf } from '#core/job/tree'
import { hashOf } from '#core/quantity/hash'
import { InputError } from '#core/quantity/inputError'
import { SEED } from '#core/testing/runs'
import { seeded } from '#core/testing/trees'
import { MOST_SEED, readCode, writeCode } from './code'
import { amplifierOf, mendMinutes } from '#core/trace/next/minutes'
import { EXERCISES } from './exercises'
import { isIt, played } from './play'
import { candidatesOf, readRig, rigOf, sealOf } from './rig'

const LEVELS = EXERCISES.map((_, k) => k + 1)

describe('codes', () => {
  test('out and in again, in small letters too; each is another', () => {
    const chance = seeded(SEED)
    const all = Array.from({ length: 500 }, () => ({ level: 1 + Math.floor(chance() * LEVELS.length), seed: Math.floor(chance() * (MOST_SEED + 1)) }))
    for (const of of [...all, { level: 1, seed: 0 }, { level: 15, seed: MOST_SEED }]) expect(readCode(` ${writeCode(of).toLowerCase()} `, LEVELS.length)).toEqual(of)
    expect(writeCode({ level: 7, seed: 74 })).toBe('R4-07-0002A')
  })
  test.each([['rubbish', 'is no code'], ['R3-07-0002A', 'of catalogue 3'], ['R4-16-0002A', 'no level 16'], ['R4-00-0002A', 'no level 0'], ['R4-07-000LA', 'I, L, O, U'], ['', 'is no code']])(
    '%s is refused with the reason', (text, says) => {
      expect(() => readCode(text, LEVELS.length)).toThrow(InputError)
      expect(() => readCode(text, LEVELS.length)).toThrow(says)
    })
})

describe('rigs', () => {
  // Rigs of catalogue 4: another hash is another rig, and another catalogue.
  test('of a table of codes what is hidden is what it always was', () => {
    const table = LEVELS.map(level => [1, 2, 77].map(seed => sealOf(rigOf({ level, seed }))).join(' ')).join(' ')
    expect([hashOf('a'), hashOf(table)]).toEqual([0xE40C292C, TABLE_HASH])
  })
  test('what is hidden is of the kinds of its exercise, at places of its line, as many as are said; the teaching is there', () => {
    for (const [k, { faults, kinds, before, after, name }] of EXERCISES.entries()) {
      for (let seed = 1; seed <= 6; seed++) {
        const rig = rigOf({ level: k + 1, seed })
        expect([name, rig.faults.length, rig.faults.every(f => kinds === null || kinds.includes(f.kind))]).toEqual([name, faults, true])
        const speakers = speakersOf(rig.output.wiring)
        for (const fault of rig.faults) expect(FAULTS.find(d => d.kind === fault.kind)!.candidates(rig.output, speakers, [])).toContainEqual(fault)
        expect(new Set(rig.faults.map(f => f.nodeId)).size).toBe(faults)
      }
      expect([before, after].every(text => text.length > 20)).toBe(true)
    }
  })
  test.each<[number, FaultKind[]]>([
    [8, ['drops-exchanged']], [14, ['drops-exchanged', 'extra-speaker', 'speaker-missing', 'another-cable', 'wrong-tap', 'dirty-contact']],
  ])('level %i lies as life does: tags exchanged, another thing than the plan says, a bad contact', (level, lies) => {
    const kinds = new Set(candidatesOf(EXERCISES[level - 1]!).map(f => f.kind))
    expect(lies.filter(kind => !kinds.has(kind))).toEqual([])
  })
  test('a place that is read twice reads the same, whatever was read between; another seed is another line', () => {
    const tests = (rig: ReturnType<typeof rigOf>) => {
      const ids = speakersOf(rig.output.wiring).map(s => s.id)
      return [
        { kind: 'line-impedance', nodeId: null, besideId: null }, ...ids.flatMap(nodeId => (['coil-dcr', 'sound', 'looked', 'polarity', 'outward-impedance'] as const).map(kind => ({ kind, nodeId, besideId: null }))),
        { kind: 'leg-earth', nodeId: null, besideId: null }, { kind: 'beside', nodeId: ids[0]!, besideId: ids.at(-1)! }, { kind: 'swapped', nodeId: ids[0]!, besideId: null },
      ] as const
    }
    const read = (seed: number, order: 1 | -1) => {
      const rig = rigOf({ level: 9, seed })
      const all = tests(rig)
      const answers = (order === 1 ? all : all.toReversed()).map(t => readRig(rig, t))
      return JSON.stringify(order === 1 ? answers : answers.toReversed())
    }
    expect(read(3, 1)).toBe(read(3, -1))
    expect(read(3, 1)).not.toBe(read(4, 1))
  })
  test('units are of their own rig: two of one fault read otherwise', () => {
    const one = rigOf({ level: 2, seed: 1 })
    const other = Array.from({ length: 60 }, (_, k) => rigOf({ level: 2, seed: k + 2 })).find(r => isIt(r.faults, one.faults))!
    const coil = (rig: typeof one | undefined) => readRig(rig!, { kind: 'coil-dcr', nodeId: 's1', besideId: null })
    expect(coil(one)).not.toEqual(coil(other))
    expect(coil({ ...one!, sample: other!.sample })).not.toEqual(coil(other))
  })
  test('a walk notes each speaker as it sounds by itself', () => {
    const rig = rigOf({ level: 9, seed: 3 })
    const ids = speakersOf(rig.output.wiring).map(s => s.id)
    expect(readRig(rig, { kind: 'walk', nodeId: null, besideId: null }, ids)).toEqual(ids.flatMap(nodeId => readRig(rig, { kind: 'sound', nodeId, besideId: null })))
  })
})

test.each([
  ['the same', ['coil-open s1'], ['coil-open s1'], true], ['another place', ['coil-open s2'], ['coil-open s1'], false], ['another kind', ['coil-high s1'], ['coil-open s1'], false],
  ['one of two', ['coil-open s1'], ['coil-open s1', 'wrong-tap s2'], false], ['one too many', ['coil-open s1', 'wrong-tap s2'], ['coil-open s1'], false], ['both, in another order', ['wrong-tap s2', 'coil-open s1'], ['coil-open s1', 'wrong-tap s2'], true],
] as const)('named rightly: %s', (_, named, hidden, is) => {
  const of = (texts: readonly string[]) => texts.map((text) => {
    const [kind, nodeId] = text.split(' ')
    return faultAt(kind as 'coil-open', nodeId!)
  })
  expect(isIt(of(named), of(hidden))).toBe(is)
})

/** Those that are played in some seconds: a line of eight takes ten with two cores, one of forty a minute. */
const PLAYED = [1, 2, 3, 4, 5, 6, 7, 9, 11, 13]
test.each(PLAYED)('level %i: the tracer finds what is hidden, and says what it read', (level) => {
  const rig = rigOf({ level, seed: 1 })
  const { path, rank, minutes } = played(rig)
  expect([level, rank !== null]).toEqual([level, true])
  expect(path.length).toBeGreaterThan(0)
  expect([path[0]!.test.kind, path.every(p => p.read.length > 0 && p.minutes >= 0), minutes > 0]).toEqual(['line-impedance', true, true])
  const { suspects, test: last } = path.at(-1)!
  if (rank! > suspects.length) return
  expect(isIt(suspects[rank! - 1]!.faults, rig.faults)).toBe(true)
  // Its tests, then the likeliest places one after the other, with the amplifier off.
  const opened = suspects.slice(0, rank!)
  const byKnob = ['control-at-zero', 'control-turned-down', 'amplifier-low', 'amplifier-clipping']
  const off = amplifierOf(last.kind) === 'on' && opened.some(s => s.faults.some(f => !byKnob.includes(f.kind))) ? 1 : 0
  const tested = path.reduce((sum, p) => sum + p.minutes, 0)
  expect([level, minutes]).toEqual([level, expect.closeTo(tested + opened.reduce((sum, s) => sum + mendMinutes(s.faults), 0) + off, 9)])
}, 60_000)

const TABLE_HASH = 1_460_126_012
