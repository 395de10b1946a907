import { ratedW } from '#core/amplifier/index'
import type { LineEvaluation } from './evaluate'

/** What stands at the head of a rail: asked, lost, and what the output can give, W. Nulls are not known. */
export interface HeadFigures {
  askedW: number
  lostW: number
  ratedW: number | null
  /** How far each school lets the taps go (a line), or what the chosen one asks of the amplifier (low impedance). */
  marks: { w: number, chosen: boolean }[]
  spareW: number | null
}

export function headFigures(line: LineEvaluation): HeadFigures {
  const rated = ratedW(line.output.rating)
  const lostW = line.lostW ?? 0
  if (line.kind === 'constant-voltage') {
    const askedW = line.tapsW ?? 0
    // A school's mark stands where the taps may go up to: taps × rated / required.
    const marks = rated === null || askedW === 0 ? [] : line.required.flatMap(r => r.powerW ? [{ w: askedW * rated / r.powerW, chosen: r.chosen }] : [])
    return { askedW, lostW, ratedW: rated, marks, spareW: rated === null ? null : (marks.find(m => m.chosen)?.w ?? rated) - askedW }
  }
  const askedW = Math.max(0, (line.amplifierW ?? 0) - lostW)
  const wanted = line.required.find(r => r.chosen)?.powerW
  return { askedW, lostW, ratedW: rated, marks: wanted ? [{ w: wanted, chosen: true }] : [], spareW: rated === null ? null : rated - askedW - lostW }
}
