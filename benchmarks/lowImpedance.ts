import { evaluateJob } from '#core/line/evaluate'
import { solveOutput } from '#core/line/facts'
import { impedanceOver, lineImpedance } from '#core/advice/low/impedance'
import { PLAYED, powerMatch } from '#core/advice/low/powerMatch'
import { asCurve } from '#core/network/element'
import { logFrequencies } from '#core/network/line'
import { clipReport } from '#core/programme/clip'
import { jobOf } from '#core/testing/jobs'
import { randomMotional } from '#core/testing/trees'
import { impedanceScales, pathOf } from '../app/drawing/impedanceChart'
import { capabilityPaths, matchScales } from '../app/drawing/matchChart'
import { findWirings } from '#core/search/wirings/finder'
import { seeded } from '#core/quantity/seeded'
import { quantile } from './timing'

const timed = (times: number, run: () => unknown): number => quantile(Array.from({ length: times }, () => {
  const from = performance.now()
  run()
  return performance.now() - from
}), 0.5)

/** Every wiring of eight speakers that are all unlike, 1,320,064 of them: the median of five. */
export function wiringsMs(): number {
  const units = Array.from({ length: 8 }, (_, k) => ({ ohm: 2 + k, count: 1, weight: 1, ratingW: null }))
  return timed(5, () => findWirings({ units, rating: { kind: 'solid-state', points: [{ loadOhm: 4, powerW: 300 }], floorOhm: 4, mode: 'single', bridgedFloorOhm: null }, isFair: false }))
}

/** One figure of an amplifier that clips. */
export const clipMs = (): number => timed(9, () => clipReport({ ratedW: 100, overdriveDb: 6, crossoverHz: 2500, material: 'open' }, seeded(1)))

/** Impedance of a box of 64 drivers at 480 frequencies: half by parameters, half by a measured curve of 120 points; laid out and solved. */
export function boxCurveMs(): number {
  const chance = seeded(5)
  const points = Array.from({ length: 120 }, (_, k): [number, number, number] => [20 * 1000 ** (k / 119), 6 + 20 * chance(), 40 * chance() - 20])
  const speakers = Array.from({ length: 64 }, (_, k) => ({
    lead: null, node: { kind: 'speaker' as const, id: `s${k}`, load: k % 2 ? randomMotional(chance) : { kind: 'curve' as const, nominalOhm: 8, reOhm: null, points } },
  }))
  const strings = Array.from({ length: 8 }, (_, k) => ({ lead: null, node: { kind: 'series' as const, id: `g${k}`, children: speakers.slice(8 * k, 8 * k + 8) } }))
  const box = { lead: null, node: { kind: 'star' as const, id: 'box', children: strings } }
  return timed(9, () => impedanceOver(box, asCurve, logFrequencies(20, 20_000, 480)))
}

/** What both charts are worked out from while a value is dragged, 16 speakers on the line: solved, matched, laid out. */
export function chartMs(): number {
  const job = jobOf('4 x (4 x 8 series) parallel on 300 W at 4, 180 W at 8')
  const line = evaluateJob(job)[0]!
  return timed(15, () => {
    const match = powerMatch(solveOutput(line.output), job.practice, job.kinds, PLAYED[0]!)!
    const scales = matchScales(match, 800, 320)
    capabilityPaths(scales, match)
    const said = lineImpedance(line.output)!
    pathOf(impedanceScales([...said.curve.ohm], 800, 300), said.curve.hz, said.curve.ohm)
  })
}
