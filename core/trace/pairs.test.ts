import { expect, test } from '@jest/globals'
import { proveLine } from '#core/check/proof'
import { Records } from '#core/job/records'
import type { Job, Output, Reading, ReadingValue } from '#core/job/schema'
import { speakersOf } from '#core/job/tree'
import { seeded } from '#core/testing/trees'
import { SEED } from '#core/testing/runs'
import { cabled, jobOf, outputOf } from '#core/testing/jobs'
import { logSum } from './chances'
import { heardOf, offDb, soundsChance } from './ears'
import { givenBy } from './given'
import { orSlip } from './ohms'
import { outcomeOf } from './outcome'
import { mostOf, tableOf } from './ohmTable'
import { columnsOf, mostsFor, mostTogether, type Touches } from './pairBound'
import { pairEars } from './pairEars'
import { levelsLog } from './levels'
import { levelColumns, mostByLevels, pairLevels } from './pairLevels'
import { pairTold } from './pairTold'
import { rankPairs } from './pairs'
import { portsOf } from './ports'
import { drained } from '#core/quantity/steps'
import { PRIOR } from './prior'
import { trySingles, type Single } from './rank'
import { familyOf } from './sizes'

const reading = (kind: Reading['kind'], value: ReadingValue, nodeId: string | null = null): Reading =>
  ({ id: `r${kind}${nodeId}`, at: '2026-05-04T09:00:00Z', kind, outputId: 'out1', nodeId, value, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false })
const levelOf = (nodeId: string, db: number, weighting: 'A' | 'C' = 'A') => reading('level', { is: 'level', db, weighting, signal: 'pink-noise', headV: null }, nodeId)
const lead = { cable: { awg: 16 }, lengthM: 9 }
const triedOn = (output: Output, readings: Reading[]) => drained(trySingles(givenBy(output, proveLine({ readings: Records.of(readings),
  repairs: Records.of() }, output))))

test.each<[string, Job]>([
  ['a tap line', cabled(jobOf('5 x 10 W + 2 x 5 W on 70 V'), lead)], ['series and stars', cabled(jobOf('(8 + 8) || (4 + 4) || 8 on 200 W at 2'), lead)], ['known curves', cabled(jobOf('dvc 4 series || 8 || 8'), lead)],
])('two changes at once come out as the changed network does, by its ports, read at the rack and from the second place on: %s, 400 pairs', (_, job) => {
  const output = outputOf(job)
  const { weigher: { plan }, singles } = triedOn(output, [])
  const places = [null, output.wiring.children[1]!.node.id].map(nodeId => ({ nodeId, frequencyHz: 1000 }))
  const portsAt = places.map(place => portsOf(output.wiring, place)!)
  const chance = seeded(SEED)
  let tried = 0
  for (let n = 0; n < 400; n++) {
    const [a, b] = [0, 1].map(() => singles[Math.floor(chance() * singles.length)]!) as [typeof singles[number], typeof singles[number]]
    // A joint in the run is told by what the line is: with another before it the line is another.
    if (a.fault.nodeId === b.fault.nodeId || a.definition.isOfTheLine || b.definition.isOfTheLine) continue
    // Of two that hang in each other's place which one has the other fault is not to be said by ports: such a pair is solved again where it is likely.
    if ([a, b].some((x, k) => x.fault.withId !== null && x.fault.withId === [b, a][k]!.fault.nodeId)) continue
    const [place, ports] = [places[n % 2]!, portsAt[n % 2]!]
    const [one, other] = [ports.changeOf(a.outcome.wiring), ports.changeOf(b.outcome.wiring)]
    if (!one || !other || (one.port >= 0 && one.port === other.port)) continue
    const head = outcomeOf(plan, [a.fault, b.fault]).sight(place)!.seen
    const ln = ports.both(one, other)
    tried++
    const name = `${familyOf(a.fault)} + ${familyOf(b.fault)}, seed ${SEED}, case ${n}`
    if (head.state === 'finite') expect([name, Math.abs(ln - Math.log(head.ohm)) < 1e-6]).toEqual([name, true])
    // Of a short rounding leaves less than a picoohm.
    else expect([name, head.state === 'open' ? ln : ln < Math.log(1e-12)]).toEqual([name, head.state === 'open' ? Infinity : true])
  }
  expect(tried).toBeGreaterThan(100)
})

