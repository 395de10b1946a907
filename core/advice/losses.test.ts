import { expect, test } from '@jest/globals'
import { applyEdit } from '#core/job/apply'
import type { Edit } from '#core/job/edits'
import type { Job, LineThrough, Speaker, SpeakerLoad } from '#core/job/schema'
import { putBefore, unknownControl, usualTransformer } from '#core/hands/throughs'
import { withBranch } from '#core/job/tree'
import { cabled, counter, jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { evaluateJob } from '#core/line/evaluate'
import { headFigures } from '#core/line/headFigures'
import { reportOf } from '#core/line/report'

/** What the amplifier gives, what drivers get, what turns to heat: figures worked out by hand beside each row, from the definitions of watt and decibel. */

const each = (job: Job, change: Partial<Speaker>) => nodeIds(outputOf(job)).reduce((j, id) => withBranch(j, id, b => b.node.kind === 'speaker' ? { ...b, node: { ...b.node, ...change } } : b), job)
const lossy = (tapW: number, insertionDb: number | null, tapMeans: 'line-gives' | 'driver-gets' | null): SpeakerLoad => ({ kind: 'tap', tapW, ratedV: 70.71, tapsW: [tapW], insertionDb, tapMeans })
const behind = (job: Job, count: number, through: LineThrough) => applyEdit(job, (putBefore(job, nodeIds(outputOf(job)).slice(0, count), through, counter('g')) as { edit: Edit }).edit).job
const control = (change: object) => ({ ...unknownControl('C1'), ...change })
const line = jobOf('4 x 10 W on 70.71 V 100 W')
const pair = each(jobOf('2 x 10 W on 70.71 V 100 W'), { load: { kind: 'nominal', nominalOhm: 16 } })
/** 40 W on 70.71 V are 125 Ω; 0.4 dB less of power than without it is a part of 10^0.02 − 1 of them in series: 5.891 Ω. */
const rated = { ratingW: 40, lineV: 70.71, insertionDb: 0.4 }

test.each<[string, Job, (number | null)[]]>([
  // given, drawn, delivered, heat in transformers, heat in controls; the first speaker: drawn, gets
  ['no loss stated: what drivers get is not known', line, [40, 40, null, null, 0, 10, 10]],
  ['1 dB of what the line gives: 10 × 10^-0.1', each(line, { load: lossy(10, 1, 'line-gives') }), [40, 40, 31.773, 8.227, 0, 10, 7.943]],
  ['1 dB, and the driver gets what is printed: 10 × 10^0.1', each(line, { load: lossy(10, 1, 'driver-gets') }), [50.357, 50.357, 40, 10.357, 0, 12.589, 10]],
  ['not said which: taken as what the line gives', each(line, { load: lossy(10, 1, null) }), [40, 40, 31.773, 8.227, 0, 10, 7.943]],
  ['one of them not stated', withBranch(each(line, { load: lossy(10, 1, 'line-gives') }), nodeIds(outputOf(line))[3]!, b => ({ ...b, node: { ...b.node, load: lossy(10, null, null) } as Speaker })), [40, 40, null, null, 0, 10, 7.943]],
  ['6 dB down before two: 10 × 10^-0.6', behind(line, 2, control({ setDb: 6, insertionDb: 0, ratingW: 100, lineV: 70.71 })), [25.024, 25.024, null, null, 0, 2.512, 2.512]],
  ['a control at its rating loses what is stated: 40 × 10^-0.04; 4999.9 / 130.89 go in', behind(line, 4, control(rated)), [38.2, 36.48, null, null, 1.72, 9.12, 9.12]],
  ['half of it behind: it loses less', behind(line, 2, control(rated)), [39.54, 39.09, null, null, 0.45, 9.545, 9.545]],
  ['a loss without the rating that sizes it', behind(line, 2, control({ insertionDb: 0.4 })), [40, 40, null, null, null, 10, 10]],
  ['a transformer of its group, of no loss', behind(pair, 2, { ...usualTransformer('T1', 70.71, [60]), insertionDb: 0 }), [60, 60, 60, 0, 0, 30, 30]],
  ['one of 1 dB: the line gives 60 W, 60 × 10^-0.1 arrive', behind(pair, 2, { ...usualTransformer('T1', 70.71, [60]), insertionDb: 1, tapMeans: 'line-gives' }), [60, 47.66, 47.66, 12.34, 0, 23.83, 23.83]],
  ['or 60 W arrive', behind(pair, 2, { ...usualTransformer('T1', 70.71, [60]), insertionDb: 1, tapMeans: 'driver-gets' }), [75.536, 60, 60, 15.536, 0, 30, 30]],
])('%s', (_, job, wanted) => {
  const [e] = evaluateJob(job)
  const found = [e!.amplifierW, e!.drawnW, e!.deliveredW, e!.transformerLossW, e!.controlLossW, e!.drops[0]!.drawnW, e!.drops[0]!.powerW]
  expect(found.map(v => v === null ? null : Number(v.toFixed(2)))).toEqual(wanted.map(v => v === null ? null : Number(v.toFixed(2))))
})

test('the rule that counts it: stated losses as solved, 1 dB more where none is stated; a turned-down control is counted fully up', () => {
  const counted = (job: Job) => Number(evaluateJob(job)[0]!.required.find(r => r.practice === 'count-it')!.powerW!.toFixed(2))
  expect([
    counted(line), counted(each(line, { load: lossy(10, 1, 'line-gives') })), counted(each(line, { load: lossy(10, 1, 'driver-gets') })), counted(each(line, { load: lossy(10, 0.5, null) })),
    counted(each(line, { load: lossy(10, null, 'driver-gets') })), counted(behind(line, 4, control(rated))), counted(behind(line, 4, control({ ...rated, setDb: 20 }))),
    // 40 × 10^0.1 × 1.1; 40 × 1.1; 50.36 × 1.1; 40 × 10^0.05 × 1.1; (36.48 × 10^0.1 + 1.72) × 1.1
  ]).toEqual([55.39, 44, 55.39, 49.37, 55.39, 52.41, 52.41])
})

test('the report names controls with their grade; the head of the rail names where the heat goes, and how the controls stand', () => {
  const over = reportOf(behind(line, 4, control({ ...rated, ratingW: 35, setDb: 10 }))).lines[0]!
  expect([over.controls, over.drops[0]!.volts!.toFixed(2), over.grade]).toEqual([[{ label: 'C1', ratingW: 35, behindW: 40, grade: 'stop' }], '22.24', 'stop'])
  expect(reportOf(behind(line, 4, control({}))).lines[0]!.controls[0]!.grade).toBe('unknown')
  const words = (job: Job) => { const { says, parts } = headFigures(evaluateJob(job)[0]!); return `${says}; ${parts}` }
  expect([words(behind(line, 4, control(rated))), words(behind(line, 4, control({ setDb: 10 }))), words(behind(cabled(pair, { cable: { awg: 16 }, lengthM: 10 }), 2, { ...usualTransformer('T1', 70.71, [60]), insertionDb: 1 }))]).toEqual([
    'gives 38 W of 100 W; 36 W arrive, 1.7 W in controls', 'gives 4 W of 100 W; as its controls stand', 'gives 59 W of 100 W; 47 W arrive, 0.56 W in the wire, 12 W in transformers',
  ])
})

test('what is read at the head hangs on how the controls stand, and an ohmmeter knows nothing of it', () => {
  const predicted = (setDb: number | 'off' | null) => evaluateJob(behind(line, 4, control({ setDb })))[0]!.predicted
  const [impedance, dcr] = predicted(6)
  expect([impedance!.expected! / predicted(null)[0]!.expected!, impedance!.source, predicted(null)[0]!.source, dcr!.expected]).toEqual([expect.closeTo(10 ** 0.6, 9), expect.stringMatching(/with C1 turned down 6 dB$/), expect.stringMatching(/with C1 fully up$/), null])
  expect(predicted('off')[0]!.expected).toBeNull()
})
