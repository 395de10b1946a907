import { describe, expect, test } from '@jest/globals'
import { everyEdit } from '#core/testing/everyEdit'
import { reading } from '#core/testing/edits'
import { jobOf, outputOf } from '#core/testing/jobs'
import { applyEdit } from './apply'
import { drawingOf, toDocument } from './document'
import { isRemoval, type Edit, type SimpleEdit } from './edits'
import { correctedIds, documentParts, mentionedIds, touchedRows } from './parts'
import { readJob } from './readJob'
import { EditRefused } from './refusal'
import type { Job } from './schema'
import { EDIT_KINDS, ruleOf, SECTIONS } from './sections'
import { GROWING } from './sections/shapes'
import { plainSpace } from './sections/spaces/schema'
import { allSpeakers, nodeIds, outputIds } from './tree'
import { editWords } from './words'

/** What holds for every kind of edit, of whichever section: one of each is made and applied in turn. */
const start = jobOf('3 x 5 W on 70 V 60 W', '8 + 8 on 100 W at 4')
const EVERY = everyEdit(start)
const jobs = EVERY.reduce<Job[]>((all, edit) => [...all, applyEdit(all.at(-1)!, edit).job], [start])
const idsOf = (job: Job) => new Set(SECTIONS.flatMap(section => [...section.ids(toDocument(job))].map(([id]) => id)))

test('there is an edit of every kind that there is', () => expect(EVERY.map(e => e.kind).sort()).toEqual([...EDIT_KINDS].sort()))

describe('every kind of edit', () => {
  test.each(EVERY.map((edit, k) => [edit.kind, edit, jobs[k]!, jobs[k + 1]!] as const))('%s: is called something, brings in the ids it says, leaves a job that can be kept, and is taken back', (kind, edit, before, after) => {
    expect(editWords(edit).length).toBeGreaterThan(4)
    const [was, is] = [idsOf(before), idsOf(after)]
    const made = [...is].filter(id => !was.has(id))
    expect(ruleOf(edit).makes(edit)).toEqual(expect.arrayContaining(made))
    if (made.length > 0) expect(made.length).toBe(ruleOf(edit).makes(edit).length)
    for (const id of made) expect([SECTIONS.filter(s => s.has(before, id)).length, SECTIONS.filter(s => s.has(after, id)).length]).toEqual([0, 1])
    expect(mentionedIds([edit])).toEqual(expect.arrayContaining(made))
    expect(readJob(JSON.parse(JSON.stringify(toDocument(after))))).toEqual(after)
    const back = applyEdit(after, applyEdit(before, edit).inverse, 'undo').job
    expect(drawingOf(toDocument(back))).toEqual(drawingOf(toDocument(before)))
    // What only grows is marked, never taken out.
    for (const { list } of GROWING) {
      const standing = (job: Job) => [...job[list]].filter(e => !e.withdrawn).map(e => e.id)
      expect([list, standing(back)]).toEqual([list, standing(before)])
    }
  })
  test.each(EVERY.filter(e => ruleOf(e).makes(e).length > 0).map(edit => [edit.kind, edit] as const))('%s a second time is refused: it is there already', (_, edit) => {
    const k = EVERY.indexOf(edit)
    expect(reasonOf(jobs[k + 1]!, edit)).toMatch(/already-there|not-valid|corrected/)
  })
  test.each(EVERY.flatMap((edit, k) => {
    const { inverse } = applyEdit(jobs[k]!, edit)
    return isRemoval(inverse) && inverse.was ? [[inverse.kind, inverse, inverse.was, jobs[k]!, jobs[k + 1]!] as const] : []
  }))('%s goes with what the thing was, and is refused once it is another', (_, removal, was, before, after) => {
    for (const field of Object.keys(was)) {
      expect(`${field} ${reasonOf(after, { ...removal, was: { ...was, [field]: field } } as Edit)}`).toMatch(`${field} changed-meanwhile`)
    }
    for (const said of [was, null]) {
      expect(drawingOf(toDocument(applyEdit(after, { ...removal, was: said } as Edit).job))).toEqual(drawingOf(toDocument(before)))
    }
  })
  test('removals of all nine kinds of things say it', () => {
    expect([...new Set(EVERY.flatMap((edit, k) => applyEdit(jobs[k]!, edit).inverse).filter(isRemoval).filter(e => e.was !== null).map(e => e.kind))].sort())
      .toEqual(EDIT_KINDS.filter(kind => kind.endsWith('.remove')).sort())
  })
})

