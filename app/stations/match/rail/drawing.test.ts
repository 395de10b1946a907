import { describe, expect, test } from '@jest/globals'
import { evaluateJob } from '#core/line/evaluate'
import { applyEdit } from '#core/job/apply'
import type { Edit } from '#core/job/edits'
import type { Job } from '#core/job/schema'
import { putBefore, unknownControl, usualTransformer } from '#core/hands/throughs'
import { speakersOf } from '#core/job/tree'
import { cabled, counter, jobOf, outputOf } from '#core/testing/jobs'
import { drawLadder, RADIUS } from '~/drawing/ladder'
import { proveLine } from '#core/check/proof'
import { stretchesOf } from './folds'
import { drawRail, TAG } from './rail'
import { shortLabel, wattText } from '~/drawing/speakerText'

const LINES = ['8', '8 + 8', '(8 + 8) || (8 + 8)', '8 + (8 || 4 || (4 + 4)) || 16', '40 x 5 W on 70 V 400 W', '7 x 8 series', '3 x (8 || (4 + 4)) series', '12 x 5 W + 2 x 20 W on 70 V']

/** Lines with a control or a transformer before so many from the k-th on; the last inside a group of another kind. */
const CONTROLLED: [string, number, number][] = [
  ['6 x 5 W on 70 V', 2, 3], ['40 x 5 W on 70 V 400 W', 4, 30], ['40 x 5 W on 70 V 400 W', 0, 40], ['8 + 8', 0, 2],
  ['8 + (8 || 4 || (4 + 4)) || 16', 1, 1], ['12 x 5 W + 2 x 20 W on 70 V', 13, 1],
]
const CASES: [string, Job][] = [
  ...LINES.map((text): [string, Job] => [text, jobOf(text)]),
  ...CONTROLLED.map(([text, from, count]): [string, Job] => {
    const job = jobOf(text)
    const ids = speakersOf(outputOf(job).wiring).map(s => s.id).slice(from, from + count)
    const put = putBefore(job, ids, from % 2 === 0 ? unknownControl('C1') : usualTransformer('T1', 70.71, [30]), counter('g'))
    return [`${text}, ${count} from ${from} on behind one`, applyEdit(job, (put as { edit: Edit }).edit).job]
  }),
]

describe.each(CASES)('“%s”', (_, job) => {
  const line = evaluateJob(job)[0]!
  const facts = new Map(line.drops.map(d => [d.nodeId, d]))

  const folds = stretchesOf(line, proveLine(job, line.output, line.predicted))
  test.each([[230, []], [320, []], [620, []], [1200, []], [230, folds], [320, folds], [1200, folds]])('on a rail of %d px, folded: %j, every speaker has its place inside the drawing, no tag over another', (width, folded) => {
    const drawing = drawRail(outputOf(job).wiring, facts, width, folded)
    expect(drawing.tags).toHaveLength(line.speakers.length - folded.reduce((sum, ids) => sum + ids.length - 1, 0))
    expect(drawing.tags.flatMap(t => (t.fold ?? [t.speaker]).map(s => s.id)).sort()).toEqual(line.speakers.map(s => s.id).sort())
    for (const [k, a] of drawing.tags.entries()) {
      expect(a.x - a.width / 2).toBeGreaterThan(0)
      expect(a.y + TAG.height).toBeLessThan(drawing.height)
      expect(a.x + a.width / 2).toBeLessThanOrEqual(drawing.width)
      for (const b of drawing.tags.slice(k + 1)) expect(Math.abs(a.x - b.x) >= (a.width + b.width) / 2 || Math.abs(a.y - b.y) >= TAG.height).toBe(true)
    }
    expect(drawing.reaches[0]!.weight).toBeCloseTo(1, 6)
    expect(drawing.boxes.map(b => b.id)).toEqual(line.throughs.map(t => t.nodeId))
    for (const box of drawing.boxes) {
      for (const tag of drawing.tags) expect(Math.abs(box.x - tag.x) >= (TAG.width + tag.width) / 2 || Math.abs(box.y - tag.y) >= TAG.height).toBe(true)
      expect(box.x - TAG.width / 2).toBeGreaterThan(0)
    }
    expect(JSON.stringify(drawing)).not.toMatch(/NaN|null,null/)
  })

  test('between two conductors every speaker is drawn or counted, and no circle lies over another', () => {
    const drawing = drawLadder(outputOf(job).wiring)
    for (const [k, a] of drawing.units.entries()) {
      for (const b of drawing.units.slice(k + 1)) expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThan(2 * RADIUS)
    }
    if (drawing.units.every(u => u.count === 1)) expect(drawing.units.length).toBe(line.speakers.length)
    else expect(drawing.units.length).toBeLessThan(line.speakers.length)
  })
})

test('a rail is as thick as what flows in it and as strong as the volts on it', () => {
  const job = cabled(jobOf('2 x 100 W on 70 V 400 W'), { cable: { awg: 24 }, lengthM: 10 })
  const line = evaluateJob(job)[0]!
  const { reaches } = drawRail(outputOf(job).wiring, new Map(line.drops.map(d => [d.nodeId, d])), 800)
  // Where it hangs, each speaker's own volts over the line's; the second length carries half of the current.
  const volts = line.drops.map(d => d.volts! / 70.71)
  reaches.forEach((reach, k) => expect([reach.volts.toFixed(2), reach.weight.toFixed(1)]).toEqual([volts[k]!.toFixed(2), ['1.0', '0.5'][k]]))
  expect(volts[1]).toBeLessThan(0.95)
})

test('text that fits a tag', () => expect([wattText(null), wattText(29.47), wattText(625.4), wattText(1.25 - 1e-15), wattText(1.25 + 1e-15), shortLabel('07'), shortLabel('Saloon port')]).toEqual(['—', '29.5', '625', '1.3', '1.3', '07', 'Saloon…']))
