import { howFacts } from '#core/job/sections/readings/hows'
import { readingsKept } from '#core/job/sections/readings/superseded'
import type { Job, Output, Reading, ReadingValue, Repair } from '#core/job/schema'

/** Two people who read one thing and cannot both be right. The last of a place stands all the same: it is they who settle it. */
export interface Disagreement { outputId: string, nodeId: string | null, earlier: Reading, later: Reading }

/** Two meters and two pairs of leads on one thing: so far apart they may be. Common practice, no source. */
const PART = 0.1
const LEADS_OHM = 0.5
/** 70 and 70.71 V are one scale. */
const SCALE = 0.02

/** Whether both can be true of one thing that nobody touched in between. What hangs on the moment (a level, volts, loudness) contradicts nothing. */
export function agree(a: ReadingValue, b: ReadingValue): boolean {
  if ('how' in a && 'how' in b) return a.is === b.is || a.is === 'cannot-tell' || b.is === 'cannot-tell'
  if (a.is === 'ohm' && b.is === 'ohm') return Math.abs(a.ohm - b.ohm) <= LEADS_OHM + PART * Math.max(a.ohm, b.ohm)
  if (a.is === 'tap' && b.is === 'tap') return a.tapW === b.tapW && (a.tapW === 0 || Math.abs(a.ratedV / b.ratedV - 1) <= SCALE)
  if (MOMENTARY.has(a.is) || MOMENTARY.has(b.is)) return true
  return a.is === b.is
}
const MOMENTARY: ReadonlySet<string> = new Set(['volts-amps', 'level', 'louder', 'alike', 'quieter'])

/**
 * What was read. Which way round a speaker is by its whole run, by the unit alone, and beside one neighbour or another are different things: all can be true at
 * once. An impedance is another at another tone.
 */
function thingOf({ kind, nodeId, value, frequencyHz }: Reading): string {
  const proves = 'how' in value ? howFacts(value.how).proves : kind
  return `${proves} ${nodeId ?? ''} ${frequencyHz ?? ''} ${'against' in value ? value.against ?? '' : ''}`
}

/**
 * What people of one line disagree about: of each thing the last reading of each person since the last repair. Whoever reads once more and agrees, says that
 * his own was wrong, or takes it back, has settled it.
 */
export function disagreementsOn(job: Pick<Job, 'readings' | 'repairs'>, { id: outputId }: Pick<Output, 'id'>): readonly Disagreement[] {
  // Both lists keep their identity while nothing of the line changes: of 20,000 readings all lines took 20 ms at each edit, one takes half of one.
  const [readings, repairs] = [job.readings.under(outputId), job.repairs.under(outputId)]
  const known = remembered.get(readings)
  if (known?.repairs === repairs) return known.found
  const found = foundOn(outputId, readings, repairs)
  remembered.set(readings, { repairs, found })
  return found
}
const remembered = new WeakMap<readonly Reading[], { repairs: readonly Repair[], found: readonly Disagreement[] }>()

function foundOn(outputId: string, readings: readonly Reading[], repairs: readonly Repair[]): Disagreement[] {
  const since = repairs.filter(r => !r.withdrawn).reduce((last, r) => r.at > last ? r.at : last, '')
  const things = new Map<string, Map<string | null, Reading>>()
  for (const reading of readingsKept(readings)) {
    if (reading.at < since) continue
    const thing = thingOf(reading)
    const byPerson = things.get(thing) ?? new Map<string | null, Reading>()
    // Set anew, so that the last reading of all comes last.
    byPerson.delete(reading.who)
    things.set(thing, byPerson.set(reading.who, reading))
  }
  return [...things.values()].flatMap((byPerson): Disagreement[] => {
    const all = [...byPerson.values()]
    const later = all.at(-1)!
    const earlier = all.findLast(r => r !== later && !agree(r.value, later.value))
    return earlier ? [{ outputId, nodeId: later.nodeId, earlier, later }] : []
  })
}
