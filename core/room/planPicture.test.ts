import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { fittedTo, scaledByTwo, type PlanPicture } from './planPicture'
import { always } from '#core/testing/runs'

/** Where a pixel of the picture lies on the floor: turned about the middle, by hand. */
function onFloor({ widthPx, heightPx, mPerPx, xM, yM, turnDeg }: PlanPicture, px: number, py: number) {
  const [dx, dy] = [(px - widthPx / 2) * mPerPx, (py - heightPx / 2) * mPerPx]
  const [cos, sin] = [Math.cos(turnDeg * Math.PI / 180), Math.sin(turnDeg * Math.PI / 180)]
  return { xM: xM + dx * cos - dy * sin, yM: yM + dx * sin + dy * cos }
}

test('two points and a length: they are so far apart then, and the first is where it was', () => {
  const number = (min: number, max: number) => fc.double({ min, max, noNaN: true })
  const pixel = fc.tuple(number(0, 1600), number(0, 900))
  const placed = [number(0.001, 0.2), number(-50, 50), number(-50, 50), number(-180, 180)] as const
  always(fc.property(...placed, pixel, pixel, number(0.1, 80), (mPerPx, xM, yM, turnDeg, [ax, ay], [bx, by], lengthM) => {
    fc.pre(Math.hypot(ax - bx, ay - by) > 1)
    const picture: PlanPicture = { widthPx: 1600, heightPx: 900, mPerPx, xM, yM, turnDeg }
    const [a, b] = [onFloor(picture, ax, ay), onFloor(picture, bx, by)]
    const scaled = scaledByTwo(picture, a, b, lengthM)
    const [c, d] = [onFloor(scaled, ax, ay), onFloor(scaled, bx, by)]
    expect(Math.hypot(c.xM - a.xM, c.yM - a.yM)).toBeLessThan(1e-6)
    expect(Math.hypot(c.xM - d.xM, c.yM - d.yM)).toBeCloseTo(lengthM, 6)
  }), 300)
  expect(() => scaledByTwo({ widthPx: 1, heightPx: 1, mPerPx: 1, xM: 0, yM: 0, turnDeg: 0 }, { xM: 1, yM: 1 }, { xM: 1, yM: 1 }, 5)).toThrow(RangeError)
})

test('before that it covers the floor, its middle on the middle', () => {
  const size = { widthPx: 1600, heightPx: 1600 }
  expect(fittedTo({ fromXM: 2, fromYM: 1, lengthM: 16, widthM: 9 }, size)).toEqual({ widthPx: 1600, heightPx: 1600, mPerPx: 0.01, xM: 10, yM: 5.5, turnDeg: 0 })
})
