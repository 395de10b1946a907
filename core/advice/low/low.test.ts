import { describe, expect, test } from '@jest/globals'
import { applyEdit } from '#core/job/apply'
import { withBranch } from '#core/job/tree'
import type { Group, Job, Speaker } from '#core/job/schema'
import { unstatedModel } from '#core/gear/models'
import { jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { asCurve } from '#core/network/element'
import { evaluateJob } from '#core/line/evaluate'
import { cornerOf } from './corner'
import { impedanceOver, lineImpedance, speakerImpedance, wattsOver } from './impedance'
import { averageShare, matchSentence, PLAYED, powerMatch, type MatchVerdict } from './powerMatch'
import { plugEdit, plugSteps, plugWays } from './valvePlug'

const at = (job: Job, k: number, change: Partial<Speaker>) => withBranch(job, nodeIds(outputOf(job)).filter(id => !/chain|star|series/.test(id))[k]!, b => b.node.kind === 'speaker' ? { ...b, node: { ...b.node, ...change } } : b)
const motional = { kind: 'motional' as const, nominalOhm: 8, reOhm: 5.6, leH: 0.5e-3, fsHz: 45, qms: 4.2, qes: 0.48 }

describe('the corner of a part in the way', () => {
  const groupOf = (text: string) => outputOf(jobOf(text)).wiring.children[0]!.node as Group
  // 1/(2πRC), R/(2πL): any circuit text. On a plain resistance the real corner is the textbook's.
  test.each([
    ['8 cap 100 uF', 198.94, 198.94], ['4 cap 100 uF', 397.89, 397.89], ['(8 || 8) cap 47 uF', 846.57, 846.57], ['8 coil 2 mH', 636.62, 636.62], ['4 coil 0.5 mH', 1273.2, 1273.2],
    ['8 cap 2000 uF', 9.947, null], ['8 coil 0.01 mH', 127_324, null], ['8 cap 0.1 uF', 198_944, null],
  ])('%s', (text, textbookHz, realHz) => {
    const corner = cornerOf(groupOf(text))!
    expect(corner.textbookHz / textbookHz).toBeCloseTo(1, 3)
    if (realHz === null) expect(corner.realHz).toBeNull()
    else expect(corner.realHz! / realHz).toBeCloseTo(1, 3)
  })
  // Half power where |Z / (Z + 1/jωC)|² = ½, for the impedance of Small's circuit written out.
  test('on a real driver it is elsewhere: half power there, by the formula', () => {
    const group = groupOf('8 cap 100 uF')
    const real = { ...group, children: group.children.map(c => ({ ...c, node: { ...c.node, load: motional } as Speaker })) }
    const { realHz, textbookHz } = cornerOf(real)!
    const x = motional.qms * (realHz! / motional.fsHz - motional.fsHz / realHz!)
    const res = motional.reOhm * motional.qms / motional.qes
    const [re, im] = [motional.reOhm + res / (1 + x * x), 2 * Math.PI * realHz! * motional.leH - res * x / (1 + x * x)]
    expect((re * re + im * im) / (re * re + (im - 1 / (2 * Math.PI * realHz! * 1e-4)) ** 2)).toBeCloseTo(0.5, 4)
    expect(Math.abs(realHz! / textbookHz - 1)).toBeGreaterThan(0.2)
  })
  // R/(2πL) with copper r: half of what would pass is at ω where (R + r)² + (ωL)² = 2R².
  test('the copper of a coil counts', () => {
    const group = groupOf('8 coil 2 mH')
    const corner = cornerOf({ ...group, through: { kind: 'inductor', label: 'L1', name: '', from: null, inductanceH: 2e-3, resistanceOhm: 1 } })!
    expect(corner.realHz! / (Math.sqrt(2 * 64 - 81) / (2 * Math.PI * 2e-3))).toBeCloseTo(1, 4)
  })
  test('nothing in the way, or nothing behind it', () => {
    expect([cornerOf(groupOf('(8 + 8) || 4')), cornerOf({ kind: 'star', id: 'g', children: [], through: { kind: 'capacitor', label: 'F1', name: '', from: null, capacitanceF: 1e-4 } })]).toEqual([null, null])
  })
})

describe('impedance as the output sees it', () => {
  // Small, JAES 1972; the values are the handbook's own.
  test.each([[45, 54.6, 0.1], [100, 8.93, -43.6], [300, 5.73, null], [1000, 6.19, 25]])('a driver at %d Hz: %d Ω', (hz, ohm, deg) => {
    const curve = impedanceOver({ lead: null, node: { kind: 'speaker', id: 's', load: motional } }, asCurve, Float64Array.of(hz))!
    expect(curve.ohm[0]).toBeCloseTo(ohm, 1)
    if (deg !== null) expect(curve.deg[0]! - deg).toBeCloseTo(0, 0)
  })
  test('a line says its label, what that permits, floor, lowest point, and what meters read', () => {
    const job = at(jobOf('8 || 8 on 100 W at 4'), 0, { load: motional })
    const said = lineImpedance(outputOf(job))!
    expect([said.nominalOhm, said.permittedOhm, said.floorOhm, said.known, said.labelled, said.curve.hz.length]).toEqual([4, 3.2, 4, 1, 1, 240])
    expect(said.lowest.ohm).toBeCloseTo(Math.min(...said.curve.ohm), 2)
    expect(said.meter.ohm).toBeCloseTo(1 / Math.hypot(1 / 8 + 0.906308 / 6.19, 0.422618 / 6.19), 1)
    expect(said.dcr!.expected).toBeCloseTo(1 / (1 / 5.6 + 1 / 6.4), 3)
    expect(lineImpedance(outputOf(jobOf('8 cap 10 uF')))!.dcr).toBeNull()
    // An ohmmeter sees the copper of a coil in the way, and nothing of its henries; copper that is not stated leaves it open.
    const coiled = jobOf('8 coil 2 mH')
    const wiring = outputOf(coiled).wiring
    const through = { kind: 'inductor' as const, label: 'L1', name: '', from: null, inductanceH: 2e-3, resistanceOhm: 0.5 }
    const copper = { ...outputOf(coiled), wiring: { ...wiring, children: wiring.children.map(c => ({ ...c, node: { ...c.node as Group, through } })) } }
    expect([lineImpedance(copper)!.dcr!.expected!.toFixed(6), lineImpedance(outputOf(coiled))!.dcr]).toEqual(['6.900000', null])
    expect(speakerImpedance(evaluateJob(job)[0]!.speakers[1]!)!.ohm[7]).toBe(8)
  })
  test('nothing is drawn beyond the ends of a measured curve; of two, where both are known; of none in common nothing', () => {
    const known = (from: number, to: number) => ({ kind: 'curve' as const, nominalOhm: 8, reOhm: null, points: [[from, 7, null], [to, 9, null]] as [number, number, null][] })
    const ends = (...loads: [number, number][]) => {
      const job = loads.reduce((j, [from, to], k) => at(j, k, { load: known(from, to) }), jobOf('8 || 8 on 100 W at 4'))
      const curve = lineImpedance(outputOf(job))?.curve
      return curve ? [curve.hz[0]!, curve.hz.at(-1)!].map(Math.round) : null
    }
    const all = [ends(), ends([20, 20_000]), ends([100, 10_000]), ends([100, 10_000], [400, 20_000]), ends([100, 200], [400, 20_000])]
    expect(all).toEqual([[20, 20_000], [20, 20_000], [101, 9995], [404, 9995], null])
  })
  test('watts into the curve: at the volts of the rating, real power alone; none where it may not', () => {
    const output = outputOf(jobOf('8 on 100 W at 8, from 6'))
    const watts = (limiterV: number | null) => wattsOver({ ...output, limiterV }, { hz: Float64Array.of(1, 2, 3), ohm: Float64Array.of(8, 16, 5),
      deg: Float64Array.of(60, 0, 0) })
      .map(w => w === null ? null : Number(w.toFixed(6)))
    expect([watts(null), watts(16)]).toEqual([[50, 50, null], [16, 16, null]])
  })
})

describe('an output and its speakers on one scale', () => {
  test('a limiter bounds the capability at every load; a rating that somebody believes is marked', () => {
    const plain = jobOf('8 on 200 W at 4, from 2')
    const kinds = [{ what: 'speaker' as const, id: 'k', from: null, model: { ...unstatedModel('speaker', 'Box'), nominalOhm: 8, continuousW: 120, believedW: 60 } }]
    const job = at({ ...plain, kinds }, 0, { kindId: 'k', continuousW: 60 })
    const limited = { ...job, amplifiers: job.amplifiers.map(a => ({ ...a, outputs: a.outputs.map(o => ({ ...o, limiterV: 20 })) })) }
    const match = powerMatch(evaluateJob(limited)[0]!, job.practice, kinds, PLAYED[0]!)!
    expect(Math.max(...match.gives.map(g => g.mostW * g.loadOhm))).toBeCloseTo(400, 6)
    expect(match.members.map(m => [m.continuousW, m.isBelieved])).toEqual([[60, true]])
    expect(powerMatch(evaluateJob(job)[0]!, job.practice, [], PLAYED[0]!)!.members[0]!.isBelieved).toBe(false)
  })
  const of = (text: string, played = PLAYED[0]!, continuousW: number | null = 100, power: Job['practice']['power'] = 'twice-continuous') => {
    const job = evaluateJob(jobOf(text)).length ? jobOf(text) : null
    const rated = nodeIds(outputOf(job!)).filter(id => !/chain|star|series/.test(id)).reduce((j, _, k) => at(j, k, { continuousW }), job!)
    return powerMatch(evaluateJob(rated)[0]!, { ...rated.practice, power }, [], played)!
  }
  // Common practice, no source; spans are those of the schools.
  test.each<[string, typeof PLAYED[number], MatchVerdict, RegExp]>([
    ['8 on 200 W at 8', PLAYED[0]!, 'right', /^Right: it gives 200 W; for open music, by “twice continuous”, these speakers want 200 W\.$/],
    ['8 on 100 W at 8', PLAYED[0]!, 'under', /^Under: it gives 100 W; .*want 200 W\. Nothing breaks; pushed into clipping it does/],
    ['8 on 300 W at 8', PLAYED[0]!, 'over', /^Over: it can give 300 W; .*coils heat/], ['8 on 500 W at 8', PLAYED[0]!, 'over', /more than their peak rating/],
    ['8 on 200 W at 8', PLAYED[2]!, 'over', /for dense music, by “dense material”, these speakers want no more than 100 W/], ['8 on 50 W at 8', PLAYED[3]!, 'right', /no more than 50 W/],
    ['8 on 300 W at 8', PLAYED[1]!, 'over', /dropped microphone/],
    ['8 on 218 W at 8', PLAYED[0]!, 'right', /./],
    ['8 on 222 W at 8', PLAYED[0]!, 'over', /./],
    ['8 on 182 W at 8', PLAYED[0]!, 'right', /./],
    ['8 on 178 W at 8', PLAYED[0]!, 'under', /./],
    ['8 || 8 on 200 W at 8', PLAYED[0]!, 'too-low', /^Too low a load: 4 Ω is under the 8 Ω/],
  ])('%s', (text, played, verdict, says) => {
    const match = of(text, played)
    expect(match.verdict).toBe(verdict)
    expect(matchSentence(match, played)).toMatch(says)
  })
  test('what is not known is said, by which of the two it is', () => {
    const [unrated, unstated] = [of('8'), of('8 on 100 W at 8', PLAYED[0], null)]
    expect([unrated.verdict, unstated.verdict, unstated.stands, unstated.weakest]).toEqual(['not-known', 'not-known', null, null])
    expect([unrated, unstated].map(m => matchSentence(m, PLAYED[0]!))).toEqual(['What this output gives is not known: enter its rated powers.', expect.stringMatching(/continuous rating of every speaker/)])
    expect(powerMatch(evaluateJob(jobOf('5 W on 70 V 60 W'))[0]!, jobOf('8').practice, [], PLAYED[0]!)).toBeNull()
  })
  test('capability: nothing under the floor, corners as rated; bridged from its own floor on', () => {
    const { gives, floorOhm } = of('8 on 400 W at 8, 600 W at 4')
    expect([gives[0], floorOhm, gives.find(g => g.loadOhm === 8)!.powerW.toFixed(3)]).toEqual([{ loadOhm: 4, powerW: expect.closeTo(600, 6), mostW: expect.closeTo(600, 6) }, 4, '400.000'])
    expect(of('16 on 2 x 400 W at 8, from 4 bridged').gives[0]!.loadOhm).toBe(8)
    expect(of('8 on valve 50 W at 4/8/16').gives.find(g => g.loadOhm === 8)?.powerW ?? 0).toBeCloseTo(0, 6)
  })
  test('the first to reach its limit is named; average by the crest of what is played (a sine has 3.01 dB)', () => {
    const job = at(at(jobOf('8 || 8 on 200 W at 4'), 0, { continuousW: 100 }), 1, { continuousW: 25 })
    const match = powerMatch(evaluateJob(job)[0]!, job.practice, [], PLAYED[2]!)!
    expect([match.weakest!.label, match.weakest!.ofPeak!.toFixed(3), match.stands!.continuousW.toFixed(3)]).toEqual(['02', '1.000', '50.000'])
    expect([averageShare(10 * Math.log10(2)), averageShare(9), match.members[0]!.averageW!].map(v => v.toFixed(3))).toEqual(['1.000', '0.252', (100 * 2 / 10 ** 0.5).toFixed(3)])
    expect(of('8 || 8 on 200 W at 4').weakest).toBeNull()
  })
  test('level by sensitivity, powers added; not known while one is not (definition of the decibel)', () => {
    const kinds = [{ what: 'speaker' as const, id: 'k', from: null, model: { ...unstatedModel('speaker', 'Box'), sensitivityDb: 90, sensitivityAt: '1 W' as const } }]
    const job = { ...at(jobOf('8 || 8 on 200 W at 4'), 0, { kindId: 'k' }), kinds }
    const level = (j: Job) => powerMatch(evaluateJob(j)[0]!, j.practice, kinds, PLAYED[0]!)!
    expect([level(job).members[0]!.levelDb!.toFixed(2), level(job).levelDb, level(at(job, 1, { kindId: 'k' })).levelDb!.toFixed(2)]).toEqual(['110.00', null, '113.01'])
  })
})

describe('a valve output, plugged', () => {
  const positions = [{ jack: '4 Ω mono', switchTo: 'mono', plays: 'all' as const, load: { kind: 'nominal' as const, nominalOhm: 4 } }, { jack: '16 Ω mono', switchTo: 'mono', plays: 'all' as const, load: { kind: 'nominal' as const, nominalOhm: 16 } }, { jack: 'left', switchTo: 'stereo', plays: 'half' as const, load: { kind: 'nominal' as const, nominalOhm: 8 } }]
  const cabinets = (text: string, at1 = 0, at2 = 0) => at(at(jobOf(text), 0, { name: 'Cabinet one', load: { kind: 'cabinet', at: at1, positions } }), 1, { name: 'Cabinet two', load: { kind: 'cabinet', at: at2, positions } })
  test('of two cabinets with jacks of 4 and 16 Ω both at 16 match 8; halves are left out; one press plugs them', () => {
    const job = cabinets('4 || 4 on valve 50 W at 4/8/16')
    const ways = plugWays(outputOf(job))
    // 4 ∥ 4 is 2 Ω, which no tap takes; 4 ∥ 16 is 3.2 Ω: below the 4 Ω tap.
    expect(ways.map(w => [w.tapOhm, w.loadOhm, w.fit, w.positions.map(p => p.at)])).toEqual([[8, 8, 'matched', [1, 1]]])
    const after = applyEdit(job, plugEdit(outputOf(job), ways[0]!)!).job
    expect(evaluateJob(after)[0]!.findings[0]!.code).toBe('valve-matched')
    expect(plugEdit(outputOf(after), ways[0]!)).toBeNull()
    expect(plugWays(outputOf(jobOf('8 on 100 W at 8')))).toEqual([])
  })
  test('the best matched comes first; of equals the one of more ohms', () => {
    const three = [16, 12, 8].map(nominalOhm => ({ jack: `${nominalOhm}`, switchTo: '', plays: 'all' as const, load: { kind: 'nominal' as const, nominalOhm } }))
    const job = at(jobOf('8 on valve 50 W at 4/8/16'), 0, { load: { kind: 'cabinet', at: 1, positions: three } })
    expect(plugWays(outputOf(job)).map(w => [w.loadOhm, w.tapOhm, w.fit])).toEqual([[16, 16, 'matched'], [8, 8, 'matched'], [12, 8, 'a-little-high']])
  })
  const steps = (job: Job, chosenBy: 'selector' | 'sockets' | null, fit: Parameters<typeof plugSteps>[2] = 'matched') => {
    const output = outputOf(job)
    return plugSteps({ name: 'Head' }, { ...output, rating: { kind: 'valve', powerW: 50, tapsOhm: [4, 8, 16], tapOhm: 8, chosenBy } }, fit)
  }
  test('steps that a player can follow', () => {
    expect(steps(cabinets('4 || 4', 1, 1), 'selector')).toEqual([
      'Switch Head off.', 'Turn its selector to 8 Ω.', 'Set the switch of Cabinet one (01) to “mono”.', 'Speaker cable from a speaker socket of the amplifier, to its jack “16 Ω mono”.', 'Set the switch of Cabinet two (02) to “mono”.',
      'Speaker cable from the next speaker socket of the amplifier, or from a second jack of the cabinet before, if it links them side by side, to its jack “16 Ω mono”.',
      'Both ends in? Then on, quietly. A smell, a glow or a hum that was not there: off at once.',
    ])
    expect(steps(jobOf('8'), 'sockets').slice(1, 3)).toEqual(['Leave every socket free but those marked 8 Ω.', 'Speaker cable from a socket marked 8 Ω, to speaker 01.'])
    expect([steps(jobOf('8'), null)[1], steps(jobOf('6'), null, 'a-little-low').at(-1)]).toEqual([expect.stringMatching(/by its selector, or/), expect.stringMatching(/Keep it quiet/)])
    // What is not side by side, not allowed or not known has no steps.
    expect([steps(jobOf('(8 + 8) || 16'), null), steps(jobOf('4'), null, 'too-low'), steps(jobOf('8'), null, null), plugSteps({ name: 'Head' }, outputOf(jobOf('8')), 'matched')]).toEqual([[], [], [], []])
  })
})

describe('the match chart', () => {
  const matchOf = (text: string, ratings: number[]) => {
    const job = ratings.reduce((j, continuousW, k) => at(j, k, { continuousW }), jobOf(text))
    return powerMatch(evaluateJob(job)[0]!, job.practice, [], PLAYED[0]!)!
  }
  test('what is given has its corners: the lowest rated load, the tap, the load itself', () => {
    const loads = (text: string) => matchOf(text, []).gives.map(g => Number(g.loadOhm.toPrecision(12)))
    expect(loads('7.3 on 300 W at 4, 180 W at 8, from 2')).toEqual(expect.arrayContaining([4, 7.3]))
    expect(loads('11.7 on valve 50 W at 4/8/16, tap 8')).toEqual(expect.arrayContaining([8, 11.7]))
    expect(Math.min(...loads('7.3 on 300 W at 4, from 2'))).toBe(2)
  })
  test.each<[string, string, number[], number | null]>([
    ['equals have none', '8 || 8 on 300 W at 4', [100, 100], null], ['the one rated less reaches its limit first', '8 || 8 on 300 W at 4', [100, 60], 1], ['the one that takes more', '8 || 4 on 300 W at 2', [100, 100], 1],
    ['a hundredth apart are alike', '8 || 8 on 300 W at 4', [100, 99], null], ['three hundredths are not', '8 || 8 on 300 W at 4', [100, 97], 1], ['one alone has none', '8 on 300 W at 4', [100], null],
    ['of three, first against last', '8 || 8 || 8 on 300 W at 2', [100, 99, 97], 2], ['one that is not rated leaves it open', '8 || 8 on 300 W at 4', [100], null],
  ])('the first at its limit: %s', (_, text, ratings, wanted) => {
    const match = matchOf(text, ratings)
    expect(match.weakest === null ? null : match.members.indexOf(match.weakest)).toBe(wanted)
  })
})
