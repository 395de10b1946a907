import type { Group } from '#core/job/schema'
import { asCurve, asLabelled, isReactive } from '#core/network/element'
import { headOf } from '#core/network/line'
import { compile } from '#core/network/compile'
import { seenAtHead } from '#core/network/solve'
import { makeSolver } from '#core/network/solver'

/** Where a capacitor or a coil in the way parts the band. */
export interface Corner {
  /** On the label of what is behind it, as a textbook has it, Hz: 1/(2πRC), R/(2πL). */
  textbookHz: number
  /**
   * On its impedance as far as that is known, Hz: from there on (a capacitor upwards, a coil downwards) what is behind gets half of the
   * power or more that it would get without the part. Null where that is nowhere in the hearing range.
   */
  realHz: number | null
  loadOhm: number
}

const [LOWEST_HZ, HIGHEST_HZ] = [20, 20_000]
const STEPS_TO_DECADE = 60
const HALF = Math.SQRT1_2

/** Null where no capacitor or coil stands before the group, or nothing is behind it. Source: textbook of circuits; half power is −3.01 dB. */
export function cornerOf(group: Group): Corner | null {
  const { through } = group
  if (!through || !isReactive(through)) return null
  const { through: _, ...bare } = group
  const label = headOf({ lead: null, node: bare }, asLabelled, 1000)
  if (label.state !== 'finite') return null
  const textbookHz = through.kind === 'capacitor' ? 1 / (2 * Math.PI * label.ohm * through.capacitanceF) : label.ohm / (2 * Math.PI * through.inductanceH)
  return { textbookHz, realHz: realCorner(bare, through), loadOhm: label.ohm }
}

function realCorner(behind: Group, part: Extract<NonNullable<Group['through']>, { kind: 'capacitor' | 'inductor' }>): number | null {
  const solver = makeSolver(compile({ lead: null, node: behind }, asCurve))
  /** Volts behind the part per volt before it. */
  const passes = (hz: number): boolean => {
    const z = seenAtHead(solver, hz)
    if (z.state !== 'finite') return false
    const omega = 2 * Math.PI * hz
    const [ohm, x] = part.kind === 'capacitor' ? [0, -1 / (omega * part.capacitanceF)] : [part.resistanceOhm ?? 0, omega * part.inductanceH]
    return z.ohm / Math.hypot(z.re + ohm, z.im + x) >= HALF
  }
  // From the end that passes towards the one that does not; a resonance on the way may let more pass again, which is beyond the corner.
  const [from, to] = part.kind === 'capacitor' ? [HIGHEST_HZ, LOWEST_HZ] : [LOWEST_HZ, HIGHEST_HZ]
  const steps = Math.ceil(STEPS_TO_DECADE * Math.abs(Math.log10(to / from)))
  if (!passes(from)) return null
  for (let k = 1; k <= steps; k++) {
    const hz = from * (to / from) ** (k / steps)
    if (passes(hz)) continue
    let [inside, outside] = [from * (to / from) ** ((k - 1) / steps), hz]
    for (let n = 0; n < 30; n++) {
      const middle = Math.sqrt(inside * outside)
      if (passes(middle)) inside = middle
      else outside = middle
    }
    return inside
  }
  return null
}
