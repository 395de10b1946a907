/** What hangs on an output: loads judged by their ohms, or taps of a line at its voltage judged by their watts. */
export type LineKind = 'low-impedance' | 'constant-voltage'

/** Rated power of an output into one load. */
export interface RatedPoint { loadOhm: number, powerW: number }

/** How many channels of an amplifier an output is: one, or two that drive one load against each other, or side by side. */
export type ChannelMode = 'single' | 'bridged' | 'parallel'

export interface SolidStateRating {
  kind: 'solid-state'
  /** Of one channel, also where two are joined. At least one, any order. */
  points: RatedPoint[]
  /** Lowest load its maker allows one channel; null: not stated, the lowest rated load is taken. */
  floorOhm: number | null
  mode: ChannelMode
  /** Lowest load that its maker allows two bridged; null: not stated, twice the floor of one channel is taken. */
  bridgedFloorOhm: number | null
}

/** A valve output: a transformer with taps, and the one that the line is on. */
export interface ValveRating {
  kind: 'valve'
  /** At any tap into the load of that tap; null: not known yet. */
  powerW: number | null
  /** Rising. */
  tapsOhm: number[]
  /** The tap that the line is on; null: not stated. */
  tapOhm: number | null
  /** How the tap is chosen: a switch behind common sockets, or a socket at each tap; null: not stated. */
  chosenBy: 'selector' | 'sockets' | null
}

export interface ConstantVoltageRating {
  kind: 'constant-voltage'
  lineV: number
  /** null: not known yet. */
  powerW: number | null
}

/** An output of which nothing is known: loads can be planned, nothing can be judged. */
export interface UnknownRating { kind: 'not-known' }

export type OutputRating = SolidStateRating | ConstantVoltageRating | ValveRating | UnknownRating

/** How an output stands to a load: where its figure comes from. */
export type Basis
  = | 'rated' // at a rated load
    | 'between' // between two rated loads
    | 'above' // above the highest rated load: its volts stay
    | 'not-rated' // between floor and lowest rated load: at least this
    | 'under-floor' // not allowed
    | 'line' // a constant-voltage output at its line voltage
    | 'matched' // a valve output whose tap is the load
    | 'above-tap' // a load above the tap: less power
    | 'limited' // held by a limiter below what it could give
    | 'below-tap' // a load below the tap: less power, and more heat

/**
 * What an output gives at full swing into a load. Where no power is rated there, it is known only between two ends: the least,
 * from the current it is known to give, and the most, with its volts kept. Elsewhere both are one. Under its floor it is asked
 * for what it may not give: `basis` says so, and the figures are nobody's to show.
 */
export interface Drive { volts: number, powerW: number, mostVolts: number, mostW: number, basis: Basis }
