import { z } from 'zod'
import { DEFAULT_POWER, POWER_SCHOOLS, type PowerSchoolId } from '#core/schools/power'
import { DEFAULT_VALVE, VALVE_SCHOOLS, type ValveSchoolId } from '#core/schools/valve'
import { DEFAULT_RESERVE, RESERVE_SCHOOLS, type ReserveSchoolId } from '#core/schools/reserve'
import { DEFAULT_STRIPE, STRIPE_IDS } from '#core/schools/stripeIds'

const ids = <T extends string>(schools: readonly { id: T }[]) => z.enum(schools.map(s => s.id) as [T, ...T[]])

/** The schools of the trade that a job is judged by. */
export const practiceSchema = z.strictObject({
  reserve: ids<ReserveSchoolId>(RESERVE_SCHOOLS),
  power: ids<PowerSchoolId>(POWER_SCHOOLS),
  valve: ids<ValveSchoolId>(VALVE_SCHOOLS),
  stripe: z.enum(STRIPE_IDS),
})
export type Practice = z.infer<typeof practiceSchema>

export const DEFAULT_PRACTICE: Practice = { reserve: DEFAULT_RESERVE, power: DEFAULT_POWER, valve: DEFAULT_VALVE, stripe: DEFAULT_STRIPE }
