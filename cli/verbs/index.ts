import type { Verb } from '../verb'
import { amplifiers } from './amplifiers'
import { cable } from './cable'
import { clip } from './clip'
import { cover } from './cover'
import { curve } from './curve'
import { evaluate } from './evaluate'
import { gear } from './gear'
import { intermittent } from './intermittent'
import { plan } from './plan'
import { polarity } from './polarity'
import { quick } from './quick'
import { replace } from './replace'
import { rig } from './rig'
import { schedule } from './schedule'
import { short } from './short'
import { split } from './split'
import { thermal } from './thermal'
import { trace } from './trace'
import { walk } from './walk'
import { wirings } from './wirings'

/** Every verb by its name, in the order of the work. */
export const VERBS: Readonly<Record<string, Verb>> = {
  quick, cover, evaluate, plan, split, amplifiers, wirings, cable, polarity, walk, schedule, short, trace,
  intermittent, thermal, replace, rig, curve, clip, gear,
}
