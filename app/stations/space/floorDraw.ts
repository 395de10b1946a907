import { FOOT_M, lengthIn, LENGTH_UNIT, type Units } from '#core/quantity/units'
import { writeNumber } from '#core/quantity/write'
import type { Place } from '#core/room/outline'

/** What drawing a floor on a grid decides: how large the grid is, where a press lands, when the floor is closed. Pure, so that it can be tested. */

/** How much floor the grid shows along, and how fine it is, in the person's units. */
const GRIDS: Record<Units, readonly { span: number, step: number }[]> = {
  metric: [{ span: 12, step: 0.25 }, { span: 24, step: 0.5 }, { span: 48, step: 1 }, { span: 96, step: 2 }],
  imperial: [{ span: 40, step: 1 }, { span: 80, step: 2 }, { span: 160, step: 4 }, { span: 320, step: 8 }],
}
export const GRID_COUNT = GRIDS.metric.length
export interface DrawGrid { spanM: number, stepM: number, says: string }
export function gridOf(size: number, units: Units): DrawGrid {
  const { span, step } = GRIDS[units][Math.min(GRID_COUNT - 1, Math.max(0, size))]!
  const unitM = units === 'metric' ? 1 : FOOT_M
  return { spanM: span * unitM, stepM: step * unitM, says: `${span} ${LENGTH_UNIT[units]} along, a square is ${writeNumber(4 * step)} ${LENGTH_UNIT[units]}` }
}
/** The smallest grid that shows so much floor. */
export function gridFor(lengthM: number, widthM: number, units: Units): number {
  const at = GRIDS[units].findIndex((_, k) => gridOf(k, units).spanM >= lengthM * 1.1 && gridOf(k, units).spanM * RATIO >= widthM * 1.1)
  return at < 0 ? GRID_COUNT - 1 : at
}
/** A grid is so much deeper than it is long. */
export const RATIO = 0.625

const near = (v: number, stepM: number, mostM: number) => Math.min(mostM, Math.max(0, Math.round(v / stepM))) * stepM
/** The point of the grid that is next to a place. */
export function onGrid({ xM, yM }: Place, { spanM, stepM }: DrawGrid): Place {
  const steps = (m: number) => Math.floor(m / stepM + 1e-9)
  return { xM: near(xM, stepM, steps(spanM)), yM: near(yM, stepM, steps(spanM * RATIO)) }
}

const isAt = (a: Place | undefined, b: Place) => a !== undefined && Math.abs(a.xM - b.xM) < 1e-6 && Math.abs(a.yM - b.yM) < 1e-6
export type Drawn = { corners: Place[], isClosed: boolean }
/** A press: a corner more; on the first one, with three drawn, the floor is closed; on the last one nothing happens. */
export function pressed({ corners, isClosed }: Drawn, place: Place): Drawn {
  if (isClosed || isAt(corners.at(-1), place)) return { corners, isClosed }
  if (corners.length >= 3 && isAt(corners[0], place)) return { corners, isClosed: true }
  return { corners: [...corners, place], isClosed: false }
}
/** Takes the last corner back; of a closed floor the wall that closed it. */
export function takenBack({ corners, isClosed }: Drawn): Drawn {
  return isClosed ? { corners, isClosed: false } : { corners: corners.slice(0, -1), isClosed: false }
}

/** Lengths of the walls that are drawn, each in the middle of its wall; with where the pen is, that of the wall to come. */
export function wallLengths({ corners, isClosed }: Drawn, pen: Place | null, units: Units): { xM: number, yM: number, text: string }[] {
  const ring = isClosed ? [...corners, corners[0]!] : pen === null ? corners : [...corners, pen]
  return ring.slice(1).flatMap((b, k) => {
    const a = ring[k]!
    const lengthM = Math.hypot(b.xM - a.xM, b.yM - a.yM)
    return lengthM < 1e-6 ? [] : [{ xM: (a.xM + b.xM) / 2, yM: (a.yM + b.yM) / 2, text: writeNumber(lengthIn(lengthM, units), 3) }]
  })
}
