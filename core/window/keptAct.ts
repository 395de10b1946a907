import { z } from 'zod'
import { readAct, type GearAct } from '#core/gear/acts'
import { FORMAT_VERSION } from '#core/job/schema'

/** What was done to the library and waits on a device: an entry an act, under its own id. */
export interface KeptAct {
  id: string
  /** The window that did it. */
  by: string
  /** When it was done, ms: it orders what is sent. */
  at: number
  /** What was done, in words. */
  says: string
  act: GearAct
  /** Why the server did not take it, until the person has decided. */
  refused: { message: string, code: string | null } | null
}

export type FoundAct = { key: string, kept: KeptAct } | { key: string, kept: null, text: string }

const PREFIX = 'plain-match.gear.'

const stored = z.object({
  version: z.int().min(1).max(FORMAT_VERSION), by: z.string(), at: z.number(), says: z.string(), act: z.unknown(),
  refused: z.object({ message: z.string(), code: z.string().nullable() }).nullable(),
})

export const keptActKey = (id: string): string => PREFIX + id

export function writeKeptAct({ id: _, act, ...rest }: KeptAct): string {
  return `${JSON.stringify({ version: FORMAT_VERSION, ...rest }).slice(0, -1)},"act":${actText(act)}}`
}

/** An act as a request to the server. */
export function sentAct({ id, act }: Pick<KeptAct, 'id' | 'act'>): string {
  return `{"id":${JSON.stringify(id)},"version":${FORMAT_VERSION},"act":${actText(act)}}`
}

/** Acts that were written beforehand. */
const written = new WeakMap<GearAct, string>()
const actText = (act: GearAct): string => written.get(act) ?? JSON.stringify(act)

/** Writes a large act, a model a step, so that to keep and to send it holds no page: ten thousand models took 360 ms in two goes. */
export function* writeActInSteps(act: GearAct): Generator<void, void> {
  if (act.do !== 'add') return
  const models: string[] = []
  for (const model of act.models) {
    models.push(JSON.stringify(model))
    yield
  }
  written.set(act, `{"do":"add","models":[${models.join(',')}]}`)
}

/** Reads one entry. What cannot be read is given back as it is: it is somebody's work. */
export function readKeptAct(key: string, text: string): FoundAct {
  try {
    const { version: _, act, ...rest } = stored.parse(JSON.parse(text))
    return { key, kept: { ...rest, id: key.slice(PREFIX.length), act: readAct(act) } }
  }
  catch {
    return { key, kept: null, text }
  }
}
