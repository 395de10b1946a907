import type { Reading } from './schema'

/** Ids of the readings that another one corrects; one that is withdrawn corrects nothing. */
export const supersededIn = (readings: readonly Reading[]): Set<string> =>
  new Set(readings.flatMap(r => r.withdrawn || r.supersedes === null ? [] : [r.supersedes]))

/** The readings that are neither withdrawn nor corrected by another. */
export function readingsKept(readings: readonly Reading[]): Reading[] {
  const superseded = supersededIn(readings)
  return readings.filter(r => !r.withdrawn && !superseded.has(r.id))
}
