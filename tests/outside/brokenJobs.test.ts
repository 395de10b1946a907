import { runs } from '#core/testing/runs'
import { expect, test } from '@jest/globals'
import { proveLine } from '#core/check/proof'
import { outputsOf } from '#core/job/tree'
import { evaluateJob } from '#core/line/evaluate'
import { stateSentence } from '#core/line/jobState'
import { jobState } from '#core/line/lineState'
import { reportOf } from '#core/line/report'
import { rankSuspects } from '#core/trace/pairs'
import { jobOf } from '#core/testing/jobs'
import { seeded, type Chance } from '#core/testing/trees'
import { toDocument } from '#core/job/document'
import { JobError } from '#core/job/jobError'
import { readJob } from '#core/job/readJob'
import { Records } from '#core/job/records'

/** Every place in a document, as a path of keys. */
function placesOf(value: unknown, path: (string | number)[] = []): (string | number)[][] {
  if (value === null || typeof value !== 'object') return [path]
  return [path, ...Object.entries(value).flatMap(([key, inner]) => placesOf(inner, [...path, Array.isArray(value) ? Number(key) : key]))]
}

const ODD: unknown[] = [null, 0, -1, 1e308, 1e-300, '', 'x', '\u0000', [], {}, true, 0.1, 3, 'open', { is: 'open' }, 'motional']

function spoiled(document: unknown, chance: Chance): unknown {
  const copy = JSON.parse(JSON.stringify(document)) as Record<string, unknown>
  for (let k = 1 + Math.floor(chance() * 2); k > 0; k--) {
    const places = placesOf(copy).filter(p => p.length > 0)
    const path = places[Math.floor(chance() * places.length)]!
    const holder = path.slice(0, -1).reduce<any>((at, key) => at?.[key], copy)
    if (holder === null || typeof holder !== 'object') continue
    const key = path.at(-1)!
    if (chance() < 0.25 && !Array.isArray(holder)) Reflect.deleteProperty(holder, key)
    else holder[key] = ODD[Math.floor(chance() * ODD.length)]
  }
  return copy
}

test('spoiled documents are refused with a place, or taken and computed through without NaN, infinity or a crash', () => {
  const reading = { id: 'r1', at: '2026-05-04T09:30:00Z', kind: 'line-impedance' as const, outputId: 'out1', nodeId: null, value: { is: 'ohm' as const, ohm: 90 }, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false }
  const good = toDocument({ ...jobOf('3 x 10 W on 70 V 100 W', '(8 + 8) || 4 on 100 W at 4, from 2'), readings: Records.of([reading]) })
  let taken = 0
  for (let seed = 1; seed <= runs(1000); seed++) {
    const data = spoiled(good, seeded(seed))
    try {
      const job = readJob(data)
      taken++
      const report = JSON.stringify(reportOf(job))
      // JSON writes both NaN and infinity as null where a number stood: look at the numbers themselves.
      const numbers = evaluateJob(job).flatMap(l => [l.lostShare, ...l.drops.flatMap(d => [d.share, d.lossDb, d.ampsShare, d.volts ?? 0, d.powerW ?? 0])])
      expect([seed, numbers.every(Number.isFinite), report.includes('NaN')]).toEqual([seed, true, false])
      expect(stateSentence(jobState(job, evaluateJob(job))).length).toBeGreaterThan(5)
      for (const output of outputsOf(job)) {
        const { suspects, unlisted } = rankSuspects(output, proveLine(job, output))
        expect(suspects.reduce((sum, s) => sum + s.probability, unlisted)).toBeCloseTo(1, 6)
      }
    }
    catch (error) {
      if (!(error instanceof JobError)) throw new Error(`seed ${seed}: ${String(error)}`)
      expect(error.message.length).toBeGreaterThan(8)
    }
  }
  expect(taken).toBeGreaterThan(runs(1000) / 40)
})
