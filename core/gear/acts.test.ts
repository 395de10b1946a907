import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { bodyWith, changedWords, idsOf, modelAfter, readAct, readActInSteps, rowsAfter, takingBack, type GearAct } from './acts'
import { unstatedModel } from './models'
import { LIST_KEYS, type GearModel, type GearRow } from './protocol'

const uuid = (k: number) => `00000000-0000-4000-8000-${String(k).padStart(12, '0')}`
const box = (name: string, nominalOhm: number | null = null) => ({ ...unstatedModel('speaker', name), nominalOhm })
const rowOf = (id: string, name: string, nominalOhm: number | null = null): GearRow =>
  ({ id, version: 1, isRetired: false, usedIn: 0, values: LIST_KEYS.speaker.map(key => (box(name, nominalOhm) as unknown as Record<string, unknown>)[key]) })
const add = (k: number, name: string): GearAct => ({ do: 'add', models: [{ id: uuid(k), kind: 'speaker', body: box(name) }] })
const set = (k: number, was: object, to: object): GearAct => ({ do: 'set', id: uuid(k), kind: 'speaker', was: { ...was }, to: { ...to } })
const complaintOf = (data: unknown) => {
  const steps = readActInSteps(data)
  for (;;) {
    const step = steps.next()
    if (step.done) return 'issues' in step.value ? `${step.value.at} ${step.value.issues.issues[0]!.path.join('.')}: ${step.value.issues.issues[0]!.message}` : 'read'
  }
}

describe('an act is read', () => {
  test.each<[string, unknown, string | RegExp]>([
    ['a model', add(1, 'Box'), 'read'],
    ['fields', set(1, { price: null }, { price: 12 }), 'read'],
    ['retired', { do: 'retire', ids: [uuid(1)], retired: true }, 'read'],
    ['a field without what it was', set(1, {}, { price: 12 }), 'was price: is set without saying what it was'],
    ['a field that is none', set(1, { wheels: 4 }, { wheels: 5 }), /^to : Unrecognized key/],
    ['a value that cannot be', set(1, { nominalOhm: 8 }, { nominalOhm: -8 }), /^to nominalOhm: /],
    ['a name taken away', set(1, { name: 'a' }, { name: '' }), /^to name: /],
    ['an id twice', { do: 'add', models: [uuid(1), uuid(2), uuid(1)].map(id => ({ id, kind: 'speaker', body: box('x') })) }, 'models[2] id: stands twice in this request'],
    ['a body of another kind', { do: 'add', models: [{ id: uuid(1), kind: 'cable', body: box('x') }] }, /^models\[0\].body/],
    ['none', { do: 'add', models: [] }, /models/],
    ['another deed', { do: 'burn' }, /do/],
  ])('%s', (_, data, says) => expect(complaintOf(data)).toMatch(says))
  test('of an older version: nothing is stated in what it did not know', () => {
    const { curve: _, ...older } = box('Box')
    expect(readAct({ do: 'add', models: [{ id: uuid(1), kind: 'speaker', body: older }] })).toEqual(add(1, 'Box'))
  })
})

