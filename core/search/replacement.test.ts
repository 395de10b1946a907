import { expect, test } from '@jest/globals'
import { applyEdit } from '#core/job/apply'
import { unstatedModel } from '#core/gear/models'
import type { SpeakerModel } from '#core/gear/speaker'
import { findSpeaker, withBranch } from '#core/job/tree'
import { counter, jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { findingWords } from '#core/line/words'
import { replacementsFor } from './replacement'

const driver = (name: string, stated: Partial<SpeakerModel> = {}): SpeakerModel => ({
  ...unstatedModel('speaker', name), build: 'driver', nominalOhm: 8, continuousW: 100, sensitivityDb: 92, sensitivityAt: '1 W', frameMm: 200, cutOutMm: 180, depthMm: 80, magnetMm: 120, plusMark: 'red dot', holes: '4 x 5', ...stated,
})
const offered = (...models: SpeakerModel[]) => models.map((model, k) => ({ modelId: `m${k}`, version: 1, model }))
const base = jobOf('8 || 8 on 200 W at 4')
const [first] = nodeIds(outputOf(base)).filter(id => !/chain|star/.test(id))
const kinds = [{ what: 'speaker' as const, id: 'k', from: null, model: driver('old') }]
const job = { ...withBranch(base, first!, b => b.node.kind === 'speaker' ? { ...b, node: { ...b.node, name: 'old', continuousW: 100, kindId: 'k' } } : b), kinds }
const of = (model: SpeakerModel) => replacementsFor(job, first!, offered(model), counter('n'))!

// An impedance within 15 % of the one it replaces, frame and cut-out that go into the hole: common practice, no source.
test.each<[string, Partial<SpeakerModel>, string]>([
  ['9.2 Ω is the most', { nominalOhm: 9.21 }, '9.21 Ω where 8 Ω are: more than 15 % off'],
  ['6.8 Ω the least', { nominalOhm: 6.79 }, '6.79 Ω where 8 Ω are: more than 15 % off'],
  ['a wider frame', { frameMm: 204 }, 'its frame is 204 mm where 200 mm are'],
  ['a wider cut-out', { cutOutMm: 184 }, 'its cut-out is 184 mm where 180 mm are'],
  ['a narrower one', { cutOutMm: 176 }, 'its cut-out is 176 mm where 180 mm are'],
  ['a box', { build: 'box' }, 'it is built as a box, not as a driver'],
  ['no impedance', { nominalOhm: null }, 'its impedance is not stated'],
])('refused: %s', (_, stated, why) => expect(of(driver('new', stated)).refused).toEqual([{ name: 'new', why }]))

test.each<[string, Partial<SpeakerModel>, string[]]>([
  ['alike', {}, []],
  ['at the edges', { nominalOhm: 8.1, frameMm: 203, cutOutMm: 177, depthMm: 80, continuousW: 90 }, []],
  ['9.2 Ω', { nominalOhm: 9.2 }, ['9.2 Ω in place of 8 Ω']],
  ['less rating', { continuousW: 89 }, ['stands 89 W where 100 W were']],
  ['the rating that is believed', { continuousW: 150, believedW: 50 }, ['stands 50 W (the rating that you believe) where 100 W were']],
  ['believed as its sheet has it', { continuousW: 50, believedW: 50 }, ['stands 50 W where 100 W were']],
  ['no rating', { continuousW: null }, ['its rating is not stated']],
  ['louder', { sensitivityDb: 94.1 }, ['2.1 dB louder than before']],
  ['quieter', { sensitivityDb: 88 }, ['4 dB quieter than before']],
  ['not heard', { sensitivityDb: 93.9 }, []],
  ['no sensitivity', { sensitivityDb: null }, ['how loud it is beside the old one is not known']],
  ['of a box no hole is measured', { build: null, frameMm: null }, ['frame not stated: measure']],
  ['deeper', { depthMm: 95 }, ['15 mm deeper: look at the room behind it']],
  ['flatter', { depthMm: 60 }, []],
  ['a wider magnet', { magnetMm: 134 }, ['its magnet is 14 mm wider: look at the room behind it']],
  ['a smaller one, its plus not said', { magnetMm: 90, plusMark: '' }, []],
  ['plus told otherwise', { plusMark: 'wide tab' }, ['plus is marked by wide tab, on the old one by red dot']],
  ['no magnet stated', { magnetMm: null }, ['magnet not stated: measure']],
  ['holes', { holes: '8 x 5' }, ['holes 8 x 5, on the old one 4 x 5']],
  ['nothing of its size', { frameMm: null, depthMm: null }, ['frame and depth not stated: measure']],
])('minded: %s', (_, stated, minds) => expect(of(driver('new', stated)).fit.map(f => f.minds)).toEqual([minds]))

test('ranked by what there is to mind, then by level; before and after are the line itself; put in as one edit', () => {
  const found = replacementsFor(job, first!, offered(driver('old'), driver('far', { sensitivityDb: 93.5 }), driver('near', { sensitivityDb: 92.5 }), driver('minded', { holes: '8 x 5' })), counter('n'))!
  expect(found.fit.map(f => [f.offered.model.name, f.levelDb!.toFixed(1), f.line.loadOhm])).toEqual([['near', '0.5', 4], ['far', '1.5', 4], ['minded', '0.0', 4]])
  const after = applyEdit(job, found.fit[0]!.edit).job
  expect([findSpeaker(after, first!)!.speaker.name, after.kinds.map(k => k.model.name)]).toEqual(['near', ['old', 'near']])
  // 8.8 Ω beside 8 Ω: the line rises, and the new one takes less (Kirchhoff).
  const [other] = of(driver('new', { nominalOhm: 8.8 })).fit
  expect([other!.line.loadOhm!.toFixed(3), other!.levelDb!.toFixed(2)]).toEqual([(8 * 8.8 / 16.8).toFixed(3), (10 * Math.log10(8 / 8.8)).toFixed(2)])
  expect(replacementsFor(job, 'nobody', [], counter('n'))).toBeNull()
})

test('what it brings on its line is said, and what must not be there is refused', () => {
  // A curve of 2 Ω under its label of 8 brings the line under a floor of 2.
  const dips = driver('dips', { curve: [[20, 2, null], [20_000, 2, null]] })
  // A curve of 5 Ω under a label of 8 is a finding, and no stop.
  const low = driver('low', { curve: [[20, 5, null], [20_000, 5, null]] })
  const rating = { ...outputOf(job).rating, floorOhm: 2 }
  const from2 = { ...job, amplifiers: job.amplifiers.map(a => ({ ...a, outputs: a.outputs.map(o => ({ ...o, rating: rating as typeof o.rating })) })) }
  const found = replacementsFor(from2, first!, offered(dips, low, driver('alike')), counter('n'))!
  expect(found.refused).toEqual([{ name: 'dips', why: expect.stringMatching(/^on this line it must not be: /) }])
  expect(found.fit.map(f => f.offered.model.name)).toEqual(['alike', 'low'])
  const brought = found.fit[1]!.line.findings.filter(f => f.grade === 'tight' && !found.before.findings.some(b => b.code === f.code))
  expect(brought.length).toBeGreaterThan(0)
  for (const finding of brought) expect(found.fit[1]!.minds).toContain(findingWords(finding).what)
})

test('what was wrong on the line before is nothing to mind of the new one', () => {
  const rating = { ...outputOf(job).rating, points: [{ loadOhm: 4, powerW: 900 }] }
  const loud = { ...job, amplifiers: job.amplifiers.map(a => ({ ...a, outputs: a.outputs.map(o => ({ ...o, rating: rating as typeof o.rating })) })) }
  const found = replacementsFor(loud, first!, offered(driver('alike')), counter('n'))!
  expect([found.before.findings.some(f => f.grade === 'tight' || f.grade === 'stop'), found.fit.map(f => f.minds)]).toEqual([true, [[]]])
})

test('on a line one without a transformer cannot; one with takes a tap of its own', () => {
  const line = jobOf('2 x 10 W on 70 V 60 W')
  const [id] = nodeIds(outputOf(line)).filter(n => !/chain|star/.test(n))
  const found = replacementsFor(line, id!, offered(driver('plain', { build: null }), driver('tapped', { build: null, scales: [{ lineV: 70.71, tapsW: [5, 10] }] })), counter('n'))!
  expect([found.refused, found.fit.map(f => f.speaker.load)]).toEqual([[{ name: 'plain', why: 'it has no transformer' }], [expect.objectContaining({ kind: 'tap', tapW: 10, tapsW: [5, 10] })]])
})
