import { expect, test } from '@jest/globals'
import type { GearAct } from '#core/gear/acts'
import { unstatedModel } from '#core/gear/models'
import { playGearSchedule } from '#core/testing/gearSchedules'
import { keptActKey, readKeptAct, writeKeptAct, type KeptAct } from './keptAct'
import { gearStep, NOTHING_DONE, shownActs, type GearEvent, type GearMessage } from './gearWindow'

const ID = '00000000-0000-4000-8000-000000000001'
const set = (was: number, to: number): GearAct => ({ do: 'set', id: ID, kind: 'speaker', was: { price: was }, to: { price: to } })
const kept = (id: string, at: number, act: GearAct = set(1, 2), refused: KeptAct['refused'] = null): KeptAct => ({ id, by: 'w', at, says: id, act, refused })
const done = (id: string, at: number): GearEvent => ({ is: 'done', kept: kept(id, at) })
const answered = (number: number): GearEvent => ({ is: 'answered', number, answer: { status: 'done' } })
const refusedOf = (number: number): GearEvent => ({ is: 'answered', number, answer: { status: 'refused', code: 'changed-meanwhile', message: 'No.' } })
const failed = (number: number, kind: 'away' | 'unreadable' | 'missing'): GearEvent => ({ is: 'failed', number, problem: { kind, message: 'Why.' } })

/** What was said after these events, and how it stands. */
function play(...events: GearEvent[]) {
  let state = NOTHING_DONE
  const messages: GearMessage[] = []
  for (const event of events) {
    const next = gearStep(state, event)
    state = next.state
    messages.push(...next.messages)
  }
  const said = messages.map(m => m.do === 'send' ? `send ${m.kept.id} as ${m.number}` : m.do === 'keep' ? `keep ${m.kept.map(k => k.id + (k.refused ? '!' : ''))}` : m.do === 'let go' ? `let go ${m.ids}` : m.do === 'wait' ? `wait ${m.ms}` : m.do)
  return [said.join('; '), state.waiting.map(k => k.id).join(), shownActs(state).map(k => k.id).join(), state.refused.map(k => `${k.id} ${k.refused!.message}`).join()]
}

test.each<[string, GearEvent[], string[]]>([
  ['one: kept, sent, let go, shown until it is read', [done('a', 1), answered(1)], ['keep a; send a as 1; let go a; read', '', 'a', '']],
  ['read before it arrived, and after', [done('a', 1), { is: 'read', arrivals: 0 }, answered(1), { is: 'read', arrivals: 0 }], ['keep a; send a as 1; let go a; read', '', 'a', '']],
  ['read after it arrived', [done('a', 1), answered(1), { is: 'read', arrivals: 1 }], ['keep a; send a as 1; let go a; read', '', '', '']],
  ['two: the second after the first', [done('a', 1), done('b', 2), answered(1)], ['keep a; send a as 1; keep b; let go a; read; send b as 2', 'b', 'a,b', '']],
  ['away: waits longer, then the same', [done('a', 1), failed(1, 'away'), { is: 'again' }, failed(2, 'missing')], ['keep a; send a as 1; wait 1000; send a as 2; wait 2000', 'a', 'a', '']],
  ['an answer to what is not asked any more', [done('a', 1), failed(1, 'away'), answered(1)], ['keep a; send a as 1; wait 1000', 'a', 'a', '']],
  ['refused: kept with its reason, the next goes on', [done('a', 1), done('b', 2), refusedOf(1)], ['keep a; send a as 1; keep b; keep a!; read; send b as 2', 'b', 'b', 'a No.']],
  ['one that the server cannot read holds up none', [done('a', 1), done('b', 2), failed(1, 'unreadable')], ['keep a; send a as 1; keep b; keep a!; read; send b as 2', 'b', 'b', 'a Why.']],
  ['found: in the order done, behind what is on its way; what is here already is not twice', [done('c', 5), done('d', 6), { is: 'found', kept: [kept('b', 4), kept('a', 3), kept('d', 6), kept('r', 1, set(1, 2), { message: 'Before.', code: null })], refused: [] }],
    ['keep c; send c as 1; keep d', 'c,a,b,d', 'c,a,b,d', 'r Before.']],
  ['refused here, and taken or left so by another window that had it as well', [done('a', 1), refusedOf(1), { is: 'found', kept: [], refused: ['a'] }], ['keep a; send a as 1; keep a!; read', '', '', '']],
  ['refused while it was looked', [done('a', 1), refusedOf(1), { is: 'found', kept: [], refused: [] }], ['keep a; send a as 1; keep a!; read', '', '', 'a No.']],
  ['left so', [done('a', 1), refusedOf(1), { is: 'dismissed', id: 'a' }], ['keep a; send a as 1; keep a!; read; let go a', '', '', '']],
  ['done anyway: kept under its new name before the old goes', [done('a', 1), refusedOf(1), { is: 'forced', id: 'a', newId: 'n', at: 9, now: { price: 7 } }], ['keep a; send a as 1; keep a!; read; keep n; send n as 2; let go a', 'n', 'n', '']],
])('%s', (_, events, wanted) => expect(play(...events)).toEqual(wanted))

test('done anyway starts from what stands there now', () => {
  const { state } = [done('a', 1), refusedOf(1), { is: 'forced', id: 'a', newId: 'n', at: 9, now: { price: 7 } } as const].reduce((s, e) => gearStep(s.state, e), { state: NOTHING_DONE, messages: [] as GearMessage[] })
  expect(state.waiting[0]!.act).toEqual(set(7, 2))
})

test('an entry is read as it was written, of this version and of before; what is newer or damaged is given back as it is', () => {
  const one = kept('a', 3, { do: 'add', models: [{ id: ID, kind: 'speaker', body: unstatedModel('speaker', 'Box') }] }, { message: 'No.', code: 'not-there' })
  const text = writeKeptAct(one)
  expect(readKeptAct(keptActKey('a'), text)).toEqual({ key: keptActKey('a'), kept: one })
  const of = (change: (data: Record<string, unknown>) => unknown) => JSON.stringify(change(JSON.parse(text) as Record<string, unknown>))
  expect(readKeptAct(keptActKey('a'), of(d => ({ ...d, version: 1 }))).kept).toEqual(one)
  for (const bad of [of(d => ({ ...d, version: 999 })), of(d => ({ ...d, act: { do: 'burn' } })), text.slice(0, 40)]) expect(readKeptAct('k', bad)).toEqual({ key: 'k', kept: null, text: bad })
})

const SEEDS = 300
test(`${SEEDS} schedules at the library (seeds 1 to ${SEEDS}): nothing lost, nothing twice, nothing silent`, () => {
  const total = { made: 0, refused: 0, dismissed: 0 }
  for (let seed = 1; seed <= SEEDS; seed++) {
    const { trouble, ...counts } = playGearSchedule(seed)
    expect([seed, trouble]).toEqual([seed, null])
    for (const key of ['made', 'refused', 'dismissed'] as const) total[key] += counts[key]
  }
  // All of it happened.
  expect(Object.entries(total).filter(([, count]) => count < 20)).toEqual([])
})
