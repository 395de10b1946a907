import type { Fields } from './step'

/**
 * Version 1 let several readings correct the same one, let a correction name a reading of another place, and let a file
 * carry corrections in a ring. From version 2 on a correction names an earlier reading of its own place and kind, and
 * each reading is corrected once. A second correction corrects the first; a name that cannot stand is taken off, with a
 * remark, and the reading itself stays.
 */
export function supersedeOnce(document: Fields): { document: Fields, remarks: string[] } {
  const { readings } = document
  if (!Array.isArray(readings) || !readings.every(r => r !== null && typeof r === 'object')) return { document, remarks: [] }
  const all = readings as Fields[]
  const ids = new Set(all.map(r => r.id))
  const earlier = new Map<unknown, Fields>()
  /** The reading that corrects this one, as far as the list has been read. */
  const correctedBy = new Map<unknown, unknown>()
  const remarks: string[] = []
  const upgraded = all.map((reading) => {
    earlier.set(reading.id, reading)
    // A name of nothing at all is left for the reader to refuse, with its place.
    if (typeof reading.supersedes !== 'string' || !ids.has(reading.supersedes)) return reading
    let target: unknown = reading.supersedes
    const before = target === reading.id ? undefined : earlier.get(target)
    if (!before || !(['outputId', 'nodeId', 'kind'] as const).every(key => before[key] === reading[key])) {
      remarks.push(`Reading “${String(reading.id)}” named “${String(target)}” as the one it corrects, which is of another place or comes later: it stands by itself now.`)
      return { ...reading, supersedes: null }
    }
    if (reading.withdrawn === true) return reading
    while (correctedBy.has(target)) target = correctedBy.get(target)
    correctedBy.set(target, reading.id)
    return { ...reading, supersedes: target }
  })
  return { document: { ...document, readings: upgraded }, remarks }
}
