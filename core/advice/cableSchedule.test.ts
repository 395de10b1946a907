import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { applyEdit } from '#core/job/apply'
import type { Job } from '#core/job/schema'
import { unstatedModel } from '#core/gear/models'
import { namePair, readPair, saySplice } from '#core/hands/splices'
import { plainSpace } from '#core/job/sections/spaces/schema'
import { withBranch } from '#core/job/tree'
import { same } from '#core/quantity/same'
import { cabled, jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { cableSchedule, cutList, scheduleRows, type CableRun } from './cableSchedule'
import { always } from '#core/testing/runs'

const lead = { cable: { awg: 16 }, lengthM: 10 }
const said = (job: Job, slack = 0.1) => cableSchedule(job, slack).map(r => [r.tag, r.from, r.to, r.lengthM, r.withSlackM])

test('a chain goes on from place to place, a group from its own; what is not stated is not', () => {
  expect(said(cabled(jobOf('8 || 8'), lead))).toEqual([['A1-01', 'A1 on Amplifier A, rack', '01', 10, 11], ['A1-02', '01', '02', 10, 11]])
  expect(said(jobOf('(8 + 8) || 8')).map(r => [r[1], r[2], r[4]])).toEqual([
    ['A1 on Amplifier A, rack', 'joint before 01', null], ['joint before 01', '01', null], ['joint before 01', '02', null], ['joint before 01', '03', null],
  ])
})

test('a length that a plan of a space gave has its slack already; its listing is what was written there', () => {
  const job = cabled(jobOf('8 || 8'), lead)
  const [a] = nodeIds(outputOf(job))
  const spots = [{ id: 'p', xM: 1, yM: 1, heightM: null, aim: null, nodeId: a! }]
  const roomed = { ...job, spaces: [{ ...plainSpace('s', 'Hall'), slack: 0.1, cableRemark: 'plenum, says the office', spots }] }
  expect(cableSchedule(roomed, 0.2).map(r => [r.withSlackM, r.listing])).toEqual([[10, 'plenum, says the office'], [12, null]])
  // A plan without slack of its own gives none.
  expect(cableSchedule({ ...roomed, spaces: roomed.spaces.map(s => ({ ...s, slack: 0 })) }, 0.2)[0]!.withSlackM).toBe(12)
})

test('what goes on which terminal: the lead by its colour, the dial by its scale, a control by its sides', () => {
  const model = {
    ...unstatedModel('speaker', 'Ceiling 165'), scales: [{ lineV: 70.71, tapsW: [5, 10] }],
    leads: [{ tapW: null, base: 'black', stripe: '' }, { tapW: 5, base: 'yellow', stripe: '' }, { tapW: 20, base: 'white', stripe: 'red' }],
  }
  const connect = (tapW: number, leads = model.leads) => {
    const job = jobOf(`${tapW} W on 70 V`)
    const [id] = nodeIds(outputOf(job))
    const made = { ...job, kinds: [{ what: 'speaker' as const, id: 'k', from: null, model: { ...model, leads } }] }
    return cableSchedule(withBranch(made, id!, b => b.node.kind === 'speaker' ? { ...b, node: { ...b.node, kindId: 'k' } } : b) as Job, 0)[0]!.connect
  }
  expect([connect(5), connect(10), connect(20)].map(c => c[0])).toEqual(['yellow (5 W); insulate the rest; black is common', 'dial at 10 W on its 70 V scale', 'white/red (20 W); insulate the rest; black is common'])
  expect(connect(5)).toContain('safety line on its hang point')
  expect([cableSchedule(jobOf('10 W on 70 V'), 0)[0]!.connect[0], cableSchedule(jobOf('8'), 0)[0]!.connect[0]]).toEqual(['tap 10 W at 70 V, its lead or dial not known', 'plus to the marked terminal'])
  const first = (text: string) => cableSchedule(jobOf(text), 0)[0]!.connect[0]
  expect([first('3 x 5 W behind control 50 W on 70 V'), first('8 behind transformer 60 W on 100 V'), first('8 cap 10 uF'), first('(8 + 8) || 8')]).toEqual([
    'the amplifier on its input, the speakers on its output, rated 50 W', 'the line on its primary, the 60 W tap', 'F1 in the plus conductor', 'in series: minus of each to plus of the next',
  ])
})

test('what a pair ends in, and what that asks for; what is printed beside the terminals of the output', () => {
  const job = jobOf('8')
  const [id] = nodeIds(outputOf(job))
  const ended = { ...applyEdit(job, saySplice(job, id!, { connector: 'plug-in-screw' })!).job }
  const outputs = ended.amplifiers[0]!.outputs.map(o => ({ ...o, terminals: { plus: '1+', minus: 'COM', connector: 'screw' as const } }))
  const [run] = cableSchedule({ ...ended, amplifiers: [{ ...ended.amplifiers[0]!, outputs }] }, 0)
  expect([run!.from, run!.connect.at(-1)]).toEqual(['A1 on Amplifier A, rack, terminals 1+ and COM, screw terminals', 'a plug-in screw terminal (latches and does not lock, so relieve the strain)'])
})

test('the table: a row a run under its heads, and conductors as they are named', () => {
  const job = cabled(jobOf('8'), lead)
  const [id] = nodeIds(outputOf(job))
  const rows = scheduleRows(cableSchedule(applyEdit(job, namePair(job, id!, readPair('red, black')!)!).job, 0.1))
  expect(rows.map(r => r.slice(0, 8))).toEqual([
    ['tag', 'from', 'to', 'size', 'conductors', 'length', 'with slack', 'listing'],
    ['A1-01', 'A1 on Amplifier A, rack', '01', '16 AWG', 'red, black', '10 m', '11 m', 'not stated: the local code decides'],
  ])
})

test('every length is cut once, no drum gives more than it holds, and nothing waits for a drum that an earlier one would have held', () => {
  const run = (lengthM: number, k: number, awg: number): CableRun => ({ tag: `t${k}`, outputId: 'o', nodeId: `n${k}`, from: '', to: '', cable: { awg }, lengthM, withSlackM: lengthM, conductors: null, listing: null, connect: [] })
  always(fc.property(fc.array(fc.tuple(fc.double({ min: 0.5, max: 140, noNaN: true }), fc.constantFrom(14, 16)), { maxLength: 40 }), (lengths) => {
    const drums = cutList(lengths.map(([m, awg], k) => run(m, k, awg)), 100)
    expect(drums.flatMap(d => d.cuts.map(c => c.tag)).sort()).toEqual(lengths.map((_, k) => `t${k}`).sort())
    for (const d of drums) {
      const used = d.cuts.reduce((sum, c) => sum + c.lengthM, 0)
      expect(Math.abs(d.drumM - used - d.leftM)).toBeLessThan(1e-9)
      expect(d.leftM).toBeGreaterThanOrEqual(0)
      // The first that holds it: nothing of a later drum would have found room in an earlier one.
      const earlier = drums.slice(0, drums.indexOf(d)).filter(o => same(o.cable, d.cable))
      expect(d.cuts.every(cut => earlier.every(o => o.leftM < cut.lengthM))).toBe(true)
    }
  }), 200)
  expect(cutList([{ ...run(0, 1, 16) }, { ...run(5, 2, 16), withSlackM: null }], 100)).toEqual([])
})
