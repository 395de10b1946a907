import { describe, expect, test } from '@jest/globals'
import { proveLine } from '#core/check/proof'
import { FAULT_WORDS } from '#core/check/faultWords'
import { Records } from '#core/job/records'
import { same } from '#core/quantity/same'
import { applyEdit } from '#core/job/apply'
import type { Job, Output, Reading, ReadingValue } from '#core/job/schema'
import { FAULT_KINDS } from '#core/job/sections/repairs/schema'
import { speakersOf } from '#core/job/tree'
import { cabled, counter, jobOf, outputOf } from '#core/testing/jobs'
import { faultAt, type Fault } from '#core/faults/fault'
import { FAULTS } from '#core/faults/index'
import { cutOutChance, heardOf, offDb, soundChance } from './ears'
import { givenBy } from './given'
import { ALIKE, groupSuspects } from './groups'
import { likeElseOhm } from './ohms'
import { outcomeOf } from './outcome'
import { rankSuspects } from './pairs'
import { drained } from '#core/quantity/steps'
import { PRIOR } from './prior'
import { isBeside, rankOfSingles, trySingles, type Suspect } from './rank'
import { reasonsOf } from './reasons'

const lead = { cable: { awg: 16 }, lengthM: 9 }
const lines: Record<string, Job> = {
  distributed: cabled(jobOf('6 x 20 W + 2 x 5 W on 70 V 240 W'), lead),
  plain: cabled(jobOf('8 || 8 || 8 on 200 W at 2'), lead),
  mixed: cabled(jobOf('(8 + 8) || (4 + 4) on 200 W at 4'), lead),
}
const reading = (kind: Reading['kind'], value: ReadingValue, nodeId: string | null = null, at = '2026-05-04T09:00:00Z'): Reading =>
  ({ id: `r${kind}${nodeId}${at}`, at, kind, outputId: 'out1', nodeId, value, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false })
const proofOf = (job: Job, readings: Reading[]) => proveLine({ ...job, readings: Records.of(readings) }, outputOf(job))
const triedOn = (job: Job, readings: Reading[]) => drained(trySingles(givenBy(outputOf(job), proofOf(job, readings))))
/** Single faults; every two as well where that is asked. */
const rank = (job: Job, readings: Reading[], withPairs = false) => (withPairs
  ? rankSuspects(outputOf(job), proofOf(job, readings))
  : rankOfSingles(triedOn(job, readings))).suspects
const ohm = (value: number) => ({ is: 'ohm', ohm: value }) as const
const nameOf = ({ faults }: Pick<Suspect, 'faults'>) => faults.length === 0 ? 'as drawn' : faults.map(f => [f.kind, f.nodeId, f.tapW, f.way].filter(v => v !== null).join(' ')).join(' + ')
const sum = (suspects: readonly Suspect[], is: (f: Fault) => boolean) => suspects.filter(s => s.faults.length > 0 && s.faults.some(is)).reduce((total,
  s) => total + s.probability, 0)

test('every kind of fault that a job can name has a prior with its reason, a change, coil outcomes, words, and what parts it from others', () => {
  expect([...FAULTS.map(f => f.kind), 'something-else'].sort()).toEqual([...FAULT_KINDS].sort())
  const all = [lines.distributed!, lines.plain!, jobOf('dvc 4 series || (8 || 8) on valve 50 W at 4/8, tap 4')]
  for (const fault of FAULTS) {
    expect([fault.kind, fault.prior > 0, fault.why.length > 10]).toEqual([fault.kind, true, true])
    expect(Object.values(fault.coil).reduce((a, b) => a + b, 0)).toBeCloseTo(1, 12)
    if (fault.heard) expect([fault.kind, Object.values(fault.heard).reduce((a, b) => a + b, 0).toFixed(9)]).toEqual([fault.kind, '1.000000000'])
    const { at, repair, apart } = FAULT_WORDS[fault.kind]
    expect([fault.kind, at('A1 03').length > 5, repair.length > 15, apart.length > 10]).toEqual([fault.kind, true, true, true])
    for (const job of all) {
      const output = outputOf(job)
      for (const c of fault.candidates(output, speakersOf(output.wiring), [])) {
        expect([fault.kind, at('A1 03').includes('A1 03')]).toEqual([fault.kind, c.nodeId !== null])
        // What changes no ohms is told by ear, by eye or by a tester.
        const isUnseen = same(fault.change(output.wiring, c), output.wiring)
        expect([fault.kind, !isUnseen || fault.heard !== undefined || fault.isReversed === true || fault.isToEarth === true]).toEqual([fault.kind, true])
      }
    }
  }
})

