/** A place on a floor, metres from the corner that its plan begins at: `xM` to the right, `yM` away from whoever reads it. */
export interface Place { xM: number, yM: number }

/** Corners of a floor in order, the last joined to the first. */
export type Outline = readonly Place[]

export function rectangle(lengthM: number, widthM: number): Place[] {
  return [{ xM: 0, yM: 0 }, { xM: lengthM, yM: 0 }, { xM: lengthM, yM: widthM }, { xM: 0, yM: widthM }]
}

/** Floor area, m², however the corners run. Source: the shoelace formula, any text on plane geometry. */
export function areaM2(outline: Outline): number {
  let twice = 0
  for (const [k, a] of outline.entries()) {
    const b = outline[(k + 1) % outline.length]!
    twice += a.xM * b.yM - b.xM * a.yM
  }
  return Math.abs(twice) / 2
}

export interface Box { fromXM: number, fromYM: number, lengthM: number, widthM: number }

export function boxOf(outline: Outline): Box {
  const xs = outline.map(p => p.xM)
  const ys = outline.map(p => p.yM)
  const [fromXM, fromYM] = [Math.min(...xs), Math.min(...ys)]
  return { fromXM, fromYM, lengthM: Math.max(...xs) - fromXM, widthM: Math.max(...ys) - fromYM }
}

/** Whether a place lies on the floor: a ray from it crosses the walls an odd number of times. */
export function contains(outline: Outline, { xM, yM }: Place): boolean {
  let isInside = false
  for (const [k, a] of outline.entries()) {
    const b = outline[(k + 1) % outline.length]!
    if ((a.yM > yM) !== (b.yM > yM) && xM < a.xM + (yM - a.yM) / (b.yM - a.yM) * (b.xM - a.xM)) isInside = !isInside
  }
  return isInside
}

/** On which side of a wall a place lies: positive, negative, or zero on it. */
const side = (a: Place, b: Place, p: Place) => Math.sign((b.xM - a.xM) * (p.yM - a.yM) - (b.yM - a.yM) * (p.xM - a.xM))
const isBetween = (a: Place, b: Place, p: Place) =>
  p.xM >= Math.min(a.xM, b.xM) && p.xM <= Math.max(a.xM, b.xM) && p.yM >= Math.min(a.yM, b.yM) && p.yM <= Math.max(a.yM, b.yM)

/** The first two walls that cross or touch without following each other, counted from one; null where none do. */
export function crossingWalls(outline: Outline): [number, number] | null {
  const n = outline.length
  const wall = (k: number) => [outline[k]!, outline[(k + 1) % n]!] as const
  for (let i = 0; i < n; i++) {
    const [a, b] = wall(i)
    for (let j = i + 1; j < n; j++) {
      const [c, d] = wall(j)
      const follow = j === i + 1 || (i === 0 && j === n - 1)
      if (follow) {
        // Walls that follow each other share a corner; they must not run back over each other.
        const [from, at, to] = j === i + 1 ? [a, b, d] : [c, a, b]
        if (side(from, at, to) === 0 && (at.xM - from.xM) * (to.xM - at.xM) + (at.yM - from.yM) * (to.yM - at.yM) < 0) return [i + 1, j + 1]
        continue
      }
      const [s1, s2, s3, s4] = [side(a, b, c), side(a, b, d), side(c, d, a), side(c, d, b)]
      const touches = (s1 === 0 && isBetween(a, b, c)) || (s2 === 0 && isBetween(a, b, d))
        || (s3 === 0 && isBetween(c, d, a)) || (s4 === 0 && isBetween(c, d, b))
      if (touches || (s1 * s2 < 0 && s3 * s4 < 0)) return [i + 1, j + 1]
    }
  }
  return null
}
