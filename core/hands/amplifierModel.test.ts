import { expect, test } from '@jest/globals'
import { writeRating } from '#core/amplifier/index'
import type { OutputRating } from '#core/amplifier/rating'
import { unstatedModel } from '#core/gear/models'
import { counter, jobOf } from '#core/testing/jobs'
import { applyEdit } from '#core/job/apply'
import { asAmplifierModel, statedRating } from './amplifierModel'

const line = (lineV: number): OutputRating => ({ kind: 'constant-voltage', lineV, powerW: null })
const loads = { count: 1, points: [{ loadOhm: 4, powerW: 300 }], lines: [], floorOhm: 2, valve: null }
const lines = { count: 1, points: [], lines: [{ lineV: 100, powerW: 240 }, { lineV: 70.71, powerW: 200 }], floorOhm: null, valve: null }
const valves = { count: 1, points: [], lines: [], floorOhm: null, valve: { powerW: 50, tapsOhm: [4, 8, 16], chosenBy: 'selector' as const } }
const both = { ...loads, lines: lines.lines }
test.each<[string, Parameters<typeof statedRating>[0], OutputRating, string]>([
  ['loads', loads, { kind: 'not-known' }, '300 W at 4, from 2'],
  ['loads, though a line was meant', loads, line(70.71), '300 W at 4, from 2'],
  ['the first line', lines, { kind: 'not-known' }, '100 V 240 W'],
  ['the line that is meant', lines, line(70), '70 V 200 W'],
  ['no such line: the first', lines, line(25), '100 V 240 W'], ['either way: loads', both, { kind: 'not-known' }, '300 W at 4, from 2'], ['either way, a line meant', both, line(100), '100 V 240 W'],
  ['valves or a line, a line meant', { ...valves, lines: lines.lines }, line(100), '100 V 240 W'],
  ['valves, on no tap yet', valves, { kind: 'not-known' }, 'valve 50 W at 4/8/16'],
  ['on the tap that they were', valves, { kind: 'valve', powerW: 30, tapsOhm: [8], tapOhm: 8, chosenBy: null }, 'valve 50 W at 4/8/16, tap 8'],
  ['a tap that it has not', valves, { kind: 'valve', powerW: 30, tapsOhm: [2], tapOhm: 2, chosenBy: null }, 'valve 50 W at 4/8/16'],
  ['bridged as it was, with the floor that its maker states', loads, { kind: 'solid-state', points: [{ loadOhm: 8, powerW: 1 }], floorOhm: null, mode: 'bridged', bridgedFloorOhm: null }, '2 x 300 W at 4, from 2 bridged from 3'],
])('%s', (_, output, now, says) => expect(writeRating(statedRating(output, now, 3))).toBe(says))

test('name, ratings, outputs that lack; what it has not stays and is named; one undo', () => {
  const job = jobOf('2 x 5 W on 70 V 60 W', '8')
  const model = { ...unstatedModel('amplifier', 'Rack 4'), outputs: [{ ...lines, count: 1 }, { ...loads, count: 3 }] }
  const from = { modelId: 'rack-4', version: 2, passed: null }
  const { edit, beyond } = asAmplifierModel(job, 'amp', model, from, counter('n'))
  const { job: after, inverse } = applyEdit(job, edit!)
  expect([after.amplifiers[0]!.name, after.amplifiers[0]!.outputs.map(o => `${o.label} ${writeRating(o.rating)}`), beyond]).toEqual(['Rack 4', ['A1 70 V 200 W', 'A2 300 W at 4, from 2', 'A3 300 W at 4, from 2', 'A4 300 W at 4, from 2'], []])
  expect(applyEdit(after, inverse).job).toEqual(job)
  expect([after.amplifiers[0]!.from, after.amplifiers[0]!.highPassHz, asAmplifierModel(after, 'amp', model, { ...from, version: 3 }, counter('m')).edit?.kind]).toEqual([from, null, 'amplifier.set'])
  const stated = { ...model, made: 'vehicle' as const, gainDb: 26, inputV: 1.2, inputOhm: 10_000, protection: 'Cuts out.' }
  const told = applyEdit(after, asAmplifierModel(after, 'amp', stated, from, counter('m')).edit!).job
  expect(told.amplifiers[0]).toMatchObject({ made: 'vehicle', gainDb: 26, inputV: 1.2, inputOhm: 10_000, protection: 'Cuts out.' })
  // What a model does not state stays as somebody entered it.
  expect(asAmplifierModel(told, 'amp', model, from, counter('m')).edit).toBeNull()
  const passed = applyEdit(after, asAmplifierModel(after, 'amp', { ...model, highPassHz: 60 }, from, counter('m')).edit!).job
  expect([passed.amplifiers[0]!.highPassHz, asAmplifierModel(passed, 'amp', model, from, counter('m')).edit]).toEqual([60, null])
  expect(asAmplifierModel(after, 'amp', model, from, counter('m'))).toEqual({ edit: null, beyond: [] })
  expect(asAmplifierModel(after, 'amp', { ...model, outputs: [{ ...lines, count: 2 }] }, from, counter('m')).beyond).toEqual(['A3', 'A4'])
  expect(asAmplifierModel(job, 'nope', model, from, counter('m'))).toEqual({ edit: null, beyond: [] })
})
