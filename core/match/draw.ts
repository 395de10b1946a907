import type { CountedDraw } from '#core/practice/reserve'
import type { LineFacts } from './facts'

/** A line's draw as the schools of reserve count it. */
export function countedDraw({ amplifierW, lostW }: Pick<LineFacts, 'amplifierW' | 'lostW'>, drawW: number): CountedDraw {
  return { tapsW: drawW, reachedW: amplifierW === null || lostW === null ? drawW : amplifierW - lostW, wireLossW: lostW ?? 0 }
}
