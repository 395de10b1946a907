import { describe, expect, test } from '@jest/globals'
import { applyEdit } from '#core/job/apply'
import { toDocument } from '#core/job/document'
import { readJob } from '#core/job/readJob'
import { ticketEntrySchema, CLOSING_CHECKS } from '#core/job/sections/tickets/schema'
import { answer, bench, coil, head, right, ticket, written } from '#core/testing/ticket'
import { beforeClosing, stillOpen } from './closing'
import { listOfModel, missingOf, missingWords, partsOf } from './opening'
import { daysAfter, daysBetween, foundTickets, seeAgainOn, ticketOf, ticketsOf } from './ticket'
import type { Job, Written } from '#core/job/schema'

const state = (s: Extract<Written, { is: 'state' }>['state'], on: string | null = null, reason = ''): Written => ({ is: 'state', state: s, on, as: null, reason })
const screws: Written = { is: 'part', kind: 'screw', name: 'long screws', count: 4, place: 'corners' }
const clip: Written = { is: 'part', kind: 'clip', name: 'clip', count: 1, place: '' }

describe('a ticket is what was written on it', () => {
  test('it comes in; the last state and the last of what is known count', () => {
    const t = ticketOf(bench(state('waits'), { is: 'told', to: { labelOhm: 16 } }, { is: 'told', to: { unit: 'Handset, long' } }, state('on-test')), 't')!
    expect([ticket({}).state.state, t.state.state, t.head.labelOhm, t.head.unit, t.head.complaint]).toEqual(['came-in', 'on-test', 16, 'Handset, long', 'one side is dead'])
    expect(t.changedAt > t.openedAt).toBe(true)
  })
  test('what is taken back does not count, comes back, and goes through a file', () => {
    const job = bench(state('waits'))
    const { job: without, inverse } = applyEdit(job, { kind: 'ticket.withdraw', entryId: 'e1', withdrawn: true })
    expect([ticketOf(without, 't')!.state.state, ticketOf(applyEdit(without, inverse).job, 't')!.state.state]).toEqual(['came-in', 'waits'])
    expect(ticketsOf(readJob(JSON.parse(JSON.stringify(toDocument(without)))))).toEqual(ticketsOf(without))
  })
  test('an opening that is taken back takes the ticket along, unless somebody has written on it', () => {
    const back = (job: Job) => ticketOf(applyEdit(job, { kind: 'ticket.withdraw', entryId: 't', withdrawn: true }).job, 't')
    expect([back(bench()), back(bench(state('waits')))?.isTakenBack]).toEqual([null, true])
  })
  test('numbers stay, whatever is taken back; an entry that bears the wrong id is refused', () => {
    const two = written(bench(), 'u', { is: 'opened', head: head({ unit: 'Megaphone', kind: 'megaphone' }) })
    expect(ticketsOf(applyEdit(two, { kind: 'ticket.withdraw', entryId: 't', withdrawn: true }).job).map(t => [t.id, t.number])).toEqual([['u', 2]])
    const opened = { is: 'opened' as const, head: head() }
    expect(() => applyEdit(two, { kind: 'ticket.write', entry: { id: 'x', at: '2026-05-04T00:00:00Z', ticketId: 't', what: opened, who: null, withdrawn: false } })).toThrow()
  })
  test('one bench beside another, and what comes in between: numbers and tickets as if each were looked at alone', () => {
    const add = (job: Job, id: string) => written(job, id, { is: 'opened', head: head({ unit: id }) })
    const [one, other] = [add(add(bench(), 'u'), 'v'), add(bench(state('waits')), 'w')]
    const said = (job: Job) => ticketsOf(job).map(t => `${t.number} ${t.id} ${t.state.state}`).join(', ')
    expect([said(one), said(other), said(add(one, 'x')), said(one), said(add(add(bench(), 'between'), 'u'))]).toEqual([
      '1 t came-in, 2 u came-in, 3 v came-in', '1 t waits, 2 w came-in', '1 t came-in, 2 u came-in, 3 v came-in, 4 x came-in', '1 t came-in, 2 u came-in, 3 v came-in', '1 t came-in, 2 between came-in, 3 u came-in',
    ])
    const shifted = add(add(add(bench(), 'u'), 'between'), 'v')
    expect([said(shifted), said(one)]).toEqual(['1 t came-in, 2 u came-in, 3 between came-in, 4 v came-in', '1 t came-in, 2 u came-in, 3 v came-in'])
  })
  test.each([
    ['an answer of another question', { is: 'answer', to: 'plays', answer: 'rubs' }], ['no such state', state('lost' as never)], ['a day that is none', state('again', '2026-13-40')],
    ['part of none', { ...screws, count: 0 }], ['nothing said', { is: 'said', as: 'found', text: '  ' }], ['ohms below nothing', coil(-1)],
  ])('%s is not taken', (_, what) => expect(ticketEntrySchema.safeParse({ id: 'a', at: '2026-05-04T00:00:00Z', ticketId: 't', what, who: null, withdrawn: false }).success).toBe(false))
})

