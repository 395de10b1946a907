import { unstatedModel } from '#core/gear/models'
import type { SpeakerModel } from '#core/gear/speaker'
import { emptyJob } from '#core/job/document'
import { BENCH_NAME } from '#core/job/bench'
import { Records } from '#core/job/records'
import type { Job, TicketEntry, TicketHead, Written } from '#core/job/schema'
import { CLOSING_CHECKS, UNMEASURED } from '#core/job/sections/tickets/schema'

/** The bench of the demo: five units, each at another step of the work. Everything is invented. */

type Row = [at: string, what: Written]
const head = (unit: string, kind: TicketHead['kind'], more: Partial<TicketHead>): TicketHead => ({ unit, kind, ...UNMEASURED, complaint: '', folklore: '', from: null, ...more })
const answer = (to: string, answer: string) => ({ is: 'answer', to, answer }) as Written
const read = (of: 'coil' | 'lead' | 'contact', ohm: number | null, condition: 'as-it-lay' | 'warm' | 'cold' | 'pressed' | 'wiggled' = 'as-it-lay', unit: 'this' | 'twin' | 'new' = 'this'): Written =>
  ({ is: 'reading', of, unit, ohm, condition, meter: 'yellow one', leadsOhm: 0.2 })
const part = (kind: 'screw' | 'clip' | 'wire' | 'bushing', name: string, count: number, place: string): Written => ({ is: 'part', kind, name, count, place })
const said = (as: 'found' | 'done' | 'left', text: string): Written => ({ is: 'said', as, text })
const state = (to: 'waits' | 'on-test' | 'again', on: string | null, reason: string): Written => ({ is: 'state', state: to, on, as: null, reason })

function ticket(id: string, opened: string, of: TicketHead, rows: readonly Row[]): TicketEntry[] {
  const entry = (entryId: string, at: string, what: Written): TicketEntry => ({ id: entryId, at: `${at}:00Z`, ticketId: id, what, who: null, withdrawn: false })
  return [entry(id, opened, { is: 'opened', head: of }), ...rows.map(([at, what], k) => entry(`${id}-${k + 1}`, at, what))]
}

