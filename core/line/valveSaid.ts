import { bestTap, mismatchDb, modeOf, valveOf, type ChannelMode } from '#core/amplifier/index'
import type { Grade } from '#core/check/verdict'
import type { Job } from '#core/job/schema'
import { VALVE_SCHOOLS } from '#core/schools/valve'
import { aroundOf } from './surroundings'
import type { LineFacts } from './facts'
import { worstGrade } from './finding'
import { valve } from './rules/valve'

export interface ValveSaid {
  tap: { tapOhm: number | null, bestOhm: number | null, lossDb: number | null } | null
  bridged: ChannelMode
  schools: { school: string, grade: Grade, chosen: boolean }[]
}

/** What is said of an output beside its load: its tap, how its channels are joined, and what each school of valve outputs makes of it. */
export function valveSaid(line: LineFacts, job: Pick<Job, 'practice' | 'kinds' | 'amplifiers'>): ValveSaid {
  const bridged = modeOf(line.output.rating)
  const rating = valveOf(line.output.rating)
  if (!rating) return { tap: null, bridged, schools: [] }
  const around = aroundOf(job, line.output.id)
  const { tapOhm } = rating
  const { upOhm } = line
  return {
    tap: {
      tapOhm, bestOhm: upOhm === null ? null : bestTap(rating.tapsOhm, upOhm), lossDb: tapOhm === null || upOhm === null ? null : mismatchDb(upOhm, tapOhm),
    },
    bridged,
    schools: VALVE_SCHOOLS.map(({ id }) => ({
      school: id, grade: worstGrade(valve(line, { ...around, practice: { ...job.practice, valve: id } }).map(f => f.grade)), chosen: id === job.practice.valve,
    })),
  }
}
