import { playSchedule } from '#core/testing/schedules'

const SCHEDULES = 10_000
/** Seeds of their own: the unit tests play the first few hundred. */
const FIRST_SEED = 100_000

export interface SchedulesPlayed { played: number, made: number, refused: number, dismissed: number, troubles: number, msEach: number }

export function playSchedules(): SchedulesPlayed {
  const total = { made: 0, refused: 0, dismissed: 0, troubles: 0 }
  const from = performance.now()
  for (let seed = FIRST_SEED; seed < FIRST_SEED + SCHEDULES; seed++) {
    const result = playSchedule(seed)
    total.made += result.made
    total.refused += result.refused
    total.dismissed += result.dismissed
    if (result.trouble === null) continue
    total.troubles++
    process.stderr.write(`seed ${seed}: ${result.trouble}\n`)
  }
  return { played: SCHEDULES, ...total, msEach: (performance.now() - from) / SCHEDULES }
}
