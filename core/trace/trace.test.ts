import { describe, expect, test } from '@jest/globals'
import { asCurve } from '#core/network/element'
import { proveLine } from '#core/check/proof'
import { FAULT_WORDS } from '#core/check/faultWords'
import { Records } from '#core/job/records'
import { same } from '#core/quantity/same'
import { turnedRound } from '#core/faults/turnedRound'
import { applyEdit } from '#core/job/apply'
import type { Job, Output, Reading, ReadingValue } from '#core/job/schema'
import { FAULT_KINDS } from '#core/job/sections/repairs/schema'
import { speakersOf } from '#core/job/tree'
import { headOf } from '#core/network/line'
import { cabled, counter, jobOf, outputOf } from '#core/testing/jobs'
import { faultAt, type Fault } from '#core/faults/fault'
import { FAULTS } from '#core/faults/index'
import { ALIKE, groupSuspects, nextTest } from './groups'
import { cutOutChance, likeOhm, silentChance } from './likelihood'
import { cutsOut, outcomeOf, planOf, silentAt } from './outcome'
import { rankSuspects, type Suspect } from './rank'

const lead = { cable: { awg: 16 }, lengthM: 9 }
const lines: Record<string, Job> = {
  distributed: cabled(jobOf('6 x 20 W + 2 x 5 W on 70 V 240 W'), lead),
  plain: cabled(jobOf('8 || 8 || 8 on 200 W at 2'), lead),
  mixed: cabled(jobOf('(8 + 8) || (4 + 4) on 200 W at 4'), lead),
}
const reading = (kind: Reading['kind'], value: ReadingValue, nodeId: string | null = null, k = 0): Reading =>
  ({ id: `r${kind}${nodeId}${k}`, at: '2026-05-04T09:00:00Z', kind, outputId: 'out1', nodeId, value, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false })
const rank = (job: Job, readings: Reading[]) => rankSuspects(outputOf(job), proveLine({ ...job, readings: Records.of(readings) }, outputOf(job)))

test('every kind of fault that a job can name has prior, change, coil outcomes, words', () => {
  expect([...FAULTS.map(f => f.kind), 'something-else'].sort()).toEqual([...FAULT_KINDS].sort())
  for (const fault of FAULTS) {
    expect(fault.prior).toBeGreaterThan(0)
    expect(Object.values(fault.coil).reduce((a, b) => a + b, 0)).toBeCloseTo(1, 12)
    const output = outputOf(fault.kind === 'coil-opposed' ? jobOf('dvc 4 series || 8') : lines.distributed!)
    const candidates = fault.candidates(output, speakersOf(output.wiring))
    expect(candidates.length).toBeGreaterThan(0)
    expect(FAULT_WORDS[fault.kind].at('A1 03').includes('A1 03')).toBe(candidates[0]!.nodeId !== null)
    expect(FAULT_WORDS[fault.kind].repair.length).toBeGreaterThan(20)
    // No meter of ohms sees which way round something is.
    const isUnseen = fault.kind === 'turned-round' || fault.kind === 'coil-opposed'
    for (const c of candidates) expect([fault.kind, same(fault.change(output.wiring, c), output.wiring)]).toEqual([fault.kind, isUnseen])
  }
  expect(turnedRound.candidates(outputOf(jobOf('8')), speakersOf(outputOf(jobOf('8')).wiring))).toEqual([])
})

