import type { z } from 'zod'
import { DEEPEST, jobSchema, MOST_NODES, type Job } from './schema'
import { branchesOf, depthOf, idsOf, outputsOf } from './tree'

/** A document that cannot be taken as a job: what is wrong and where in it. */
export class JobError extends Error {
  override name = 'JobError'
  constructor(message: string, readonly path: string, readonly expected: readonly string[] = []) {
    super(message)
  }
}

/** The first complaint of Zod as one sentence with its place, "amplifiers[0].name must not be empty". */
export function complaintOf(error: z.ZodError): { message: string, path: string } {
  const issue = deepest(error.issues[0]!)
  const path = issue.path.map(p => typeof p === 'number' ? `[${p}]` : `.${String(p)}`).join('').replace(/^\./, '')
  return { path, message: `${path || 'The document'}: ${issue.message}` }
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
 * Takes unknown data as a job: the schema, and what no schema can say (ids once only, readings and repairs at places that are there).
 * @throws JobError with the path of the first thing at fault
 */
export function readJob(data: unknown): Job {
  if (tooDeep(data, 3 * DEEPEST + 12)) throw new JobError(`Wiring nests deeper than ${DEEPEST} levels.`, 'amplifiers')
  const parsed = jobSchema.safeParse(data)
  if (!parsed.success) {
    const { message, path } = complaintOf(parsed.error)
    throw new JobError(message, path)
  }
  checkWhole(parsed.data)
  return parsed.data
}

/** What the schema cannot say of a whole job. @throws JobError */
export function checkWhole(job: Job): void {
  const seen = new Set<string>()
  for (const id of idsOf(job)) {
    if (seen.has(id)) throw new JobError(`The id “${id}” stands twice.`, 'amplifiers')
    seen.add(id)
  }
  let nodes = 0
  for (const output of outputsOf(job)) {
    nodes += branchesOf(output.wiring).length
    if (depthOf(output.wiring) > DEEPEST) throw new JobError(`The wiring of ${output.label} nests deeper than ${DEEPEST} levels.`, 'amplifiers')
  }
  if (nodes > MOST_NODES) throw new JobError(`More than ${MOST_NODES} speakers and groups.`, 'amplifiers')
  for (const [k, reading] of job.readings.entries()) {
    if (reading.supersedes !== null && !seen.has(reading.supersedes)) {
      throw new JobError(`The reading that it supersedes, “${reading.supersedes}”, is not there.`, `readings[${k}].supersedes`)
    }
    checkValue(reading.kind, reading.value.is, reading.nodeId, `readings[${k}]`)
  }
}

/** A reading's kind, value and place must go together. @throws JobError */
export function checkValue(kind: Job['readings'][number]['kind'], is: string, nodeId: string | null, path: string): void {
  const heard = is === 'plays' || is === 'silent'
  if ((kind === 'sound') !== heard) throw new JobError(`A reading of kind ${kind} cannot be “${is}”.`, `${path}.value`, kind === 'sound' ? ['plays', 'silent'] : ['ohm', 'open'])
  const atLine = kind === 'line-impedance' || kind === 'line-dcr'
  if (atLine !== (nodeId === null)) throw new JobError(atLine ? 'A line is read at its head, not at a speaker.' : 'This reading needs its speaker.', `${path}.nodeId`)
}
