import type { LineFacts } from './facts'

/** All taps together draw what they are set to, within this share: arithmetic alone makes no more. */
const AS_SET = 0.01

/** Whether the taps draw what they are set to: each across the line. Not known is no contradiction. */
export function drawsAsSet({ tapsW, drawW }: Pick<LineFacts, 'tapsW' | 'drawW'>): boolean {
  return tapsW === null || drawW === null || !(Math.abs(drawW / tapsW - 1) > AS_SET)
}
