import { describe, expect, test } from '@jest/globals'
import { applyEdit } from '#core/job/apply'
import type { Edit } from '#core/job/edits'
import type { Input, Job } from '#core/job/schema'
import { UNSTATED_INPUT, UNSTATED_SOURCE } from '#core/job/sections/wiring/schema'
import { counter, jobOf } from '#core/testing/jobs'
import { addInput, addMixer, inputsOfModel, nameSource, removeInput, setInput, setSource, sourceCounts } from './inputs'

const input = (name: string | null, more: Partial<Input> = {}): Input =>
  ({ ...UNSTATED_INPUT, ...more, source: name === null ? null : { ...UNSTATED_SOURCE, name, ...more.source } })
const withInputs = (...each: Input[][]): Job => {
  const job = jobOf('8')
  return { ...job, amplifiers: each.map((inputs, k) => ({ ...job.amplifiers[0]!, id: `amp${k}`, outputs: k === 0 ? job.amplifiers[0]!.outputs : [], inputs })) }
}
const after = (job: Job, edit: Edit | null): Job => edit === null ? job : applyEdit(job, edit).job
const told = (job: Job) => job.amplifiers.map(a => a.inputs.map(({ label, source }) => [label, source && [source.name, source.kind, source.volts].filter(v => v !== null).join(' ')].filter(Boolean).join(': ')))

describe('one name is one source', () => {
  const job = withInputs([input('CD', { source: { ...UNSTATED_SOURCE, name: 'CD', volts: 2 } }), input('Desk')], [input('CD', { source: { ...UNSTATED_SOURCE, name: 'CD', volts: 2 } }), input(null, { label: 'AUX' })])
  test.each<[string, Edit | null, string[][]]>([
    ['what is said of it is said wherever it comes in', setSource(job, 'CD', { kind: 'media' }), [['CD media 2', 'Desk'], ['CD media 2', 'AUX']]],
    ['a name that is known comes with what is said of it', nameSource(job, 'amp0', 1, 'CD'), [['CD 2', 'CD 2'], ['CD 2', 'AUX']]],
    ['another at an input where it is not alone', nameSource(job, 'amp1', 0, 'Radio'), [['CD 2', 'Desk'], ['Radio', 'AUX']]],
    ['renamed where it is alone: what is known of it stays', nameSource(after(job, setSource(job, 'Desk', { kind: 'microphone' })), 'amp0', 1, 'Stage'), [['CD 2', 'Stage microphone'], ['CD 2', 'AUX']]],
    ['taken out, the input stays', nameSource(job, 'amp0', 1, ''), [['CD 2', ''], ['CD 2', 'AUX']]],
    ['an input by itself', setInput(job, 'amp1', 1, { label: 'TAPE' }), [['CD 2', 'Desk'], ['CD 2', 'TAPE']]],
    ['one more, one less', addInput(job, 'amp1', { label: 'PHONO' }), [['CD 2', 'Desk'], ['CD 2', 'AUX', 'PHONO']]],
    ['taken away', removeInput(job, 'amp0', 0), [['Desk'], ['CD 2', 'AUX']]],
  ])('%s', (what, edit, wanted) => {
    const base = what.startsWith('renamed') ? after(job, setSource(job, 'Desk', { kind: 'microphone' })) : job
    expect(told(after(base, edit))).toEqual(wanted)
  })
  test('nothing to say is no edit; what is not there neither', () => {
    expect([nameSource(job, 'amp0', 0, 'CD'), setInput(job, 'amp0', 0, { label: '' }), setSource(job, 'CD', { volts: 2 }), setSource(job, 'Nobody', { volts: 2 }), nameSource(job, 'gone', 0, 'x'), setInput(job, 'amp0', 9, { label: 'x' })]).toEqual([null, null, null, null, null, null])
  })
})

test('a mixer stands before what it feeds, and has no speaker; sources are counted once, devices not', () => {
  const job = withInputs([input('CD', { source: { ...UNSTATED_SOURCE, name: 'CD', kind: 'media' } })], [input('CD', { source: { ...UNSTATED_SOURCE, name: 'CD', kind: 'media' } }), input('Desk', { source: { ...UNSTATED_SOURCE, name: 'Desk', kind: 'microphone' } })])
  const { edit, amplifierId } = addMixer(job, counter('m'))
  const mixed = after(job, edit)
  expect(mixed.amplifiers.map(a => [a.name, a.made, a.outputs.length])).toEqual([['Mixer', 'mixer', 0], ['Amplifier A', null, 1], ['Amplifier A', null, 0]])
  const fed = after(mixed, nameSource(mixed, 'amp0', 0, 'Mixer', amplifierId))
  expect([fed.amplifiers[1]!.inputs[0]!.source, sourceCounts(fed), applyEdit(mixed, addMixer(mixed, counter('n')).edit).job.amplifiers[0]!.name]).toEqual([
    { ...UNSTATED_SOURCE, name: 'Mixer', kind: 'line', deviceId: amplifierId }, { microphone: 1, media: 1, line: 0 }, 'Mixer 2',
  ])
})

describe('inputs as a model has them', () => {
  const groups = [{ count: 2, takes: ['microphone' as const, 'line' as const], isOver: true }, { count: 1, takes: ['media' as const], isOver: null }]
  const desk = input('Desk', { source: { ...UNSTATED_SOURCE, name: 'Desk', kind: 'microphone' } })
  const cd = input('CD', { sum: 'summed', label: '3', source: { ...UNSTATED_SOURCE, name: 'CD', kind: 'media' } })
  const names = (inputs: Input[]) => inputs.map(i => `${i.takes.join('/')} ${i.source?.name ?? '-'} ${i.isOver} ${i.label} ${i.sum ?? ''}`.trim())
  test.each<[string, Input[], string[]]>([
    ['nothing comes in', [], ['microphone/line - true', 'microphone/line - true', 'media - null']],
    ['each on the first that is made for it', [cd, desk], ['microphone/line Desk true', 'microphone/line - true', 'media CD null 3 summed']],
    ['of an unknown kind on the first', [input('Radio')], ['microphone/line Radio true', 'microphone/line - true', 'media - null']],
    ['more than fit: nothing is taken out', [cd, { ...cd, label: '4' }], ['microphone/line - true', 'microphone/line - true', 'media CD null 3 summed', 'CD null 4 summed']],
    ['an empty input of before goes', [input(null)], ['microphone/line - true', 'microphone/line - true', 'media - null']],
  ])('%s', (_, now, wanted) => expect(names(inputsOfModel(groups, now))).toEqual(wanted))
  test('the same again changes nothing', () => {
    const once = inputsOfModel(groups, [cd, desk])
    expect(inputsOfModel(groups, once)).toEqual(once)
  })
})
