import { expect, test } from '@jest/globals'
import { drivenInto } from '#core/amplifier/index'
import { putBefore, setThrough, unknownControl } from '#core/hands/throughs'
import { applyEdit } from '#core/job/apply'
import type { Edit } from '#core/job/edits'
import { EditRefused } from '#core/job/refusal'
import type { Job, SpeakerLoad } from '#core/job/schema'
import { speakersOf, throughsOf, withBranch } from '#core/job/tree'
import { seeded } from '#core/quantity/seeded'
import { counter, jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { labelAgainstCurve } from '#core/network/label'
import { solveOutput } from './facts'

/** The worst that hands can make of controls, against every combination of positions tried one by one; and watts against their integral. */

const POSITIONS = [0, 3, 6, 12, 30, 'off'] as const
const controlled = (job: Job, chance: () => number): Job => {
  const newId = counter('g')
  return Array.from({ length: 1 + Math.floor(3 * chance()) }).reduce<Job>((j) => {
    const ids = nodeIds(outputOf(j))
    const from = Math.floor(chance() * ids.length)
    const control = { ...unknownControl(newId()), stepsDb: [0, 3, 6, 12, 30], ratingW: 100, lineV: 20, insertionDb: chance() < 0.5 ? 0.5 : 0 }
    const put = putBefore(j, ids.slice(from, from + 1 + Math.floor(chance() * 3)), control, newId)
    return put === null || typeof put === 'string' ? j : tryEdit(j, put.edit as Edit)
  }, job)
}
/** A control behind a control is refused: then it is left out. */
function tryEdit(job: Job, edit: Edit): Job {
  try { return applyEdit(job, edit).job }
  catch (error) {
    if (error instanceof EditRefused) return job
    throw error
  }
}
/** Every job with its controls in every combination of positions. */
function everyPosition(job: Job): Job[] {
  return throughsOf(job).reduce<Job[]>((jobs, { group }) =>
    jobs.flatMap(j => POSITIONS.map((setDb) => { const edit = setThrough(j, group.id, { setDb }); return edit ? applyEdit(j, edit).job : j })), [job])
}

test('on 60 random lines no position of any control gives a speaker more, or an output a heavier load, than is said (seed 20)', () => {
  const chance = seeded(20)
  const pick = <T>(...of: T[]) => of[Math.floor(chance() * of.length)]!
  let reached = 0
  for (let round = 0; round < 60; round++) {
    const loads = Array.from({ length: 2 + Math.floor(3 * chance()) }, () => pick('8', '16', '4', '8 + 8'))
    const job = controlled(jobOf(`${loads.map(l => l.includes('+') ? `(${l})` : l).join(' || ')} on 300 W at 4, 180 W at 8, from ${pick(1, 2)}`), chance)
    const said = solveOutput(outputOf(job))
    const tried = everyPosition(job).map(j => solveOutput(outputOf(j)))
    const least = Math.min(...tried.flatMap(t => t.loadOhm ?? []))
    expect(said.upOhm).toBeCloseTo(least, 9)
    for (const [k, drop] of said.drops.entries()) {
      if (said.upDrive!.basis === 'under-floor') { expect(drop.mostW).toBeNull(); continue }
      // As it stands in a position, with the most that the output may give there.
      const gets = tried.map((t) => {
        const drive = t.loadOhm === null ? null : drivenInto(t.output, t.loadOhm)
        return drive === null || drive.basis === 'under-floor' ? 0 : (t.drops[k]!.volts! / drive.volts * drive.mostVolts) ** 2 * t.drops[k]!.powerW! / Math.max(1e-12, t.drops[k]!.volts! ** 2)
      })
      const most = Math.max(...gets)
      expect(drop.mostW!).toBeGreaterThanOrEqual(most * (1 - 1e-9))
      expect(drop.mostW!).toBeLessThanOrEqual(most * (1 + 1e-9))
      reached++
    }
  }
  expect(reached).toBeGreaterThan(60)
})

test('in a series a control that is turned down takes more of the volts to itself: 4 Ω at 6 dB down beside 16 Ω gets more than fully up', () => {
  const plain = jobOf('(4 + 16) on 200 W at 20')
  const [inner] = speakersOf(outputOf(plain).wiring)
  const put = putBefore(plain, [inner!.id], { ...unknownControl('C1'), stepsDb: [0, 6.0206] }, counter('through')) as { edit: Edit }
  const { drops, upDrive } = solveOutput(outputOf(applyEdit(plain, put.edit).job))
  // Half the volts out of four times the ohms: 16 of 32 Ω, and half of that half; by hand.
  expect(Math.sqrt(drops[0]!.mostW! * 4) / upDrive!.mostVolts).toBeCloseTo(0.25, 4)
})

test('on 40 random valve lines no position leaves a higher load than is said (seed 21)', () => {
  const chance = seeded(21)
  let finite = 0
  for (let round = 0; round < 40; round++) {
    const job = controlled(jobOf(`${chance() < 0.7 ? '8 || 16' : '8 || 16 || 16'} on valve 50 W at 4/8, tap 4`), chance)
    const { highest } = solveOutput(outputOf(job))
    const loads = everyPosition(job).map(j => solveOutput(outputOf(j)).loadOhm)
    if (loads.includes(null)) expect(highest!.ohm).toBeNull()
    else {
      finite++
      expect(highest!.ohm).toBeCloseTo(Math.max(...loads as number[]), 9)
    }
  }
  expect(finite).toBeGreaterThan(5)
})

/** Mean over equal power an octave of V²·R / |R + jX|², by 20,000 rectangles. Source: definition of real power. */
function meanW(volts: number, ohm: number, part: { farad?: number, henry?: number }): number {
  const steps = 20_000
  let sum = 0
  for (let k = 0; k < steps; k++) {
    const omega = 2 * Math.PI * 20 * 1000 ** ((k + 0.5) / steps)
    const x = part.farad ? -1 / (omega * part.farad) : omega * part.henry!
    sum += volts ** 2 * ohm / (ohm ** 2 + x ** 2) / steps
  }
  return sum
}
test.each<[string, number, { farad?: number, henry?: number }]>([
  ['8 cap 2 uF', 8, { farad: 2e-6 }], ['8 cap 4.7 uF', 8, { farad: 4.7e-6 }], ['4 cap 100 uF', 4, { farad: 1e-4 }], ['16 cap 0.5 uF', 16, { farad: 0.5e-6 }], ['8 coil 1 mH', 8, { henry: 1e-3 }], ['8 coil 5 mH', 8, { henry: 5e-3 }],
])('%s: watts are the integral over equal power an octave, 20 Hz to 20 kHz, to 0.5 %', (text, ohm, part) => {
  const { drops, drive } = solveOutput(outputOf(jobOf(`${text} on 100 W at 4`)))
  const wanted = meanW(drive!.volts, ohm, part)
  expect(Math.abs(drops[0]!.powerW! / wanted - 1)).toBeLessThan(0.005)
})
test('8 Ω behind 2 µF gets 17.57 of 150 W', () => {
  const w = meanW(Math.sqrt(1200), 8, { farad: 2e-6 })
  expect(w).toBeCloseTo(17.57, 2)
})

const flat = (ohm: number): SpeakerLoad => ({ kind: 'curve', nominalOhm: 8, reOhm: null, points: [[20, ohm, 0], [20_000, ohm, 0]] })
const from = (hz: number, ohm: number): SpeakerLoad => ({ kind: 'curve', nominalOhm: 8, reOhm: null, points: [[hz, ohm, 0], [20_000, ohm, 0]] })
const unit = (reOhm: number, nominalOhm = 8): SpeakerLoad => ({ kind: 'motional', nominalOhm, reOhm, leH: 0.0005, fsHz: 45, qms: 4.2, qes: 0.48 })
test.each<[string, SpeakerLoad, string, number | RegExp]>([
  // 0.7 and 1.3 of the label: common practice, no source; 0.8: IEC 60268-5.
  ['at its label', flat(8), 'holds', 8], ['just 0.8 of it', flat(6.4), 'holds', 8], ['below that', flat(6.39), 'dips', 8], ['just 0.7', flat(5.6), 'dips', 8], ['below that', flat(5.59), 'under', 5.59],
  ['just 1.3', flat(10.4), 'holds', 8],
  ['over that', flat(10.5), 'over', 10.5],
  ['far over', flat(100), 'over', 100],
  ['over it as far as it was measured', from(200, 100), 'holds', 8],
  ['under it as far as it was measured', from(200, 2), 'under', 2],
  ['a notch in a flat curve is a dip alone', { kind: 'curve', nominalOhm: 8, reOhm: null, points: [[20, 9, 0], [990, 9, 0], [1000, 4, 0], [1010, 9, 0], [20_000, 9, 0]] }, 'under', 8],
  ['an ordinary unit of Re 5.8', unit(5.8), 'dips', 8], ['of Re 6.6', unit(6.6), 'holds', 8], ['a unit of 16 Ω under a label of 8: the least that its lowest point bears', unit(13), 'over', /^16\./],
])('label 8, %s', (_, load, says, ohm) => {
  const against = labelAgainstCurve(load as never)!
  expect(against.says).toBe(says)
  if (typeof ohm === 'number') expect(against.judgedOhm).toBeCloseTo(ohm, 6)
  else expect(String(against.judgedOhm)).toMatch(ohm)
})

test('what a curve says of its label reaches watts: 550 W at 2 Ω into a unit labelled 8', () => {
  const job = jobOf('8 on 550 W at 2')
  const [id] = nodeIds(outputOf(job))
  const { amplifierW, loadOhm } = solveOutput(outputOf(withBranch(job, id!, b => ({ ...b, node: { ...b.node, load: flat(2) } as typeof b.node }))))
  expect([loadOhm, amplifierW]).toEqual([expect.closeTo(2, 9), expect.closeTo(550, 6)])
})
