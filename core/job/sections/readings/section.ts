import { JobError } from '../../jobError'
import { refuse } from '../../refusal'
import type { Job, JobDocument } from '../../schema'
import { findOutput, findPlace, findSpeaker } from '../../tree'
import { growingRules, placedBy } from '../growing'
import { valid } from '../guard'
import { none, type Section } from '../section'
import { factsOf, type ReadingKind } from './kinds'
import { checkValue, isSamePlace, type Reading } from './schema'
import { readings as shape } from './shape'

/** What is read at a place is read at a speaker; looked at is a control, too. */
const [atSpeaker, anywhere] = [placedBy(findSpeaker), placedBy(findPlace)]
const isPlaced: typeof atSpeaker = (job, place: { outputId: string, nodeId: string | null, kind?: string }) =>
  place.kind !== undefined && factsOf(place.kind as ReadingKind).at === 'anywhere' ? anywhere(job, place) : atSpeaker(job, place)

const { add, withdraw } = growingRules({
  shape,
  entryOf: (edit: { kind: 'reading.add', reading: Reading }) => edit.reading,
  withdrawal: (readingId, withdrawn) => ({ kind: 'reading.withdraw' as const, readingId, withdrawn }),
  idOf: ({ readingId, withdrawn }) => ({ id: readingId, withdrawn }),
  fits: (job, reading, isNew) => {
    if (isNew) {
      if (!findOutput(job, reading.outputId)) refuse({ code: 'not-there', what: 'output', id: reading.outputId })
      if (!isPlaced(job, reading)) refuse({ code: 'not-there', what: 'speaker', id: reading.nodeId! })
      valid(() => checkValue(reading, 'reading'))
    }
    supersedesOnce(job, reading)
  },
  words: { add: 'reading', withdraw: 'reading taken back' },
})

export const readings: Section<'readings'> = {
  shape,
  edits: { 'reading.add': add, 'reading.withdraw': withdraw },
  fields: {},
  lists: { readings: (_, number) => `reading no. ${number}` },
  has: (job, id) => job.readings.get(id) !== undefined,
  ids: ({ readings }) => readings.map((reading, k) => [reading.id, `readings[${k}].id`] as const),
  names: none,
  isPlaced,
  check: checkOrder,
}

/** A reading corrects one of its own place and kind, and each is corrected once: the next correction corrects the correction. */
function supersedesOnce(job: Job, reading: Reading): void {
  if (reading.supersedes === null || reading.withdrawn) return
  const earlier = job.readings.get(reading.supersedes) ?? refuse({ code: 'not-there', what: 'reading', id: reading.supersedes })
  if (!isSamePlace(earlier, reading)) refuse({ code: 'not-valid', message: 'A reading corrects an earlier one of the same place and kind.' })
  const taken = job.readings.under(reading.outputId).some(r => r.id !== reading.id && !r.withdrawn && r.supersedes === reading.supersedes)
  if (taken) refuse({ code: 'corrected-already', id: reading.supersedes })
}

/** Of a whole document: values that go with their kind, and corrections in order. */
function checkOrder({ readings }: JobDocument): void {
  const earlier = new Map<string, Reading>()
  const corrected = new Set<string>()
  for (const [k, reading] of readings.entries()) {
    checkValue(reading, `readings[${k}]`)
    if (reading.supersedes !== null) checkSupersedes(reading, earlier, corrected, `readings[${k}].supersedes`)
    earlier.set(reading.id, reading)
  }
}

/** A correction names an earlier reading of its own place and kind, and none names one that is corrected already: no ring, no fork. */
function checkSupersedes(reading: Reading, earlier: ReadonlyMap<string, Reading>, corrected: Set<string>, path: string): void {
  const { supersedes } = reading
  const before = earlier.get(supersedes!)
  if (!before) throw new JobError(`The reading that it supersedes, “${supersedes}”, does not stand before it.`, path)
  if (!isSamePlace(before, reading)) throw new JobError(`The reading that it supersedes, “${supersedes}”, is of another place or kind.`, path)
  if (reading.withdrawn) return
  if (corrected.has(supersedes!)) throw new JobError(`The reading “${supersedes}” is superseded already by another.`, path)
  corrected.add(supersedes!)
}
