import { InputError } from '#core/quantity/inputError'
import { readQuantity } from '#core/quantity/read'
import { writeNumber } from '#core/quantity/write'
import { areaM2, crossingWalls, rectangle, type Outline, type Place } from './outline'
import { MOST_CORNERS } from './limits'

/** A floor as it is typed: "18 x 9 m", or its walls one after the other with the turn between them: "12 right 4 right 3 left 5 right 9 right 9". */

const EXAMPLES = ['18 x 9 m', '12 right 4 right 3 left 5 right 9 right 9'] as const
/** Walls that a person measured seldom close to the millimetre; a gap up to this is closed, metres. */
const GAP_M = 0.1

/**
 * Reads a floor. Walls are walked along: the first to the right, at each *right* or *left* a quarter turn; the last one has to end where the first began.
 * @returns the corners, from the first one typed
 * @throws InputError naming the character at fault, or by how much the walls do not close
 */
export function readFloor(text: string): Place[] {
  if (text.trim() === '') throw new InputError('No floor given.', 0, EXAMPLES)
  const product = /^(.*?)(?:[x×*]|\bby\b)(.*)$/is.exec(text)
  if (product && !/left|right/i.test(text)) {
    const unit = /[a-z'"′″]+\s*$/i.exec(product[2]!)?.[0].trim() ?? ''
    const first = /[a-z'"′″]/i.test(product[1]!) ? product[1]! : `${product[1]!.trimEnd()} ${unit}`
    // The second first: the first one borrows its unit.
    const widthM = lengthOf(product[2]!, text.length - product[2]!.length)
    return checked(rectangle(lengthOf(first, 0), widthM), text)
  }
  return checked(walked(text), text)
}

function lengthOf(text: string, at: number): number {
  try {
    const lengthM = readQuantity('length', text)
    if (lengthM === 0) throw new InputError('A wall of no length cannot be drawn.', 0, EXAMPLES)
    return lengthM
  }
  catch (error) {
    throw error instanceof InputError ? new InputError(error.message, at + error.position, error.expected) : error
  }
}

const HEADINGS = [[1, 0], [0, 1], [-1, 0], [0, -1]] as const

function walked(text: string): Place[] {
  const corners: Place[] = []
  let [xM, yM, heading] = [0, 0, 0]
  const pieces = [...text.matchAll(/(.*?)(?:,?\s*\b(right|left|r|l)\b[,\s]*|$)/gisy)].filter(m => m[0] !== '')
  for (const { 1: words, 2: turn, index } of pieces) {
    corners.push({ xM, yM })
    const lengthM = lengthOf(words!, index)
    xM = near(xM + HEADINGS[heading]![0] * lengthM)
    yM = near(yM + HEADINGS[heading]![1] * lengthM)
    heading = (heading + (turn?.startsWith('l') ? 3 : 1)) % 4
  }
  const gapM = Math.hypot(xM, yM)
  if (pieces.length < 4) throw new InputError('A floor has at least four walls; or two lengths with an x between them.', text.length, EXAMPLES)
  if (gapM > GAP_M) throw new InputError(`The last wall ends ${writeNumber(gapM)} m from where the first began.`, text.length, EXAMPLES)
  return fromZero(corners)
}

/** Corners with the least of each way at zero. */
function fromZero(corners: Outline): Place[] {
  const box = { xM: Math.min(...corners.map(c => c.xM)), yM: Math.min(...corners.map(c => c.yM)) }
  return corners.map(c => ({ xM: near(c.xM - box.xM), yM: near(c.yM - box.yM) }))
}

/**
 * A floor of corners that were drawn one after the other; those in the middle of a straight wall are left out.
 * @throws InputError where walls cross, or where it is no floor
 */
export function floorOfCorners(corners: Outline): Place[] {
  const turns = corners.filter((p, k) => {
    const [before, after] = [corners[(k + corners.length - 1) % corners.length]!, corners[(k + 1) % corners.length]!]
    const [ax, ay, bx, by] = [p.xM - before.xM, p.yM - before.yM, after.xM - p.xM, after.yM - p.yM]
    return Math.abs(ax * by - ay * bx) > 1e-9 || ax * bx + ay * by < 0
  })
  if (turns.length < 3) throw new InputError('A floor has at least three corners.', 0, EXAMPLES)
  return checked(fromZero(turns), '')
}

/** To the millimetre: sums of feet leave crumbs. */
const near = (metres: number) => Math.round(metres * 1000) / 1000 || 0

function checked(outline: Place[], text: string): Place[] {
  if (outline.length > MOST_CORNERS) throw new InputError(`A floor has at most ${MOST_CORNERS} walls here.`, text.length, EXAMPLES)
  const crossing = crossingWalls(outline)
  if (crossing) throw new InputError(`Walls ${crossing[0]} and ${crossing[1]} cross.`, text.length, EXAMPLES)
  if (areaM2(outline) < 0.5) throw new InputError('The floor is smaller than half a square metre.', 0, EXAMPLES)
  return outline
}

/** A floor as it could be typed; null where its walls are not at right angles. */
export function writeFloor(outline: Outline): string | null {
  const walls = outline.map((a, k) => {
    const b = outline[(k + 1) % outline.length]!
    return { dx: near(b.xM - a.xM), dy: near(b.yM - a.yM) }
  })
  if (walls.some(w => (w.dx === 0) === (w.dy === 0)) || !(walls[0]!.dx > 0)) return null
  const lengths = walls.map(w => writeNumber(Math.abs(w.dx + w.dy), 5))
  const turns = walls.map((w, k) => {
    const next = walls[(k + 1) % walls.length]!
    return Math.sign(w.dx * next.dy - w.dy * next.dx)
  })
  if (turns.includes(0)) return null
  if (outline.length === 4 && turns.every(t => t > 0)) return `${lengths[0]} x ${lengths[1]} m`
  return lengths.map((length, k) => k === lengths.length - 1 ? length : `${length} ${turns[k]! > 0 ? 'right' : 'left'}`).join(' ')
}
