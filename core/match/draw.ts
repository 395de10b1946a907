import type { CountedDraw } from '#core/practice/reserve'
import type { LineFacts } from './facts'

/** A line's draw as the schools of reserve count it. */
export function countedDraw({ amplifierW, lostW }: Pick<LineFacts, 'amplifierW' | 'lostW'>, drawW: number): CountedDraw {
  return { tapsW: drawW, reachedW: amplifierW === null || lostW === null ? drawW : amplifierW - lostW, wireLossW: lostW ?? 0 }
}

/** All taps together draw what they are set to, within this share: arithmetic alone makes no more. */
const AS_SET = 0.01

/** Whether the taps draw what they are set to: each across the line. Not known is no contradiction. */
export function drawsAsSet({ tapsW, drawW }: Pick<LineFacts, 'tapsW' | 'drawW'>): boolean {
  return tapsW === null || drawW === null || !(Math.abs(drawW / tapsW - 1) > AS_SET)
}
