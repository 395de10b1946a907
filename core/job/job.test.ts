import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { counter, jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { seeded } from '#core/testing/trees'
import { applyEdit } from './apply'
import { editSchema, type Edit, type StampedEdit } from './edits'
import { addAfter, addFirst, joinWithNext, moveToOutput, removeNode, retap, setLineCable, shift, ungroup } from './intents'
import { applyOnce } from './ledger'
import { JobError, readJob } from './readJob'
import { EditRefused } from './refusal'
import { DEEPEST, type Branch, type Job, type Reading } from './schema'
import { findPlace, outputsOf, speakersOf } from './tree'
import { undoStacks, type LogEntry } from './undo'
import { editWords, refusalWords } from './words'

const start = () => jobOf('4 x 10 W on 70 V 100 W', '(8 + 8) || (8 + 8) on 100 W at 8', '3 x 5 W on 70 V 60 W')
const lead = { cable: { awg: 16 }, lengthM: 5 }
const reading = (id: string): Reading => ({
  id, at: '2026-05-04T09:30:00Z', kind: 'line-impedance', outputId: 'out1', nodeId: null, value: { is: 'ohm', ohm: 120 }, note: '', supersedes: null, withdrawn: false,
})

/** A hand on the keys: some intent at some node, whatever it gives. */
function randomEdit(job: Job, chance: () => number, newId: () => string): Edit | null {
  const outputs = outputsOf(job)
  const output = outputs[Math.floor(chance() * outputs.length)]
  if (!output) return null
  const ids = nodeIds(output)
  const node = ids[Math.floor(chance() * ids.length)]
  if (node === undefined) return addFirst(job, output.id, newId)?.edit ?? null
  const other = outputs[Math.floor(chance() * outputs.length)]!.id
  const branch = findPlace(job, node)!.branch
  const choices: (() => Edit | null)[] = [
    () => retap(job, node, chance() < 0.5 ? 1 : -1), () => shift(job, node, chance() < 0.5 ? 1 : -1), () => removeNode(job, node),
    () => addAfter(job, node, newId)?.edit ?? null, () => moveToOutput(job, node, other), () => joinWithNext(job, node, chance() < 0.5 ? 'series' : 'star', newId),
    () => ungroup(job, node), () => ({ kind: 'lead.set', nodeId: node, was: branch.lead, to: branch.lead ? null : lead }), () => setLineCable(job, output.id, { areaMm2: 1.5 }),
    () => ({ kind: 'reading.add', reading: { ...reading(newId()), outputId: output.id } }),
    () => ({ kind: 'output.set', outputId: output.id, was: { name: output.name }, to: { name: `line ${newId()}` } }),
    () => chance() < 0.2 ? { kind: 'output.remove', outputId: output.id } : null,
  ]
  return choices[Math.floor(chance() * choices.length)]!()
}

test('whatever is done can be undone, step by step, back to the very same document; every job on the way is valid', () => {
  fc.assert(fc.property(fc.nat(1e9), (seed) => {
    const chance = seeded(seed)
    const newId = counter('x')
    const jobs: Job[] = [start()]
    const inverses: Edit[] = []
    for (let k = 0; k < 40; k++) {
      const edit = randomEdit(jobs.at(-1)!, chance, newId)
      if (!edit) continue
      editSchema.parse(edit)
      const applied = applyEdit(jobs.at(-1)!, edit)
      jobs.push(readJob(JSON.parse(JSON.stringify(applied.job))))
      inverses.push(applied.inverse)
      expect(editWords(edit).length).toBeGreaterThan(3)
    }
    let job = jobs.at(-1)!
    while (inverses.length > 0) {
      const again = applyEdit(job, inverses.pop()!).job
      jobs.pop()
      // Readings and repairs are never taken out, only marked withdrawn.
      expect({ ...again, readings: [] }).toEqual({ ...jobs.at(-1)!, readings: [] })
      expect(again.readings.filter(r => !r.withdrawn)).toEqual(jobs.at(-1)!.readings)
      job = again
    }
  }), { numRuns: 40 })
})

test('the same edit twice is applied once, in any interleaving with others', () => {
  const edits: StampedEdit[] = [retap(start(), 'o1n3', 1)!, shift(start(), 'o1n4', 1)!, { kind: 'reading.add', reading: reading('r1') } as Edit]
    .map((edit, k) => ({ id: `e${k}`, by: 'w', undoes: null, edit }))
  const once = edits.reduce((ledger, e) => applyOnce(ledger, e).ledger, { job: start(), appliedIds: new Set<string>() as ReadonlySet<string> })
  const twice = [edits[0]!, edits[0]!, edits[1]!, edits[0]!, edits[2]!, edits[1]!, edits[2]!]
    .reduce((ledger, e) => applyOnce(ledger, e).ledger, { job: start(), appliedIds: new Set<string>() as ReadonlySet<string> })
  expect(twice.job).toEqual(once.job)
})

describe('an edit that no longer fits is refused with its reason, and changes nothing', () => {
  const speaker = speakersOf(outputOf(start()).wiring)[0]!
  test.each<[string, Edit, string, RegExp]>([
    ['two windows, one tap', { kind: 'speaker.set', nodeId: speaker.id, was: { load: { kind: 'nominal', nominalOhm: 8 } }, to: { load: speaker.load } }, 'changed-meanwhile', /tap or impedance of speaker 01.*was 8 Ω, it is now 10 W/],
    ['a speaker gone', { kind: 'speaker.set', nodeId: 'gone', was: {}, to: {} }, 'not-there', /removed in another window/],
    ['an id taken', { kind: 'node.add', parentId: outputOf(start()).wiring.id, index: 0, branch: { lead: null, node: speaker } }, 'already-there', /already/],
    ['into itself', { kind: 'node.move', nodeId: 'o2n3', parentId: 'o2n3', index: 0 }, 'inside-itself', /into itself/],
    ['a reading at no line', { kind: 'reading.add', reading: { ...reading('r'), outputId: 'gone' } }, 'not-there', /output/],
    ['a line read at a speaker', { kind: 'reading.add', reading: { ...reading('r'), nodeId: speaker.id } }, 'not-valid', /head/],
    ['set without saying what it was', { kind: 'output.set', outputId: 'out1', was: {}, to: { name: 'x' } }, 'not-valid', /without saying/],
    ['half of a batch', { kind: 'batch', edits: [{ kind: 'node.remove', nodeId: speaker.id }, { kind: 'node.remove', nodeId: speaker.id }] }, 'not-there', /speaker/],
  ])('%s', (_, edit, code, says) => {
    const job = start()
    const before = JSON.stringify(job)
    try {
      applyEdit(job, edit)
      throw new Error('was taken')
    }
    catch (error) {
      if (!(error instanceof EditRefused)) throw error
      expect([error.refusal.code, says.test(refusalWords(error.refusal))]).toEqual([code, true])
    }
    expect(JSON.stringify(job)).toBe(before)
  })
})

test('one window undoes its own edits, in order, over a reload; a new edit ends what could be redone', () => {
  const entry = (id: string, by: string, undoes: string | null = null): LogEntry => ({ id, by, undoes, edit: { kind: 'node.remove', nodeId: id }, inverse: { kind: 'node.remove', nodeId: id } })
  const ids = (log: LogEntry[]) => Object.values(undoStacks(log, 'me')).map(s => s.map((e: LogEntry) => e.id).join(' '))
  const log = [entry('a', 'me'), entry('b', 'you'), entry('c', 'me')]
  expect(ids(log)).toEqual(['a c', ''])
  expect(ids([...log, entry('u1', 'me', 'c')])).toEqual(['a', 'u1'])
  expect(ids([...log, entry('u1', 'me', 'c'), entry('r1', 'me', 'u1')])).toEqual(['a r1', ''])
  expect(ids([...log, entry('u1', 'me', 'c'), entry('d', 'me')])).toEqual(['a d', ''])
})

describe('what the hands mean', () => {
  const labels = (job: Job, k = 0) => speakersOf(outputOf(job, k).wiring).map(s => s.label).join(' ')
  const lengths = (job: Job, k = 0) => outputOf(job, k).wiring.children.map(c => c.lead?.lengthM ?? null)
  const wired = () => nodeIds(outputOf(start())).reduce((job, id, k) =>
    applyEdit(job, { kind: 'lead.set', nodeId: id, was: null, to: { ...lead, lengthM: k + 1 } }).job, start())
  const ids = nodeIds(outputOf(start()))

  test('a speaker off a chain leaves its cable in the ceiling', () => {
    const job = applyEdit(wired(), removeNode(wired(), ids[1]!)!).job
    expect([labels(job), lengths(job).length]).toEqual(['01 03 04', 3])
    const [before, after] = [wired(), job].map(j => lengths(j).reduce<number>((sum, l) => sum + (l ?? 0), 0))
    expect(after).toBe(before)
  })
  test('changing places leaves the cable where it runs', () => {
    const job = applyEdit(wired(), shift(wired(), ids[0]!, 1)!).job
    expect([labels(job), lengths(job)]).toEqual(['02 01 03 04', lengths(wired())])
  })
  test('the end of a line and of a list of taps: nothing to do', () =>
    expect([shift(start(), ids[0]!, -1), retap(jobOf('30 W on 70 V'), 'o1n3', 1), moveToOutput(start(), ids[0]!, 'out1')]).toEqual([null, null, null]))
  test('a pair in series, and apart again', () => {
    const joined = applyEdit(start(), joinWithNext(start(), ids[0]!, 'series', counter('g'))!).job
    expect(outputOf(joined).wiring.children.map(c => c.node.kind)).toEqual(['series', 'speaker', 'speaker'])
    expect(outputOf(applyEdit(joined, ungroup(joined, 'g1')!).job)).toEqual(outputOf(start()))
  })
})

describe('what is no job is said with its place', () => {
  const broken = (change: (job: Record<string, never>) => void) => {
    const data = JSON.parse(JSON.stringify(start()))
    change(data)
    return data
  }
  let nest: Branch = { lead: null, node: { kind: 'star', id: 'deep', children: [] } }
  for (let k = 0; k < DEEPEST + 5; k++) nest = { lead: null, node: { kind: 'star', id: `deep${k}`, children: [nest] } }
  let abyss: unknown = 8
  for (let k = 0; k < 100_000; k++) abyss = [abyss]
  test.each<[string, unknown, string]>([
    ['a list', [], ''], ['another format', broken((j) => { Object.assign(j, { format: 'x' }) }), 'format'], ['a newer version', broken((j) => { Object.assign(j, { version: 9 }) }), 'version'],
    ['an unknown key', broken((j) => { Object.assign(j, { extra: 1 }) }), ''], ['an empty name', broken((j) => { Object.assign(j, { name: ' ' }) }), 'name'],
    ['a null character', broken((j) => { Object.assign(j, { note: 'a\u0000b' }) }), 'note'], ['half a surrogate', broken((j) => { Object.assign(j, { note: '\ud800' }) }), 'note'],
    ['a tap as text', broken((j: any) => { j.amplifiers[0].outputs[0].wiring.children[0].node.load.tapW = '10' }), 'amplifiers[0].outputs[0].wiring.children[0].node.load.tapW'],
    ['an id twice', broken((j: any) => { j.amplifiers[0].outputs[1].id = 'out1' }), 'amplifiers'],
    ['a reading superseding none', { ...start(), readings: [{ ...reading('r'), supersedes: 'gone' }] }, 'readings[0].supersedes'],
    ['too deep', broken((j: any) => { j.amplifiers[0].outputs[0].wiring.children.push(nest) }), 'amplifiers'], ['an abyss', abyss, 'amplifiers'],
  ])('%s', (_, data, path) => {
    expect(() => readJob(data)).toThrow(JobError)
    try {
      readJob(data)
    }
    catch (error) {
      expect((error as JobError).path).toBe(path)
    }
  })
})
