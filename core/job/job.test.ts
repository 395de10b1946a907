import { always } from '#core/testing/runs'
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { randomEdit, reading } from '#core/testing/edits'
import { counter, jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { seeded } from '#core/testing/trees'
import { applyEdit } from './apply'
import { toDocument } from './document'
import { editSchema, type Edit, type StampedEdit } from './edits'
import { joinWithNext, moveToOutput, removeNode, retap, shift, ungroup } from '#core/hands/intents'
import { JobError } from './jobError'
import { takeInSteps } from './ledger'
import { readJob, setAside } from './readJob'
import { Records } from './records'
import { EditRefused } from './refusal'
import { FORMAT_VERSION, type Branch, type Job, type Reading } from './schema'
import { UNSTATED_AMPLIFIER, UNSTATED_OUTPUT } from '#core/job/sections/wiring/schema'
import { MOST_READINGS } from './sections/readings/schema'
import { DEEPEST, MOST_AMPLIFIERS, MOST_OUTPUTS } from './sections/wiring/schema'
import { branchesOf, speakersOf } from './tree'
import { undoStacks, type LogEntry } from './undo'
import { upgradedDocument } from './upgrade'
import { editWords, refusalWords } from './words'

const start = () => jobOf('4 x 10 W on 70 V 100 W', '(8 + 8) || (8 + 8) on 100 W at 8', '3 x 5 W on 70 V 60 W')
const lead = { cable: { awg: 16 }, lengthM: 5 }

test('whatever is done can be undone, step by step, back to the very same document; every job on the way is valid', () => {
  always(fc.property(fc.nat(1e9), (seed) => {
    const chance = seeded(seed)
    const newId = counter('x')
    const jobs: Job[] = [start()]
    const inverses: Edit[] = []
    for (let k = 0; k < 40; k++) {
      const edit = randomEdit(jobs.at(-1)!, chance, newId)
      if (!edit) continue
      editSchema.parse(edit)
      const applied = applyEdit(jobs.at(-1)!, edit)
      jobs.push(readJob(JSON.parse(JSON.stringify(toDocument(applied.job)))))
      inverses.push(applied.inverse)
      expect(editWords(edit).length).toBeGreaterThan(3)
    }
    let job = jobs.at(-1)!
    while (inverses.length > 0) {
      const again = applyEdit(job, inverses.pop()!).job
      jobs.pop()
      // Readings and repairs are never taken out, only marked withdrawn.
      const [{ readings: now, ...rest }, { readings: then, ...before }] = [toDocument(again), toDocument(jobs.at(-1)!)]
      expect(rest).toEqual(before)
      expect(now.filter(r => !r.withdrawn)).toEqual(then)
      job = again
    }
  }), 20)
})

/** Runs a generator to its end. */
function drained<T>(steps: Generator<void, T>): T {
  let step = steps.next()
  while (!step.done) step = steps.next()
  return step.value
}

describe('a ledger takes each edit once', () => {
  const edits: StampedEdit[] = [retap(start(), 'o1n3', 1)!, shift(start(), 'o1n4', 1)!, { kind: 'reading.add', reading: reading('r1') } as Edit]
    .map((edit, k) => ({ id: `e${k}`, by: 'w', who: null, undoes: null, edit }))
  const take = (list: StampedEdit[], known = new Map<string, Edit>(), archived = false) => drained(takeInSteps(start(), list, known, archived))
  test('in any interleaving with others', () => {
    const once = take(edits)
    const twice = take([0, 0, 1, 0, 2, 1, 2].map(k => edits[k]!))
    expect([toDocument(twice.job), twice.outcomes.map(o => o.status[0]).join('')]).toEqual([toDocument(once.job), 'akakakk'])
  })
  test('another edit under a known id is refused, not called known; so is any on an archived job', () => {
    const other = { ...edits[0]!, edit: edits[1]!.edit }
    expect(take([edits[0]!, other]).outcomes).toMatchObject([{ status: 'applied' }, { status: 'refused', refusal: { code: 'id-taken' } }])
    expect(take([other, edits[0]!], new Map([['e0', edits[0]!.edit]])).outcomes).toMatchObject([{ status: 'refused' }, { status: 'known' }])
    expect(take([edits[0]!, edits[1]!], new Map([['e0', edits[0]!.edit]]), true).outcomes).toMatchObject([{ status: 'known' }, { status: 'refused', refusal: { code: 'archived' } }])
  })
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
    ['a reading corrected twice', { kind: 'batch', edits: [{ kind: 'reading.add', reading: reading('r1') }, { kind: 'reading.add', reading: { ...reading('r2'), supersedes: 'r1' } }, { kind: 'reading.add', reading: { ...reading('r3'), supersedes: 'r1' } }] }, 'corrected-already', /corrected already/],
    ['a correction of another kind', { kind: 'batch', edits: [{ kind: 'reading.add', reading: reading('r1') }, { kind: 'reading.add', reading: { ...reading('r2'), kind: 'line-dcr', supersedes: 'r1' } }] }, 'not-valid', /same place and kind/],
    ['a redo into a place taken meanwhile', { kind: 'batch', edits: [{ kind: 'reading.add', reading: reading('r1') }, { kind: 'reading.add', reading: { ...reading('r2'), supersedes: 'r1' } }, { kind: 'reading.withdraw', readingId: 'r2', withdrawn: true }, { kind: 'reading.add', reading: { ...reading('r3'), supersedes: 'r1' } }, { kind: 'reading.withdraw', readingId: 'r2', withdrawn: false }] }, 'corrected-already', /corrected already/],
    ['heard at a group', { kind: 'reading.add', reading: { ...reading('r'), kind: 'sound', nodeId: 'o2n3', value: { is: 'plays' } } }, 'not-there', /speaker/],
    ['looked at where nothing is', { kind: 'reading.add', reading: { ...reading('r'), kind: 'looked', nodeId: 'gone', value: { is: 'as-it-should' } } }, 'not-there', /speaker/],
    ['looked at, and ohms written down', { kind: 'reading.add', reading: { ...reading('r'), kind: 'looked', nodeId: speaker.id } }, 'not-valid', /looked/],
    ['a lead that another window has changed', { kind: 'lead.set', nodeId: speaker.id, was: lead, to: { ...lead, lengthM: 9 } }, 'changed-meanwhile', /lead|cable|length/],
    ['a lead of nothing', { kind: 'lead.set', nodeId: 'gone', was: null, to: lead }, 'not-there', /removed/],
    ['a repair of nothing', { kind: 'repair.add', repair: { id: 'fix', at: '2026-05-04T09:00:00Z', outputId: 'out1', nodeId: 'gone', fault: 'open-at-drop', note: '', who: null, withdrawn: false } }, 'not-there', /speaker/],
    ['a repair at a speaker of another line', { kind: 'repair.add', repair: { id: 'fix', at: '2026-05-04T09:00:00Z', outputId: 'out2', nodeId: speaker.id, fault: 'open-at-drop', note: '', who: null, withdrawn: false } }, 'not-there', /speaker/],
    ['a repair of a line that is gone', { kind: 'repair.add', repair: { id: 'fix', at: '2026-05-04T09:00:00Z', outputId: 'gone', nodeId: null, fault: 'taps-one-off', note: '', who: null, withdrawn: false } }, 'not-there', /output/],
    ['a reading taken back that is not there', { kind: 'reading.withdraw', readingId: 'gone', withdrawn: true }, 'not-there', /reading/],
    ['a repair taken back that is not there', { kind: 'repair.withdraw', repairId: 'gone', withdrawn: true }, 'not-there', /repair/],
    ['a variant with an id twice', { kind: 'variant.add', index: 0, variant: { id: 'v', name: 'twice', at: '2026-05-04T09:30:00Z', amplifiers: [start().amplifiers[0]!, start().amplifiers[0]!] } }, 'not-valid', /stands twice/],
    ['half of a batch', { kind: 'batch', edits: [{ kind: 'node.remove', nodeId: speaker.id, was: null }, { kind: 'node.remove', nodeId: speaker.id, was: null }] }, 'not-there', /speaker/],
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

test('a group is looked at where it hangs on its own line, and the reading counts there; the rack is looked at, too', () => {
  const { outputs } = start().amplifiers[0]!
  const at = outputs.flatMap(o => branchesOf(o.wiring).filter(b => b.node.kind !== 'speaker').map(b => [o.id, b.node.id] as const))
  expect(at.length).toBeGreaterThan(0)
  for (const [outputId, nodeId] of [...at, ['out1', null] as const]) {
    const { job } = applyEdit(start(), { kind: 'reading.add', reading: { ...reading('look'), kind: 'looked', outputId, nodeId, value: { is: 'seen', fault: 'control-at-zero' } } })
    expect([job.readings.size, readJob(toDocument(job)).readings.get('look')?.nodeId]).toEqual([start().readings.size + 1, nodeId])
  }
})

test('a guard wider than what is set is part of the undo as well', () => {
  const edit: Edit = { kind: 'job.set', was: { name: 'test', note: '' }, to: { name: 'Hall' } }
  const { job, inverse } = applyEdit(start(), edit)
  expect(inverse).toEqual({ kind: 'job.set', was: { name: 'Hall', note: '' }, to: { name: 'test' } })
  expect(applyEdit(job, inverse).job.name).toBe('test')
  expect(() => applyEdit({ ...job, note: 'mine' }, inverse)).toThrow(EditRefused)
})

describe('what edits can make, a file can carry; more is refused where it is made', () => {
  const many = <T>(count: number, make: (k: number) => T) => Array.from({ length: count }, (_, k) => make(k))
  const amplifier = (k: number) => ({ id: `m${k}`, name: `M${k}`, place: '', ...UNSTATED_AMPLIFIER, outputs: [] })
  const output = (k: number) => ({ id: `p${k}`, label: `P${k}`, name: '', rating: { kind: 'not-known' as const }, ...UNSTATED_OUTPUT, wiring: { kind: 'chain' as const, id: `w${k}`, children: [] } })
  const full: Job = {
    ...start(), amplifiers: [{ ...amplifier(0), outputs: many(MOST_OUTPUTS, output) }, ...many(MOST_AMPLIFIERS - 1, k => amplifier(k + 1))],
    readings: Records.of(many(MOST_READINGS, k => ({ ...reading(`r${k}`), outputId: 'p0' }))),
  }
  test('a file that is full', () => expect(readJob(toDocument(full)).readings.size).toBe(MOST_READINGS))
  test.each<[string, Edit]>([
    ['amplifiers', { kind: 'amplifier.add', index: 0, amplifier: amplifier(999) }],
    ['outputs', { kind: 'output.add', amplifierId: 'm0', index: 0, output: output(999) }],
    ['readings', { kind: 'reading.add', reading: { ...reading('one-more'), outputId: 'p0' } }],
  ])('%s', (what, edit) => {
    try {
      applyEdit(full, edit)
      throw new Error('was taken')
    }
    catch (error) {
      if (!(error instanceof EditRefused)) throw error
      expect([error.refusal.code, refusalWords(error.refusal).includes(what)]).toEqual(['too-many', true])
    }
  })
})

describe('corrections that no hand could have made', () => {
  const file = (version: number, readings: Reading[]) => ({ ...toDocument(start()), version, readings })
  const fork = [reading('a'), { ...reading('b'), supersedes: 'a' }, { ...reading('c'), supersedes: 'a' }, { ...reading('d'), supersedes: 'a' }]
  const ring = [{ ...reading('a'), supersedes: 'b' }, { ...reading('b'), supersedes: 'a' }]
  test.each([['fork', fork, 'readings[2].supersedes'], ['ring', ring, 'readings[0].supersedes'], ['itself', [{ ...reading('a'), supersedes: 'a' }], 'readings[0].supersedes']])('a %s is refused with its place', (_, list, path) => {
    try {
      readJob(file(FORMAT_VERSION, list))
      throw new Error('was taken')
    }
    catch (error) {
      expect(error instanceof JobError && error.path).toBe(path)
    }
  })
  test.each<[string, Reading[], (string | null)[], number]>([
    ['a withdrawn one corrects nothing, and stands in nobody’s way', [reading('a'), { ...reading('b'), supersedes: 'a', taken: null, withdrawn: true }, { ...reading('c'), supersedes: 'a' }], [null, 'a', 'a'], 0],
    ['itself', [{ ...reading('a'), supersedes: 'a' }], [null], 1],
    ['one at another speaker', [{ ...reading('a'), kind: 'coil-dcr', nodeId: 'o1n3' }, { ...reading('b'), kind: 'coil-dcr', nodeId: 'o1n4', supersedes: 'a' }], [null, null], 1],
    ['one of another kind', [reading('a'), { ...reading('b'), kind: 'line-dcr', supersedes: 'a' }], [null, null], 1],
    ['one of another line', [reading('a'), { ...reading('b'), outputId: 'out2', supersedes: 'a' }], [null, null], 1],
  ])('what version 1 let correct %s', (_, list, supersedes, remarks) => {
    const upgraded = upgradedDocument(file(1, list))
    expect([(upgraded.data as { readings: Reading[] }).readings.map(r => r.supersedes), upgraded.remarks.length]).toEqual([supersedes, remarks])
  })
  test('version 1 carried them: brought up, the later corrects the earlier, a ring falls apart and is told', () => {
    const up = (list: Reading[]) => upgradedDocument(file(1, list))
    const supersedes = (list: Reading[]) => [...readJob(up(list).data).readings].map(r => r.supersedes)
    expect([supersedes(fork), up(fork).remarks]).toEqual([[null, 'a', 'b', 'c'], []])
    expect([supersedes(ring), up(ring).remarks.length, up(ring).remarks[0]]).toEqual([[null, 'a'], 1, expect.stringContaining('“a”')])
  })
  test('readings and repairs at places that are not drawn are kept, counted and told', () => {
    const job = { ...start(), readings: Records.of([reading('a'), { ...reading('b'), outputId: 'gone' }, { ...reading('c'), outputId: 'gone' }, { ...reading('d'), kind: 'coil-dcr' as const, nodeId: 'away' }]) }
    expect(setAside(job)).toEqual([expect.stringMatching(/^2 × reading of output “gone”/), expect.stringMatching(/^1 × reading of speaker “away” on output “out1”/)])
    expect(setAside(start())).toEqual([])
  })
})

test('one window undoes its own edits, in order, over a reload; a new edit ends what could be redone', () => {
  const entry = (id: string, by: string, undoes: string | null = null): LogEntry => ({ id, by, who: null, undoes, edit: { kind: 'node.remove', nodeId: id, was: null }, inverse: { kind: 'node.remove', nodeId: id, was: null } })
  const ids = (log: LogEntry[]) => (({ undo, redo }) => [undo, redo].map(s => s.map(e => e.entry.id === e.original.id ? e.entry.id : `${e.entry.id}=${e.original.id}`).join(' ')))(undoStacks(log, 'me'))
  const log = [entry('a', 'me'), entry('b', 'you'), entry('c', 'me')]
  expect(ids(log)).toEqual(['a c', ''])
  expect(ids([...log, entry('u1', 'me', 'c')])).toEqual(['a', 'u1=c'])
  expect(ids([...log, entry('u1', 'me', 'c'), entry('r1', 'me', 'u1')])).toEqual(['a r1=c', ''])
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
    const data = JSON.parse(JSON.stringify(toDocument(start())))
    change(data)
    return data
  }
  let nest: Branch = { lead: null, node: { kind: 'star', id: 'deep', children: [] } }
  for (let k = 0; k < DEEPEST + 5; k++) nest = { lead: null, node: { kind: 'star', id: `deep${k}`, children: [nest] } }
  let abyss: unknown = 8
  for (let k = 0; k < 100_000; k++) abyss = [abyss]
  test.each<[string, unknown, string]>([
    ['a list', [], ''], ['another format', broken((j) => { Object.assign(j, { format: 'x' }) }), 'format'], ['a newer version', broken((j) => { Object.assign(j, { version: FORMAT_VERSION + 1 }) }), 'version'],
    ['an unknown key', broken((j) => { Object.assign(j, { extra: 1 }) }), ''], ['an empty name', broken((j) => { Object.assign(j, { name: ' ' }) }), 'name'],
    ['a null character', broken((j) => { Object.assign(j, { note: 'a\u0000b' }) }), 'note'], ['half a surrogate', broken((j) => { Object.assign(j, { note: '\ud800' }) }), 'note'],
    ['a tap as text', broken((j: any) => { j.amplifiers[0].outputs[0].wiring.children[0].node.load.tapW = '10' }), 'amplifiers[0].outputs[0].wiring.children[0].node.load.tapW'],
    ['an id twice', broken((j: any) => { j.amplifiers[0].outputs[1].id = 'out1' }), 'amplifiers'],
    ['a reading superseding none', { ...toDocument(start()), readings: [{ ...reading('r'), supersedes: 'gone' }] }, 'readings[0].supersedes'],
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
