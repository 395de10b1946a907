import { describe, expect, test } from '@jest/globals'
import { evaluateJob } from '#core/line/evaluate'
import { proveLine } from '#core/check/proof'
import { askedOf } from '#core/check/asked'
import { applyEdit } from '#core/job/apply'
import { outputsOf } from '#core/job/tree'
import type { Job, ReadingKind } from '#core/job/schema'
import { removeNode } from '#core/hands/intents'
import { jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { demoJobs } from '../../demo'
import { numberedStops, walkCode } from './numbered'
import { cssString } from './pageRules'
import { SHEETS } from './sheets'
import type { PaperData, SheetId } from './sheet'
import { readWritten, writtenAt } from './typedIn'

const dataOf = (job: Job, order: 'line' | 'room' = 'line'): PaperData => {
  const asked = askedOf(job)
  return { job, lines: evaluateJob(job), proofs: new Map(outputsOf(job).map(o => [o.id, proveLine(job, o, undefined, asked)])), units: 'metric', order, nameOf: who => who ?? 'the desk' }
}
const sheet = (id: SheetId, data: PaperData) => SHEETS.find(s => s.id === id)!.make(data)
const plan = jobOf('4 x 5 W on 70 V 60 W', '8 ohm || 8 ohm on 100 W at 4')
const ids = nodeIds(outputOf(plan))

describe('sheets', () => {
  test.each(demoJobs.map(({ job }) => [job.name, job] as const))('of %s: every speaker, cable and reading stands on its sheet; a row has a cell for each column; nothing is written as code', (_, job) => {
    const data = dataOf(job, 'room')
    for (const { make } of SHEETS) {
      const { tables } = make(data)
      for (const { columns, rows } of tables) expect(rows.every(r => r.cells.length === columns.length)).toBe(true)
      expect(JSON.stringify(tables)).not.toMatch(/undefined|null|NaN|\[object/)
    }
    const speakers = data.lines.reduce((sum, l) => sum + l.speakers.length, 0)
    expect(sheet('run', data).tables.flatMap(t => t.rows).filter(r => r.cells[2] !== '' && !/^C\d|^T\d/.test(r.cells[0]!)).length).toBeGreaterThanOrEqual(speakers)
    const stops = numberedStops(data)
    expect(sheet('walk', data).tables.flatMap(t => t.rows.map(r => Number(r.cells[0])))).toEqual(stops.map(s => s.no))
    const runs = sheet('schedule', data).tables.flatMap(t => t.rows)
    expect(sheet('tags', data).tags.map(t => t.code)).toEqual(runs.flatMap(r => [r.cells[0]!, r.cells[0]!]))
  })
  test('with nothing drawn each says why it is empty', () => {
    const empty = dataOf({ ...plan, amplifiers: [] })
    expect(SHEETS.map(({ make }) => { const { tables, tags, empty: why } = make(empty); return tables.length + tags.length === 0 && why !== '' })).toEqual(SHEETS.map(() => true))
  })
  test('what is read goes onto the record with its band and verdict, what is withdrawn does not; it counts what was not read', () => {
    const read = applyEdit(plan, { kind: 'reading.add', reading: { id: 'r', at: '2026-05-04T09:30:00Z', kind: 'coil-dcr', outputId: 'out2', nodeId: nodeIds(outputOf(plan, 1))[0]!, value: { is: 'ohm', ohm: 6.4 }, note: '', frequencyHz: null, supersedes: null, taken: { by: 'Iris', meter: '', leadsOhm: 0 }, who: null, withdrawn: false } })
    const { tables, before } = sheet('record', dataOf(read.job))
    expect(tables.map(t => t.rows[0]!.cells.slice(1))).toEqual([['coil DCR', '5.6 Ω to 7.2 Ω', '6.4 Ω', 'As it should be', 'Iris, leads nulled, 2026-05-04 09:30']])
    expect(before[0]).toMatch(/^1 of \d+ readings/)
    expect(sheet('record', dataOf(applyEdit(read.job, read.inverse).job)).tables).toEqual([])
  })
})

describe('the code of a walk', () => {
  const code = (job: Job, order: 'line' | 'room' = 'line') => walkCode(numberedStops(dataOf(job, order)))
  test('is the same for the same stops and another for any other: of 200 plans that differ by one speaker or one output all differ', () => {
    expect([code(plan), code(plan)]).toEqual([code({ ...plan, amplifiers: structuredClone(plan.amplifiers) }), code({ ...plan, name: 'Renamed' })])
    const gone = ids.map(id => code(applyEdit(plan, removeNode(plan, id)!).job))
    const counts = Array.from({ length: 200 }, (_, k) => code(jobOf(`${k + 1} x 1 W on 70 V 400 W`)))
    expect([new Set([code(plan), ...gone]).size, new Set(counts).size]).toEqual([ids.length + 1, 200])
    expect(code(plan)).toMatch(/^[ACDEFHKLMNPRTUVWXY34679]{4}$/)
  })
})

describe('what came back, as it was written', () => {
  const speaker = outputOf(plan).wiring.children[1]!.node as never
  const said = (kind: ReadingKind, text: string) => {
    try {
      const value = readWritten(text, { kind, output: outputOf(plan), speaker: kind === 'line-impedance' ? null : speaker })
      return 'ohm' in value ? value.ohm : value.is
    }
    catch (error) {
      return (error as Error).message
    }
  }
  test.each<[ReadingKind, string, unknown]>([
    ['line-impedance', '245', 245], ['line-impedance', ' 2k2 ', 2200], ['coil-dcr', 'open', 'open'], ['coil-dcr', 'OL', 'open'], ['coil-dcr', 'yes', expect.stringMatching(/not a resistance/)],
    ['sound', 'plays', 'plays'], ['sound', 'OK', 'plays'], ['sound', '✓', 'plays'], ['sound', 'Silent', 'silent'], ['sound', 'no', 'silent'], ['sound', 'comes and goes', 'comes-and-goes'], ['sound', '6.2', expect.stringMatching(/not what is heard/)],
    ['polarity', 'right', 'right-way'], ['polarity', 'turned', 'reversed'], ['polarity-heard', 'x', 'reversed'], ['polarity-heard', '?', 'cannot-tell'], ['polarity', 'out', expect.stringMatching(/which way round/)],
  ])('%s: “%s”', (kind, text, value) => expect(said(kind, text)).toEqual(value))

  const now = new Date('2026-05-20T15:00:00.000Z')
  test.each<[string, string]>([['', '2026-05-20T15:00:00.000Z'], ['2026-05-20', '2026-05-20T15:00:00.000Z'], ['2026-05-04', '2026-05-04T12:00:00.007Z']])('read on “%s”', (day, at) => expect(writtenAt(day, 7, now)).toBe(at))
  test.each(['2026-05-21', '2026-02-30', 'May', '2026-5-4'])('“%s” is no day on which it can have been read', day => expect(() => writtenAt(day, 1, now)).toThrow())
})

test('a name of a job ends no text of a style sheet', () => {
  expect(cssString('Mill "A"; } \\ <é')).toBe('"Mill \\22 A\\22 ; \\7d  \\5c  \\3c é"')
})
