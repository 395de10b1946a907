import { POWER_SCHOOLS, schoolBandW } from '#core/schools/power'
import { RESERVE_SCHOOLS } from '#core/schools/reserve'
import type { Practice } from '#core/job/schema'
import type { LineFacts } from './facts'
import { standsContinuousW } from './rules/sharing'

/** What one school asks of the amplifier, W. Nulls: it cannot be said, since ratings are not known. */
export interface Requirement {
  practice: string
  name: string
  /** The least that satisfies it. */
  powerW: number | null
  /** The most it allows; null where a school sets no upper end. */
  toW: number | null
  chosen: boolean
  /** What it suits or what it risks. */
  says: string
}

/** A row a school: reserve schools on a constant-voltage line, schools of matching on a low-impedance one. */
export function requirementsOf(line: LineFacts, practice: Practice): Requirement[] {
  if (line.kind === 'constant-voltage') {
    const { counted } = line
    return RESERVE_SCHOOLS.map(school => ({
      practice: school.id, name: school.name, powerW: counted === null ? null : school.requiredW(counted), toW: null,
      chosen: school.id === practice.reserve, says: `${school.says}: ${school.suits}`,
    }))
  }
  const continuousW = standsContinuousW(line)
  return POWER_SCHOOLS.map((school) => {
    const band = continuousW === null ? null : schoolBandW(school, continuousW)
    return {
      practice: school.id, name: school.name, powerW: band?.fromW ?? null, toW: band?.toW ?? null,
      chosen: school.id === practice.power, says: school.risks,
    }
  })
}
