import { expect, test } from '@jest/globals'
import { writeConductor } from '#core/gear/conductor'
import type { Input, Job } from '#core/job/schema'
import { UNSTATED_INPUT, UNSTATED_SOURCE } from '#core/job/sections/wiring/schema'
import { jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { rackOf } from './rack'

const input = (name: string | null, more: Partial<Input> = {}, source: object = {}): Input =>
  ({ ...UNSTATED_INPUT, count: 1, ...more, source: name === null ? null : { ...UNSTATED_SOURCE, name, ...source } })

test('the rack as it stands: mixers first, what comes in where, which conductor lies on which terminal; what nobody knows is said', () => {
  const job = jobOf('8', '8', '8')
  const [a] = job.amplifiers
  const pair = [{ base: 'white', stripe: '' }, { base: 'white', stripe: 'black' }] as Job['splices'][number]['pair']
  const splice = (k: number, start: 'straight' | 'crossed' | null) => ({ nodeId: nodeIds(outputOf(job, k))[0]!, joint: '', pair, start, end: null, connector: null, coils: null })
  const terminals = { plus: '1+', minus: '1-', connector: 'plug-in-screw' as const }
  const amplifier = { ...a!, outputs: a!.outputs.map((o, k) => k === 0 ? { ...o, terminals } : o), inputs: [
    input('old name', { label: 'LINE', takes: ['line'] }, { deviceId: 'mix', kind: 'line' }), input(null, { isOver: true }), input('Radio', { count: null }, { isStereo: true }),
  ] }
  const mixer = { ...a!, id: 'mix', name: 'Mixer', made: 'mixer' as const, outputs: [], inputs: [input('Desk', { takes: ['microphone', 'line'] }, { kind: 'microphone' }), input('CD', { sum: 'summed', isOver: false, count: 2 }, { kind: 'media', isStereo: true })] }
  const rack = rackOf({ ...job, amplifiers: [amplifier, mixer], splices: [splice(0, 'straight'), splice(1, 'crossed'), splice(2, null)] })
  expect(rack.map(d => [d.amplifier.name, d.inputs.map(i => [i.name, i.takes, i.source, i.says.join('; ')].join(' | '))])).toEqual([
    ['Mixer', ['input 1 | microphone or line | Desk | microphone; whether it goes over the others is not known', 'input 2 |  | CD | music player; beside the others; both sides summed; on 2 inputs']],
    ['Amplifier A', ['LINE | line | Mixer | from the device of that name here', 'input 2 |  |  | over the others', 'input 3 |  | Radio | what it brings is not known; two sides; whether summed is not known; on every channel']],
  ])
  expect(rack[1]!.outputs.map(o => [o.plus, o.minus, o.connector, o.mind, o.pair?.map(writeConductor) ?? null])).toEqual([
    ['1+', '1-', 'a plug-in screw terminal', 'latches and does not lock, so relieve the strain', ['white', 'white/black']], ['', '', '', '', ['white/black', 'white']], ['', '', '', '', null],
  ])
})
