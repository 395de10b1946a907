import { expect, test } from '@jest/globals'
import { loadSchema } from '#core/gear/load'
import type { SpeakerLoad } from '#core/job/schema'
import { nominalOhmOf } from '#core/network/tree'
import { membersFrom, membersText, WIRED_AS, wiredAs } from './wiredAs'

const tap: SpeakerLoad = { kind: 'tap', tapW: 5, ratedV: 70, tapsW: [5], insertionDb: null, tapMeans: null }
const ohms = (load: SpeakerLoad) => load.kind === 'tap' ? `${load.tapW} W at ${load.ratedV} V` : `${load.kind} ${nominalOhmOf(load)}`

const OFTEN = new Set(['tap', 'nominal', 'motional', 'members'])
test.each<[string, SpeakerLoad, number | null, string, number | null, string[]]>([
  ['a tap, its driver not known', tap, null, '', 100, ['10 W at 100 V | taken as 10 W: not known yet', 'nominal 8 | taken as 8 Ω: not known yet', 'motional 8 | figures of a usual unit: not from its sheet yet', 'members 4 | taken as two coils: not known yet']],
  ['its driver known: nothing is taken for the ohms', tap, 4, '', null, ['10 W at 70.71 V | taken as 10 W: not known yet', 'nominal 4 | -', 'motional 4 | figures of a usual unit: not from its sheet yet', 'members 2 | taken as two coils: not known yet']],
  ['named by a person', { kind: 'nominal', nominalOhm: 16 }, null, 'Horn', null, ['10 W at 70.71 V | -', 'nominal 16 | -', 'motional 16 | -', 'members 8 | -']],
  ['named as taken before', { kind: 'nominal', nominalOhm: 6 }, null, 'taken as 8 Ω: not known yet', null, ['10 W at 70.71 V | taken as 10 W: not known yet', 'nominal 6 | ', 'motional 6 | figures of a usual unit: not from its sheet yet', 'members 3 | taken as two coils: not known yet']],
])('wired another way: %s', (_, load, driverOhm, name, lineV, expected) => {
  expect(WIRED_AS.filter(({ value }) => OFTEN.has(value)).map(({ value }) => {
    const to = wiredAs({ load, driverOhm, name, label: '07' }, value, lineV)
    return `${ohms(to.load!)} | ${to.name ?? '-'}`
  })).toEqual(expected)
})

// What the rarer ways begin with: said to be taken, valid, of the ohms that it had where that means something.
test.each<[string, number, string]>([
  ['curve', 4, 'taken as its label: not known yet'],
  ['coil', 4, 'taken as one of two coils: not known yet'],
  ['cabinet', 16, 'taken as four drivers with a switch: not known yet'],
])('a %s to begin with', (kind, ohm, name) => {
  const to = wiredAs({ load: { kind: 'nominal', nominalOhm: 4 }, driverOhm: null, name: '', label: 'Sub' }, kind as SpeakerLoad['kind'], null)
  expect([loadSchema.parse(to.load), nominalOhmOf(to.load as never), to.name]).toEqual([to.load, ohm, name])
})

const own = { kind: 'motional' as const, nominalOhm: 4, reOhm: 3.2, leH: 0, fsHz: 40, qms: 4, qes: 0.5 }
const now = { kind: 'members' as const, joined: 'series' as const, members: [own, { kind: 'nominal' as const, nominalOhm: 8 }] }
test('members are typed by their ohms; one that keeps them keeps its parameters', () => {
  const read = membersFrom(now)
  expect(read('4, 2, 2')).toEqual([own, { kind: 'nominal', nominalOhm: 2 }, { kind: 'nominal', nominalOhm: 2 }])
  expect(read('3 x 8 ohm')).toEqual([8, 8, 8].map(nominalOhm => ({ kind: 'nominal', nominalOhm })))
  expect(read(membersText(now))).toEqual(now.members)
  for (const wrong of ['4', '17 x 4', '', '4, tea']) expect(() => read(wrong)).toThrow()
})
