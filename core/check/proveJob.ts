import { likenessOf } from '#core/quantity/same'
import { speakersOf } from '#core/job/tree'
import type { Job, Output } from '#core/job/schema'
import { ASKED_UNSAID, type Asked } from './asked'
import { gathered, lessonsOf, type Taught, type Teaches } from './lessons'
import type { Predicted } from './predict'
import { proveLine, type LineProof } from './proof'
import { METER_HZ } from './readingBands'
import { taughtBy } from './taught'

/** A line with what is foretold of it. */
export interface Foretold { output: Output, predicted: readonly Predicted[] }
type Kept = Pick<Job, 'readings' | 'repairs'> & Partial<Pick<Job, 'leavings'>>

interface Remembered {
  readings: unknown
  repairs: unknown
  leavings: unknown
  /** What is asked of it, as a text. */
  asks: string
  /** By itself, and what others learn from it. */
  alone: LineProof
  teaches: Teaches | null
  /** With what it learns from others; told by what that is. */
  says: string
  proof: LineProof
}

/**
 * Proves the lines of a job: each by itself first, then with what the readings of the whole job tell of its models. A line's proof
 * keeps its identity while neither its wiring, nor its own readings, nor what it learns changes.
 */
export function makeProver(): (job: Kept, lines: readonly Foretold[], asked?: Asked) => ReadonlyMap<string, LineProof> {
  const remembered = new WeakMap<Output, Remembered>()
  return (job, lines, asked = ASKED_UNSAID) => {
    const all = lines.map(({ output, predicted }) => {
      const [readings, repairs, leavings] = [job.readings.under(output.id), job.repairs.under(output.id), job.leavings?.under(output.id)]
      const asks = asksText(output, asked)
      const before = remembered.get(output)
      if (before && before.readings === readings && before.repairs === repairs && before.leavings === leavings && before.asks === asks) return before
      const alone = proveLine(job, output, predicted, asked)
      const now = { readings, repairs, leavings, asks, alone, teaches: taughtBy(output, alone), says: '', proof: alone }
      remembered.set(output, now)
      return now
    })
    const taught = gathered(all.flatMap(line => line.teaches ?? []))
    return new Map(lines.map(({ output, predicted }, k) => [output.id, withLessons({ job, output, predicted, asked }, all[k]!, taught)]))
  }
}

interface Proving extends Foretold { job: Kept, asked: Asked }

function withLessons({ job, output, predicted, asked }: Proving, line: Remembered, taught: Taught): LineProof {
  const lessons = lessonsOf(output, taught)
  const says = lessons ? likenessOf(frequenciesOf(line.alone).map(hz => [...lessons(hz)])) : ''
  if (says !== line.says) {
    line.says = says
    line.proof = lessons ? proveLine(job, output, predicted, asked, lessons) : line.alone
  }
  return line.proof
}

/** What a line is asked for hangs on what the job wants, on which of its speakers are heard with others, and on where they hang. */
function asksText(output: Output, { checks, together, atEars }: Asked): string {
  const heard = together === null ? '' : speakersOf(output.wiring).map(s => together.has(s.id) ? 1 : 0).join('')
  const ears = atEars === undefined || atEars.size === 0 ? '' : speakersOf(output.wiring).map(s => atEars.get(s.id) ?? '').join()
  return [checks.coils, checks.sounds, checks.polarity, checks.pairs, heard, ears].join(' ')
}

/** The tones that this line was read with, and the usual one. */
const frequenciesOf = (proof: LineProof): number[] => [...new Set([METER_HZ, ...[...proof.standing.values()].flatMap(j => j.reading.frequencyHz ?? [])])]
