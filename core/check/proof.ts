import type { Job, Reading, ReadingKind, Repair, Output } from '#core/job/schema'
import { factsOf, LINE_CHECKS, SPEAKER_CHECKS } from '#core/job/sections/readings/kinds'
import { speakersOf } from '#core/job/tree'
import { onceEach } from '#core/quantity/once'
import { NO_LESSONS, type Lessons } from './lessons'
import { predictLine, predictLineImpedance, type Predicted } from './predict'
import { METER_HZ } from './readingBands'
import { proves } from './proves'
import { isWrong, judge, type Verdict } from './verdict'

export interface JudgedReading {
  reading: Reading
  verdict: Verdict
  predicted: Predicted | null
  /** A repair on this line is later than the reading: it no longer describes what is there. */
  stale: boolean
}

/** What a reading of this line is judged by. */
export interface Judges {
  /** Of a place and kind, with a tone of so many hertz; null: at the usual one. */
  foretold: (kind: ReadingKind, nodeId: string | null, frequencyHz?: number | null) => Predicted | null
  /** What has been learned of the models of this line, at a frequency. */
  lessons: (frequencyHz: number) => Lessons
}

export interface LineProof extends Judges {
  /** The reading that stands at each place and kind, by `checkKey`. */
  standing: ReadonlyMap<string, JudgedReading>
  repairs: Repair[]
  /** Repairs with no good reading after them yet. */
  unproved: Repair[]
  /** Places to prove, proved, and read wrong. */
  total: number
  proved: number
  wrong: number
}

export function checkKey(kind: ReadingKind, nodeId: string | null): string {
  return `${kind} ${nodeId ?? ''}`
}

/** Readings of a place, newest first, withdrawn and superseded ones included. */
export function historyOf(job: Job, outputId: string, kind: ReadingKind, nodeId: string | null): Reading[] {
  return job.readings.ofLine(outputId).filter(r => r.kind === kind && r.nodeId === nodeId).reverse()
}

/** Predictions come with the line's evaluation where there is one; a line's impedance at another tone, or with lessons, is foretold when it is asked for. */
export function judgesOf(output: Output, predicted: readonly Predicted[], lessons: Judges['lessons'] = () => NO_LESSONS): Judges {
  const usual = new Map(predicted.map(p => [checkKey(p.kind, p.nodeId), p]))
  const made = onceEach((hz: number) => predictLineImpedance(output, hz, lessons(hz)))
  return {
    lessons,
    foretold: (kind, nodeId, frequencyHz = null) => {
      const plan = usual.get(checkKey(kind, nodeId)) ?? null
      if (plan === null || plan.frequencyHz === null) return plan
      const hz = frequencyHz ?? METER_HZ
      return hz === plan.frequencyHz && lessons(hz).size === 0 ? plan : made(hz)
    },
  }
}

/**
 * What has been proved on a line. Of several readings at one place the last taken stands, unless withdrawn or superseded.
 * @param lessons what has been learned of its models elsewhere; without them the line is judged by itself
 */
export function proveLine(
  job: Pick<Job, 'readings' | 'repairs'>, output: Output, predicted: readonly Predicted[] = predictLine(output), lessons?: Judges['lessons'],
): LineProof {
  const judges = judgesOf(output, predicted, lessons)
  const taken = job.readings.ofLine(output.id)
  const superseded = new Set(taken.flatMap(r => r.withdrawn || r.supersedes === null ? [] : [r.supersedes]))
  const readings = taken.filter(r => !r.withdrawn && !superseded.has(r.id))
  const repairs = job.repairs.ofLine(output.id).filter(r => !r.withdrawn)
  const lastRepairAt = repairs.reduce((last, r) => r.at > last ? r.at : last, '')

  const standing = new Map<string, JudgedReading>()
  for (const reading of readings) {
    const key = checkKey(reading.kind, reading.nodeId)
    const before = standing.get(key)
    if (before && before.reading.at > reading.at) continue
    const plan = judges.foretold(reading.kind, reading.nodeId, reading.frequencyHz)
    standing.set(key, { reading, predicted: plan, verdict: judge(reading.value, plan), stale: reading.at < lastRepairAt })
  }

  const keys = [
    ...LINE_CHECKS.map(kind => checkKey(kind, null)),
    ...speakersOf(output.wiring).flatMap(s => SPEAKER_CHECKS.map(kind => checkKey(kind, s.id))),
  ]
  const judged = keys.map(key => standing.get(key))
  return {
    ...judges,
    standing,
    repairs,
    unproved: repairs.filter(repair => !isProved(output, repair, standing, readings, judges)),
    total: keys.length,
    proved: judged.filter(j => j?.verdict.grade === 'good').length,
    wrong: judged.filter(j => j && isWrong(j.verdict)).length,
  }
}

/**
 * Whether a repair is proved: by a good reading after it that could have refuted it, or that took the place of one which read wrong before; and not while
 * a reading of its own place still stands that read wrong.
 */
function isProved(
  output: Output, repair: Repair, standing: LineProof['standing'], readings: readonly Reading[], { foretold }: Judges,
): boolean {
  const all = [...standing.values()]
  if (all.some(j => j.reading.nodeId === repair.nodeId && repair.nodeId !== null && isWrong(j.verdict))) return false
  return all.some((j) => {
    const { reading, verdict } = j
    if (reading.at < repair.at || verdict.grade !== 'good') return false
    const before = readings.filter(r => r.kind === reading.kind && r.nodeId === reading.nodeId && r.at < repair.at)
    const wasWrong = (r: Reading) => isWrong(judge(r.value, foretold(r.kind, r.nodeId, r.frequencyHz)))
    const tookItsPlace = (reading.nodeId === null || reading.nodeId === repair.nodeId) && before.some(wasWrong)
    return tookItsPlace || proves(output, repair, j)
  })
}

/** Where to read again: the first reading of a line that stands and is wrong, all that is read with the amplifier off first; null when none is. */
export function firstWrong(proof: LineProof): JudgedReading | null {
  const wrong = [...proof.standing.values()].filter(judged => isWrong(judged.verdict))
  return wrong.find(judged => factsOf(judged.reading.kind).amplifier === 'off') ?? wrong[0] ?? null
}
