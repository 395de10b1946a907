import type { Job, Leaving, Reading, ReadingKind, Repair, Output } from '#core/job/schema'
import { factsOf } from '#core/job/sections/readings/kinds'
import { readingsKept } from '#core/job/sections/readings/superseded'
import { onceEach } from '#core/quantity/once'
import { asksOf, ASKED_UNSAID, type Ask, type Asked } from './asked'
import { predictBare } from './barePairs'
import { predictBeyond } from './outward'
import { NO_LESSONS, type Lessons } from './lessons'
import { levelsOn } from './levels'
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
  /** Found so and left, with the reason, since it was read; null where nobody decided that. */
  left: Leaving | null
}

/** What a reading of this line is judged by. */
export interface Judges {
  /** Of a place and kind, with a tone of so many hertz; null: at the usual one. */
  foretold: (kind: ReadingKind, nodeId: string | null, frequencyHz?: number | null) => Predicted | null
  /** What has been learned of the models of this line, at a frequency. */
  lessons: (frequencyHz: number) => Lessons
}

export interface LineProof extends Judges {
  /** What a reading of this line is held against: as foretold, and what else was read where it is held against that. */
  planFor: (reading: Reading) => Predicted | null
  /** The reading that stands at each place and kind, by `checkKey`. */
  standing: ReadonlyMap<string, JudgedReading>
  /** All that was read of the line, before its repairs too, oldest first. */
  history: readonly Reading[]
  repairs: Repair[]
  /** Repairs with no good reading after them yet. */
  unproved: Repair[]
  /** Every place to prove. */
  asks: Ask[]
  /** The same by speaker; null is the head. */
  asksAt: ReadonlyMap<string | null, Ask[]>
  /** How many they are; proved, or read wrong and left so with a reason; of these the left ones; read wrong and not left. */
  total: number
  proved: number
  left: number
  wrong: number
}

export function checkKey(kind: ReadingKind, nodeId: string | null): string {
  return `${kind} ${nodeId ?? ''}`
}

/** Readings of a place, newest first, withdrawn and superseded ones included. */
export function historyOf(job: Job, outputId: string, kind: ReadingKind, nodeId: string | null): Reading[] {
  return job.readings.under(outputId).filter(r => r.kind === kind && r.nodeId === nodeId).reverse()
}

/** Predictions come with the line's evaluation where there is one; a line's impedance at another tone, or with lessons, is foretold when it is asked for. */
export function judgesOf(output: Output, predicted: readonly Predicted[], lessons: Judges['lessons'] = () => NO_LESSONS): Judges {
  const usual = new Map(predicted.map(p => [checkKey(p.kind, p.nodeId), p]))
  const made = onceEach((hz: number) => predictLineImpedance(output, hz, lessons(hz)))
  return {
    lessons,
    foretold: (kind, nodeId, frequencyHz = null) => {
      const plan = usual.get(checkKey(kind, nodeId)) ?? predictBare(output, kind, nodeId)
        ?? predictBeyond(output, kind, nodeId, frequencyHz ?? METER_HZ, lessons)
      if (plan === null || plan.frequencyHz === null || kind !== 'line-impedance') return plan
      const hz = frequencyHz ?? METER_HZ
      return hz === plan.frequencyHz && lessons(hz).size === 0 ? plan : made(hz)
    },
  }
}

/**
 * What has been proved on a line. Of several readings at one place the last taken stands, unless withdrawn or superseded.
 * @param asked what the job wants to be read; without it, what a new one does
 * @param lessons what has been learned of its models elsewhere; without them the line is judged by itself
 */
export function proveLine(
  job: Pick<Job, 'readings' | 'repairs'> & Partial<Pick<Job, 'leavings'>>, output: Output, predicted: readonly Predicted[] = predictLine(output), asked: Asked = ASKED_UNSAID,
  lessons?: Judges['lessons'],
): LineProof {
  const judges = judgesOf(output, predicted, lessons)
  const readings = readingsKept(job.readings.under(output.id))
  const repairs = job.repairs.under(output.id).filter(r => !r.withdrawn)
  const leavings = [...job.leavings?.under(output.id) ?? []].filter(l => !l.withdrawn)
  const lastRepairAt = repairs.reduce((last, r) => r.at > last ? r.at : last, '')

  const levels = readings.some(r => r.kind === 'level') ? levelsOn(output, readings, asked.atEars) : null
  const planFor = (reading: Reading): Predicted | null => {
    const plan = judges.foretold(reading.kind, reading.nodeId, reading.frequencyHz)
    return plan && levels && reading.kind === 'level' ? { ...plan, level: levels(reading) } : plan
  }

  const standing = new Map<string, JudgedReading>()
  for (const reading of readings) {
    const key = checkKey(reading.kind, reading.nodeId)
    const before = standing.get(key)
    if (before && before.reading.at > reading.at) continue
    const plan = planFor(reading)
    standing.set(key, { reading, predicted: plan, verdict: judge(reading.value, plan), stale: reading.at < lastRepairAt, left: leftSince(leavings, reading) })
  }

  const asks = asksOf(output, asked)
  const states = asks.map(ask => stateOf(standing, ask))
  const count = (state: AskState) => states.filter(s => s === state).length
  return {
    ...judges,
    planFor,
    standing,
    history: readings,
    repairs,
    unproved: repairs.filter(repair => !isProved(output, repair, standing, readings, judges)),
    asks,
    asksAt: byPlace(asks),
    total: asks.length,
    proved: count('good') + count('left'),
    left: count('left'),
    wrong: [...standing.values()].filter(isBad).length,
  }
}

function byPlace(asks: readonly Ask[]): Map<string | null, Ask[]> {
  const at = new Map<string | null, Ask[]>()
  for (const ask of asks) {
    const id = ask.speaker?.id ?? null
    const there = at.get(id)
    if (there) there.push(ask)
    else at.set(id, [ask])
  }
  return at
}

/** What is known of a place to prove: as it should be; wrong; wrong, and left so; read, but it proves nothing; not read. */
export type AskState = 'good' | 'wrong' | 'left' | 'read' | 'none'

export function stateOf(standing: LineProof['standing'], { kinds, speaker }: Ask): AskState {
  const read = kinds.flatMap(kind => standing.get(checkKey(kind, speaker?.id ?? null)) ?? [])
  if (read.some(isBad)) return 'wrong'
  if (read.some(j => j.verdict.grade === 'good')) return 'good'
  if (read.some(j => j.left)) return 'left'
  return read.length > 0 ? 'read' : 'none'
}

/** Reads wrong, and nobody has decided to leave it so. */
export function isBad({ verdict, left }: JudgedReading): boolean {
  return isWrong(verdict) && left === null
}

const leftSince = (leavings: readonly Leaving[], { kind, nodeId, at }: Reading): Leaving | null =>
  leavings.find(l => l.nodeId === nodeId && l.kind === kind && l.at >= at) ?? null

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
  const wrong = [...proof.standing.values()].filter(isBad)
  return wrong.find(judged => factsOf(judged.reading.kind).amplifier === 'off') ?? wrong[0] ?? null
}
