import { describe, expect, test } from '@jest/globals'
import { proveLine } from '#core/check/proof'
import { Records } from '#core/job/records'
import type { FaultKind, Reading, ReadingValue, Repair } from '#core/job/schema'
import { speakersOf } from '#core/job/tree'
import { drained } from '#core/quantity/steps'
import { cabled, jobOf, outputOf } from '#core/testing/jobs'
import { isWrongNow, stillTelling } from './earlier'
import { givenBy } from './given'
import { nextTests } from './next/best'
import { AT_THE_RACK } from './next/minutes'
import { rankPairs, rankSuspects } from './pairs'
import { trySingles } from './rank'

const output = outputOf(cabled(jobOf('6 x 10 W on 70 V'), { cable: { awg: 16 }, lengthM: 9 }))
const ids = speakersOf(output.wiring).map(s => s.id)
const at = (k: number | null) => k === null ? null : ids[k]!
const base = { outputId: 'out1', note: '', who: null }
const made = (minute: number, kind: Reading['kind'], value: ReadingValue, k: number | null): Reading =>
  ({ ...base, id: `r${minute} ${kind} ${k}`, at: `2026-05-04T09:0${minute}:00Z`, kind, nodeId: at(k), value, frequencyHz: null, supersedes: null, taken: null, withdrawn: false })
const repaired = (minute: number, fault: FaultKind, k: number | null, withdrawn = false): Repair =>
  ({ ...base, id: `p${minute}`, at: `2026-05-04T09:0${minute}:30Z`, nodeId: at(k), fault, withdrawn })
const proofOf = (readings: readonly Reading[], repairs: readonly Repair[]) =>
  proveLine({ readings: Records.of(readings), repairs: Records.of(repairs) }, output)

const OHM: ReadingValue = { is: 'ohm', ohm: 90 }
const PLAYS: ReadingValue = { is: 'plays' }
const BESIDE = (k: number): ReadingValue => ({ is: 'alike', besideId: ids[k]! })
const TURNED = { is: 'right-way', how: 'pulse', against: null } satisfies ReadingValue

describe('what was read before a repair, and whether it still tells', () => {
  test.each<[string, FaultKind, number | null, Reading['kind'], ReadingValue, number | null, boolean]>([
    ['ears elsewhere', 'coil-open', 2, 'sound', PLAYS, 4, true], ['ears at it', 'coil-open', 2, 'sound', PLAYS, 2, false],
    ['ears elsewhere, of what only rubs', 'rubbing', 2, 'sound', PLAYS, 3, true], ['ears at what only rubs', 'rubbing', 2, 'sound', PLAYS, 2, false],
    ['ears before a break', 'break-in-reach', 3, 'sound', PLAYS, 2, true], ['ears behind it', 'break-in-reach', 3, 'sound', { is: 'silent' }, 4, false],
    ['ears where the amplifier cut out', 'short-at-drop', 3, 'sound', { is: 'silent' }, 0, false],
    ['silence where it may have', 'wrong-tap', 3, 'sound', { is: 'silent' }, 0, false], ['what plays there', 'wrong-tap', 3, 'sound', PLAYS, 0, true],
    ['ears where the amplifier was low', 'amplifier-low', null, 'sound', { is: 'quiet' }, 0, false],
    ['two that are beside each other, elsewhere', 'coil-open', 2, 'beside', BESIDE(5), 4, true], ['one beside it', 'coil-open', 2, 'beside', BESIDE(2), 3, false],
    ['a level elsewhere', 'wrong-tap', 2, 'level', { is: 'level', db: 80, weighting: 'A', signal: 'pink-noise', headV: null }, 4, true],
    ['which way round, elsewhere', 'turned-round', 2, 'polarity-heard', TURNED, 4, true], ['which way round, at it', 'turned-round', 2, 'polarity-heard', TURNED, 2, false],
    ['which way round, not told where the amplifier may have cut out', 'wrong-tap', 3, 'polarity-heard', { ...TURNED, is: 'cannot-tell' }, 0, false],
    ['which way round behind a crossed pair', 'pair-crossed', 2, 'polarity-heard', TURNED, 4, false], ['and before it', 'pair-crossed', 2, 'polarity-heard', TURNED, 1, true],
    ['a coil elsewhere', 'short-at-drop', 2, 'coil-dcr', { is: 'ohm', ohm: 6 }, 4, true], ['its coil', 'coil-open', 2, 'coil-dcr', { is: 'open' }, 2, false],
    ['a dial elsewhere', 'wrong-tap', 2, 'tap-found', { is: 'tap', tapW: 10, ratedV: 70.71 }, 4, true], ['its dial', 'wrong-tap', 2, 'tap-found', { is: 'tap', tapW: 5, ratedV: 70.71 }, 2, false],
    ['a dial where all stood on the other scale', 'taps-on-other-scale', null, 'tap-found', { is: 'tap', tapW: 10, ratedV: 100 }, 4, false],
    ['a dial where the amplifier was low', 'amplifier-low', null, 'tap-found', { is: 'tap', tapW: 10, ratedV: 70.71 }, 4, true],
    ['what was looked at elsewhere', 'coil-open', 2, 'looked', { is: 'as-it-should' }, 4, true], ['the rack', 'coil-open', 2, 'looked', { is: 'as-it-should' }, null, false],
    ['one of two that changed places', 'coil-open', 2, 'swapped', { is: 'stays', withId: ids[2]! }, 3, false],
    ['from a place outward, behind it', 'coil-open', 2, 'outward-impedance', OHM, 4, true], ['from a place outward, before it', 'coil-open', 2, 'outward-impedance', OHM, 1, false],
    ['the head', 'coil-open', 2, 'line-impedance', OHM, null, false], ['a leg to earth', 'leg-earth', null, 'leg-earth', { is: 'open' }, null, false],
    ['anything, where nobody can say what it was', 'something-else', 2, 'sound', PLAYS, 4, false],
  ])('%s', (_, fault, k, kind, value, place, tells) => {
    const reading = made(1, kind, value, place)
    const telling = (repairs: Repair[]) => stillTelling(output, proofOf([reading], repairs))
    expect(telling([repaired(2, fault, k)])).toMatchObject({ standing: tells ? [{ reading, stale: true }] : [], history: tells ? [reading] : [] })
    // Read after it, or the repair taken back: it tells.
    for (const repairs of [[repaired(0, fault, k)], [repaired(2, fault, k, true)]]) expect(telling(repairs))
      .toMatchObject({ standing: [{ reading, stale: false }], history: [reading] })
  })
})