describe('by hand', () => {
  const job = lines.distributed!
  const output = outputOf(job)
  const ids = speakersOf(output.wiring).map(s => s.id) as [string, string, string, string, string, string, string, string]
  const planned = (outcomeOf(drained(trySingles(givenBy(output, proofOf(job, [])))).weigher.plan, []).solved.head as { ohm: number }).ohm
  const plays = (...k: number[]) => k.map(n => reading('sound', { is: 'plays' }, ids[n]))
  const plain = speakersOf(outputOf(lines.plain!).wiring).map(s => s.id) as [string, string, string]
  const dual = jobOf('dvc 4 series || 8 on 100 W at 2')
  const [sub, other] = speakersOf(outputOf(dual).wiring).map(s => s.id) as [string, string]
  const control: Job = { ...job, amplifiers: [{ ...job.amplifiers[0]!, outputs: [{ ...output, wiring: { ...output.wiring, children: [
    ...output.wiring.children.slice(0, 4),
    { lead, node: { kind: 'star', id: 'wall', children: output.wiring.children.slice(4), through: { kind: 'control', label: 'C1', name: '', from: null, setDb: 0, stepsDb: [], ratingW: 100, lineV: 70.71, insertionDb: null } } },
  ] } }] }] }
  test.each<[string, Job, Reading[], string]>([
    ['nothing is read', job, [], 'as drawn'],
    ['it reads as drawn', job, [reading('line-impedance', ohm(planned * 0.9))], 'as drawn'],
    ['silent from one on', job, [...plays(0, 1, 2, 3), ...[4, 5, 6, 7].map(k => reading('sound', { is: 'silent' }, ids[k]))], `break-in-reach ${ids[4]}`],
    ['a coil open', job, [reading('coil-dcr', { is: 'open' }, ids[2]), reading('sound', { is: 'silent' }, ids[2])], `coil-open ${ids[2]}`],
    ['silent, its coil right: the joint', job, [reading('coil-dcr', ohm(6.4), ids[2]), reading('sound', { is: 'silent' }, ids[2]), ...plays(0, 1, 3)], `open-at-drop ${ids[2]}`],
    ['scratchy, right ohms', job, [reading('sound', { is: 'scratchy' }, ids[2]), reading('coil-dcr', ohm(6.4), ids[2]), ...plays(0, 1, 3)], `rubbing ${ids[2]}`],
    ['hum everywhere, a leg low', job, [...[0, 1, 3].map(k => reading('sound', { is: 'hum' }, ids[k])), reading('leg-earth', ohm(40))], 'leg-earth'],
    ['all silent, the line right: the amplifier', job, [reading('line-impedance', ohm(planned * 0.9)), ...ids.map(id => reading('sound', { is: 'silent' }, id))], 'amplifier-dead'],
    ['harsh everywhere', job, ids.map(id => reading('sound', { is: 'scratchy' }, id)), 'amplifier-clipping'],
    ['its dial was found at 5 W', job, [reading('tap-found', { is: 'tap', tapW: 5, ratedV: 70.71 }, ids[1])], `wrong-tap ${ids[1]} 5`],
    ['read reversed', lines.plain!, [reading('line-impedance', ohm(2.3)), ...([[1, 'reversed'], [2, 'right-way']] as const).map(([k, is]) => reading('polarity-heard', { is, how: 'pulse', against: null }, plain[k]))], `turned-round ${plain[1]}`],
    ['reversed from one on', job, ids.map((id, k): Reading => reading('polarity-heard', { is: k < 4 ? 'right-way' : 'reversed', how: 'pulse', against: null }, id)), `pair-crossed ${ids[4]}`],
    ['nobody could tell', lines.plain!, [reading('polarity-heard', { is: 'cannot-tell', how: 'pulse', against: null }, plain[1])], 'as drawn'],
    ['silent, with right ohms: its coils', dual, [reading('line-impedance', ohm(4)), reading('coil-dcr', ohm(6.4), sub), reading('sound', { is: 'silent' }, sub), reading('sound', { is: 'plays' }, other)], `coil-opposed ${sub}`],
    ['a coil far above its label', lines.plain!, [reading('coil-dcr', ohm(60), plain[1])], `coil-high ${plain[1]}`],
    ['a coil under half', lines.plain!, [reading('coil-dcr', ohm(2.6), plain[1])], `shorted-turns ${plain[1]}`],
    ['a coil of nothing behind a transformer, the line not shorted', job, [reading('coil-dcr', ohm(0.05), ids[2]), reading('line-impedance', ohm(planned * 0.43))], `short-at-tabs ${ids[2]}`],
    ['all draw half', job, [reading('line-impedance', ohm(planned * 1.9)), ...plays(0, 1, 2, 3, 4, 5, 6, 7), reading('tap-found', { is: 'tap', tapW: 20, ratedV: 100 }, ids[0])], 'taps-on-other-scale down'],
    ['all behind a control silent, the rest not', control, [...plays(0, 1, 2, 3), ...[4, 5, 6, 7].map(k => reading('sound', { is: 'silent' }, ids[k]))], 'control-at-zero wall'],
    ['right on one day, far above on the next', lines.plain!, [reading('coil-dcr', ohm(6.4), plain[1], '2026-05-01T09:00:00Z'), reading('coil-dcr', ohm(36), plain[1], '2026-05-03T09:00:00Z')], `coil-high ${plain[1]}`],
    ['two silent that no one fault silences', job, [...plays(0, 2, 3, 4, 6, 7), ...[1, 5].map(k => reading('sound', { is: 'silent' }, ids[k])), ...[1, 5].map(k => reading('coil-dcr', { is: 'open' }, ids[k]))], `coil-open ${ids[1]} + coil-open ${ids[5]}`],
  ])('%s', (_, on, readings, wanted) => expect(nameOf(rank(on, readings, wanted.includes(' + '))[0]!)).toBe(wanted))

  test('a battery behind a transformer that tells nothing is no evidence at all', () => {
    const head = reading('line-impedance', ohm(planned * 1.2))
    const [before, after] = [[head], [head, reading('polarity', { is: 'cannot-tell', how: 'battery-run', against: null }, ids[1])]].map(r => rank(job, r))
    for (const s of before!.slice(0, 30)) {
      expect([nameOf(s), after!.find(a => nameOf(a) === nameOf(s))!.probability]).toEqual([nameOf(s), expect.closeTo(s.probability, 9)])
    }
  })
  test('a silent speaker on a line that reads full is a contradiction: it is not “as drawn” for most', () => {
    const suspects = rank(lines.plain!, [reading('line-impedance', ohm(2.4)), reading('sound', { is: 'silent' }, plain[1]), reading('coil-dcr', ohm(6.4), plain[1])])
    expect(suspects.find(s => s.faults.length === 0)!.probability).toBeLessThan(0.5)
  })
  test('a short at the first drop read a tenth off is still a short; percentages end where calibration does', () => {
    const near = outputOf(cabled(jobOf('4 x 20 W on 70 V'), { cable: { awg: 16 }, lengthM: 8 }))
    const short = { ...jobOf('4 x 20 W on 70 V'), amplifiers: [{ ...jobOf('4 x 20 W on 70 V').amplifiers[0]!, outputs: [near] }] }
    for (const value of [0.05, 0.21, 0.31]) {
      const suspects = rank(short, [reading('line-impedance', ohm(value))])
      const shorts = sum(suspects, f => f.kind === 'short-at-drop' || f.kind === 'short-in-run')
      expect([value, shorts.toFixed(2), shorts > 0.7, suspects[0]!.probability < 0.97]).toEqual([value, expect.any(String), true, true])
    }
  })
  test('quieter than its neighbour: what makes it quieter gains, and louder what makes it louder', () => {
    const lower = (f: Fault) => f.kind === 'wrong-tap' && f.nodeId === ids[1] && f.tapW! < 20
    const higher = (f: Fault) => f.kind === 'wrong-tap' && f.nodeId === ids[1] && f.tapW! > 20
    const by = (is: 'quieter' | 'louder' | null) => rank(job, is === null ? [] : [reading('beside', { is, besideId: ids[2] }, ids[1])])
    const gains = (is: 'quieter' | 'louder', of: (f: Fault) => boolean) => sum(by(is), of) / sum(by(null), of)
    expect([gains('quieter', lower) > 2, gains('quieter', higher) < 0.5, gains('louder', lower) < 0.5, gains('louder', higher) > 2]).toEqual([true, true, true, true])
  })
  test('right from here outward, too little at the rack: it is before here, also by volts and amperes', () => {
    const before = (f: Fault) => ids.slice(0, 3).includes(f.nodeId ?? '')
    // Five of 20 W less than planned in all; from the fourth on what is there is right.
    const outward = reading('outward-impedance', ohm(70.71 ** 2 / 70 * 0.9), ids[3])
    for (const head of [reading('line-impedance', ohm(planned * 1.25)), reading('head-volts-amps', { is: 'volts-amps', volts: planned * 1.25, amps: 1 })]) {
      const [alone, both] = [rank(job, [head]), rank(job, [head, outward])]
      expect(sum(both, before) / sum(alone, before)).toBeGreaterThan(1.2)
    }
  })
  test('what speaks for a suspect and against it: the reading that no other explains as well', () => {
    const readings = [reading('coil-dcr', { is: 'open' }, ids[2]), reading('sound', { is: 'silent' }, ids[2]), reading('sound', { is: 'plays' }, ids[0])]
    const tried = triedOn(job, readings)
    const { suspects } = rankOfSingles(tried)
    const of = (name: string) => reasonsOf(tried, suspects)[suspects.findIndex(s => nameOf(s) === name)]!.map(r => r.times)
    const [coil, joint] = [of(`coil-open ${ids[2]}`), of(`open-at-drop ${ids[2]}`)]
    // An open joint reads open in one of five: where the coil is read before it.
    expect([coil[0]! / joint[0]!, coil[1]! / joint[1]!, coil[2]! / joint[2]!]).toEqual([expect.closeTo(5, 0), expect.closeTo(1, 6), expect.closeTo(1, 6)])
    // Beside the faults stand, however unlikely, as drawn and something else: an open coil speaks against the one.
    const last = [...suspects].sort((a, b) => Number(isBeside(a)) - Number(isBeside(b)))
    const all = reasonsOf(tried, last)
    expect([last.length > 100, all.filter(of => of.length > 0).length, ...all.slice(-2).map(of => of.length)]).toEqual([true, 42, 3, 3])
    expect(all[last.findIndex(s => s.faults.length === 0)]!.find(r => r.readingId === readings[0]!.id)!.times).toBeLessThan(0.01)
  })
  test('ohms that lie between two sizes of a fault that were tried speak for it, not against it', () => {
    const leaks = triedOn(job, []).singles.filter(s => s.fault.kind === 'leak-across')
    const of = leaks.filter(s => s.fault.nodeId === leaks[0]!.fault.nodeId).map(s => (s.outcome.solved.head as { ohm: number }).ohm).sort((a, b) => a - b)
    const tried = triedOn(job, [reading('line-impedance', ohm(Math.sqrt(of[0]! * of[1]!)))])
    const { suspects } = rankOfSingles(tried)
    const at = suspects.findIndex(s => s.faults[0]?.kind === 'leak-across')
    const times = reasonsOf(tried, suspects)
    const drawn = suspects.findIndex(s => s.faults.length === 0)
    expect([at < 10, times[at]![0]!.times > 0.8, times[drawn]![0]!.times < 0.01]).toEqual([true, true, true])
  })
  test('where the line may be meant as it reads, the drawing is corrected instead, and the reading is right', () => {
    const newId = counter('p')
    for (const fault of [faultAt('wrong-tap', ids[1], { tapW: 5 }), faultAt('taps-one-off', null, { way: 'down' }), faultAt('extra-speaker', ids[1]), faultAt('speaker-missing', ids[1]), faultAt('drops-exchanged', ids[0], { withId: ids[6] })]) {
      const { head } = outcomeOf(drained(trySingles(givenBy(output, proofOf(job, [])))).weigher.plan, [fault]).solved
      const edit = FAULTS.find(f => f.kind === fault.kind)!.plan!({ job, output, fault, newId })!
      const meant = { ...applyEdit(job, edit).job, readings: Records.of([reading('line-impedance', ohm((head as { ohm: number }).ohm))]) }
      expect([fault.kind, ...[...proveLine(meant, outputOf(meant)).standing.values()].map(j => j.verdict.grade)]).toEqual([fault.kind, 'good'])
    }
    expect(FAULTS.filter(f => f.plan).map(f => f.kind)).toEqual(['wrong-tap', 'taps-on-other-scale', 'taps-one-off', 'extra-speaker', 'speaker-missing', 'drops-exchanged', 'wrong-jack'])
  })
})