const reasonOf = (job: Job, edit: Edit, coming: 'new' | 'undo' | 'taken' = 'new') => {
  try {
    applyEdit(job, edit, coming)
    return 'taken'
  }
  catch (error) {
    if (!(error instanceof EditRefused)) throw error
    const { refusal } = error
    return [refusal.code, 'what' in refusal ? refusal.what : '', 'message' in refusal ? refusal.message : ''].filter(Boolean).join(' ')
  }
}

describe('names of things that are not there', () => {
  const { wiring } = outputOf(start)
  const [first] = allSpeakers(start)
  const speaker = (to: object): Edit => ({ kind: 'speaker.set', nodeId: first!.id, was: { kindId: null, zoneId: null }, to })
  const kind: SimpleEdit = EVERY.find(e => e.kind === 'kind.add')!
  const zone: SimpleEdit = EVERY.find(e => e.kind === 'zone.add')!
  const space = plainSpace('s', 'Hall')
  const spot = { id: 'p', xM: 1, yM: 1, heightM: null, aim: null, nodeId: 'gone' }
  const hall: SimpleEdit = { kind: 'space.add', index: 0, space: { ...space, kindId: 'every-kind', spots: [{ ...spot, nodeId: first!.id }] } }
  const withAll = [kind, zone, hall, speaker({ kindId: 'every-kind', zoneId: 'every-zone' })].reduce((j, e) => applyEdit(j, e).job, start)
  const node = { ...first!, id: 'n', kindId: 'gone' }
  const output = { ...outputOf(start), id: 'o', wiring: { kind: 'chain' as const, id: 'c', children: [{ lead: null, node }] } }
  test.each<[string, Job, Edit, string, string]>([
    ['a kind, set', start, speaker({ kindId: 'gone' }), 'not-there kind', 'not-there kind'],
    ['a zone, set', start, speaker({ zoneId: 'gone' }), 'not-there zone', 'not-there zone'],
    ['a kind of a speaker that comes in', start, { kind: 'node.add', parentId: wiring.id, index: 0, branch: { lead: null, node } }, 'not-there kind', 'not-there kind'],
    ['a kind deep in a group that comes in', start, { kind: 'node.add', parentId: wiring.id, index: 0, branch: { lead: null, node: { kind: 'series', id: 'g', children: [{ lead: null, node }] } } }, 'not-there kind', 'not-there kind'],
    ['of an output that comes in', start, { kind: 'output.add', amplifierId: 'amp', index: 0, output }, 'not-there kind', 'not-there kind'],
    ['of an amplifier that comes in', start, { kind: 'amplifier.add', index: 0, amplifier: { ...start.amplifiers[0]!, id: 'a', outputs: [output] } }, 'not-there kind', 'not-there kind'],
    ['a kind of a space', start, { kind: 'space.add', index: 0, space: { ...space, kindId: 'gone' } }, 'not-there kind', 'not-there kind'],
    ['a kind of a space, set', withAll, { kind: 'space.set', spaceId: 's', was: { kindId: 'every-kind' }, to: { kindId: 'gone' } }, 'not-there kind', 'not-there kind'],
    ['a speaker of a place: taken back, it counts as none', withAll, { kind: 'spot.add', spaceId: 's', index: 0, spot: { ...spot, id: 'p2' } }, 'not-there speaker', 'taken'],
    ['a speaker of a place, set', withAll, { kind: 'spot.set', spaceId: 's', spotId: 'p', was: { nodeId: first!.id }, to: { nodeId: 'gone' } }, 'not-there speaker', 'taken'],
    ['one that comes later in the same act', start, { kind: 'batch', edits: [speaker({ kindId: 'every-kind' }) as SimpleEdit, kind] }, 'taken', 'taken'],
  ])('%s', (_, job, edit, isNew, undone) => expect([reasonOf(job, edit), reasonOf(job, edit, 'undo'), reasonOf(job, edit, 'taken')]).toEqual([isNew, undone, 'taken']))

  test('what is named is not taken away under its names, unless that was taken in already', () => {
    const [ofKind, ofZone]: [Edit, Edit] = [{ kind: 'kind.remove', kindId: 'every-kind', was: null }, { kind: 'zone.remove', zoneId: 'every-zone', was: null }]
    expect([reasonOf(withAll, ofKind), reasonOf(withAll, ofZone), reasonOf(withAll, ofKind, 'taken')]).toEqual([
      'not-valid 1 space and 1 speaker are of the kind “Added kind”: take them off it first.', 'not-valid 1 speaker is in the zone “Added zone”: take it out of it first.', 'taken',
    ])
    expect(reasonOf(applyEdit(withAll, { kind: 'speaker.set', nodeId: first!.id, was: { zoneId: 'every-zone' }, to: { zoneId: null } }).job, ofZone)).toBe('taken')
  })
})