describe('which way round, and coils against each other', () => {
  const first = (job: Job, ...readings: Reading[]) => nameOf(rank(job, readings)[0]!)
  const heard = (is: 'right-way' | 'reversed' | 'cannot-tell', nodeId: string, against: string | null = null): Reading =>
    reading('polarity-heard', { is, how: against ? 'ear' : 'pulse', against }, nodeId)
  const dual = jobOf('dvc 4 series || 8 on 100 W at 2')
  const [sub] = speakersOf(outputOf(dual).wiring)
  test.each<[string, Job, Reading[], string]>([
    ['read reversed', lines.plain!, [reading('line-impedance', { is: 'ohm', ohm: 2.67 }), heard('reversed', 'o1n4')], 'turned-round o1n4'],
    ['hollow beside one, full beside the other: the one it is hollow with', lines.plain!, [heard('reversed', 'o1n4', 'o1n3'), heard('right-way', 'o1n5', 'o1n4'), heard('reversed', 'o1n3', 'o1n5')], 'turned-round o1n3'],
    ['its dial was found at 5 W', lines.distributed!, [reading('tap-found', { is: 'tap', tapW: 5, ratedV: 70.71 }, 'o1n4')], 'wrong-tap o1n4 5'],
    ['nobody could tell', lines.plain!, [heard('cannot-tell', 'o1n4')], 'as drawn'],
    ['silent, with right ohms: its coils', dual, [reading('line-impedance', { is: 'ohm', ohm: 4 }), reading('coil-dcr', { is: 'ohm', ohm: 6.4 }, sub!.id), reading('sound', { is: 'silent' }, sub!.id), reading('sound', { is: 'plays' }, speakersOf(outputOf(dual).wiring)[1]!.id)], `coil-opposed ${sub!.id}`],
  ])('%s', (_, job, readings, expected) => expect(first(job, ...readings)).toBe(expected))
  const shareOf = (job: Job, readings: Reading[], is: (s: Suspect) => boolean) => rank(job, readings).filter(is).reduce((sum, s) => sum + s.probability, 0)
  test('quieter than its neighbour: what makes it quieter gains, and louder what makes it louder', () => {
    const lower = ({ fault }: Suspect) => fault?.kind === 'wrong-tap' && fault.nodeId === 'o1n4' && fault.tapW! < 20
    const higher = ({ fault }: Suspect) => fault?.kind === 'wrong-tap' && fault.nodeId === 'o1n4' && fault.tapW! > 20
    const [none, quieter, louder] = [[], ['quieter'], ['louder']].map(heardAs => heardAs.map(is => reading('beside', { is: is as 'quieter', besideId: 'o1n5' }, 'o1n4')))
    const gains = (is: typeof lower, readings: Reading[]) => shareOf(lines.distributed!, readings, is) / shareOf(lines.distributed!, none!, is)
    expect([gains(lower, quieter!) > 2, gains(higher, quieter!) < 0.5, gains(lower, louder!) < 0.5]).toEqual([true, true, true])
  })
  test('right from here outward, too little at the rack: it is before here, also by volts and amperes', () => {
    const before = ({ fault }: Suspect) => fault !== null && ['o1n3', 'o1n4', 'o1n5'].includes(fault.nodeId ?? '')
    const outward = reading('outward-impedance', { is: 'ohm', ohm: 73 }, 'o1n6')
    for (const head of [reading('line-impedance', { is: 'ohm', ohm: 48 }), reading('head-volts-amps', { is: 'volts-amps', volts: 48, amps: 1 })]) {
      expect([shareOf(lines.distributed!, [head], before) < 0.6, shareOf(lines.distributed!, [head, outward], before) > 0.6]).toEqual([true, true])
    }
  })
})

/** A place and kind of fault, as a name. */
const nameOf = ({ fault }: Suspect) => fault ? [fault.kind, fault.nodeId, fault.tapW, fault.way].filter(v => v !== null).join(' ') : 'as drawn'
/** A reading of every place, as the line with the fault in it would give it. */
function everyReading(output: Output, fault: Fault | null): Reading[] {
  const [outcome, plan] = [outcomeOf(output, fault), planOf(output)]
  const { head } = outcome.solved
  const cut = cutsOut(outcome, plan) > 0.5
  return [
    reading('line-impedance', head.state === 'finite' ? { is: 'ohm', ohm: head.ohm } : head.state === 'open' ? { is: 'open' } : { is: 'ohm', ohm: 0 }),
    ...speakersOf(output.wiring).map(s => reading('sound', { is: cut || silentAt(s.id, outcome, plan) > 0.5 ? 'silent' : 'plays' }, s.id)),
  ]
}