describe('what waits is shown as if it had arrived', () => {
  const rows = [rowOf(uuid(1), 'Alpha', 8), rowOf(uuid(2), 'beta')]
  test.each<[string, GearAct[], unknown[]]>([
    ['nothing', [], [['Alpha', 8, false], ['beta', null, false]]],
    ['one more, by its name', [add(3, 'Arch')], [['Alpha', 8, false], ['Arch', null, false], ['beta', null, false]]],
    ['one that is there already', [add(1, 'Alpha')], [['Alpha', 8, false], ['beta', null, false]]],
    ['of another kind', [{ do: 'add', models: [{ id: uuid(3), kind: 'cable', body: unstatedModel('cable', 'Wire') }] }], [['Alpha', 8, false], ['beta', null, false]]],
    ['a field, and its name after', [set(1, { nominalOhm: 8 }, { nominalOhm: 4 }), set(1, { name: 'Alpha' }, { name: 'zeta' })], [['beta', null, false], ['zeta', 4, false]]],
    ['a field that is another meanwhile', [set(1, { nominalOhm: 16 }, { nominalOhm: 4 })], [['Alpha', 8, false], ['beta', null, false]]],
    ['retired, and one that is not there', [{ do: 'retire', ids: [uuid(2), uuid(9)], retired: true }], [['Alpha', 8, false], ['beta', null, true]]],
  ])('%s', (_, acts, shown) => {
    const after = rowsAfter('speaker', rows, acts)
    expect(after.map(r => [r.values[0], r.values[LIST_KEYS.speaker.indexOf('nominalOhm')], r.isRetired])).toEqual(shown)
    // Arrived meanwhile, and still waiting to hear of it.
    expect(rowsAfter('speaker', after, acts)).toBe(after)
  })

  const model: GearModel = { id: uuid(1), kind: 'speaker', isRetired: false, versions: [{ version: 3, at: 'then', body: box('Alpha', 8) }], usedIn: [] }
  const done = (...acts: GearAct[]) => acts.map(act => ({ at: 'now', act }))
  test('a model with what was done to it, once; one that only waits is made of its acts', () => {
    const acts = done(set(1, { nominalOhm: 8 }, { nominalOhm: 4 }), set(1, { price: null }, { price: 7 }), set(2, { price: null }, { price: 7 }), { do: 'retire', ids: [uuid(1)], retired: true })
    const after = modelAfter(uuid(1), model, acts)!
    expect([after.isRetired, after.versions.map(v => [v.version, v.at, (v.body as { nominalOhm: unknown }).nominalOhm, v.body.price])])
      .toEqual([true, [[5, 'now', 4, 7], [4, 'now', 4, null], [3, 'then', 8, null]]])
    expect(modelAfter(uuid(1), after, acts)).toEqual(after)
    expect(modelAfter(uuid(4), null, done(add(4, 'New'), set(4, { name: 'New' }, { name: 'Newer' })))!.versions.map(v => v.body.name)).toEqual(['Newer', 'New'])
    expect([modelAfter(uuid(4), null, acts), modelAfter(uuid(1), model, [])]).toEqual([null, model])
  })
  test('fields set to what they are make no version; nor fields that are others by now; one that is there already is not made anew', () => {
    expect(bodyWith(box('a', 8), set(1, { nominalOhm: 16 }, { nominalOhm: 4 }) as never)).toBeNull()
    expect(modelAfter(uuid(1), model, done(add(1, 'Alpha')))).toBe(model)
    expect(bodyWith(box('a', 8), set(1, { nominalOhm: 8 }, { nominalOhm: 8 }) as never)).toBeNull()
  })
})

test('every act is taken back by another (seed 7)', () => {
  const field = fc.constantFrom('nominalOhm', 'price', 'continuousW')
  fc.assert(fc.property(fc.array(fc.tuple(field, fc.integer({ min: 1, max: 99 })), { maxLength: 6 }), fc.boolean(), (values, retired) => {
    const rows = [rowOf(uuid(1), 'Alpha', 8), rowOf(uuid(2), 'beta')]
    const wanted = Object.fromEntries(values)
    const now = box('Alpha', 8) as unknown as Record<string, unknown>
    const acts: GearAct[] = [set(1, Object.fromEntries(Object.keys(wanted).map(key => [key, now[key]])), wanted), { do: 'retire', ids: [uuid(2)], retired }]
    for (const act of acts) {
      const there = rowsAfter('speaker', rows, [act])
      const back = rowsAfter('speaker', there, [takingBack(act)])
      expect(back).toEqual(act.do === 'retire' && !retired ? rowsAfter('speaker', rows, [{ do: 'retire', ids: [uuid(2)], retired: true }]) : rows)
    }
  }), { seed: 7, numRuns: 100 })
  expect(takingBack(add(3, 'x'))).toEqual({ do: 'retire', ids: [uuid(3)], retired: true })
  expect([add(3, 'x'), set(4, {}, {}), takingBack(add(5, 'x'))].map(idsOf)).toEqual([[uuid(3)], [uuid(4)], [uuid(5)]])
})

test('why a field was not set', () => {
  expect(changedWords(set(1, { price: 12.5 }, { price: 1 }) as never, 'price', null)).toMatch(/^The price was changed in another window: it was 12.5, it is now not stated\.$/)
})
