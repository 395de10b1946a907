import { z } from 'zod'

/** Kinds of field that documents and gear are made of. SI units, named in the message. */

/** PostgreSQL keeps neither the null character nor half a surrogate pair; both are only ever slips. */
export const plainText = (most: number) => z.string().max(most, `must be at most ${most} characters`)
  .refine(text => !text.includes('\u0000') && text.isWellFormed(), 'contains characters that cannot be kept')

/** Nothing that anybody sees: blanks, and signs that have no shape of their own. */
const SHAPELESS = /^[\s\p{Cf}\p{Cc}\u115F\u1160\u2800\u3164\uFFA0]*$/u
const isSeen = (text: string) => !SHAPELESS.test(text)

export const nameText = plainText(120).refine(isSeen, 'must not be empty')
export const noteText = plainText(2000)
export const labelText = plainText(24).refine(isSeen, 'must not be empty')
export const idText = z.string().regex(/^[A-Za-z0-9_-]{1,40}$/, 'must be 1 to 40 letters, digits, - or _')
const NO_INSTANT = 'must be a date and time in UTC, as 2026-05-04T09:30:00Z'
export const instant = z.iso.datetime({ message: NO_INSTANT }).max(40, NO_INSTANT)

export const bounded = (unit: string, least: number, most: number) =>
  z.number().min(least, `must be at least ${least} ${unit}`).max(most, `must be at most ${most} ${unit}`)
export const ohm = bounded('Ω', 0.05, 100_000)
export const hertz = bounded('Hz', 1, 100_000)
export const watt = bounded('W', 0.001, 100_000)
