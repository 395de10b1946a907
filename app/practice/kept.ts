import type { z } from 'zod'
import { actSchema } from '#core/practice/game'
import { exerciseFileSchema, MOST_ACTS } from '#core/practice/files'
import { MOST_RESULTS, resultSchema, type Result } from '#core/practice/result'

/**
 * What is kept of practice: plays that came to an end, exercises that were made or came in, and the play that is under way. Pure; where it lies is handed
 * in.
 */

const MOST_EXERCISES = 20

function read<T>(schema: z.ZodType<T>, text: string | null): T[] {
  try {
    const data: unknown = JSON.parse(text ?? '[]')
    // One that cannot be read does not take the others along.
    return Array.isArray(data) ? data.map(one => schema.safeParse(one)).flatMap(parsed => parsed.success ? [parsed.data] : []) : []
  }
  catch {
    return []
  }
}
export const readResults = (text: string | null): Result[] => read(resultSchema, text)
export const readExercises = (text: string | null) => read(exerciseFileSchema, text)
export const readActs = (text: string | null) => read(actSchema, text).slice(0, MOST_ACTS)

/** Of two lists, as of a device and of the server, each play once, oldest first. */
export function joined(some: readonly Result[], others: readonly Result[]): Result[] {
  // Of two of one play the one that knows the best.
  const by = new Map<string, Result>()
  for (const r of [...some, ...others]) if (by.get(`${r.code} ${r.at}`)?.bestMinutes == null) by.set(`${r.code} ${r.at}`, r)
  return [...by.values()].sort((a, b) => a.at < b.at ? -1 : 1).slice(-MOST_RESULTS)
}
/** What is here and not there; where both have it and only here the best is known, too. */
export function missingIn(theirs: readonly Result[], here: readonly Result[]): Result[] {
  const known = new Map(theirs.map(r => [`${r.code} ${r.at}`, r]))
  return here.filter((r) => {
    const their = known.get(`${r.code} ${r.at}`)
    return !their || (their.bestMinutes === null && r.bestMinutes !== null)
  })
}
export const withExercise = <T>(all: readonly T[], one: T, codeOf: (of: T) => string): T[] => [...all.filter(e => codeOf(e) !== codeOf(one)),
  one].slice(-MOST_EXERCISES)

/** How somebody stands with an exercise: the best of what was found, by how near the best play it came. */
export interface Standing { plays: number, found: number, minutes: number | null, bestMinutes: number | null, isClean: boolean }
export function standingWith(results: readonly Result[], level: number): Standing {
  const of = results.filter(r => new RegExp(`^R\\d+-0*${level}-`).test(r.code))
  const found = of.filter(r => r.isFound && r.isNamed)
  const near = (r: Result) => r.bestMinutes === null ? Infinity : r.minutes / Math.max(1, r.bestMinutes)
  const best = found.toSorted((a, b) => near(a) - near(b))[0] ?? null
  return { plays: of.length, found: found.length, minutes: best?.minutes ?? null, bestMinutes: best?.bestMinutes ?? null,
    isClean: found.some(r => r.risks === 0) }
}
