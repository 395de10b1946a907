import type { Drive } from './rating'

/** An output held at so many volts (rms) by a limiter; null holds nothing. What may not be driven stays so. */
export function heldAt(drive: Drive, limiterV: number | null, loadOhm: number): Drive {
  if (limiterV === null || drive.basis === 'under-floor' || limiterV >= drive.mostVolts) return drive
  const most = { mostVolts: limiterV, mostW: limiterV ** 2 / loadOhm }
  return limiterV >= drive.volts ? { ...drive, ...most } : { volts: limiterV, powerW: most.mostW, ...most, basis: 'limited' }
}