const handset = ticket('bt-handset', '2026-05-04T09:10', head('Audio-guide handset', 'handset', {
  labelOhm: 32, labelW: 0.3, frameMm: 36, complaint: 'left side is dead since the spring, the right one plays', folklore: 'it is always the socket at the desk',
}), [
  ['2026-05-04T09:16', answer('plays', 'silent')], ['2026-05-04T09:18', answer('twin', 'twin-plays')], ['2026-05-04T09:22', answer('swap', 'follows-the-unit')], ['2026-05-04T09:24', answer('wiggle', 'nothing-changes')],
  ['2026-05-04T09:30', { is: 'step', step: 'off' }], ['2026-05-04T09:30', { is: 'step', step: 'unplugged' }], ['2026-05-04T09:31', { is: 'step', step: 'discharged' }],
  ['2026-05-04T09:34', part('screw', 'short screws', 4, 'back, two under the label')], ['2026-05-04T09:37', part('clip', 'clip', 1, 'at the cable')], ['2026-05-04T09:41', part('wire', 'white wire', 1, 'on the tab with the dot')],
  ['2026-05-04T09:44', read('coil', null)], ['2026-05-04T09:46', read('coil', 30.8, 'as-it-lay', 'twin')], ['2026-05-04T09:50', said('found', 'coil of the left driver is open; the socket is sound')],
])
// Its coil: right on most days, tens of ohms or open on others.
const megaphone = ticket('bt-megaphone', '2026-04-20T14:00', head('Megaphone, hand-held', 'megaphone', {
  labelOhm: 4, labelW: 15, complaint: 'comes and goes, mostly goes when the tour stands at the fountain', folklore: 'the batteries',
}), [
  ['2026-04-20T14:05', answer('plays', 'comes-and-goes')], ['2026-04-20T14:08', answer('wiggle', 'nothing-changes')],
  ['2026-04-20T14:20', read('coil', 3.4)], ['2026-04-21T10:00', read('coil', 36, 'cold')], ['2026-04-22T10:10', read('coil', 3.5, 'warm')], ['2026-04-24T09:40', read('coil', null, 'cold')],
  ['2026-04-24T09:45', state('waits', null, 'driver of 4 Ω ordered')],
])
const talkBack = ticket('bt-talk-back', '2026-05-11T08:30', head('Ticket-window talk-back', 'talk-back', {
  labelOhm: 16, labelW: 3, frameMm: 66, complaint: 'scratches when the button is held', folklore: 'the cable in the desk',
}), [
  ['2026-05-11T08:36', answer('plays', 'scratchy')], ['2026-05-11T08:38', answer('wiggle', 'nothing-changes')],
  ['2026-05-11T08:50', { is: 'step', step: 'off' }], ['2026-05-11T08:50', { is: 'step', step: 'unplugged' }], ['2026-05-11T08:51', { is: 'step', step: 'discharged' }],
  ['2026-05-11T08:55', part('screw', 'long screws', 4, 'corners')], ['2026-05-11T09:02', read('contact', 48, 'pressed')], ['2026-05-11T09:12', read('contact', 0.2, 'pressed')],
  ['2026-05-11T09:13', said('done', 'contact of the button cleaned, spring bent back')],
  ...(['power', 'listen', 'balance', 'polarity', 'level'] as const).map((check, k): Row => [`2026-05-11T09:2${k}`, { is: 'check', check, isRight: true, note: '' }]),
  ['2026-05-11T09:31', { is: 'back', partId: 'bt-talk-back-6', count: 3 }], ['2026-05-11T09:32', { is: 'check', check: 'snug', isRight: true, note: '' }],
])
const saddle = ticket('bt-saddle', '2026-05-14T16:00', head('Saddle speaker, pair', 'saddle-speaker', {
  labelOhm: 4, labelW: 20, frameMm: 130, depthMm: 52, sensitivityDb: 86, complaint: 'too quiet above sixty, are better ones worth it', folklore: 'more watts',
}), [['2026-05-14T16:10', answer('plays', 'plays')], ['2026-05-14T16:12', answer('twin', 'both-the-same')], ['2026-05-14T16:20', read('coil', 3.3)], ['2026-05-14T16:22', read('coil', 3.4, 'as-it-lay', 'twin')]])
/** T(t) of a transformer that ends 31 K above a room of 22 °C, read to half a degree. */
const warm = (k: number, endK: number): number => Math.round(2 * (22 + endK * (1 - Math.exp(-10 * k / 38)))) / 2
const runOf = (runId: string, from: string, endK: number, count: number): Row[] => Array.from({ length: count }, (_, k) => [`${from.slice(0, 14)}${String(k % 6)}0`, { is: 'warm', runId, minute: 10 * k, celsius: warm(k, endK) }])
const cabinet = ticket('bt-cabinet', '2026-05-16T11:00', head('Cabinet, unmarked', 'cabinet', {
  complaint: 'no label; may it go on the head of the rehearsal loft', folklore: 'sixteen, surely', from: { jobId: '5e0f1a52-7c1d-4b52-9a53-0b6b8f1f2a04', nodeId: 'rl-head-01', says: 'Rehearsal loft, A1 01' },
}), [
  ['2026-05-16T11:10', read('coil', 6.4)], ['2026-05-16T11:20', { is: 'tap', tapOhm: 8, heard: 'first' }], ['2026-05-16T11:24', { is: 'tap', tapOhm: 16, heard: 'quieter' }],
  ['2026-05-17T09:00', { is: 'run', run: 'baseline', limitC: null, note: 'the 16 Ω cabinet on its own tap' }], ...runOf('bt-cabinet-4', '2026-05-17T09:00', 24, 11),
  ['2026-05-18T09:00', { is: 'run', run: 'unknown', limitC: null, note: 'on the 8 Ω tap' }], ...runOf('bt-cabinet-16', '2026-05-18T09:00', 34, 6),
])
const old = ticket('bt-old', '2026-03-02T10:00', head('Audio-guide handset', 'handset', { labelOhm: 32, labelW: 0.3, complaint: 'rattles', folklore: '' }), [
  ['2026-03-02T10:10', part('screw', 'short screws', 4, 'back, two under the label')], ['2026-03-02T10:12', part('clip', 'clip', 1, 'at the cable')], ['2026-03-02T10:20', said('done', 'dirt blown out of the gap')],
  ['2026-03-02T10:30', { is: 'back', partId: 'bt-old-1', count: 4 }], ['2026-03-02T10:30', { is: 'back', partId: 'bt-old-2', count: 1 }],
  ...CLOSING_CHECKS.map((check, k): Row => [`2026-03-02T10:4${k}`, { is: 'check', check, isRight: true, note: '' }]),
  ['2026-03-02T11:00', { is: 'state', state: 'gone-out', on: '2026-03-16', as: 'proved', reason: '' }],
])

const driver = (name: string, more: Partial<SpeakerModel>): SpeakerModel => ({ ...unstatedModel('speaker', name), build: 'driver', ...more })
const drawer = [
  { id: 'bd-36', count: 3, model: driver('Driver 36, 32 Ω', { nominalOhm: 32, frameMm: 36, depthMm: 9, continuousW: 0.5, sensitivityDb: 91, sensitivityAt: '1 W', plusMark: 'red dot' }) },
  { id: 'bd-36-8', count: 5, model: driver('Driver 36, 8 Ω', { nominalOhm: 8, frameMm: 36, depthMm: 9, continuousW: 0.5, sensitivityDb: 90, sensitivityAt: '1 W', plusMark: 'red dot' }) },
  { id: 'bd-130', count: 2, model: driver('Driver 130, coated, 4 Ω', { nominalOhm: 4, frameMm: 130, depthMm: 54, continuousW: 40, sensitivityDb: 91, sensitivityAt: '1 W', plusMark: 'wide tab' }) },
]

export const demoBench: Job = { ...emptyJob(BENCH_NAME), drawer, tickets: Records.of([...old, ...megaphone, ...handset, ...talkBack, ...saddle, ...cabinet]) }