describe.each(Object.keys(lines))('each single fault of the %s line, read as it would read', (name) => {
  const job = lines[name]!
  const output = outputOf(job)
  const speakers = speakersOf(output.wiring)
  const faults = FAULTS.flatMap(d => d.candidates(output, speakers))
  test.each(faults.map(fault => [nameOf({ fault } as Suspect), fault] as const))('%s', (called, fault) => {
    const suspects = rank(job, everyReading(output, fault))
    expect(suspects.reduce((sum, s) => sum + s.probability, 0)).toBeCloseTo(1, 9)
    const own = suspects.find(s => nameOf(s) === called)!
    // Nothing fits what it reads better than itself; what goes before it by being commoner reads the same within what a meter tells.
    const better = suspects.filter(s => s.fit > own.fit + ALIKE)
    expect(better.map(nameOf)).toEqual([])
    const groups = groupSuspects(suspects, output, proveLine({ ...job, readings: Records.of(everyReading(output, fault)) }, output))
    const before = groups.slice(0, groups.findIndex(g => g.suspects.includes(own))).flatMap(g => g.suspects)
    for (const s of before) expect([nameOf(s), own.fit - s.fit < 3]).toEqual([nameOf(s), true])
  })
})

describe('what explains readings, and how well', () => {
  const job = lines.distributed!
  const output = outputOf(job)
  const [first, second, third] = speakersOf(output.wiring).map(s => s.id)
  const plan = planOf(output)
  const planned = plan.solved.head.state === 'finite' ? plan.solved.head.ohm : 0
  const ohm = (value: number) => ({ is: 'ohm', ohm: value }) as const

  test('a reading that fits nothing says so, and is not “as drawn” beside the verdict that it reads wrong', () => {
    const twenty = cabled(jobOf('20 x 10 W on 70 V 240 W'), lead)
    const { head } = planOf(outputOf(twenty)).solved as unknown as { head: { ohm: number } }
    const all = speakersOf(outputOf(twenty).wiring).map(s => reading('sound', { is: 'plays' }, s.id))
    const leads = (times: number) => nameOf(rank(twenty, [reading('line-impedance', ohm(head.ohm * times)), ...times === 1 ? [] : all])[0]!)
    expect([1, 3.1, 1.9].map(leads)).toEqual(['as drawn', 'something-else', 'taps-on-other-scale down'])
  })
  const two = jobOf('2 x 5 W on 70 V')
  const planned2 = 70 ** 2 / 10
  const headWith = (fault: Fault) => (outcomeOf(output, fault).solved.head as { ohm: number }).ohm
  const plain = outputOf(lines.plain!)
  const [, plainSecond] = speakersOf(plain.wiring).map(s => s.id)
  test.each<[string, Job, Reading[], string]>([
    ['a coil under its band: shorted turns', lines.plain!, [reading('coil-dcr', ohm(3), plainSecond)], `shorted-turns ${plainSecond}`],
    ['a coil far above: a joint or the coil', lines.plain!, [reading('coil-dcr', ohm(30), plainSecond)], `high-resistance ${plainSecond}`],
    ['all draw half', job, [reading('line-impedance', ohm(planned * 1.97)), ...[first, second].map(id => reading('sound', { is: 'plays' }, id))], 'taps-on-other-scale down'],
    ['one more', two, [reading('line-impedance', ohm(planned2 / 1.5))], 'extra-speaker o1n4'],
    ['the low-impedance position, and the amplifier cuts out', job,
      [reading('line-impedance', ohm(headWith(faultAt('low-impedance-position', third!)))), reading('sound', { is: 'silent' }, first)], `low-impedance-position ${third}`],
    ['nothing is wrong', job, [reading('line-impedance', ohm(planned))], 'as drawn'],
    ['nothing is read', job, [], 'as drawn'],
  ])('%s', (_, on, readings, wanted) => expect(nameOf(rank(on, readings)[0]!)).toBe(wanted))

  test.each<[string, Job, Reading[], number]>([
    // Worked from its rules by hand: 0.8 over the logarithms of an eighth to eight; a tenth open or short; 0.4 of them at a coil,
    // one of three, four ways to be wrong.
    ['a line reading', job, [reading('line-impedance', ohm(12))], Math.log(0.8 / (2 * Math.log(8)))],
    ['an open line', job, [reading('line-impedance', { is: 'open' })], Math.log(0.1)],
    ['a way round through transformers', job, [reading('line-dcr', ohm(12))], Math.log(0.8)],
    ['an ohmmeter where its band is known', lines.plain!, [reading('line-dcr', ohm(12))], Math.log(0.8 / (2 * Math.log(8)))],
    ['a coil that is right', lines.plain!, [reading('coil-dcr', ohm(6.5), plainSecond)], Math.log(1 - 0.4 / 3)],
    ['a coil that is open', lines.plain!, [reading('coil-dcr', { is: 'open' }, plainSecond)], Math.log(0.4 / 3 / 4)],
    ['a coil that nothing is known of', job, [reading('coil-dcr', ohm(6.5), first)], 0],
    ['two play', job, [first, second].map(id => reading('sound', { is: 'plays' }, id)), Math.log(0.5 * (1 - 0) ** 2 + 0.3 * 1e-8 + 0.2 * (1e-4 + 0.9999 / 2) ** 2)],
    ['one plays, one is silent', job, [reading('sound', { is: 'plays' }, first), reading('sound', { is: 'silent' }, second)], Math.log(0.8 * 1e-4 + 0.2 * (1e-4 + 0.9999 / 2) ** 2)],
  ])('how well something that is not in the list explains %s', (_, on, readings, wanted) => {
    const unknown = rank(on, readings).find(s => s.fault?.kind === 'something-else')!
    expect(unknown.fit).toBeCloseTo(wanted, 9)
    expect(unknown.lineOhm).toBeNull()
  })

  test('silence and cutting out come by degrees', () => {
    expect([0, -15, -25, -35].map(db => silentChance(10 ** (db / 10), 1).toFixed(2))).toEqual(['0.00', '0.08', '0.50', '0.92'])
    expect([silentChance(0, 1), silentChance(1, 0)]).toEqual([1, 1])
    const seen = (value: number) => ({ state: 'finite', ohm: value, re: value, im: 0 }) as const
    expect([100, 60, 40, 20].map(value => cutOutChance(seen(value), seen(100)).toFixed(2))).toEqual(['0.00', '0.05', '0.50', '0.95'])
    expect([cutOutChance({ state: 'short' }, seen(100)), cutOutChance({ state: 'open' }, seen(100)), cutOutChance(seen(1), { state: 'open' })]).toEqual([1, 0, 0])
  })
  test('the spread of a line falls with its drops as far as it is each one’s own; what units of a model share does not', () => {
    const spread = (text: string) => planOf(outputOf(jobOf(text))).spreadAt(1000)
    // Half of the root of the sum of squares, by hand: shared 0.7 and 1.1, own ln 1.1 over the root of their number, a meter of 4 % and 0.1 Ω.
    const half = (shared: number, count: number, ohm: number) => Math.hypot(Math.log(shared), Math.log(1.1) / Math.sqrt(count), 0.04, 0.1 / ohm) / 2
    for (const count of [1, 4, 16]) {
      const [of, ohm] = [spread(`${count} x 10 W on 70 V`), 490 / count]
      expect([of.factor, of.low, of.high]).toEqual([1, expect.closeTo(half(0.7, count, ohm), 4), expect.closeTo(half(1.1, count, ohm), 4)])
    }
    const one = spread('8')
    const at = (ohm: number) => likeOhm({ is: 'ohm', ohm }, { state: 'finite', ohm: 8, re: 8, im: 0 }, one)
    expect([at(6) / at(8), at(10.67) / at(8)].map(r => r.toFixed(2))).toEqual(['0.31', '0.40'])
  })
  test('a reading is held against the line at its own tone', () => {
    // 8 Ω behind 10 µF: 17.8 Ω at 1 kHz, 48.9 Ω at 330 Hz (Z = R − j/ωC).
    const behind = jobOf('8 cap 10 uF')
    const at = (frequencyHz: number | null) => nameOf(rank(behind, [{ ...reading('line-impedance', ohm(48.9)), frequencyHz }])[0]!)
    expect([at(330), at(null) === 'as drawn']).toEqual(['as drawn', false])
  })
  test('a joint takes the watts that it stands in the way of: they are not the speaker’s', () => {
    const outcome = outcomeOf(output, faultAt('high-resistance', first!))
    // Five times the load: a fifth of the current, a twenty-fifth of the speaker's power (Ohm).
    expect(outcome.watts().get(first!)! / plan.watts.get(first!)!).toBeCloseTo(1 / 25, 2)
    // Half the load across the same volts takes double (Ohm).
    expect(outcomeOf(output, faultAt('shorted-turns', first!)).watts().get(first!)! / plan.watts.get(first!)!).toBeCloseTo(2, 1)
  })
  test('suspects that read alike stand together, with the reading that tells them apart', () => {
    const readings = [reading('line-impedance', ohm(planned * 1.19))]
    const proof = proveLine({ ...job, readings: Records.of(readings) }, output)
    const [group] = groupSuspects(rankSuspects(output, proof), output, proof)
    expect(group!.suspects.filter(s => s.fault?.kind === 'open-at-drop').length).toBe(6)
    expect(group!.probability).toBeCloseTo(group!.suspects.reduce((sum, s) => sum + s.probability, 0), 12)
    expect([group!.test!.kind, group!.test!.bits > 0.3]).toEqual(['sound', true])
    // Heard silent there, the group is parted.
    const heard = [...readings, reading('sound', { is: 'silent' }, group!.test!.nodeId)]
    const after = rank(job, heard)
    expect(after[0]!.fault!.nodeId).toBe(group!.test!.nodeId)
    // With the line not read yet, that tells most between one that draws more and one that draws nothing.
    const two = [faultAt('extra-speaker', first!), faultAt('taps-on-other-scale', null, { way: 'up' })].map(fault => ({ fault, probability: 0.5, fit: 0, lineOhm: null, isOverload: false }))
    expect(nextTest(two, output, proveLine(job, output), true)).toMatchObject({ kind: 'line-impedance', nodeId: null, bits: expect.closeTo(1, 6) })
    // A reading that tells less than a twentieth of a bit is no test: with one in a thousand in doubt it tells a hundredth, with one in
    // fifty a seventh (entropy, Shannon).
    const doubted = (probability: number) =>
      nextTest([{ ...two[0]!, probability: 1 - probability }, { ...two[1]!, probability }], output, proveLine(job, output), true)
    expect([doubted(0.001), doubted(0.004), doubted(0.02)!.bits]).toEqual([null, null, expect.closeTo(0.1414, 3)])
    // Two that nothing tells apart have no test.
    expect(nextTest([two[0]!, two[0]!], output, proof, true)).toBeNull()
  })
  test('where the line may be meant as it reads, the drawing is corrected instead, and the reading is right', () => {
    const newId = counter('p')
    for (const fault of [faultAt('wrong-tap', second!, { tapW: 5 }), faultAt('taps-one-off', null, { way: 'down' }), faultAt('extra-speaker', second!)]) {
      const readings = Records.of([everyReading(output, fault)[0]!])
      const edit = FAULTS.find(f => f.kind === fault.kind)!.plan!({ job, output, fault, newId })!
      const meant = { ...applyEdit(job, edit).job, readings }
      expect([fault.kind, ...[...proveLine(meant, outputOf(meant)).standing.values()].map(j => j.verdict.grade)]).toEqual([fault.kind, 'good'])
    }
    const [speaker] = speakersOf(output.wiring)
    expect(FAULTS.flatMap(f => [f.assumes?.({ ...speaker!, driverOhm: null }), f.assumes?.({ ...speaker!, driverOhm: 4 })]).filter(Boolean)).toEqual(['its driver taken as 8 Ω'])
    expect(FAULTS.filter(f => f.plan).map(f => f.kind)).toEqual(['wrong-tap', 'taps-one-off', 'extra-speaker'])
  })
})

