import type { z } from 'zod'
import { fromDocument } from './document'
import { JobError } from './jobError'
import { placeWords } from './placeWords'
import { jobSchema, type Job, type JobDocument } from './schema'
import { checkValue, isSamePlace, type Reading } from './sections/readings/schema'
import { checkWiring } from './sections/wiring/check'
import { DEEPEST } from './sections/wiring/schema'
import { findOutput, findPlace, findSpeaker, wiringIds } from './tree'

/** The first complaint of Zod as one sentence with its place: in the words of the trade where the document is given, else "amplifiers[0].name". */
export function complaintOf(error: z.ZodError, document?: unknown): { message: string, path: string } {
  const issue = deepest(error.issues[0]!)
  const path = issue.path.map(p => typeof p === 'number' ? `[${p}]` : `.${String(p)}`).join('').replace(/^\./, '')
  const place = document === undefined ? path : placeWords(document, issue.path)
  return { path, message: `${place || 'The document'}: ${issue.message}` }
}

/** Of a union no branch of which fits, the complaint that got furthest is the one that helps. */
function deepest(issue: z.core.$ZodIssue): z.core.$ZodIssue {
  if (issue.code !== 'invalid_union' || issue.errors.length === 0) return issue
  const candidates = issue.errors.flatMap(branch => branch.slice(0, 1)).map(inner => deepest(inner))
  const best = candidates.sort((a, b) => b.path.length - a.path.length)[0]
  return best ? { ...best, path: [...issue.path, ...best.path] } : issue
}

/** Deeper than any wiring, with room for the keys between two levels. Checked on raw data, before any recursion over it. */
function tooDeep(value: unknown, most: number): boolean {
  let level: unknown[] = [value]
  for (let depth = 0; level.length > 0; depth++) {
    if (depth > most) return true
    level = level.flatMap(v => v !== null && typeof v === 'object' ? Object.values(v) : [])
  }
  return false
}

/**
 * Takes unknown data as a job: the schema, and what no schema can say (ids once only, corrections in order).
 * @throws JobError with the path of the first thing at fault
 */
export function readJob(data: unknown): Job {
  if (tooDeep(data, 3 * DEEPEST + 14)) throw new JobError(`Wiring nests deeper than ${DEEPEST} levels.`, 'amplifiers')
  const parsed = jobSchema.safeParse(data)
  if (!parsed.success) {
    const { message, path } = complaintOf(parsed.error, data)
    throw new JobError(message, path)
  }
  checkWhole(parsed.data)
  return fromDocument(parsed.data)
}

/** What the schema cannot say of a whole document. @throws JobError */
function checkWhole(document: JobDocument): void {
  const { amplifiers, readings, repairs } = document
  checkWiring(amplifiers)
  const seen = new Set<string>()
  const once = (id: string, path: string) => {
    if (seen.has(id)) throw new JobError(`The id “${id}” stands twice.`, path)
    seen.add(id)
  }
  for (const { id } of document.kinds) once(id, 'kinds')
  for (const { id } of document.zones) once(id, 'zones')
  const hanging = new Set<string>()
  for (const [k, { id, spots, measured }] of document.spaces.entries()) {
    for (const item of [{ id }, ...spots, ...measured]) once(item.id, `spaces[${k}]`)
    for (const { nodeId } of spots) {
      if (nodeId !== null && hanging.has(nodeId)) throw new JobError(`The speaker “${nodeId}” hangs at two places.`, `spaces[${k}]`)
      if (nodeId !== null) hanging.add(nodeId)
    }
  }
  for (const id of wiringIds(document)) once(id, 'amplifiers')
  for (const [k, variant] of document.variants.entries()) {
    once(variant.id, `variants[${k}]`)
    checkWiring(variant.amplifiers, `variants[${k}].amplifiers`)
    // Its speakers are those of the job, so their ids stand there, too; within it each once.
    const own = new Set<string>()
    for (const id of wiringIds(variant)) {
      if (own.has(id)) throw new JobError(`The id “${id}” stands twice.`, `variants[${k}].amplifiers`)
      own.add(id)
    }
  }
  const earlier = new Map<string, Reading>()
  const corrected = new Set<string>()
  for (const [k, reading] of readings.entries()) {
    const path = `readings[${k}]`
    once(reading.id, `${path}.id`)
    checkValue(reading, path)
    if (reading.supersedes !== null) checkSupersedes(reading, earlier, corrected, `${path}.supersedes`)
    earlier.set(reading.id, reading)
  }
  for (const [k, repair] of repairs.entries()) once(repair.id, `repairs[${k}].id`)
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

/**
 * Readings and repairs whose place is not drawn: removed after they were taken, or a file put together by hand. They stay
 * in the history and count for nothing; each is told in a sentence.
 */
export function setAside(job: Job): string[] {
  const isThere = (outputId: string, nodeId: string | null, find: (id: string) => { output: { id: string } } | null) =>
    nodeId === null ? findOutput(job, outputId) !== null : find(nodeId)?.output.id === outputId
  const lost = [
    ...[...job.readings].filter(r => !isThere(r.outputId, r.nodeId, id => findSpeaker(job, id))).map(r => ['reading', r.outputId, r.nodeId] as const),
    ...[...job.repairs].filter(r => !isThere(r.outputId, r.nodeId, id => findPlace(job, id))).map(r => ['repair', r.outputId, r.nodeId] as const),
  ]
  const counted = new Map<string, number>()
  for (const [what, outputId, nodeId] of lost) {
    const place = `${what} of ${nodeId === null ? `output “${outputId}”` : `speaker “${nodeId}” on output “${outputId}”`}`
    counted.set(place, (counted.get(place) ?? 0) + 1)
  }
  return [...counted].map(([place, count]) => `${count} × ${place}: that place is not drawn here. Kept in the history, counts for nothing.`)
}
