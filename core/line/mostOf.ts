import { drivenInto } from '#core/amplifier/index'
import { stepsOf } from '#core/hands/throughs'
import type { Output } from '#core/job/schema'
import type { LineSolution } from '#core/network/line'
import type { ThroughGroup } from './behind'
import { controlIds, fullyUpAt, type Positions, type Settings } from './positions'

/**
 * The most watts that a place of a low-impedance line may get in any position of its controls: its own fully up, the others up or off, since an output
 * gives more volts into the higher load that they leave. On a line of constant volts the others do not matter. In a series a control that is turned
 * down takes more of the volts to itself, and what hangs behind it may get more so: there each of its positions is tried.
 */
export function makeMostOf(output: Output, { hangs, up, at }: Positions, upVolts: number | null, isLine: boolean) {
  const all = controlIds(hangs.all)
  const states = new Map<string, { solution: LineSolution, volts: number | null }>()
  const stateAt = (set: Settings) => {
    const key = JSON.stringify([...set].sort(([a], [b]) => a < b ? -1 : 1))
    const known = states.get(key)
    if (known) return known
    const solution = at(set)
    const drive = solution.head.state === 'finite' ? drivenInto(output, solution.head.ohm) : null
    const volts = isLine ? upVolts : drive === null || drive.basis === 'under-floor' ? null : drive.mostVolts
    states.set(key, { solution, volts })
    return { solution, volts }
  }
  /** `own`: the controls that its current flows through; `of`: what the place gets of one volt at the head. */
  return (own: readonly ThroughGroup[], of: (solution: LineSolution) => number): number | null => {
    if (upVolts === null) return null
    const ownIds = controlIds(own)
    let mostW = of(up) * upVolts ** 2
    const besides = isLine ? [all] : [all, ownIds]
    for (const set of besides.flatMap(ids => settings(ids, own))) {
      if (set.size === all.length && [...set.values()].every(db => db === 0)) continue
      const { solution, volts } = stateAt(set)
      if (volts !== null) mostW = Math.max(mostW, of(solution) * volts ** 2)
    }
    return mostW
  }
}

/** These fully up; and of those of its own that stand in a series, each position besides. */
function settings(upIds: readonly string[], own: readonly ThroughGroup[]): Settings[] {
  const turned = own.filter(g => g.inSeries && g.through.kind === 'control')
  return [fullyUpAt(upIds), ...turned.flatMap(({ nodeId, through }) => stepsOf(through).map(db => new Map(fullyUpAt(upIds)).set(nodeId, db)))]
}
