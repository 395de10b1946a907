import { z } from 'zod'
import { InputError } from '#core/quantity/inputError'
import { logSum } from '#core/trace/chances'
import { likeShown, METER_OHM, scaled, sigmasAbove } from '#core/trace/ohms'

/** Whether a coil, a lead or a contact comes and goes, by readings over days: the spread is the evidence. */

/** `at`: when, ISO 8601; ohm null: open. */
export interface DayReading { at: string, ohm: number | null }

/** What a coil of a label reads: of ordinary drivers, and of high-resistance small coils as in headphones and handsets. Common practice, no source. */
const DRIVER = { low: 0.7, high: 0.9 } as const
const SMALL_COIL = { low: 0.85, high: 1.2 } as const
/** From here on a label is of a small coil; of 16 Ω both kinds are made. */
export const SMALL_FROM_OHM = 16
export function coilBandOhm(nominalOhm: number): { lowOhm: number, highOhm: number } {
  const low = nominalOhm > SMALL_FROM_OHM ? SMALL_COIL.low : DRIVER.low
  const high = nominalOhm < SMALL_FROM_OHM ? DRIVER.high : SMALL_COIL.high
  return { lowOhm: low * nominalOhm, highOhm: high * nominalOhm }
}

export const INTERMITTENT_VERDICTS = ['comes-and-goes', 'open', 'high', 'low', 'right', 'not-known'] as const
export type IntermittentVerdict = (typeof INTERMITTENT_VERDICTS)[number]
export const intermittentSchema = z.strictObject({
  verdict: z.enum(INTERMITTENT_VERDICTS),
  /** Most less least of what was read in ohms; null where there are not two. */
  spreadOhm: z.number().nullable(),
  /** How sure that it comes and goes, or that it does not: whichever is likelier. */
  sure: z.number().min(0).max(1),
  /** Readings on other days that would settle it, as long as they go on as they are; 0: settled. */
  more: z.int().min(0),
  band: z.strictObject({ lowOhm: z.number(), highOhm: z.number() }),
  says: z.string(),
})

/** Of units that are read over days because somebody complained, so many come and go. Common practice, no source. */
const PRIOR = 0.4
/** One that comes and goes is right, open, or somewhere above, at one look. Common practice, no source. */
const LOOKS = { right: 0.5, open: 0.2, high: 0.3 } as const
/** How far above, as a factor: any as likely as any other. */
const ABOVE = [1.2, 60] as const
/** One steady unit from day to day: its temperature, how the meter is held: one sigma beside the meter's own. Common practice, no source. */
const DAY = 0.02
/** Readings closer together than this are one look: a contact stands as it stands, minutes. Common practice, no source. */
const ONE_LOOK_MIN = 30
/** Settled from here on. */
const SETTLED = 0.95
/** A slip of the meter, the lead or the pen: of all readings one in two hundred at a bench, where it is looked at twice. Common practice, no source. */
const SLIP = 0.005

const OHM_STEPS = 120

/** @throws InputError for no readings, times that are none, ohms out of bounds */
export function intermittent(readings: readonly DayReading[], nominalOhm: number): z.infer<typeof intermittentSchema> {
  if (readings.length === 0) throw new InputError('No readings.', 0, [])
  const looks = looksOf(readings)
  const band = coilBandOhm(nominalOhm)
  const comes = 1 / (1 + Math.exp(Math.log((1 - PRIOR) / PRIOR) + steadyLog(looks, nominalOhm) - unsteadyLog(looks, nominalOhm)))
  const sure = Math.max(comes, 1 - comes)
  const ohms = readings.flatMap(r => r.ohm ?? [])
  const verdict: IntermittentVerdict = sure < SETTLED ? 'not-known' : comes > 0.5 ? 'comes-and-goes' : steadyVerdict(looks, band)
  const more = sure >= SETTLED ? 0 : moreLooks(looks, nominalOhm, comes)
  const spreadOhm = ohms.length > 1 ? Math.max(...ohms) - Math.min(...ohms) : null
  return { verdict, spreadOhm, sure, more, band, says: saysOf(verdict, readings, more, nominalOhm) }
}

/** Readings that are a look of their own; of several at one look the worst, which is what a contact was at. */
function looksOf(readings: readonly DayReading[]): (number | null)[] {
  const timed = readings.map(({ at, ohm }, k) => {
    const minutes = Date.parse(at) / 60_000
    if (!Number.isFinite(minutes)) throw new InputError(`Reading ${k + 1}: “${at}” is no time. Write it as 2026-05-04T09:00.`, 0, [])
    if (ohm !== null && !(ohm >= 0 && ohm <= 100e6)) throw new InputError(`Reading ${k + 1}: ohms are from 0 to 100 MΩ, or open.`, 0, [])
    return { minutes, ohm }
  }).sort((a, b) => a.minutes - b.minutes)
  const looks: { minutes: number, ohm: number | null }[] = []
  for (const reading of timed) {
    const last = looks.at(-1)
    if (!last || reading.minutes - last.minutes >= ONE_LOOK_MIN || differs(last.ohm, reading.ohm)) looks.push(reading)
  }
  return looks.map(l => l.ohm)
}
const differs = (a: number | null, b: number | null): boolean => a === null || b === null
  ? a !== b
  : Math.abs(sigmasAbove(a, b, DAY ** 2)) > 3

