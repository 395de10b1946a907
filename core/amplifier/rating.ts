/** What hangs on an output: loads judged by their ohms, or taps of a line at its voltage judged by their watts. */
export type LineKind = 'low-impedance' | 'constant-voltage'

/** Rated power of an output into one load. */
export interface RatedPoint { loadOhm: number, powerW: number }

export interface SolidStateRating {
  kind: 'solid-state'
  /** At least one, any order. */
  points: RatedPoint[]
  /** Lowest load its maker allows; null: not stated, the lowest rated load is taken. */
  floorOhm: number | null
}

export interface ConstantVoltageRating {
  kind: 'constant-voltage'
  lineV: number
  /** null: not known yet. */
  powerW: number | null
}

/** An output of which nothing is known: loads can be planned, nothing can be judged. */
export interface UnknownRating { kind: 'not-known' }

export type OutputRating = SolidStateRating | ConstantVoltageRating | UnknownRating

/** How an output stands to a load: where its figure comes from. */
export type Basis
  = | 'rated' // at a rated load
    | 'between' // between two rated loads
    | 'above' // above the highest rated load: its volts stay
    | 'not-rated' // between floor and lowest rated load: at least this
    | 'under-floor' // not allowed
    | 'line' // a constant-voltage output at its line voltage

/**
 * What an output gives at full swing into a load. Where no power is rated there, it is known only between two ends: the least,
 * from the current it is known to give, and the most, with its volts kept. Elsewhere both are one. Under its floor it is asked
 * for what it may not give: `basis` says so, and the figures are nobody's to show.
 */
export interface Drive { volts: number, powerW: number, mostVolts: number, mostW: number, basis: Basis }