test('a reading from before a repair counts no more; a kind of many places weighs no more than one of few', () => {
  const job = lines.distributed!
  const output = outputOf(job)
  const id = speakersOf(output.wiring)[2]!.id
  const open = reading('sound', { is: 'silent' }, id)
  const fix = { id: 'fix', at: '2026-05-04T10:00:00Z', outputId: 'out1', nodeId: id, fault: 'open-at-drop' as const, note: '', who: null, withdrawn: false }
  const told = (repairs: (typeof fix)[]) =>
    nameOf(rankSuspects(output, proveLine({ ...job, readings: Records.of([open]), repairs: Records.of(repairs) }, output))[0]!)
  expect([told([]), told([fix])]).toEqual([`open-at-drop ${id}`, 'as drawn'])
  const shares = new Map<string, number>()
  for (const s of rank(job, [])) shares.set(s.fault?.kind ?? 'as drawn', (shares.get(s.fault?.kind ?? 'as drawn') ?? 0) + s.probability)
  // A line without coils of one cone has none to be opposed.
  expect(FAULTS.filter(f => !shares.has(f.kind)).map(f => f.kind)).toEqual(['coil-opposed'])
  for (const { kind, prior } of FAULTS.filter(f => shares.has(f.kind))) expect([kind, (shares.get(kind)! / shares.get('open-at-drop')!).toFixed(6)]).toEqual([kind, (prior / 10).toFixed(6)])
})