test('before anything is read each kind weighs as its prior says, however many places it has; all of them sum to one', () => {
  const job = lines.distributed!
  const { suspects, unlisted } = rankSuspects(outputOf(job), proofOf(job, []))
  expect(suspects.reduce((total, s) => total + s.probability, unlisted)).toBeCloseTo(1, 9)
  const shareOf = (kind: string) => suspects.filter(s => s.faults.length === 1 && s.faults[0]!.kind === kind).reduce((total, s) => total + s.probability, 0)
  for (const { kind, prior } of FAULTS.filter(f => shareOf(f.kind) > 0)) expect([kind, (shareOf(kind) / shareOf('open-at-drop')).toFixed(6)]).toEqual([kind, (prior / 7).toFixed(6)])
  expect(suspects.find(s => s.faults.length === 0)!.probability).toBeCloseTo(PRIOR.asDrawn, 5)
  expect(suspects.filter(s => s.faults.length === 1 && s.faults[0]!.kind !== 'something-else').reduce((total, s) => total + s.probability, 0)).toBeCloseTo(PRIOR.single, 4)
})

test('a reading is held against the line at its own tone', () => {
  // 8 Ω behind 10 µF: 17.8 Ω at 1 kHz, 48.9 Ω at 330 Hz (Z = R − j/ωC).
  const behind = jobOf('8 cap 10 uF')
  const drawnAt = (frequencyHz: number | null) =>
    rank(behind, [{ ...reading('line-impedance', ohm(48.4)), frequencyHz }]).find(s => s.faults.length === 0)!.probability
  expect(drawnAt(330)).toBeGreaterThan(10 * drawnAt(null))
})

