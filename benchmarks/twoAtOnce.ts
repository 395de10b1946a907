import { proveLine } from '#core/check/proof'
import { Records } from '#core/job/records'
import type { Job, Output, Reading } from '#core/job/schema'
import { speakersOf } from '#core/job/tree'
import { drained } from '#core/quantity/steps'
import { seeded } from '#core/testing/trees'
import { normalAt } from '#core/trace/chances'
import { givenBy } from '#core/trace/given'
import { rankPairs } from '#core/trace/pairs'
import { trySingles } from '#core/trace/rank'
import { medianMs, quantile } from './timing'

/** Every two faults of a line: by the line read at the rack, with every speaker listened at besides, two of them silent, and with the level meter at each. */
export interface TwoAtOnceTimes {
  readMs: number
  heardMs: number
  levelledMs: number
  /** Against those listened at, round by round. */
  levelledRatio: number
}

const SILENT = [7, 30]
const ROUNDS = 5

export function twoAtOnceTimes(job: Job, output: Output, head: Reading): TwoAtOnceTimes {
  const chance = seeded(1)
  const speakers = speakersOf(output.wiring)
  const sounds = speakers.map(({ id }, k): Reading => ({ ...head, id: `s${k}`, kind: 'sound', nodeId: id, value: { is: SILENT.includes(k) ? 'silent' : 'plays' } }))
  const levels = speakers.map(({ id, load }, k): Reading => {
    const db = 80 + (load.kind === 'tap' ? 10 * Math.log10(load.tapW) : 0) - (SILENT.includes(k) ? 15 : 0) + 1.2 * normalAt(0.001 + 0.998 * chance())
    return { ...head, id: `l${k}`, kind: 'level', nodeId: id, value: { is: 'level', db, weighting: 'A', signal: 'pink-noise', headV: null } }
  })
  const timesOf = (more: readonly Reading[]) => {
    const tried = drained(trySingles(givenBy(output, proveLine({ ...job, readings: Records.of([head, ...more]) }, output))))
    return () => medianMs(() => void drained(rankPairs(tried)), 0)
  }
  const [read, heard, levelled] = [timesOf([]), timesOf(sounds), timesOf([...sounds, ...levels])]
  // Turn and turn about, so that all meet the same machine.
  const rounds = Array.from({ length: ROUNDS }, () => ({ readMs: read(), heardMs: heard(), levelledMs: levelled() }))
  const middle = (of: (round: typeof rounds[number]) => number) => quantile(rounds.map(of), 0.5)
  return {
    readMs: middle(r => r.readMs), heardMs: middle(r => r.heardMs), levelledMs: middle(r => r.levelledMs), levelledRatio: middle(r => r.levelledMs / r.heardMs),
  }
}
