import { describe, expect, test } from '@jest/globals'
import type { Branch } from '#core/job/schema'
import { InputError } from '#core/quantity/inputError'
import { cabled, counter, jobOf, outputOf } from '#core/testing/jobs'
import { isTable, lookAtTable, readTable } from './table'
import { writeTable } from './tableOut'
import { nominalOhmOf } from '#core/network/tree'

const usual = { lineV: 70.71, cable: { awg: 16 } }
const read = (text: string) => readTable(text, usual, counter('t'))
/** A speaker in small. */
const drawn = ({ lead, node }: Branch) => node.kind !== 'speaker'
  ? node.kind
  : [
      node.label, node.name, node.load.kind === 'tap' ? `${node.load.tapW} W/${node.load.ratedV} of ${node.load.tapsW.join(' ')}` : node.load.kind === 'members' ? `${node.load.joined} ${node.load.members.map(m => m.nominalOhm).join()}` : `${nominalOhmOf(node.load)} Ω`,
      node.continuousW && `${node.continuousW} W cont`, node.driverOhm && `${node.driverOhm} Ω drv`, lead && `${Number(lead.lengthM.toFixed(4))} m ${JSON.stringify(lead.cable)}`,
    ].filter(Boolean).join(' | ')

test('taps that are not the usual ones go out and come in, too', () => {
  const [branch] = outputOf(jobOf('3 W on 70 V')).wiring.children
  const own = { ...branch!, node: { ...branch!.node, load: { kind: 'tap', tapW: 3, ratedV: 70.71, tapsW: [3, 6, 12], insertionDb: null, tapMeans: null } } } as Branch
  expect(read(writeTable([own])).map(drawn)).toEqual([own].map(drawn))
})

test('a stretch goes out and comes in the same, whatever it is made of', () => {
  const job = cabled(jobOf('3 x 10 W on 70 V', '8 ohm 100 W || 16', '5 W on 100 V'), { cable: { areaMm2: 1.5 }, lengthM: 3.6 })
  for (const { wiring } of job.amplifiers[0]!.outputs) {
    const back = read(writeTable(wiring.children))
    expect(back.map(drawn)).toEqual(wiring.children.map(drawn))
  }
  expect(writeTable(outputOf(job, 1).wiring.children).split('\n')[1]).toBe('01\t\t8 ohm\t\t100 W\t\t3.6 m\t1.5 mm²')
  // A group has no place in a table: its members come out one by one, the way to it stays with the first.
  expect(writeTable(cabled(jobOf('8 + 8'), { cable: { awg: 12 }, lengthM: 2 }).amplifiers[0]!.outputs[0]!.wiring.children).split('\n').slice(1)).toEqual(['01\t\t8 ohm\t\t\t\t2 m\t12 AWG', '02\t\t8 ohm\t\t\t\t\t'])
})

describe('tables that people have', () => {
  test.each<[string, string, string[]]>([
    ['other names, other order', 'Model\tTap\tNo.\tRun\nCeiling\t10 W\tC1\t12 ft\nHorn\t15W at 100 V\tC2\t6', ['C1 | Ceiling | 10 W/70.71 of 1.25 2.5 5 10 20 30 | 3.6576 m {"awg":16}', 'C2 | Horn | 15 W/100 of 1.25 2.5 5 10 15 20 30 | 6 m {"awg":16}']],
    ['no names at all', 'C1\tCeiling\t10 W\t6 m\t1.5 mm²\nC2\tBox\t8 ohm\t100 W\t6 m', ['C1 | Ceiling | 10 W/70.71 of 1.25 2.5 5 10 20 30 | 6 m {"areaMm2":1.5}', 'C2 | Box | 8 Ω | 100 W cont | 6 m {"awg":16}']],
    ['one column of taps, semicolons, blank lines', '5 W;a\n\n off;b\r\n8Ω;', ['01 | a | 5 W/70.71 of 1.25 2.5 5 10 20 30', '02 | b | 0 W/70.71 of 1.25 2.5 5 10 20 30', '03 | 8 Ω']],
    ['a column Tap is watts', 'No.\tTap\tImpedance\nC1\t10\t8\nC2\t7,5 W\t\nC3\toff\t\nC4\t\t8', ['C1 | 10 W/70.71 of 1.25 2.5 5 10 20 30', 'C2 | 7.5 W/70.71 of 1.25 2.5 5 7.5 10 20 30', 'C3 | 0 W/70.71 of 1.25 2.5 5 10 20 30', 'C4 | 8 Ω']],
    ['off is on every dial', 'tap\ttaps\noff\t5 10', ['01 | 0 W/70.71 of 5 10']],
    ['its own taps, a driver, a rating', 'wired as\ttaps\tdriver\trating\n7.5 W\t7.5, 15 30\t8\t40 W', ['01 | 7.5 W/70.71 of 7.5 15 30 | 40 W cont | 8 Ω drv']],
  ])('%s', (_, text, wanted) => expect(read(text).map(drawn)).toEqual(wanted))
  test.each<[string, string, RegExp]>([
    ['a length that is none', 'tap\tlength\n10 W\t5 m\n10 W\tfar', /^Row 3, length: /], ['a cable that is none', '10 W\t99 AWG', /^Row 1, cable: No speaker cable of 99 AWG/], ['nothing to wire', 'C1\tCeiling', /^Row 1: how it is wired/],
    ['a tap that it lacks', 'tap\ttaps\n10\t5 10 20\n7\t5 10 20', /^Row 3, tap: its taps are 5, 10, 20 W, and 7 W is none of them/],
    ['names and no rows', 'label\ttap', /no rows/], ['nothing', ' \n ', /nothing in it/], ['volts that are none', '10 W at 5 kV', /^Row 1, wired as: “5 kV” are no volts/], ['a label too long', `${'x'.repeat(30)}\t10 W`, /^Row 1: label /],
  ])('%s', (_, text, says) => {
    expect(() => read(text)).toThrow(InputError)
    expect(() => read(text)).toThrow(says)
  })
  test('all that is wrong is told at once, row by row; what can be read is there beside it', () => {
    const rows = lookAtTable('no.\ttap\tlength\nC1\t10 W\t5 m\nC2\t10 W\tfar\nC3\t\t\nC4\toff\t6 m', usual, counter('t'))
    expect(rows.map(({ row, text, branch, problem }) => [row, text, branch?.node.kind === 'speaker' ? branch.node.label : null, problem?.message ?? ''])).toEqual([
      [2, 'C1  10 W  5 m', 'C1', ''], [3, 'C2  10 W  far', null, expect.stringMatching(/^Row 3, length: /)], [4, 'C3', null, 'Row 4: how it is wired is not said.'], [5, 'C4  off  6 m', 'C4', ''],
    ])
    expect(() => read('no.\ttap\tlength\nC1\t10 W\tfar\nC2\t10 W\tfar\nC3\t\t')).toThrow(/^Row 2, length: .* 2 more rows cannot be read either\.$/)
  })
  test('a typed line is no table', () => expect(['4 x 8', '4 x 8\n', 'a\tb', '10 W\n10 W'].map(isTable)).toEqual([false, false, true, true]))
})
