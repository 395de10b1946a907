import { expect, test } from '@jest/globals'
import { counter, jobOf, outputOf } from '#core/testing/jobs'
import { applyEdit } from '#core/job/apply'
import { joinChannels } from './channels'
import type { Job } from '#core/job/schema'

const two = (text: string, other: 'empty' | 'used' | 'unlike'): Job => {
  const job = jobOf(text)
  const [amplifier] = job.amplifiers
  const [output] = amplifier!.outputs
  const beside = { ...output!, id: 'beside', label: 'A2', wiring: { ...output!.wiring, id: 'c2', children: [] }, ...(other === 'unlike' ? { rating: { kind: 'not-known' as const } } : {}) }
  const used = { ...beside, wiring: { ...beside.wiring, children: jobOf('4').amplifiers[0]!.outputs[0]!.wiring.children.map(c => ({ ...c, node: { ...c.node, id: 'x' } })) } }
  return { ...job, amplifiers: [{ ...amplifier!, outputs: [output!, other === 'used' ? used : beside] }] }
}
const outputs = (job: Job) => job.amplifiers[0]!.outputs.map(o => `${o.label} ${o.rating.kind === 'solid-state' ? o.rating.mode : o.rating.kind}`)

test('the empty channel beside goes with it, and comes back when they are parted', () => {
  const job = two('8 on 300 W at 4', 'empty')
  const bridged = applyEdit(job, joinChannels(job, outputOf(job).id, 'bridged', counter('n')) as never).job
  expect(outputs(bridged)).toEqual(['A1 bridged'])
  const parallel = applyEdit(bridged, joinChannels(bridged, outputOf(job).id, 'parallel', counter('n')) as never).job
  expect(outputs(parallel)).toEqual(['A1 parallel'])
  const parted = applyEdit(parallel, joinChannels(parallel, outputOf(job).id, 'single', counter('n')) as never).job
  expect([outputs(parted), joinChannels(parted, outputOf(job).id, 'single', counter('n')), joinChannels(job, 'nobody', 'bridged', counter('n'))]).toEqual([['A1 single', 'A2 single'], null, null])
})
test.each<[string, Job, string]>([
  ['in use', two('8 on 300 W at 4', 'used'), 'The channel beside A1 must be empty and rated like it: A2 is not.'], ['rated otherwise', two('8 on 300 W at 4', 'unlike'), 'The channel beside A1 must be empty and rated like it: A2 is not.'],
  ['alone', jobOf('8 on 300 W at 4'), 'A1 is the only channel of Amplifier A: two are joined.'],
])('not where the channel beside is %s', (_, job, says) => expect(joinChannels(job, outputOf(job).id, 'bridged', counter('n'))).toBe(says))
test('a line and a valve head are not joined', () => {
  for (const text of ['5 W on 70 V 60 W', '8 on valve 50 W at 8']) expect(joinChannels(jobOf(text), outputOf(jobOf(text)).id, 'bridged', counter('n'))).toBeNull()
})
