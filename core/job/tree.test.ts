import { expect, test } from '@jest/globals'
import { jobOf, outputOf } from '#core/testing/jobs'
import { applyEdit } from './apply'
import { isReadAtHead } from './sections/readings/kinds'
import { readingSchema, checkValue, isSamePlace, type Reading } from './sections/readings/schema'
import { branchesOf, countOf, depthOf, findGroup, findPlace, isInWiring, nodeIds } from './tree'
import { UNSTATED_AMPLIFIER } from '#core/job/sections/wiring/schema'

const job = jobOf('(8 + (4 || 4)) || 8', '8')
const { wiring } = outputOf(job)
const [series, , star] = branchesOf(wiring).map(b => b.node)

test('how deep and how many', () => {
  expect([depthOf(wiring), depthOf(series!), depthOf(star!), depthOf(wiring.children[1]!.node)]).toEqual([3, 2, 1, 0])
  expect([countOf(wiring), countOf(outputOf(job, 1).wiring)]).toEqual([6, 1])
  expect(nodeIds(wiring.children[0]!.node)).toEqual(branchesOf({ ...wiring, children: [wiring.children[0]!] }).map(b => b.node.id))
})

test('an id is taken by amplifiers, outputs, chains, groups and speakers; by nothing else', () => {
  for (const id of ['amp', 'out2', outputOf(job, 1).wiring.id, series!.id, star!.id, wiring.children[1]!.node.id]) expect([id, isInWiring(job, id)]).toEqual([id, true])
  expect(isInWiring(job, 'free')).toBe(false)
})

test('a change of one speaker keeps every other output, amplifier and group as it was', () => {
  const two = { ...job, amplifiers: [...job.amplifiers, { id: 'b', name: 'B', place: '', ...UNSTATED_AMPLIFIER, outputs: [{ ...outputOf(job, 1), id: 'out3', label: 'B1', wiring: { kind: 'chain' as const, id: 'w3', children: [] } }] }] }
  const after = applyEdit(two, { kind: 'lead.set', nodeId: wiring.children[1]!.node.id, was: null, to: { cable: { awg: 16 }, lengthM: 3 } }).job
  const [was, now] = [two, after].map(j => [j.amplifiers[1], j.amplifiers[0]!.outputs[1], j.amplifiers[0]!.outputs[0]!.wiring.children[0]])
  now!.forEach((part, k) => expect(part).toBe(was![k]))
  expect([findGroup(after, wiring.id)!.output.id, findGroup(after, series!.id)!.group === series, findGroup(after, 'free'), findPlace(after, wiring.id)]).toEqual(['out1', true, null, null])
})

const reading = (kind: Reading['kind'], is: string, nodeId: string | null = null, frequencyHz: number | null = null) => ({ kind, value: is === 'ohm' ? { is, ohm: 8 } : { is }, nodeId, frequencyHz }) as never
test.each<[string, never, RegExp | null]>([
  ['a line is measured', reading('line-impedance', 'ohm'), null],
  ['or open', reading('line-dcr', 'open'), null],
  ['a speaker is heard', reading('sound', 'plays', 's'), null],
  ['or is silent', reading('sound', 'silent', 's'), null],
  ['a coil is measured', reading('coil-dcr', 'ohm', 's'), null],
  ['a line is not heard', reading('line-impedance', 'plays'), /kind line-impedance cannot be “plays”/],
  ['a coil is not silent', reading('coil-dcr', 'silent', 's'), /kind coil-dcr cannot be “silent”/],
  ['what is heard has no ohms', reading('sound', 'ohm', 's'), /kind sound cannot be “ohm”/],
  ['an impedance at 330 Hz', reading('line-impedance', 'ohm', null, 330), null], ['direct current has no tone', reading('line-dcr', 'ohm', null, 330), /line-dcr has no frequency/],
  ['a line is read at its head', reading('line-dcr', 'ohm', 's'), /at its head/], ['a coil needs its speaker', reading('coil-dcr', 'ohm'), /needs its speaker/], ['so does what is heard', reading('sound', 'plays'), /needs its speaker/],
])('%s', (_, value, says) => {
  const check = () => checkValue(value, 'readings[3]')
  if (says === null) expect(check).not.toThrow()
  else expect(check).toThrow(says)
})

test('one place and one kind', () => {
  const one = { outputId: 'a', nodeId: 'n', kind: 'sound' } as Reading
  expect([one, { ...one, outputId: 'b' }, { ...one, nodeId: 'm' }, { ...one, kind: 'coil-dcr' as const }].map(other => isSamePlace(one, other))).toEqual([true, false, false, false])
  expect(readingSchema.shape.kind.options.filter(isReadAtHead)).toEqual(['leg-earth', 'pair-apart', 'line-impedance', 'line-dcr', 'head-volts-amps'])
})
