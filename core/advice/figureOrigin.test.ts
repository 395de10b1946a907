import { expect, test } from '@jest/globals'
import { applyEdit } from '#core/job/apply'
import type { Edit } from '#core/job/edits'
import type { Job, SpeakerLoad } from '#core/job/schema'
import { joinWithNext } from '#core/hands/intents'
import { putBefore, unknownControl, usualTransformer } from '#core/hands/throughs'
import { withBranch } from '#core/job/tree'
import { cabled, counter, jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { evaluateJob } from '#core/line/evaluate'
import { lineWhence, voltsWhence, wattsWhence } from './figureOrigin'

const lead = { cable: { awg: 16 }, lengthM: 8 }
/** The ladder of the cable tables: 20 × 10 W, 8 m apart. */
const ladder = cabled(jobOf('20 x 10 W on 70 V 300 W'), lead)
const withLoad = (job: Job, load: SpeakerLoad) => nodeIds(outputOf(job)).reduce((j, id) => withBranch(j, id, b => b.node.kind === 'speaker' ? { ...b, node: { ...b.node, load } } : b), job)
const lossy = (tapMeans: 'line-gives' | 'driver-gets'): SpeakerLoad => ({ kind: 'tap', tapW: 10, ratedV: 70.71, tapsW: [10], insertionDb: 1, tapMeans })
const behind = (job: Job, setDb: number) => applyEdit(job, (putBefore(job, nodeIds(outputOf(job)).slice(1, 3), { ...unknownControl('C1'), setDb }, counter('g')) as { edit: Edit }).edit).job
const two = jobOf('2 x 10 W on 70 V 100 W')
const mixed = withBranch(cabled(jobOf('3 x 100 W on 70 V 400 W'), { cable: { awg: 20 }, lengthM: 20 }), 'o1n4', b => ({ ...b, lead: { cable: { awg: 22 }, lengthM: 5 } }))

const star = applyEdit(cabled(two, lead), joinWithNext(cabled(two, lead), 'o1n3', 'star', counter('s'))!).job
const starred = ['o1n3', 'o1n4'].reduce((j, id) => withBranch(j, id, b => ({ ...b, lead: { cable: { awg: 20 }, lengthM: 4 } })), star)
const plainPair = withLoad(two, { kind: 'nominal', nominalOhm: 16 })
const oneBehind = applyEdit(plainPair, (putBefore(plainPair, ['o1n3'], usualTransformer('T1', 70.71, [15]), counter('t')) as { edit: Edit }).edit).job
const behindBoth = applyEdit(oneBehind, (putBefore(oneBehind, ['o1n3', 'o1n4'], { ...unknownControl('C1'), setDb: 6 }, counter('c')) as { edit: Edit }).edit).job
test.each<[string, Job, number, (string | null)[]]>([
  ['far out on a ladder', ladder, 19, ['64.9 V = 70.7 V − 5.83 V in 160 m of 16 AWG', '8.42 W = 10 W × (64.9 V / 70.7 V)²']],
  ['beside the amplifier, no cable', two, 0, [null, null]],
  ['cables of two sizes', mixed, 2, ['62.6 V = 70.7 V − 8.14 V in 40 m of 20 AWG and 5 m of 22 AWG', '78.3 W = 100 W × (62.6 V / 70.7 V)²']],
  ['behind a control', behind(cabled(jobOf('4 x 10 W on 70 V 100 W'), lead), 6), 2, ['35.4 V = 70.7 V × 0.501 at C1 − 0.0746 V in 24 m of 16 AWG', '2.5 W = 10 W × (35.4 V / 70.7 V)²']],
  ['a transformer that keeps 1 dB', withLoad(two, lossy('line-gives')), 0, [null, '7.94 W = 10 W − 1 dB in its transformer']],
  ['one whose driver gets what is printed', withLoad(two, lossy('driver-gets')), 0, [null, '12.6 W = 10 W + 1 dB for its transformer; 10 W = 12.6 W − 1 dB in its transformer']],
  ['from one point each lead is its own', starred, 1, ['70.6 V = 70.7 V − 0.0972 V in 8 m of 16 AWG and 4 m of 20 AWG', null]],
  ['behind a control and a transformer', behindBoth, 0, ['5.49 V = 70.7 V × 0.0776 at C1 and T1', '1.88 W = (5.49 V)² / 16 Ω']],
  ['in series', jobOf('8 + 8 on 100 W at 16'), 0, ['20 V = 40 V × 0.5, its part of the load', '50 W = (20 V)² / 8 Ω']],
  ['of an amplifier not known', jobOf('8 + 8'), 0, [null, null]],
])('%s', (_, job, k, wanted) => {
  const [line] = evaluateJob(job)
  expect([voltsWhence(line!, line!.drops[k]!), wattsWhence(line!.drops[k]!)]).toEqual(wanted)
})

test.each<[string, Job, string[]]>([
  ['a ladder', ladder, ['26.5 Ω: all that hangs here by its labels, with the cable that is stated', '188.7 W = (70.7 V)² / 26.5 Ω', '178.1 W arrive = 188.7 W − 10.6 W in the wire', 'far end −0.75 dB: at 20 a part of 0.918 of the volts is left', 'by “use four fifths” 300 W carry 240 W of taps; 200 W are drawn, every control fully up']],
  ['no cable', two, ['250 Ω: all that hangs here by its labels, no cable counted', '20 W = (70.7 V)² / 250 Ω', 'by “use four fifths” 100 W carry 80 W of taps; 20 W are drawn, every control fully up']],
  ['low impedance', jobOf('8 + 8 on 100 W at 16'), ['16 Ω: all that hangs here by its labels, no cable counted', '100 W = (40 V)² / 16 Ω']],
  ['of an amplifier not known', jobOf('8 + 8'), ['16 Ω: all that hangs here by its labels, no cable counted']],
  ['nothing on it', { ...two, amplifiers: two.amplifiers.map(a => ({ ...a, outputs: a.outputs.map(o => ({ ...o, wiring: { ...o.wiring, children: [] } })) })) }, []],
])('the head of %s', (_, job, wanted) => expect(lineWhence(evaluateJob(job)[0]!, job.practice)).toEqual(wanted))