test('a reading from before a repair counts no more', () => {
  const job = lines.distributed!
  const id = speakersOf(outputOf(job).wiring)[2]!.id
  const open = reading('coil-dcr', { is: 'open' }, id)
  const fix = { id: 'fix', at: '2026-05-04T10:00:00Z', outputId: 'out1', nodeId: id, fault: 'coil-open' as const, note: '', who: null, withdrawn: false }
  const told = (repairs: (typeof fix)[]) => nameOf(rankSuspects(outputOf(job), proveLine({ ...job, readings: Records.of([open]),
    repairs: Records.of(repairs) }, outputOf(job))).suspects[0]!)
  expect([told([]), told([fix])]).toEqual([`coil-open ${id}`, 'as drawn'])
})

/** Readings of every place, as a line with the fault in it would give them, its units in the middle of what is usual. */
function everyReading(output: Output, fault: Fault): Reading[] {
  const { plan } = drained(trySingles(givenBy(output, proveLine({ readings: Records.of(), repairs: Records.of() }, output)))).weigher
  const outcome = outcomeOf(plan, [fault])
  const { head } = outcome.solved
  const cut = cutOutChance(head, plan.drawn.solved.head) > 0.5
  const best = (id: string) => (['plays', 'silent', 'scratchy', 'thin', 'quiet', 'hum', 'comes-and-goes'] as const).reduce((a, b) =>
    soundChance(b, offDb(id, outcome, plan), heardOf(id, outcome, plan)) > soundChance(a, offDb(id, outcome, plan), heardOf(id, outcome, plan)) ? b : a)
  return [
    reading('line-impedance', head.state === 'finite' ? ohm(head.ohm * 0.9) : head.state === 'open' ? { is: 'open' } : ohm(0)),
    ...speakersOf(output.wiring).map(s => reading('sound', { is: cut ? 'silent' : best(s.id) }, s.id)),
  ]
}

