import type { JudgedReading, LineProof } from '#core/check/proof'
import { METER_HZ } from '#core/check/readingBands'
import type { Lessons } from '#core/check/lessons'
import type { Output, Reading, Repair } from '#core/job/schema'
import { stillTelling } from './earlier'
import { justMended } from './prior'

/** What a trace goes by: plain data, so that a worker can be given it. */
export interface Given {
  output: Output
  /** The other lines of its job: two may be exchanged. */
  others: readonly Output[]
  /** The readings that still describe the line, of those before a repair what it had no part in. */
  readings: readonly JudgedReading[]
  /** Every reading that does, oldest first: of several days the spread is the evidence. */
  history: readonly Reading[]
  /** What was put right just before what is read now. */
  mended: readonly Pick<Repair, 'fault' | 'nodeId'>[]
  /** What was learned of its models on other lines, by the tone of a reading. */
  lessons: ReadonlyMap<number, Lessons>
}

export function givenBy(output: Output, proof: LineProof, others: readonly Output[] = []): Given {
  const { standing: readings, history } = stillTelling(output, proof)
  const tones = new Set([METER_HZ, ...readings.flatMap(j => j.reading.frequencyHz ?? [])])
  return { output, others: others.filter(o => o.id !== output.id), readings, history, mended: justMended(proof), lessons: new Map([...tones].map(hz => [hz,
    proof.lessons(hz)])) }
}
