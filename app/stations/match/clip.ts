import { z } from 'zod'
import type { Branch } from '#core/job/schema'
import { branchSchema } from '#core/job/sections/wiring/schema'

/** What was taken last, with its groups, beside the table that other programs get. */
const clipSchema = z.strictObject({ text: z.string(), branches: z.array(branchSchema) })

export const writeClip = (text: string, branches: readonly Branch[]): string => JSON.stringify({ text, branches })

/** What `writeClip` wrote; null where it is nothing of ours. */
export function readClip(kept: string): z.infer<typeof clipSchema> | null {
  try {
    return clipSchema.safeParse(JSON.parse(kept)).data ?? null
  }
  catch {
    return null
  }
}