test.each<[string, (ids: string[]) => Reading[], within?: number]>([
  ['by ohms alone', () => [reading('line-impedance', { is: 'ohm', ohm: 310 })]],
  ['and ears', ids => [reading('line-impedance', { is: 'ohm', ohm: 310 }), reading('sound', { is: 'silent' }, ids[0]), reading('sound', { is: 'scratchy' }, ids[2]), reading('sound', { is: 'plays' }, ids[1])]],
  ['and ears, the other way along', ids => [reading('line-impedance', { is: 'ohm', ohm: 310 }), reading('sound', { is: 'silent' }, ids[2]), reading('sound', { is: 'scratchy' }, ids[0]), reading('sound', { is: 'plays' }, ids[1])]],
  ['and from a place outward, where it is shorted', ids => [reading('line-impedance', { is: 'ohm', ohm: 3 }), reading('outward-impedance', { is: 'ohm', ohm: 0.1 }, ids[1]), reading('looked', { is: 'seen', fault: 'short-at-drop' }, ids[1])]],
  // By itself a joint of two sizes is a seventh apart in ohms, before a short it is all that is left: four times.
  ['and from a place outward, shorted, with a joint before it', ids => [reading('line-impedance', { is: 'ohm', ohm: 45 }), reading('outward-impedance', { is: 'ohm', ohm: 0.1 }, ids[1])]],
  ['and an amplifier that has cut out', ids => [reading('line-impedance', { is: 'ohm', ohm: 12 }), ...ids.map(id => reading('sound', { is: 'silent' }, id))]],
  // Beside dials that all stand otherwise, which is no change at one place, a leak's sizes lie apart as by itself.
  ['and a pulse that was told: it has not cut out', ids => [reading('line-impedance', { is: 'ohm', ohm: 60 }), reading('polarity-heard', { is: 'right-way', how: 'pulse', against: null }, ids[1])], 0.5],
  ['and silence beside it', ids => [reading('line-impedance', { is: 'ohm', ohm: 60 }), reading('polarity-heard', { is: 'right-way', how: 'pulse', against: null }, ids[1]), ...[0, 2].map(k => reading('sound', { is: 'silent' }, ids[k]))]],
  ['and a pulse at each, turned from the second on', ids => [reading('line-impedance', { is: 'ohm', ohm: 300 }), ...ids.map((id, k) => reading('polarity-heard', { is: k > 0 ? 'reversed' : 'right-way', how: 'pulse', against: null }, id))]],
  ['and a pulse at each, turned in the middle', ids => [reading('line-impedance', { is: 'ohm', ohm: 170 }), ...ids.map((id, k) => reading('polarity-heard', { is: k === 1 ? 'reversed' : 'right-way', how: 'pulse', against: null }, id))]],
  ['and the level meter, less along the line', ids => [reading('line-impedance', { is: 'ohm', ohm: 260 }), ...ids.map((id, k) => levelOf(id, [90, 84, 82][k]!))]],
  ['and one that is quieter than its neighbour', ids => [reading('line-impedance', { is: 'ohm', ohm: 230 }), reading('beside', { is: 'quieter', besideId: ids[1]! }, ids[2]), reading('beside', { is: 'alike', besideId: ids[1]! }, ids[0])]],
  ['and dials on the other scale, one of them shorted', ids => [reading('line-impedance', { is: 'ohm', ohm: 0.3 }), ...[0, 2].map(k => reading('tap-found', { is: 'tap', tapW: 10, ratedV: 50 }, ids[k]))]],
  ['and one that was changed for another', ids => [reading('line-impedance', { is: 'ohm', ohm: 250 }), reading('swapped', { is: 'goes-with-it', withId: null }, ids[0]), reading('swapped', { is: 'stays', withId: null }, ids[1])]],
  ['and coils', ids => [reading('line-impedance', { is: 'ohm', ohm: 230 }), reading('coil-dcr', { is: 'ohm', ohm: 2.9 }, ids[1]), reading('coil-dcr', { is: 'open' }, ids[2])]],
])('every two faults against a direct enumeration of every one of them, solved and weighed: %s', (_, readingsOf, within = 0.25) => {
  const output = outputOf(cabled(jobOf('3 x 10 W on 70 V'), lead))
  const tried = triedOn(output, readingsOf(speakersOf(output.wiring).map(s => s.id)))
  const { weigher, singles } = tried
  const ranking = drained(rankPairs(tried))
  // Direct: each pair at two places, prior as the product of both, brought to the share that two have; sizes of one fault gathered.
  const pairs = singles.flatMap((a, k) => singles.slice(k + 1).filter(b => b.fault.nodeId !== a.fault.nodeId).map(b => [a, b] as const))
  const priors = logSum(pairs.map(([a, b]) => a.priorLog + b.priorLog))
  // What lies between two sizes: half of their distance as one sigma, each with the other fault as it is.
  const [number, solved] = [new Map(singles.map((s, k) => [s, k])), new Map<number, ReturnType<typeof outcomeOf>>()]
  const outcomeWith = (a: Single, b: Single) => {
    const [first, last] = number.get(a)! < number.get(b)! ? [a, b] : [b, a]
    const key = number.get(first)! * singles.length + number.get(last)!
    return solved.get(key) ?? solved.set(key, outcomeOf(weigher.plan, [first.fault, last.fault])).get(key)!
  }
  const nextTo = (single: Single) => {
    const family = singles.filter(s => s.fault.amount !== null && familyOf(s.fault) === familyOf(single.fault))
    const sizes = family.sort((x, y) => x.fault.amount! - y.fault.amount!)
    return sizes.filter((_, k) => Math.abs(k - sizes.indexOf(single)) === 1)
  }
  const next = new Map(singles.map(s => [s, nextTo(s)]))
  const between = (a: Single, b: Single) => weigher.ohms.map(({ place }) => {
    const ln = (x: Single, y: Single) => {
      const seen = outcomeWith(x, y).sight(place)?.seen
      return seen?.state === 'finite' ? Math.log(seen.ohm) : NaN
    }
    const variance = (others: number[]) => {
      const apart = others.map(other => Math.abs(other - ln(a, b))).filter(d => !Number.isNaN(d))
      return apart.length === 0 ? 0 : (apart.reduce((x, y) => x + y) / apart.length / 2) ** 2
    }
    return variance(next.get(a)!.map(n => ln(n, b))) + variance(next.get(b)!.map(n => ln(a, n)))
  })
  const direct = new Map<string, number[]>()
  for (const [a, b] of pairs) {
    const name = [familyOf(a.fault), familyOf(b.fault)].sort().join(' + ')
    direct.set(name, [...direct.get(name) ?? [], Math.log(PRIOR.two) + a.priorLog + b.priorLog - priors + weigher.fitOf(outcomeWith(a, b), between(a, b))])
  }
  const shares = [...direct].map(([name, logs]) => [name, logSum(logs)] as const).sort((x, y) => y[1] - x[1])
  const listed = new Map(ranking.suspects.filter(s => s.faults.length === 2).map(s => [s.faults.map(familyOf).sort().join(' + '), s]))
  // As drawn is in both: its share says what one of all is.
  const drawn = ranking.suspects.find(s => s.faults.length === 0)!
  const scale = Math.log(drawn.probability) - Math.log(PRIOR.asDrawn) - tried.drawnFit
  const two = ranking.suspects.reduce((sum, s) => s.faults.length === 2 ? sum + s.probability : sum, ranking.unlisted)
  expect([ranking.tried.pairs, ranking.untried]).toEqual([pairs.length, 0])
  // What all of them hold together, and the first ten one by one.
  const all = logSum(shares.map(s => s[1])) + scale
  expect(Math.abs(two / Math.exp(all) - 1)).toBeLessThan(0.4 * within)
  // A dial that is turned, of a line whose dials are all on the other scale: which of both comes first is not said by either.
  const isPlain = ([name]: typeof shares[number]) => !(name.includes('taps-on-other-scale') && name.includes('wrong-tap'))
  for (const [name, log] of shares.slice(0, 10).filter(isPlain)) expect([name,
    Math.abs(Math.log(listed.get(name)?.probability ?? 1e-9) - log - scale) < within]).toEqual([name, true])
})

