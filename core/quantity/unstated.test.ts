import { expect, test } from '@jest/globals'
import { z } from 'zod'
import { likenessOf, same } from './same'
import { withUnstated } from './unstated'

const schema = z.strictObject({
  name: z.string().min(1), note: z.string(), watts: z.number().nullable(), tags: z.array(z.string()), some: z.array(z.string()).min(1),
  maybe: z.string().optional(), isOn: z.boolean(),
  inner: z.strictObject({ place: z.string().nullable() }).nullable(),
  parts: z.array(z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('a'), ohm: z.number().nullable() }), z.strictObject({ kind: z.literal('b'), list: z.array(z.number()) }).refine(() => true),
  ])),
  to: z.strictObject({ watts: z.number().nullable(), inner: z.strictObject({ place: z.string().nullable() }).nullable() }).partial(),
})
test.each<[string, object, object]>([
  ['what may be unstated is: null, empty text, empty list; what must be stated is left missing', {}, { note: '', watts: null, tags: [], inner: null, parts: [] }],
  ['what is there stays', { note: 'n', watts: 0, tags: ['t'], maybe: 'm' }, { note: 'n', watts: 0, tags: ['t'], maybe: 'm', inner: null, parts: [] }],
  ['inside objects and lists, by the kind of each', { inner: {}, parts: [{ kind: 'a' }, { kind: 'b' }, { kind: 'c' }, 7] }, { note: '', watts: null, tags: [], inner: { place: null }, parts: [{ kind: 'a', ohm: null }, { kind: 'b', list: [] }, { kind: 'c' }, 7] }],
  ['fields that an edit sets are only those that it names', { to: { inner: {} } }, { note: '', watts: null, tags: [], inner: null, parts: [], to: { inner: { place: null } } }],
])('%s', (_, value, wanted) => expect(withUnstated(schema, value)).toEqual(wanted))
test('what lacks nothing is the very same', () => {
  const whole = { name: 'n', note: '', watts: null, tags: [], some: ['x'], isOn: true, inner: null, parts: [{ kind: 'a', ohm: 1 }], to: {} }
  expect(withUnstated(schema, whole)).toBe(whole)
  expect([withUnstated(schema, null), withUnstated(schema, 'text'), withUnstated(schema, [1])]).toEqual([null, 'text', [1]])
})

test.each<[string, unknown, unknown, boolean]>([
  ['keys in another order', { a: 1, b: { c: [1, { d: null }] } }, { b: { c: [1, { d: null }] }, a: 1 }, true], ['a list in another order', [1, 2], [2, 1], false], ['a list and an object', [], {}, false],
  ['a key more', { a: 1 }, { a: 1, b: 2 }, false], ['a key that is undefined is none, as in JSON', { a: 1, b: undefined }, { a: 1 }, true], ['on either side', { a: 1 }, { a: 1, b: undefined }, true],
  ['null and nothing', { a: null }, {}, false],
  ['null and an object', null, {}, false],
  ['numbers and their texts', 1, '1', false],
  ['another key of as many', { a: undefined, b: 1 }, { b: undefined, a: 1 }, false],
  ['deep inside', { a: [{ b: 1 }] }, { a: [{ b: 2 }] }, false],
])('the same: %s', (_, a, b, wanted) => expect([same(a, b), same(b, a), likenessOf(a) === likenessOf(b)]).toEqual([wanted, wanted, wanted]))