describe.each(Object.keys(lines))('each single fault of the %s line, read as it would read, is explained by nothing better than by itself', (name) => {
  const job = lines[name]!
  const output = outputOf(job)
  const faults = FAULTS.flatMap(d => d.candidates(output, speakersOf(output.wiring), [])).filter((f, k, all) => k === 0
    || f.nodeId !== all[k - 1]!.nodeId || f.kind !== all[k - 1]!.kind || f.tapW !== all[k - 1]!.tapW)
  test.each([...new Set(faults.map(f => f.kind))])('%s', (kind) => {
    for (const fault of faults.filter(f => f.kind === kind).slice(1, 2)) {
      const tried = triedOn(job, everyReading(output, fault))
      const own = Math.max(...tried.singles.filter(s => s.fault.kind === fault.kind && s.fault.nodeId === fault.nodeId
        && s.fault.tapW === fault.tapW).map(s => s.fit))
      const better = tried.singles.filter(s => s.fit > own + 1.2 && s.fault.kind !== fault.kind && s.definition.acts !== 'line')
      expect(better.map(s => nameOf({ faults: [s.fault] }))).toEqual([])
    }
  })
})

test('suspects read alike that differ by less than a quarter in the logarithm of their fit; as drawn, something else and two at once stand apart', () => {
  const of = (fit: number, ...kinds: Fault['kind'][]): Suspect => ({ faults: kinds.map(k => faultAt(k, 'x')), probability: 0.1, fit, lineOhm: null, isOverload: false })
  const sizes = (...suspects: Suspect[]) => groupSuspects(suspects).map(g => g.suspects.length)
  expect(ALIKE).toBe(0.25)
  expect([sizes(of(0, 'coil-open'), of(0.24, 'rubbing')), sizes(of(0, 'coil-open'), of(0.26, 'rubbing')), sizes(of(0, 'coil-open'), of(0, 'coil-open', 'rubbing'))]).toEqual([[2], [1, 1], [1, 1]])
  expect(sizes(of(0), of(0, 'something-else'), of(0, 'coil-open'), of(0, 'rubbing'))).toEqual([2, 1, 1])
})

test.each([[3, 0.8], [6, 0.8], [24, 0.4], [40, 0.3098]])('of what is not in the list a meter at the head of %i sees %f: of a long line one place is a small part', (speakers, share) => {
  const job = jobOf(`${speakers} x 5 W on 70 V`)
  const shown = { is: 'ohm', ohm: 1000 / speakers } as const
  const { weigher, drawnFit, otherFit } = triedOn(job, [reading('line-impedance', shown)])
  const [drawn, other, anything] = [Math.exp(drawnFit), Math.exp(otherFit), likeElseOhm({ ...weigher.ohms[0]!, value: shown })]
  expect((drawn - other) / (drawn - anything)).toBeCloseTo(share, 4)
})
