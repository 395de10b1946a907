import type { z } from 'zod'
import { isThere } from './apply'
import { fromDocument } from './document'
import { JobError } from './jobError'
import { placeWords } from './placeWords'
import { jobSchema, type Job, type JobDocument } from './schema'
import { SECTIONS } from './sections'
import { DEEPEST } from './sections/wiring/schema'

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
  return readAndMend(data).job
}

/** The same, with what was set aside: names of things that are not there, entries of places that are not drawn. */
export function readAndMend(data: unknown): { job: Job, remarks: string[] } {
  if (tooDeep(data, 3 * DEEPEST + 14)) throw new JobError(`Wiring nests deeper than ${DEEPEST} levels.`, 'amplifiers')
  const parsed = jobSchema.safeParse(data)
  if (!parsed.success) {
    const { message, path } = complaintOf(parsed.error, data)
    throw new JobError(message, path)
  }
  checkWhole(parsed.data)
  const { document, setAside: named } = mended(parsed.data)
  const job = fromDocument(document)
  return { job, remarks: [...named, ...setAside(job)] }
}

/** What the schema cannot say of a whole document: ids once only, and what each section checks of its own. @throws JobError */
function checkWhole(document: JobDocument): void {
  for (const section of SECTIONS) section.check?.(document)
  const seen = new Set<string>()
  for (const section of SECTIONS) {
    for (const [id, path] of section.ids(document)) {
      if (seen.has(id)) throw new JobError(`The id “${id}” stands twice.`, path)
      seen.add(id)
    }
  }
}

/** Names of things that are not there, out of a document of another hand: null in their place, and each told in a sentence. */
function mended(document: JobDocument): { document: JobDocument, setAside: string[] } {
  const job = fromDocument(document)
  const dangling = SECTIONS.flatMap(section => [...section.names(job)].filter(naming => !naming.isLoose && !isThere(job, naming)))
  if (dangling.length === 0) return { document, setAside: [] }
  const copy = structuredClone(document)
  const setAside = dangling.map(({ what, id, path }) => {
    const holder = path.slice(0, -1).reduce<unknown>((value, step) => (value as Record<string | number, unknown>)[step], copy)
    ;(holder as Record<string | number, unknown>)[path.at(-1)!] = null
    return `${placeWords(document, path)}: the ${what} “${id}” is not in the file. Taken as none.`
  })
  return { document: copy, setAside }
}

/**
 * Entries whose place is not drawn: removed after they were taken, or a file put together by hand. They stay in the history and count
 * for nothing; each is told in a sentence.
 */
export function setAside(job: Job): string[] {
  const counted = new Map<string, number>()
  for (const section of SECTIONS) {
    const { shape: { grows, things }, isPlaced } = section
    if (!grows || !isPlaced) continue
    for (const entry of job[grows.list]) {
      if (!('outputId' in entry) || isPlaced(job, entry)) continue
      const { outputId, nodeId } = entry
      const place = `${things[0]} of ${nodeId === null ? `output “${outputId}”` : `speaker “${nodeId}” on output “${outputId}”`}`
      counted.set(place, (counted.get(place) ?? 0) + 1)
    }
  }
  return [...counted].map(([place, count]) => `${count} × ${place}: that place is not drawn here. Kept in the history, counts for nothing.`)
}