test('what an ohmmeter at the head says: through transformers only whether there is a way round, on plain speakers how much', () => {
  const dcr = (name: string, value: ReadingValue) => rank(lines[name]!, [reading('line-dcr', value)])
  const chanceOf = (suspects: Suspect[], kind: string) => suspects.filter(s => s.fault?.kind === kind).reduce((sum, s) => sum + s.probability, 0)
  const before = rank(lines.plain!, [])
  // Three coils of 6.4 Ω across each other are 2.1 Ω and their cable; two 3.2 Ω.
  expect(chanceOf(dcr('plain', { is: 'ohm', ohm: 3.6 }), 'open-at-drop')).toBeGreaterThan(3 * chanceOf(before, 'open-at-drop'))
  expect(chanceOf(dcr('plain', { is: 'open' }), 'break-in-reach')).toBeGreaterThan(0.5)
  expect(chanceOf(dcr('distributed', { is: 'ohm', ohm: 0.2 }), 'short-at-drop')).toBeGreaterThan(0.6)
  // Windings read a few ohms to some tens: that is no short, and says nothing else; open, it is a break before the first.
  expect(chanceOf(dcr('distributed', { is: 'ohm', ohm: 12 }), 'short-at-drop')).toBeLessThan(0.01)
  expect(nameOf(dcr('distributed', { is: 'ohm', ohm: 12 })[0]!)).toBe('as drawn')
  expect(nameOf(dcr('distributed', { is: 'open' })[0]!)).toBe('break-in-reach o1n3')
})

