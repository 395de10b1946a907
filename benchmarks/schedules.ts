import { playGearSchedule } from '#core/testing/gearSchedules'
import { playSchedule } from '#core/testing/schedules'
import { ms } from './timing'

const SCHEDULES = 10_000
/** Seeds of their own: the unit tests play the first few hundred. */
const FIRST_SEED = 100_000

interface SchedulesPlayed { of: string, played: number, made: number, refused: number, dismissed: number, troubles: number, msEach: number }

export const playSchedules = () => [
  played('jobs (edits alone, many as one, variants)', playSchedule),
  played('the library (models in, changed, retired, taken back)', playGearSchedule),
]

function played(of: string, play: (seed: number) => { made: number, refused: number, dismissed: number, trouble: string | null }): SchedulesPlayed {
  const total = { made: 0, refused: 0, dismissed: 0, troubles: 0 }
  const from = performance.now()
  for (let seed = FIRST_SEED; seed < FIRST_SEED + SCHEDULES; seed++) {
    const result = play(seed)
    total.made += result.made
    total.refused += result.refused
    total.dismissed += result.dismissed
    if (result.trouble === null) continue
    total.troubles++
    process.stderr.write(`seed ${seed}: ${result.trouble}\n`)
  }
  return { of, played: SCHEDULES, ...total, msEach: (performance.now() - from) / SCHEDULES }
}

export const thousands = (count: number): string => count.toLocaleString('en-GB')

export const toldOf = ({ of, played, made, refused, dismissed, troubles, msEach }: SchedulesPlayed): string =>
  `${thousands(played)} random schedules of windows at ${of}; requests lost, twice, late, in another order; windows reloaded, closed, taken over: `
  + `${thousands(made)} acts, ${thousands(refused)} of them refused with a reason and still in front of the person at the end, `
  + `${thousands(dismissed)} decided by the person, ${troubles} lost, doubled or left hanging. ${ms(msEach)} ms a schedule.`
