import { expect, test } from '@jest/globals'
import { faultAt } from '#core/faults/fault'
import { jobOf, outputOf } from '#core/testing/jobs'
import type { SwitchOnRisk } from '#core/trace/switchOn'
import { riskSays } from './riskSays'

const suspects: SwitchOnRisk = { why: 'suspects', share: 0.3, likeliest: { faults: [faultAt('short-at-drop', 's2')], probability: 0.2, fit: 0, lineOhm: 1, isOverload: true } }
const read = (ohm: number, code: 'far-low' | 'low' | 'short', nodeId: string | null = null) => ({ why: 'reading', judged: {
  reading: { kind: nodeId === null ? 'line-impedance' : 'coil-dcr', nodeId, value: { is: 'ohm', ohm } }, verdict: { code, grade: 'stop' } } }) as unknown as SwitchOnRisk

test.each<[string, SwitchOnRisk, string, string]>([
  ['what may be here, of a known output', suspects, '10 x 5 W on 70.71 V 100 W', '30 % of what may be here would overload this output; likeliest of that: Short at 02.'],
  ['the same of one of which nobody knows what it stands', suspects, '10 x 5 W on 70.71 V',
    '30 % of what may be here would load this output with more than twice what is planned, and what it stands is not known; likeliest of that: Short at 02.'],
  ['a reading under what it stands', read(40, 'far-low'), '10 x 5 W on 70.71 V 100 W', 'A1 line impedance reads 40 Ω: this output stands 50 Ω and more.'],
  ['less than half, nothing known', read(30, 'far-low'), '10 x 5 W on 70.71 V', 'A1 line impedance reads 30 Ω: less than half of what it should, and what this output stands is not known.'],
  ['a short at a coil of that', read(0.1, 'short', 's2'), '10 x 5 W on 70.71 V', '02 coil DCR reads 0.1 Ω.'],
  ['a short at a coil', read(0.1, 'short', 's2'), '10 x 5 W on 70.71 V 100 W', '02 coil DCR reads 0.1 Ω.'],
])('why it must not be switched on: %s', (_, risk, line, wanted) => expect(riskSays(risk, outputOf(jobOf(line)), () => '02')).toBe(wanted))
