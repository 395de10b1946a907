/** Aims for what the wire may lose. Source: common practice, no source. */
export const LOSS_LIMIT_DB = {
  /** A constant-voltage line: about 10 % of the volts at the far end is tolerated. */
  'constant-voltage': -20 * Math.log10(0.9),
  'low-impedance': 0.5,
} as const

/** Beyond this the far end is plainly quieter, whatever the kind of line. Source: common practice, no source. */
export const LOSS_STOP_DB = 3
