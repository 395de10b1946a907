import type { Place } from './outline'

/** A picture of the building's own plan under the floor of a space: pixels of the picture, metres of the floor. */
export interface PlanPicture {
  widthPx: number
  heightPx: number
  /** Metres that a pixel stands for. */
  mPerPx: number
  /** Where its middle lies on the floor, m. */
  xM: number
  yM: number
  /** Turned about its middle, clockwise as the plan is seen. */
  turnDeg: number
}

/** As wide as the floor, its middle on that of the floor: until somebody says its scale. */
export function fittedTo(box: { fromXM: number, fromYM: number, lengthM: number, widthM: number }, size: { widthPx: number, heightPx: number }): PlanPicture {
  const mPerPx = Math.max(box.lengthM / size.widthPx, box.widthM / size.heightPx)
  return { ...size, mPerPx, xM: box.fromXM + box.lengthM / 2, yM: box.fromYM + box.widthM / 2, turnDeg: 0 }
}

/**
 * The same picture, so scaled that two points which lie on it now are so far apart; what is under the first stays under it.
 * @throws RangeError where the two are one, or the length is none
 */
export function scaledByTwo<P extends PlanPicture>(picture: P, first: Place, second: Place, lengthM: number): P {
  const apartM = Math.hypot(second.xM - first.xM, second.yM - first.yM)
  if (!(apartM > 1e-6) || !(lengthM > 0)) throw new RangeError('two points apart, and a length')
  const factor = lengthM / apartM
  return { ...picture, mPerPx: picture.mPerPx * factor, xM: first.xM + (picture.xM - first.xM) * factor, yM: first.yM + (picture.yM - first.yM) * factor }
}
