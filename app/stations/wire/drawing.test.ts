import { describe, expect, test } from '@jest/globals'
import { applyEdit } from '#core/job/apply'
import type { Job } from '#core/job/schema'
import { namePair, readPair, saySplice } from '#core/hands/splices'
import { speakersOf } from '#core/job/tree'
import { turnedLeaves } from '#core/polarity/turned'
import { jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { colourOf } from '~/drawing/conductorColours'
import { CELL, endText, perRow, runsOf, stateOf, whenceOf, type Run } from './drawing'

const said = (job: Job, nodeId: string, to: Parameters<typeof saySplice>[2]) => applyEdit(job, saySplice(job, nodeId, to)!).job
const named = (job: Job, nodeId: string, text: string) => applyEdit(job, namePair(job, nodeId, readPair(text)!)!).job
const leavesOf = (job: Job) => turnedLeaves(job).filter(l => l.line.output === outputOf(job))
const runs = (job: Job, open?: ReadonlySet<string>): Run[] => runsOf(job, { output: outputOf(job), leaves: leavesOf(job) }, open)
const told = (job: Job, open?: ReadonlySet<string>) => runs(job, open).map(run => `${run.from || 'amplifier'}: ${run.cells.map(c => endText(c, speakersOf(outputOf(job).wiring))).join(', ')}`)
const cells = (job: Job) => runs(job).flatMap(r => r.cells).map((c) => {
  const mark = (is: boolean | null) => is === null ? '?' : is ? 'x' : '='
  return `${c.upper?.base ?? '-'}${c.upper?.stripe ? '/' : ''}${mark(c.startCrossed)}${mark(c.endCrossed)} ${stateOf(c)?.says ?? ''}, ${whenceOf(c)}`
})

describe('runs: what hangs on what', () => {
  test.each<[string, string, string[]]>([
    ['a chain', '8 || 8 || 8', ['amplifier: 01, 02, 03']],
    ['groups have runs of their own, behind the one that they hang on', '(8 + 8) || (8 + 8)', ['amplifier: in series, in series', '01 to 02, in series: 01, 02', '03 to 04, in series: 03, 04']],
    ['a control', '2 x 5 W behind control 50 W on 70 V', ['amplifier: C1', 'C1, 01 to 02, one behind the other: 01, 02']],
    ['forty alike are one, but for the first, which begins at the amplifier', '40 x 5 W on 70 V', ['amplifier: 01, 02–40']],
    ['three are not folded', '4 x 5 W on 70 V', ['amplifier: 01, 02, 03, 04']],
  ])('%s', (_, text, expected) => expect(told(jobOf(text))).toEqual(expected))
  test('what is named, crossed or looked at stands by itself', () => {
    const job = jobOf('12 x 5 W on 70 V')
    const ids = nodeIds(outputOf(job))
    expect([told(said(job, ids[5]!, { joint: 'box' })), told(said(job, ids[5]!, { end: 'crossed' })), told(job, new Set([ids[6]!]))]).toEqual([
      ['amplifier: 01, 02–05, 06, 07–12'], ['amplifier: 01, 02–05, 06, 07–12'], ['amplifier: 01, 02–06, 07, 08–12'],
    ])
  })
})

describe('how a pair is drawn: what the job takes for plus above', () => {
  const job = jobOf('8 || 8')
  const [a, b] = nodeIds(outputOf(job)) as [string, string]
  test('nothing said', () => expect(cells(job)).toEqual(['-?? not known, colours not named', '-?? not known, colours not named']))
  test('named, plus on plus; the same with its stripe written first', () => {
    expect(cells(named(job, a, 'orange, orange/black'))[0]).toBe('orange== right way round, drawn, not read yet')
    // Joined first to first, but drawn with its plain one above: two crossings that cancel.
    expect(cells(said(named(job, a, 'orange, orange/black'), a, { pair: readPair('orange/black, orange') }))[0]).toBe('orangexx right way round, drawn, not read yet')
  })
  test('crossed before the second; a joint that nobody knows', () => {
    const both = named(named(job, a, 'red, black'), b, 'white, black')
    expect(cells(said(both, b, { start: 'crossed' }))).toEqual(['red== right way round, drawn, not read yet', 'whitex= turned round, drawn, not read yet'])
    expect(cells(said(both, b, { start: null }))[1]).toBe('white?= not known, a joint is not known')
  })
})

test('cells in a row, and colours by name: what is no colour is not drawn as another', () => {
  expect([perRow(CELL.width * 3 + 8), perRow(CELL.width * 3 + 7), perRow(100)]).toEqual([3, 2, 1])
  expect([colourOf('Orange'), colourOf('light blue') === colourOf('blue'), colourOf('ridge'), colourOf('')]).toEqual(['#e0862a', true, null, null])
})