describe('found by words, state and day', () => {
  const job = [['a', 'Megaphone', state('gone-out', '2026-06-02')], ['b', 'Talk-back', state('again', '2026-05-30', 'rattles')], ['c', 'Saddle speaker', state('waits')]]
    .reduce((so, [id, unit, s]) => written(so, id as string, { is: 'opened', head: head({ unit: unit as string, complaint: 'no sound', from: { jobId: 'j', nodeId: 'n', says: 'A1 04' } }) }, s as Written), bench())
  const asked = (words: string, s: Parameters<typeof foundTickets>[1]['state'] = null, isOldestFirst = false) => foundTickets(ticketsOf(job), { words, state: s, isOldestFirst }).map(t => t.id).join('')
  test.each([
    ['all, newest first', '', null, 'cbat'], ['by words of several fields', 'MEGA sound', null, 'a'], ['by its reason', 'rattles', null, 'b'], ['by its tag', 'a1 04', null, 'cba'], ['by its number', '#2', null, 'a'],
    ['in hand', '', 'in-hand', 'cbt'], ['of one state', '', 'waits', 'c'], ['to be seen again, by the day', '', 'to-see', 'ba'], ['no such', 'horn', null, ''],
  ] as const)('%s', (_, words, s, ids) => expect(asked(words, s)).toBe(ids))
  test('by age', () => expect([asked('', null, true), asked('', 'to-see', true)]).toEqual(['tabc', 'ba']))
  test('days', () => expect([daysAfter('2026-02-20', 14), daysBetween('2026-02-20T23:00:00Z', '2026-03-06'), seeAgainOn(ticketOf(job, 'c')!)]).toEqual(['2026-03-06', 14, null]))
})

describe('what came out goes in again', () => {
  const t = ticket({}, screws, clip, { is: 'back', partId: 'e1', count: 3 }, { is: 'back', partId: 'e2', count: 1 })
  test('a missing screw is told', () => {
    expect(missingOf(t).map(missingWords)).toEqual(['1 of 4 “long screws” (corners) is missing'])
    expect(partsOf(ticket({}, screws, { is: 'back', partId: 'e1', count: 9 }))[0]!.back).toBe(4)
    expect(missingOf(ticket({}, screws, clip)).map(missingWords)).toEqual(['4 of 4 “long screws” (corners) are missing', '“clip” is not back in'])
  })
  test('the list of the last of that name serves the next', () => {
    const job = written(written(bench(screws, clip), 'u', { is: 'opened', head: head({ unit: ' HANDSET' }) }), 'v', { is: 'opened', head: head({ unit: 'Other' }) })
    const list = (id: string) => listOfModel(ticketsOf(job), ticketOf(job, id)!)?.parts.map(p => p.name)
    expect([list('u'), list('v'), list('t')]).toEqual([['long screws', 'clip'], undefined, undefined])
  })
})

describe('what keeps it from going out as proved', () => {
  const all = CLOSING_CHECKS.map(check => right(check))
  const fit: Written = { is: 'fit', name: 'Driver 36', nominalOhm: 32, drawerId: null, capacitor: 'none', note: '' }
  const plus: Written = { is: 'plus', unit: 'new', by: 'battery', seen: 'cone-out', note: '' }
  test.each<[string, Written[], string[]]>([
    ['nothing done', [], CLOSING_CHECKS.map(() => '')], ['all right', all, []], ['one turned out wrong', [...all, right('level', false)], ['Level by ear or meter: not right']],
    ['a screw', [screws, ...all], ['4 of 4 “long screws” (corners) are missing']],
    ['a new one that was not read, nor its plus', [...all, fit], ['“Driver 36”: its coil is not read', '“Driver 36”: which tab is plus is not proved on the bench']],
    ['a new one by its mark alone', [...all, fit, coil(31, { unit: 'new' }), { ...plus, by: 'mark' }], ['“Driver 36”: which tab is plus is not proved on the bench']],
    ['a new one that two tests say otherwise of', [...all, fit, coil(31, { unit: 'new' }), plus, { ...plus, seen: 'cone-in' }], ['“Driver 36”: which tab is plus is not proved on the bench']],
    ['a new one that reads wrong', [...all, fit, coil(20, { unit: 'new' }), plus], ['“Driver 36”: its coil reads outside of what its label says']],
    ['a new one, read and proved', [...all, fit, coil(31, { unit: 'new' }), plus], []],
    ['its coil comes and goes', [...all, ...[31, 1500, 31, null].map(ohm => coil(ohm))], ['coil: comes and goes']],
    ['the bad one is out: its ohms do not count', [coil(null), ...all, fit, coil(31, { unit: 'new' }), plus], []],
    ['a lead of 40 Ω', [...all, coil(40, { of: 'lead' })], ['lead: last read above 1 Ω']], ['a lead that was made good', [...all, coil(40, { of: 'lead' }), coil(0.3, { of: 'lead' })], []],
    ['one reading does not settle what comes and goes', [...all, answer('plays', 'comes-and-goes'), coil(31)], ['coil: whether it comes and goes is not settled']],
  ])('%s', (_, whats, open) => {
    const said = stillOpen(ticket({}, ...whats))
    expect(open.some(o => o !== '') || open.length === 0 ? said : said.map(() => '')).toEqual(open)
  })
  test('the lid waits for what comes before it', () => {
    const before = CLOSING_CHECKS.slice(0, 6).map(check => right(check))
    expect([beforeClosing(ticket({}, ...before)), beforeClosing(ticket({}, screws, ...before.slice(1)))]).toEqual([[], ['4 of 4 “long screws” (corners) are missing', 'Powered, still open: not done']])
  })
})