test.each<[string, (ids: string[]) => Reading[]]>([
  ['one silent, one scratchy', ids => ids.map((id, k) => reading('sound', { is: k === 3 ? 'silent' : k === 9 ? 'scratchy' : 'plays' }, id))],
  ['quiet behind one place, silent behind another', ids => ids.map((id, k) => reading('sound', { is: k > 8 ? 'silent' : k > 5 ? 'quiet' : 'plays' }, id))],
  ['all silent, and the head half of what it should be', ids => [reading('line-impedance', { is: 'ohm', ohm: 27 }), ...ids.map(id => reading('sound', { is: 'silent' }, id))]],
  ['all silent but one, and the head a short', ids => [reading('line-impedance', { is: 'ohm', ohm: 0.4 }), ...ids.map((id, k) => reading('sound', { is: k === 0 ? 'quiet' : 'silent' }, id))]],
  ['heads of two places, and ears', ids => [reading('line-impedance', { is: 'ohm', ohm: 64 }), reading('outward-impedance', { is: 'ohm', ohm: 99 }, ids[4]), ...ids.map((id, k) => reading('sound', { is: k === 1 || k === 7 ? 'silent' : 'plays' }, id))]],
  ['the meter at each, two of them quieter', ids => [reading('line-impedance', { is: 'ohm', ohm: 54 }), ...ids.map((id, k) => levelOf(id, k === 3 ? 74 : k === 9 ? 70 : 80 + k % 2))]],
])('what is left out changes nothing by more than it is said to hold: %s', (_, readingsOf) => {
  const output = outputOf(cabled(jobOf('8 x 10 W + 5 x 5 W on 70 V'), lead))
  const tried = triedOn(output, readingsOf(speakersOf(output.wiring).map(s => s.id)))
  const [ranking, all] = [drained(rankPairs(tried)), drained(rankPairs(tried, 0))]
  expect([ranking.leftOut > 0, ranking.leftOut < 0.005, all.leftOut]).toEqual([true, true, 0])
  const named = ({ suspects }: typeof all) => new Map(suspects.map(s => [s.faults.map(familyOf).sort().join(' + '), s.probability]))
  const [some, every] = [named(ranking), named(all)]
  for (const name of new Set([...some.keys(), ...every.keys()])) {
    expect([name, Math.abs((some.get(name) ?? 0) - (every.get(name) ?? 0)) <= ranking.leftOut]).toEqual([name, true])
  }
  expect(Math.abs(ranking.unlisted - all.unlisted)).toBeLessThanOrEqual(ranking.leftOut)
}, 30_000)

