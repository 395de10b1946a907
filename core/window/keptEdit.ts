import { z } from 'zod'
import { stampedEditSchema, type StampedEdit } from '#core/job/edits'
import type { Refusal } from '#core/job/refusal'
import { FORMAT_VERSION } from '#core/job/schema'
import { upgradedStamped } from '#core/job/upgrade'

/**
 * Edits that wait on a device: one entry of the browser's storage each, under its own id. So no window can write over what
 * another keeps, and letting one go touches no other. (A list a window lost: a job that had recovered wrote its one new edit over
 * the three that waited.)
 */
export interface Kept {
  jobId: string
  /** What the job was called, for a list that cannot ask the server. */
  jobName: string
  /** When it was done, ms; edits of one window never share one. It orders what is sent. */
  at: number
  stamped: StampedEdit
  /** Why the server did not take it, until the person has decided. */
  refused: KeptRefusal | null
}
export interface KeptRefusal { message: string, code: Refusal['code'] | null }

/** What stands in storage under one key. */
export type Found = { key: string, jobId: string, kept: Kept } | { key: string, jobId: string, kept: null, text: string }

const PREFIX = 'plain-match.kept.'
/** Version 1 kept a list a window under this prefix. */
const OLD_PREFIX = 'plain-match.pending.'

const storedSchema = z.object({
  version: z.int().min(1), at: z.number(), jobName: z.string(), stamped: z.unknown(),
  refused: z.object({ message: z.string(), code: z.string().nullable() }).nullable(),
})

export function keptKey(jobId: string, editId: string): string {
  return `${PREFIX}${jobId}.${editId}`
}

export function writeKept({ at, jobName, stamped, refused }: Kept): string {
  return JSON.stringify({ version: FORMAT_VERSION, at, jobName, stamped, refused })
}

/** Reads one entry of storage; null for keys of other things. What cannot be read is given back as it is: it is somebody's work. */
export function readKept(key: string, text: string): Found[] | null {
  const prefix = [PREFIX, OLD_PREFIX].find(p => key.startsWith(p))
  if (prefix === undefined) return null
  const jobId = key.slice(prefix.length).split('.')[0]!
  try {
    const data: unknown = JSON.parse(text)
    if (prefix === OLD_PREFIX) {
      const list = z.array(z.unknown()).parse(data)
      return list.map((stamped, at) => ({ key, jobId, kept: { jobId, jobName: '', at, stamped: parsed(stamped, 1), refused: null } }))
    }
    const { version, at, jobName, stamped, refused } = storedSchema.parse(data)
    if (version > FORMAT_VERSION) throw new Error('of a newer version')
    return [{ key, jobId, kept: { jobId, jobName, at, stamped: parsed(stamped, version), refused: refused as KeptRefusal | null } }]
  }
  catch {
    return [{ key, jobId, kept: null, text }]
  }
}

function parsed(stamped: unknown, version: number): StampedEdit {
  return stampedEditSchema.parse(upgradedStamped(stamped, version))
}

export function inOrder(kept: Iterable<Kept>): Kept[] {
  return [...kept].sort((a, b) => a.at - b.at)
}