const like = (ohm: number, centreOhm: number): number => likeShown(ohm, centreOhm, DAY ** 2)
/** Of a slip: any ohms from a tenth to ten times the label, or open. */
function likeSlip(ohm: number | null, nominalOhm: number): number {
  if (ohm === null) return 0.1
  return Math.abs(Math.log((ohm + METER_OHM) / nominalOhm)) < Math.log(60) ? 0.9 / (2 * Math.log(60)) : 1e-4
}
const slipped = (chance: number, ohm: number | null, nominalOhm: number): number => Math.log((1 - SLIP) * chance + SLIP * likeSlip(ohm, nominalOhm))

/** What it reads when it is right may be anything from half of its label to twice it: it need not be the unit that its label says. */
function centresOf(nominalOhm: number): number[] {
  return Array.from({ length: OHM_STEPS }, (_, k) => nominalOhm * 0.4 * 5 ** (k / (OHM_STEPS - 1)))
}

/** Steady: one figure at every look, whatever it is; or open at every look. */
function steadyLog(looks: readonly (number | null)[], nominalOhm: number): number {
  const right = centresOf(nominalOhm).map(c => looks.reduce<number>((sum, ohm) => sum + slipped(ohm === null ? 0 : like(ohm, c), ohm, nominalOhm), 0))
  // A failed one that stays as it is.
  const away = Array.from({ length: OHM_STEPS }, (_, k) => nominalOhm * 2 * 60 ** (k / (OHM_STEPS - 1)))
  const high = away.map(c => looks.reduce<number>((sum, ohm) => sum + slipped(ohm === null ? 0 : like(ohm, c), ohm, nominalOhm), 0))
  const open = looks.reduce<number>((sum, ohm) => sum + slipped(ohm === null ? 1 : 0, ohm, nominalOhm), 0)
  return logSum([Math.log(0.7 / OHM_STEPS) + logSum(right), Math.log(0.15 / OHM_STEPS) + logSum(high), Math.log(0.15) + open])
}

/** Comes and goes: each look by itself right, open or above. */
function unsteadyLog(looks: readonly (number | null)[], nominalOhm: number): number {
  const logs = centresOf(nominalOhm).map(c => looks.reduce<number>((sum, ohm) => sum + slipped(unsteadyChance(ohm, c), ohm, nominalOhm), 0))
  return logSum(logs) - Math.log(OHM_STEPS)
}
function unsteadyChance(ohm: number | null, centreOhm: number): number {
  if (ohm === null) return LOOKS.open
  const above = scaled(ohm) - scaled(centreOhm)
  const isAbove = above >= Math.log(ABOVE[0]) && above <= Math.log(ABOVE[1])
  return LOOKS.right * like(ohm, centreOhm) + (isAbove ? LOOKS.high / Math.log(ABOVE[1] / ABOVE[0]) : 0)
}

function steadyVerdict(looks: readonly (number | null)[], { lowOhm, highOhm }: { lowOhm: number, highOhm: number }): IntermittentVerdict {
  const ohms = looks.flatMap(ohm => ohm ?? []).sort((a, b) => a - b)
  if (ohms.length * 2 <= looks.length) return 'open'
  const middle = ohms[ohms.length >> 1]!
  // As far as a meter can tell.
  return middle > highOhm * 1.03 + METER_OHM ? 'high' : middle < lowOhm * 0.97 - METER_OHM ? 'low' : 'right'
}

/** How many looks more, each as the middle one so far, until it is settled; another one is asked for where it goes up and down. */
function moreLooks(looks: readonly (number | null)[], nominalOhm: number, comes: number): number {
  if (comes > 0.5) return 1
  const ohms = looks.flatMap(ohm => ohm ?? []).sort((a, b) => a - b)
  const usual = ohms.length === 0 ? null : ohms[ohms.length >> 1]!
  const next = [...looks]
  for (let more = 1; more <= 30; more++) {
    next.push(usual)
    const now = 1 / (1 + Math.exp(Math.log((1 - PRIOR) / PRIOR) + steadyLog(next, nominalOhm) - unsteadyLog(next, nominalOhm)))
    if (Math.max(now, 1 - now) >= SETTLED) return more
  }
  return 30
}

const ohmText = (ohm: number) => `${Number(ohm.toPrecision(3))} Ω`
/** In words that the owner of it understands. */
function saysOf(verdict: IntermittentVerdict, readings: readonly DayReading[], more: number, nominalOhm: number): string {
  const ohms = readings.flatMap(r => r.ohm ?? [])
  const isOpenToo = ohms.length < readings.length
  const seen = ohms.length === 0 ? 'open' : `${ohmText(Math.min(...ohms))}${Math.max(...ohms) > Math.min(...ohms) ? ` to ${ohmText(Math.max(...ohms))}` : ''}${isOpenToo ? ', and open' : ''}`
  switch (verdict) {
    case 'comes-and-goes': return `A ${ohmText(nominalOhm)} unit that reads ${seen} has a joint inside that opens and closes. It plays on some days, and one day not any more: it is replaced, not mended.`
    case 'open': return 'Open at every look: the coil, its lead-out or its terminal is broken. It is replaced.'
    case 'high': return `Steady at ${seen}, above what a ${ohmText(nominalOhm)} unit reads: another unit than its label says, or a bad joint that stays as it is.`
    case 'low': return `Steady at ${seen}, under what a ${ohmText(nominalOhm)} unit reads: turns that touch, or another unit than its label says.`
    case 'right': return `Steady at ${seen}: by its ohms it is right. Ohms do not hear: one that rubs reads right, too.`
    case 'not-known': return `Not known yet whether it comes and goes: ${more === 1 ? 'one reading more, on another day,' : `${more} readings more, on other days,`} would settle it. Cold and warm, pressed and wiggled.`
  }
}
