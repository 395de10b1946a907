import { lineVoltageName } from './lineVoltages'
import { QUIETLY } from './kinds/valve'
import { CHANNEL_LOAD, floorOfChannel } from './kinds/solidState'
import type { ChannelMode, LineKind, OutputRating, ValveRating } from './rating'

/**
 * What may be asked of an output, whatever its kind. Each answer is an exhaustive switch: a new kind of rating does not compile
 * until all are answered, and nowhere else is a rating's kind looked at.
 */

/** The kind of line that an output is made for; null while nothing is known of it. */
export function lineKindOf(rating: OutputRating): LineKind | null {
  switch (rating.kind) {
    case 'solid-state':
    case 'valve': return 'low-impedance'
    case 'constant-voltage': return 'constant-voltage'
    case 'not-known': return null
  }
}

/** Whether its power is stated, so that a load can be judged at all. */
export function isRated(rating: OutputRating): boolean {
  return ratedW(rating) !== null
}

/** The most that is stated of it, W: at its line voltage, or at the rated load where it gives most; null where nothing is. */
export function ratedW(rating: OutputRating): number | null {
  switch (rating.kind) {
    case 'solid-state': return Math.max(...rating.points.map(p => p.powerW)) * (rating.mode === 'single' ? 1 : 2)
    case 'constant-voltage':
    case 'valve': return rating.powerW
    case 'not-known': return null
  }
}

/** Volts of the line that it drives; null for an output without a line voltage. */
export function lineVoltsOf(rating: OutputRating): number | null {
  switch (rating.kind) {
    case 'constant-voltage': return rating.lineV
    case 'solid-state':
    case 'valve':
    case 'not-known': return null
  }
}

/** Volts (rms) that it reaches at most by its ratings; null where no power is stated. Source: P = V²/Z. */
export function ratedV(rating: OutputRating): number | null {
  switch (rating.kind) {
    case 'solid-state': return Math.max(...rating.points.map(p => Math.sqrt(p.powerW * p.loadOhm))) * (rating.mode === 'bridged' ? 2 : 1)
    case 'valve': return rating.powerW === null || rating.tapOhm === null ? null : Math.sqrt(rating.powerW * rating.tapOhm)
    case 'constant-voltage': return rating.lineV
    case 'not-known': return null
  }
}

/** The lowest load that it may be given, Ω; null where it is judged by watts, or nothing is known. Not stated: the lowest rated load. */
export function floorOhm(rating: OutputRating): number | null {
  switch (rating.kind) {
    case 'solid-state': return floorOfChannel(rating) / CHANNEL_LOAD[rating.mode]
    case 'valve': return rating.tapOhm === null ? null : QUIETLY * rating.tapOhm
    case 'constant-voltage':
    case 'not-known': return null
  }
}

/** Whether its floor is its maker's word; otherwise it is taken from the lowest rated load. */
export function isFloorStated(rating: OutputRating): boolean {
  switch (rating.kind) {
    case 'solid-state': return rating.floorOhm !== null || isBridgedFloorStated(rating)
    case 'valve':
    case 'constant-voltage':
    case 'not-known': return false
  }
}

/** Whether two bridged channels have a floor of their own, by their maker's word. */
export function isBridgedFloorStated(rating: OutputRating): boolean {
  switch (rating.kind) {
    case 'solid-state': return rating.mode === 'bridged' && rating.bridgedFloorOhm !== null
    case 'valve':
    case 'constant-voltage':
    case 'not-known': return false
  }
}

/** How two channels are joined, as it stands behind their rating. */
export const MODE_WORDS: Record<ChannelMode, string> = { single: '', bridged: ' bridged', parallel: ' in parallel' }

/** A rating as it is typed and read again: "300 W at 4, 180 W at 8, from 2", "70 V 240 W"; empty where nothing is known. */
export function writeRating(rating: OutputRating): string {
  switch (rating.kind) {
    case 'not-known': return ''
    case 'constant-voltage': return lineVoltageName(rating.lineV) + (rating.powerW === null ? '' : ` ${rating.powerW} W`)
    case 'solid-state': {
      const channel = [...rating.points.map(p => `${p.powerW} W at ${p.loadOhm}`), ...(rating.floorOhm === null ? [] : [`from ${rating.floorOhm}`])].join(', ')
      return rating.mode === 'single' ? channel : `2 x ${channel}${MODE_WORDS[rating.mode]}${isBridgedFloorStated(rating) ? ` from ${rating.bridgedFloorOhm}` : ''}`
    }
    case 'valve': {
      const power = rating.powerW === null ? '' : ` ${rating.powerW} W`
      return `valve${power} at ${rating.tapsOhm.join('/')}${rating.tapOhm === null ? '' : `, tap ${rating.tapOhm}`}`
    }
  }
}

/** The lowest load for which a power is stated, Ω; null where power is not stated by load. */
export function lowestRatedOhm(rating: OutputRating): number | null {
  switch (rating.kind) {
    case 'solid-state': return Math.min(...rating.points.map(p => p.loadOhm)) / CHANNEL_LOAD[rating.mode]
    case 'constant-voltage':
    case 'valve':
    case 'not-known': return null
  }
}

/** How many channels it is, and how they are joined. */
export function modeOf(rating: OutputRating): ChannelMode {
  switch (rating.kind) {
    case 'solid-state': return rating.mode
    case 'constant-voltage':
    case 'valve':
    case 'not-known': return 'single'
  }
}

/** Its taps, where it is a valve output: judged by the tap, not by a floor. */
export function valveOf(rating: OutputRating): ValveRating | null {
  switch (rating.kind) {
    case 'valve': return rating
    case 'solid-state':
    case 'constant-voltage':
    case 'not-known': return null
  }
}
