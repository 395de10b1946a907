/** One school of what a load above its tap means to a valve output. */
export interface ValveSchool {
  id: string
  name: string
  says: string
  /** When it fits, and what it risks. */
  suits: string
}

/** Source of both: common practice, no source. On a load below its tap they agree: output stage and transformer overheat. */
export const VALVE_SCHOOLS = [
  {
    id: 'match-exactly', name: 'match exactly', says: 'the tap is the load, nothing else',
    suits: 'instrument amplifiers, which are driven hard: into two to four times the tap the voltage flies back and can break the output transformer. The stricter of the two, and so the one chosen where nothing is said',
  },
  {
    id: 'up-is-safe', name: 'up is the safe direction', says: 'a load above its tap is allowed: it costs power',
    suits: 'listening at home, never driven hard: a 6 Ω speaker goes on the 4 Ω tap',
  },
] as const satisfies readonly ValveSchool[]

export type ValveSchoolId = (typeof VALVE_SCHOOLS)[number]['id']

export const DEFAULT_VALVE: ValveSchoolId = 'match-exactly'

export function valveSchool(id: ValveSchoolId): ValveSchool {
  return VALVE_SCHOOLS.find(school => school.id === id)!
}
