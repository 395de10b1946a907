import { expect, test } from '@jest/globals'
import type { ReadingKind } from '#core/job/schema'
import { takenOf, withoutLeads } from './taken'

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
