import { expect, test } from '@jest/globals'
import type { ReadingKind } from '#core/job/schema'
import { READ_AT_HEAD, READ_AT_SPEAKER } from '#core/job/sections/readings/kinds'
import { kindsHere } from './kindsHere'
import { takenOf, typedProblem, typedValue, withoutLeads } from './taken'

test.each<[ReadingKind, string, string, string, unknown]>([
  ['coil-dcr', '', '', '', null], ['coil-dcr', ' Iris ', 'blue one', '', { by: 'Iris', meter: 'blue one', leadsOhm: null }], ['coil-dcr', '', '', '0', { by: '', meter: '', leadsOhm: 0 }],
  ['coil-dcr', '', '', 'nulled', { by: '', meter: '', leadsOhm: 0 }],
  ['line-dcr', '', '', '0,0 Ω', { by: '', meter: '', leadsOhm: 0 }],
  ['coil-dcr', '', '', '0.4', { by: '', meter: '', leadsOhm: 0.4 }],
  ['coil-dcr', '', '', '10 ohm', { by: '', meter: '', leadsOhm: 10 }],
  ['coil-dcr', '', '', '11', null], ['coil-dcr', '', '', 'long ones', null], ['sound', '', '', '0.4', null], ['line-impedance', 'Iris', '', '0.4', { by: 'Iris', meter: '', leadsOhm: null }],
])('%s by “%s” with “%s”, leads “%s”', (kind, by, meter, leads, wanted) => expect(takenOf(kind, { by, meter, leads })).toEqual(wanted))

test('what the leads read is taken off, and no more than there is', () => {
  const leads = (leadsOhm: number | null) => ({ by: '', meter: '', leadsOhm })
  expect([leads(0.4), leads(0), leads(null), null].map(taken => withoutLeads(6.4, taken))).toEqual([6, 6.4, 6.4, 6.4])
  expect(withoutLeads(0.2, leads(0.4))).toBe(0)
})

test.each<[string, unknown, RegExp]>([
  ['', null, /A reading is a number/], ['31.4', { is: 'ohm', ohm: 31 }, /^$/], ['2k2', { is: 'ohm', ohm: 2199.6 }, /^$/], ['open', { is: 'open' }, /^$/], [' OL ', { is: 'open' }, /^$/], ['0.2', { is: 'ohm', ohm: 0 }, /^$/],
  ['about six', null, /about six.* A reading is a number, as 31.4 or 2k2, or the word open\.$/s], ['31 V', null, /“V” is not a unit of resistance.*or the word open\.$/s],
])('typed “%s”, leads of 0.4 Ω', (typed, value, problem) => {
  expect(typedValue(typed, { by: '', meter: '', leadsOhm: 0.4 })).toEqual(value)
  expect(typedProblem(typed)).toMatch(problem)
})

const none = new Set<ReadingKind>()
test.each<[string, readonly ReadingKind[], Parameters<typeof kindsHere>[1], ReadingKind[]]>([
  ['a head of which nothing is asked', READ_AT_HEAD, { asked: none, chosen: 'line-impedance', stands: () => false }, ['line-impedance', 'line-dcr']],
  ['and what was read there', READ_AT_HEAD, { asked: none, chosen: 'line-impedance', stands: of => of === 'leg-earth' }, ['line-impedance', 'line-dcr', 'leg-earth']],
  ['a speaker of which nothing is asked', READ_AT_SPEAKER, { asked: none, chosen: 'sound', stands: () => false }, ['coil-dcr', 'sound', 'polarity', 'polarity-heard']],
  ['its sound is asked for, another is chosen', READ_AT_SPEAKER, { asked: new Set(['sound']), chosen: 'beside', stands: () => false }, ['coil-dcr', 'sound', 'beside']],
])('what stands to be read: %s', (_, all, here, wanted) => expect(new Set(kindsHere(all, here))).toEqual(new Set(wanted)))