test('evidence that a fault cannot give excludes it', () => {
  const job = lines.distributed!
  const speakers = speakersOf(outputOf(job).wiring)
  const silentFrom = (k: number) => speakers.map((s, i) => reading('sound', { is: i >= k ? 'silent' : 'plays' }, s.id))
  const [first] = rank(job, silentFrom(4))
  expect([first!.fault?.kind, first!.fault?.nodeId]).toEqual(['break-in-reach', speakers[4]!.id])
  expect(first!.probability).toBeGreaterThan(0.99)
  const one = rank(job, [reading('coil-dcr', { is: 'open' }, speakers[2]!.id)])
  expect([one[0]!.fault?.kind, one[0]!.fault?.nodeId]).toEqual(['open-at-drop', speakers[2]!.id])
  expect(one.filter(s => s.fault?.kind === 'short-at-drop').every(s => s.probability < 1e-3)).toBe(true)
})

test('a line that reads as drawn is most likely as drawn; before any reading too', () => {
  const job = lines.distributed!
  const head = headOf({ lead: null, node: outputOf(job).wiring }, asCurve, 1000)
  const ohm = head.state === 'finite' ? head.ohm : 0
  for (const readings of [[], [reading('line-impedance', { is: 'ohm', ohm })]]) expect(rank(job, readings)[0]!.fault).toBeNull()
})

test('suspects read alike that differ by less than a quarter in the logarithm of their fit; as drawn and something else stand alone', () => {
  const output = outputOf(lines.distributed!)
  const fits = (...fit: number[]) => fit.map((f, k): Suspect => ({ fault: faultAt('open-at-drop', speakersOf(output.wiring)[k]!.id), probability: 0.1, fit: f, lineOhm: null, isOverload: false }))
  const sizes = (suspects: Suspect[]) => groupSuspects(suspects, output, proveLine(lines.distributed!, output)).map(g => g.suspects.length)
  expect([sizes(fits(0, 0.24)), sizes(fits(0, 0.26)), sizes(fits(0, 0.2, 0.4)), sizes(fits(-3, -3.1, 5))]).toEqual([[2], [1, 1], [2, 1], [2, 1]])
  expect(sizes([{ fault: null, probability: 0.5, fit: 0, lineOhm: null, isOverload: false }, { fault: faultAt('something-else', null), probability: 0.2, fit: 0, lineOhm: null, isOverload: false }, ...fits(0, 0)])).toEqual([1, 1, 2])
})
