import { check } from './check/station'
import { match } from './match/station'
import { space } from './space/station'
import type { Station } from './station'
import { trace } from './trace/station'
import { wire } from './wire/station'

/** The stations of a job, in the order of the work. */
export const STATIONS: readonly Station[] = [space, match, wire, check, trace]
