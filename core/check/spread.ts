import { keyOfModel, type Lessons } from './lessons'
import { bandAt, IMPEDANCE_BANDS, solvedAsRead } from './readingBands'
import { isReactive } from '#core/network/element'
import type { LineSolution } from '#core/network/line'
import { singleLoads } from '#core/network/tree'
import type { Output } from '#core/job/schema'
import { speakersOf, throughsIn } from '#core/job/tree'

/**
 * How far the impedance of a sound line may lie from what is computed: one answer, for the verdict and for the tracer. Logarithms of ratios, two
 * sigma to each side. `factor` is where its middle lies, times what is computed: 1 until something was read of units of that model.
 */
/** `own`: the part that units of one model do not share. */
export interface LineSpread { factor: number, low: number, high: number, own: number, learnedFrom: string[] }

/** A meter reads within 2 % and 0.1 Ω, however many units average out behind it: one sigma, and at the least. Common practice, no source. */
const METER = 0.02
const METER_OHM = 0.1

/**
 * Each drop counts by its part of the power, which is how far the head follows it (Tellegen). What is each drop's own averages out over many; what units of
 * one model share does not, and adds up for all that are of it.
 */
export function lineSpread(output: Output, solved: LineSolution, frequencyHz: number, lessons: Lessons): LineSpread {
  const watts = new Map(solved.drops.map(d => [d.id, d.powerW]))
  const follows = followsLoads(output, solved, frequencyHz)
  let own = (2 * METER) ** 2 + (solved.head.state === 'finite' ? METER_OHM / solved.head.ohm : 0) ** 2
  let centre = 0
  const shared = new Map<string, { low: number, high: number }>()
  const learnedFrom = new Set<string>()
  for (const speaker of speakersOf(output.wiring)) {
    const part = solved.headPowerW > 0 ? follows * (watts.get(speaker.id) ?? 0) / solved.headPowerW : 0
    const key = keyOfModel(output.id, speaker)
    const lesson = lessons.get(key)
    if (lesson && part > 0) learnedFrom.add(lesson.from)
    const singles = singleLoads(speaker.load)
    for (const single of singles) {
      const band = IMPEDANCE_BANDS[bandAt(single, frequencyHz)]
      const share = part / singles.length
      const of = lesson ?? { centre: 0, low: -Math.log(band.low), high: Math.log(band.high) }
      own += (share * Math.log(1 + band.own)) ** 2
      centre += share * of.centre
      const sum = shared.get(key) ?? { low: 0, high: 0 }
      shared.set(key, { low: sum.low + share * of.low, high: sum.high + share * of.high })
    }
  }
  const models = [...shared.values()]
  return {
    factor: Math.exp(centre), own: Math.sqrt(own), learnedFrom: [...learnedFrom],
    low: Math.hypot(Math.sqrt(own), ...models.map(m => m.low)), high: Math.hypot(Math.sqrt(own), ...models.map(m => m.high)),
  }
}

/** How far the head's ohms follow the loads': wholly, but where capacitors, coils in the way hold part of them. */
function followsLoads(output: Output, { head }: LineSolution, frequencyHz: number): number {
  if (head.state !== 'finite' || !throughsIn(output.wiring).some(({ through }) => isReactive(through))) return 1
  const more = solvedAsRead(output.wiring, frequencyHz, MORE).head
  return more.state === 'finite' ? Math.log(more.ohm / head.ohm) / Math.log(MORE) : 1
}
const MORE = 1.05
