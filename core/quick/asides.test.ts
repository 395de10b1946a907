import { describe, expect, test } from '@jest/globals'
import { InputError } from '#core/quantity/inputError'
import { otherWays, quick, wiredOtherwise } from './answer'
import { quickAnswerOrWays } from './report'
import { numberRows } from './numberRows'
import { parseQuick } from './parse'

/** Controls, transformers, cable and watts of a dual coil in a typed line. Ohms by hand: V²/W, 2·r·L with r of ASTM B258 and IEC 60228. */

/** The rail in small: what stands before each place and how many hang behind it, and its cable. */
const rail = (text: string) => quick(text).job.amplifiers[0]!.outputs[0]!.wiring.children.map(({ lead, node }) => {
  const through = 'through' in node ? node.through : undefined
  const before = through?.kind === 'control' ? `control ${through.ratingW} W at ${through.lineV} V ${through.setDb}` : through?.kind === 'transformer' ? `transformer ${through.tapW} W at ${through.ratedV} V` : ''
  const cable = lead?.cable ? `${Number(lead.lengthM.toFixed(3))} m ${JSON.stringify(lead.cable)}` : ''
  return [before, 'children' in node ? `${node.children.length} behind` : '', cable].filter(Boolean).join(', ')
})

describe('what stands in the way, and the cable', () => {
  test.each<[string, string[]]>([
    ['3 x 5 W behind control 50 W on 70 V 120 W', ['control 50 W at 70.71 V null, 3 behind']],
    ['3 x 5 W behind a wall control on 70 V 120 W', ['control null W at 70.71 V null, 3 behind']],
    ['3 x 5 W behind control 50 W turned down by 6 dB on 70 V', ['control 50 W at 70.71 V 6, 3 behind']],
    ['3 x 5 W behind control 50 W at -6 dB on 70 V', ['control 50 W at 70.71 V 6, 3 behind']],
    ['3 x 5 W behind attenuator off on 100 V', ['control null W at 100 V off, 3 behind']],
    ['(2 x 5 W behind control 20 W) + 10 W on 70 V', ['control 20 W at 70.71 V null, 2 behind', '']],
    ['8 || 8 behind control 100 W on 200 W at 4', ['control 100 W at null V null, 2 behind']],
    ['8 behind transformer 60 W on 100 V 120 W', ['transformer 60 W at 100 V, 1 behind']],
    ['5 W || (8 behind transformer 20 W) on 100 V', ['', 'transformer 20 W at 100 V, 1 behind']],
    ['2 x 5 W over 60 m of 16 AWG on 70 V', ['30 m {"awg":16}', '30 m {"awg":16}']],
    ['2 x 5 W on 70 V 60 W over 5 m of 1.5 mm² each', ['5 m {"areaMm2":1.5}', '5 m {"areaMm2":1.5}']],
    ['8 || 8, over 20 ft of awg 14 on 100 W at 4', ['3.048 m {"awg":14}', '3.048 m {"awg":14}']],
  ])('%s', (text, wanted) => expect(rail(text)).toEqual(wanted))

  test.each<[string, number]>([
    ['4 x 5 W behind control 50 W on 70.71 V', 70.71 ** 2 / 20], ['8 behind transformer 60 W on 100 V', 100 ** 2 / 60],
    ['8 over 10 m of 1.5 mm² on 100 W at 8', 8 + 2 * 10 * 13.3e-3], ['8 over 100 m of 16 AWG on 100 W at 8', 8 + 2 * 100 / (58 * Math.PI / 4 * (0.127 * 92 ** (20 / 39)) ** 2)],
  ])('%s: its load', (text, ohm) => expect(quick(text).evaluation.loadOhm).toBeCloseTo(ohm, 6))

  test('what hangs behind a control is judged by its rating: 60 W behind 50 W', () => {
    expect(quick('12 x 5 W behind control 50 W on 70 V 120 W').evaluation.findings.map(f => f.code)).toContain('control-over')
    expect(quick('12 x 5 W behind control 75 W on 70 V 120 W').evaluation.grade).not.toBe('stop')
  })

  test.each<[string, RegExp]>([
    ['(2 x 5 W behind control) behind control on 70 V', /A control behind a control is a mistake/],
    ['5 W behind transformer 20 W on 100 V', /a tap has its own/], ['(8 behind transformer 20 W) behind transformer 60 W on 100 V', /stands before speakers of ohms/], ['8 behind transformer 60 W on 100 W at 8', /need a line voltage/],
    ['8 behind transformer 60 W', /need their line voltage/], ['8 over 10 m of 99 awg on 100 W at 8', /No speaker cable of 99 AWG/], ['8 over 10 m of 7 mm² on 100 W at 8', /No flexible cable of 7/],
    ['8 over 10 m of 16 awg on 100 W at 8 over 10 m of 16 awg', /said twice/], ['8 over 20000 m of 16 awg', /10000 m is taken/],
  ])('%s: refused', (text, says) => {
    expect(() => parseQuick(text)).toThrow(InputError)
    expect(() => parseQuick(text)).toThrow(says)
  })

  test('wired otherwise it keeps its cable; how it is wired is asked with the cable counted', () => {
    const answer = quick('8 || 8 over 10 m of 16 awg each on 100 W at 4')
    const [series] = otherWays(answer)
    expect(wiredOtherwise(answer, series!)).toBe('2 x 8 series over 10 m of 16 AWG each on 100 W at 4')
    expect(quick(wiredOtherwise(answer, series!)).evaluation.loadOhm).toBeCloseTo(series!.loadOhm, 9)
    const asked = quickAnswerOrWays('2 x 8 over 10 m of 16 awg each on 100 W at 4') as { ways: { line: string, loadOhm: number }[] }
    for (const way of asked.ways) expect(quick(way.line).evaluation.loadOhm).toBeCloseTo(way.loadOhm, 2)
    expect(otherWays(quick('8 || 8 behind control on 100 W at 4'))).toEqual([])
  })

  test.each<[string, string[]]>([
    ['12 x 5 W behind control 75 W turned down 6 dB on 70 V 120 W', ['control C1 75 W before 12 speakers, 6 dB down']], ['2 x 5 W behind control off on 70 V', ['control C1 not known its rating; before 2 speakers, off']],
    ['8 behind transformer 60 W on 100 V', ['transformer T1 60 W its tap, before 1 speaker']], ['8 cap 100 uF on 100 W at 8', ['capacitor F1 100 µF before 1 speaker']],
    ['8 over 10 m of 1.5 mm² on 100 W at 8', ['cable 10 m of 1.5 mm² in all, takes 3.11 W']],
  ])('the numbers beside “%s” name it', (text, wanted) => {
    const names = numberRows(quick(text).evaluation).map(r => `${r.name} ${r.figure} ${r.note}`).filter(r => /^(control|transformer|capacitor|cable)/.test(r))
    expect(names).toEqual(wanted)
  })

  test('a dual coil with its watts, of the whole driver', () => {
    const { job } = quick('2 x dvc 4 300 W series parallel on 500 W at 4')
    const all = job.amplifiers[0]!.outputs[0]!.wiring.children.map(({ node }) => node.kind === 'speaker' ? [node.continuousW, node.load.kind] : node.kind)
    expect(all).toEqual([[300, 'members'], [300, 'members']])
  })
})