describe('what an edit touches', () => {
  const corrected = { ...reading('r2'), supersedes: 'r1' }
  const repair = { id: 'fix', at: '2026-05-04T09:00:00Z', outputId: 'out1', nodeId: 'o1n3', fault: 'open-at-drop' as const, note: '', who: null, withdrawn: false }
  const output = { ...outputOf(start), id: 'new' }
  const none = Object.fromEntries(GROWING.map(g => [g.list, [] as string[]]))
  const ROWS: [string, SimpleEdit, string[], Record<string, string[]>, Record<string, string[]>, boolean][] = [
    ['a reading', { kind: 'reading.add', reading: reading('r1') }, ['r1'], {}, { readings: ['r1'] }, false],
    ['a correction', { kind: 'reading.add', reading: corrected }, ['r2'], { readings: ['r1'] }, { readings: ['r2'] }, false],
    ['a reading taken back', { kind: 'reading.withdraw', readingId: 'r3', withdrawn: true }, ['r3'], {}, { readings: ['r3'] }, false],
    ['a repair', { kind: 'repair.add', repair }, ['fix'], {}, { repairs: ['fix'] }, false],
    ['a repair brought back', { kind: 'repair.withdraw', repairId: 'old', withdrawn: false }, ['old'], {}, { repairs: ['old'] }, false],
    ['an output', { kind: 'output.add', amplifierId: 'amp', index: 0, output }, outputIds(output), {}, {}, true],
    ['a speaker', { kind: 'node.add', parentId: 'p', index: 0, branch: output.wiring.children[0]! }, nodeIds(output.wiring.children[0]!.node), {}, {}, true],
    ['one taken away', { kind: 'node.remove', nodeId: 'o1n3', was: null }, [], {}, {}, true],
  ]
  test.each(ROWS)('%s', (_, part, ids, corrects, rows, inDocument) => {
    expect([mentionedIds([part]), correctedIds([part]), touchedRows(part)]).toEqual([ids, { ...none, ...corrects }, { ...none, ...rows }])
    expect(documentParts(part)).toEqual(inDocument ? [part] : [])
  })
  test('of a batch, each of its parts, in order; an id named twice is named once', () => {
    const batch: Edit = { kind: 'batch', edits: ROWS.map(([, part]) => part) }
    expect(documentParts(batch)).toEqual(ROWS.flatMap(([, part, , , , inDocument]) => inDocument ? [part] : []))
    expect(mentionedIds([batch, batch])).toEqual([...new Set(ROWS.flatMap(([, , ids]) => ids))])
    expect(correctedIds([batch, batch])).toEqual({ ...none, readings: ['r1', 'r1'] })
    expect(touchedRows(batch)).toEqual({ ...none, readings: ['r1', 'r2', 'r3'], repairs: ['fix', 'old'] })
  })
})

test('a correction that was withdrawn makes room for another, and cannot come back beside it', () => {
  const correction = (id: string, more = {}) => ({ ...reading(id), supersedes: 'r1', ...more })
  const withBoth = ([
    { kind: 'reading.add', reading: reading('r1') }, { kind: 'reading.add', reading: correction('r2') }, { kind: 'reading.withdraw', readingId: 'r2', withdrawn: true }, { kind: 'reading.add', reading: correction('r3') },
  ] as Edit[]).reduce((j, e) => applyEdit(j, e).job, start)
  expect([...withBoth.readings].map(r => [r.id, r.withdrawn])).toEqual([['r1', false], ['r2', true], ['r3', false]])
  expect([reasonOf(withBoth, { kind: 'reading.withdraw', readingId: 'r2', withdrawn: false }), reasonOf(withBoth, { kind: 'reading.add', reading: correction('r4') }), reasonOf(withBoth, { kind: 'reading.add', reading: correction('r5', { withdrawn: true }) })])
    .toEqual(['corrected-already', 'corrected-already', 'taken'])
})