test('of two that were exchanged both dials are read anew, and no third', () => {
  const mixed = outputOf(cabled(jobOf('3 x 10 W + 3 x 5 W on 70 V'), { cable: { awg: 16 }, lengthM: 9 }))
  const places = speakersOf(mixed.wiring).map(s => s.id)
  const dials = [1, 2, 3].map(k => ({ ...made(1, 'tap-found', { is: 'tap', tapW: 5, ratedV: 70.71 }, null), id: `d${k}`, nodeId: places[k]! }))
  const proof = proveLine({ readings: Records.of(dials), repairs: Records.of([{ ...repaired(2, 'drops-exchanged', null), nodeId: places[2]! }]) }, mixed)
  expect(stillTelling(mixed, proof).history.map(r => r.id)).toEqual(['d1'])
})

test('of several repairs each may have had a part in it; a reading after all of them stands in its place', () => {
  const before = made(1, 'sound', { is: 'silent' }, 4)
  const two = [repaired(2, 'coil-open', 2), repaired(3, 'break-in-reach', 3)]
  expect(stillTelling(output, proofOf([before], two)).standing).toEqual([])
  const after = made(4, 'sound', PLAYS, 4)
  const telling = stillTelling(output, proofOf([before, after], two.slice(0, 1)))
  expect([telling.standing.map(j => j.reading.id), telling.history.map(r => r.id)]).toEqual([[after.id], [before.id, after.id]])
})

test('two were silent and one is put right: the other is what the line is traced for, without another walk', () => {
  const walk = ids.map((_, k) => made(1, 'sound', k === 1 || k === 4 ? { is: 'silent' } : PLAYS, k))
  const proof = proofOf([...walk, made(3, 'line-impedance', { is: 'ohm', ohm: 98 }, null)], [repaired(2, 'coil-open', 1)])
  expect(isWrongNow(output, proof)).toBe(true)
  const given = givenBy(output, proof)
  const tried = drained(trySingles(given))
  const ranking = drained(rankPairs(tried))
  const at4 = ranking.suspects.reduce((sum, s) => s.faults.some(f => f.nodeId === ids[4]) ? sum + s.probability : sum, 0)
  const at1 = ranking.suspects.reduce((sum, s) => s.faults.some(f => f.nodeId === ids[1]) ? sum + s.probability : sum, 0)
  expect([at4 > 0.75, at1 < 0.05]).toEqual([true, true])
  expect(nextTests(tried, ranking, { standing: AT_THE_RACK, mayBeOn: true }, given.readings).tests.map(t => t.kind)).not.toContain('walk')
  // With the other put right, too, nothing that tells reads wrong any more.
  const done = proofOf([...walk, made(3, 'line-impedance', { is: 'ohm', ohm: 83 }, null)], [repaired(2, 'coil-open', 1), repaired(2, 'coil-open', 4)])
  expect([isWrongNow(output, done), rankSuspects(output, done).suspects[0]!.faults]).toEqual([false, []])
})

test('what played before a break was mended does not play now, where the line behind it is a short: what was heard tells nothing of the line that is there now', () => {
  const walk = ids.map((_, k) => made(1, 'sound', k < 3 ? PLAYS : { is: 'silent' }, k))
  const mended = [repaired(2, 'break-in-reach', 3)]
  const after = (ohm: number) => proofOf([...walk, made(3, 'line-impedance', { is: 'ohm', ohm }, null)], mended)
  const heardOf = (ohm: number) => stillTelling(output, after(ohm)).standing.flatMap(j => j.reading.kind === 'sound' ? [j.reading.nodeId] : [])
  // 83 Ω are planned: a short hangs behind the break, or it is the line as it was.
  expect([heardOf(2.4), heardOf(30), heardOf(60), heardOf(83)]).toEqual([[], [], ids.slice(0, 3), ids.slice(0, 3)])
  const shorts = rankSuspects(output, after(0.95)).suspects.reduce((sum, { faults, probability }) => faults.some(f => f.kind.startsWith('short')) ? sum + probability : sum, 0)
  expect(shorts).toBeGreaterThan(0.7)
})