const SOUNDED = ['plays', 'silent', 'quiet', 'scratchy'] as const
test.each<[string, number, number, (id: string, k: number) => Reading[]]>([
  ['all of it listened at', 8, 8, (id, k) => [reading('sound', { is: SOUNDED[k % 4]! }, id)]],
  ['by the level meter and by a pulse', 10, 70, (id, k) => [levelOf(id, 80 + 5 * (k % 3)), reading('polarity-heard', { is: k % 3 === 0 ? 'reversed' : 'right-way', how: 'pulse', against: null }, id)]],
  ['three by the level meter, alike', 3, 20, id => [levelOf(id, 80)]],
  ['by the level meter, two of them otherwise, which makes no sense', 9, 60, (id, k) => [levelOf(id, 40 + 9 * k, k > 6 ? 'C' : 'A')]],
])('no two come to more than their bound, nor any head by ohms: every two of a line, %s', (_, count, within, readingsAt) => {
  const output = outputOf(cabled(jobOf(`${count} x 10 W on 70 V`), lead))
  const { weigher, singles } = triedOn(output, [reading('line-impedance', { is: 'ohm', ohm: 64 }), ...speakersOf(output.wiring).flatMap((s, k) => readingsAt(s.id, k))])
  const [hearing, telling, metering] = [pairEars(weigher), pairTold(weigher), pairLevels(weigher)]
  const parts = singles.map((s, k) => ({ place: k, change: 0, ownLog: -k, between: [], members: [s], ears: hearing.of(s), told: telling.of(s),
    levels: metering.of(s) }))
  const of = columnsOf(parts)
  const [levels, mosts, byLevels] = [levelColumns(parts.map(p => p.levels)), mostsFor(parts.length), mostByLevels(parts.length)]
  const under = { ears: hearing.rightLogs, told: telling.under }
  // Each ear by itself, with what both do there: decibels added, and what acts on it as of a line with both.
  const { plan, parts: { heard, levels: levelRead } } = weigher
  const heardBy = (a: Single, b: Single) => heard.reduce((sum, { nodeId, sounds, any }) => {
    const acting = heardOf(nodeId, { faults: [a.fault, b.fault], definitions: [a.definition, b.definition] }, plan)
    return sum + Math.log(orSlip(soundsChance(sounds, offDb(nodeId, a.outcome, plan) + offDb(nodeId, b.outcome, plan), acting), any))
  }, 0)
  // All levels together as of one line with both, its watts those of each by itself.
  const leveled = (a: Single, b: Single) => {
    const [one, other] = [a.outcome.watts(), b.outcome.watts()]
    const get = (id: string) => (one.get(id) ?? 0) * (other.get(id) ?? 0) / plan.watts.get(id)!
    return levelsLog(levelRead, { faults: [a.fault, b.fault], definitions: [a.definition, b.definition], watts: () => ({ get }) }, plan)
  }
  let [shared, more] = [0, 0]
  parts.forEach((a, k) => {
    metering.atMost(a.levels, levels, k + 1, byLevels)
    mostTogether(a, byLevels.log, of, k + 1, under, mosts)
    for (let n = k + 1; n < parts.length; n++) {
      const b = parts[n]!
      const byEars = hearing.shared(a.ears, b.ears)
      const both = b.ownLog + byEars + telling.shared(a.told, b.told) + metering.shared(a.levels, b.levels)
      const isShared = (x: Touches, y: Touches) => x.at.some(r => y.at.includes(r))
      const isTouched = isShared(a.ears, b.ears) || isShared(a.told, b.told) || byLevels.isExact[n] === 0
      const [one, other] = [a.members[0]!, b.members[0]!]
      const isRight = mosts.heard[n]! >= both - 1e-9 && (isTouched || mosts.heard[n]! <= both + 1e-9)
      if (!isRight) expect([familyOf(one.fault), familyOf(other.fault), mosts.heard[n]]).toEqual(['of the two', 'at most', both])
      // What is sure of what was noted is a hundredth to a few times better than what a fault makes of it, at each ear.
      if (isTouched) [shared, more] = [shared + 1, more + mosts.heard[n]! - both]
      if (one.fault.nodeId !== other.fault.nodeId) {
        const off = heardBy(one, other) - (hearing.allRight + a.ears.sum + byEars + b.ears.sum)
        if (!(Math.abs(off) < 1)) expect([familyOf(one.fault), familyOf(other.fault), off]).toEqual(['as each ear', 'by itself', 'within 1'])
        if (!a.levels.moves || !b.levels.moves) continue
        const byMeter = metering.shared(a.levels, b.levels)
        const offBy = [byMeter, ...byLevels.isExact[n] === 1 ? [byLevels.log[n]!] : []]
          .map(log => metering.base + a.levels.sum + log + b.levels.sum - leveled(one, other))
        // At the edge of what a meter reads a tenth of a decibel says whether there is a level at all.
        const isEdge = plan.speakers.some(id => Math.abs(offDb(id, one.outcome, plan) + offDb(id, other.outcome, plan) + 15) < 0.2)
        if (!isEdge && !offBy.every(off => Math.abs(off) < 0.5)) expect([familyOf(one.fault), familyOf(other.fault), ...offBy]).toEqual(['all levels', 'as of', 'both'])
        // Told how little is nothing any more, it says nothing that is wrong of what is more, nor calls what is less more.
        const [less, as] = [byMeter + 1, byMeter].map(least => metering.shared(a.levels, b.levels, least - 1e-9)) as [number, number]
        if (!(less < byMeter + 1 && less >= byMeter - 1e-9 && Math.abs(as - byMeter) < 1e-9)) expect([familyOf(one.fault), less, as]).toEqual(['not', byMeter, 'or more'])
      }
    }
  })
  expect([shared > 1000, more / shared < within]).toEqual([true, true])
  const [table, most] = [tableOf(weigher, 0), mostOf(weigher, 0)]
  const heads = Array.from({ length: 1800 }, (_, k) => table(k / 100 - 4.6, 0))
  expect([Math.max(...heads) <= most, Math.max(...heads) > most - 1.5]).toEqual([true, true])
})

test('beyond sixty speakers two at once are tried with the likeliest, and that is said', () => {
  const output = outputOf(jobOf('61 x 5 W on 70 V 500 W'))
  const ids = speakersOf(output.wiring).map(s => s.id)
  const tried = triedOn(output, [...[3, 40].flatMap(k => [reading('sound', { is: 'silent' }, ids[k]), reading('coil-dcr', { is: 'open' }, ids[k])]), ...[2, 4, 39, 41].map(k => reading('sound', { is: 'plays' }, ids[k]))])
  const ranking = drained(rankPairs(tried))
  expect(ranking.untried).toBeGreaterThan(0.01)
  expect(ranking.suspects.reduce((sum, s) => sum + s.probability, ranking.unlisted)).toBeCloseTo(1, 9)
  const both = ranking.suspects.filter(s => s.faults.length === 2).reduce((sum, s) => s.faults.every(f => f.nodeId === ids[3] || f.nodeId === ids[40])
    ? sum + s.probability
    : sum, 0)
  expect(both).toBeGreaterThan(0.5)
}, 30_000)
