import { bandSchema } from '#core/job/sections/wiring/schema'
import type { Band } from '#core/job/schema'

/** Both ends of a band as they are typed: one after the other, in any order, so that for a moment they may be none. */
export type Ends = Pick<Band, 'fromHz' | 'toHz'>

/** The band with these ends where they are one, else why they are not: what was typed stays in its field until the other end fits it. */
export function bandOf(band: Band, ends: Ends): { band: Band | null, says: string } {
  const checked = bandSchema.safeParse({ ...band, ...ends })
  if (checked.success) return { band: checked.data, says: '' }
  if (ends.fromHz === null && ends.toHz === null) return { band: null, says: 'It begins and ends nowhere now: type one of them, or press “everything”.' }
  return { band: null, says: 'It would end below where it begins: type the other end, or empty it.' }
}
