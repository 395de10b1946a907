import { z } from 'zod'
import { InputError } from '#core/quantity/inputError'
import { normalBelow } from '#core/trace/chances'
import { studentAt } from './student'

/**
 * A power transformer that warms up, and where it will end: T(t) = T_a + ΔT·(1 − e^(−t/τ)). Source: a body of one heat capacity, Newton's law of cooling.
 * The end is what a run says of a load; early in a run nobody can know it, and the interval says so.
 */

export interface Warm { minute: number, celsius: number }
/** What a run comes to. Temperatures in °C, times in minutes from its beginning. */
export interface ThermalFit {
  ambientC: number
  riseC: number
  tauMin: number
  endC: number
  /** 95 % of what the end may be; null: no bound can be told yet. */
  endLowC: number | null
  endHighC: number | null
}

/** Three figures are fitted; with one reading more the first interval can be told. */
export const LEAST_READINGS = 4
/** Transformers of amplifiers warm up in minutes to hours. Common practice, no source. */
const TAU_MIN = [1, 600] as const
/** How sure an interval is. */
const SURE = 0.95
/** Narrower than this, and the run has lasted long enough, K. */
export const ENOUGH_K = 3
/**
 * No thermometer is right by less, K: one sigma of what is written down, whole degrees or tenths. Common practice, no source. It keeps four readings that
 * happen to lie on a curve from being taken for a proof.
 */
const LEAST_SIGMA_K = 0.05

interface Sums { n: number, x: number, xx: number, y: number, xy: number, yy: number }
function sumsOf(run: readonly Warm[], tauMin: number): Sums {
  const s: Sums = { n: run.length, x: 0, xx: 0, y: 0, xy: 0, yy: 0 }
  // Against the first: differences of large figures are rounding.
  const first = run[0]!.celsius
  for (const { minute, celsius } of run) {
    const [x, y] = [Math.exp(-minute / tauMin), celsius - first]
    s.x += x
    s.xx += x * x
    s.y += y
    s.xy += x * y
    s.yy += y * y
  }
  return s
}

/** Sum of squares with the end held, and with the end free, for one τ: what is left is linear. T = end − ΔT·e^(−t/τ). */
const heldAt = ({ n, x, xx, y, xy, yy }: Sums, end: number): { left: number, rise: number } => {
  const rise = (end * x - xy) / xx
  return { rise, left: Math.max(0, yy - 2 * end * y + n * end ** 2 + 2 * rise * xy - 2 * end * rise * x + rise ** 2 * xx) }
}
function freeAt(s: Sums): { left: number, end: number, rise: number } {
  const det = s.n * s.xx - s.x ** 2
  if (det <= 1e-12 * s.n * s.xx) return { left: Infinity, end: 0, rise: 0 }
  const end = (s.y * s.xx - s.x * s.xy) / det
  return { end, ...heldAt(s, end) }
}

/** The least of a function of τ over all that τ may be: steps of a tenth, then by the golden section, so many times; enough where it is under `most`. */
function leastOver(of: (tauMin: number) => number, times: number, most = -Infinity): { tauMin: number, least: number } {
  const [from, to] = TAU_MIN.map(Math.log) as [number, number]
  const STEPS = 66
  const at = (k: number) => Math.exp(from + (to - from) * k / STEPS)
  let best = 0
  let least = Infinity
  for (let k = 0; k <= STEPS; k++) {
    const value = of(at(k))
    if (value < least) [best, least] = [k, value]
  }
  if (least <= most) return { tauMin: at(best), least }
  let [a, b] = [Math.log(at(Math.max(0, best - 1))), Math.log(at(Math.min(STEPS, best + 1)))]
  const golden = (Math.sqrt(5) - 1) / 2
  for (let n = 0; n < times; n++) {
    const [c, d] = [b - golden * (b - a), a + golden * (b - a)]
    if (of(Math.exp(c)) < of(Math.exp(d))) b = d
    else a = c
  }
  const tauMin = Math.exp((a + b) / 2)
  return { tauMin, least: Math.min(least, of(tauMin)) }
}

/** @throws InputError for a run that says nothing: too few readings, all at one time, times that go back */
export function fitThermal(run: readonly Warm[]): ThermalFit {
  checkRun(run)
  const memo = new Map<number, Sums>()
  const sums = (tauMin: number) => {
    if (!memo.has(tauMin)) memo.set(tauMin, sumsOf(run, tauMin))
    return memo.get(tauMin)!
  }
  const first = run[0]!.celsius
  const { tauMin } = leastOver(tau => freeAt(sums(tau)).left, 40)
  const { end, rise, left } = freeAt(sums(tauMin))
  const degrees = run.length - 3
  const variance = Math.max(left / degrees, LEAST_SIGMA_K ** 2)
  // What the end may be: as far as the squares stay under what chance makes of them (profile likelihood), whatever τ is then.
  const most = left + variance * studentAt((1 + SURE) / 2, degrees) ** 2
  const within = (other: number) => leastOver(tau => heldAt(sums(tau), other).left, 14, most).least <= most
  const edge = (way: 1 | -1): number | null => {
    let [inside, step] = [0, 0.25]
    while (within(end + way * step)) {
      inside = step
      step *= 2
      if (step > FAR_K) return null
    }
    let outside = step
    for (let n = 0; n < 18; n++) {
      const middle = (inside + outside) / 2
      if (within(end + way * middle)) inside = middle
      else outside = middle
    }
    return first + end + way * inside
  }
  return { ambientC: first + end - rise, riseC: rise, tauMin, endC: first + end, endLowC: edge(-1), endHighC: edge(1) }
}
/** An end further off than this is none that can be told, K. */
const FAR_K = 250

function checkRun(run: readonly Warm[]): void {
  if (run.length < LEAST_READINGS) throw new InputError(`${run.length} readings: a curve of three figures wants ${LEAST_READINGS} and more.`, 0, [])
  run.forEach(({ minute, celsius }, k) => {
    if (!(minute >= 0 && minute <= 10_000)) throw new InputError(`Reading ${k + 1}: its minute must be from 0 to 10,000.`, 0, [])
    if (!(celsius >= -40 && celsius <= 300)) throw new InputError(`Reading ${k + 1}: its temperature must be from −40 to 300 °C.`, 0, [])
    if (k > 0 && minute <= run[k - 1]!.minute) throw new InputError(`Reading ${k + 1}: minute ${minute} does not come after minute ${run[k - 1]!.minute}.`, 0, [])
  })
}

/** The temperature after so many minutes. */
export const temperatureAt = ({ ambientC, riseC, tauMin }: ThermalFit, minute: number): number => ambientC + riseC * (1 - Math.exp(-minute / tauMin))

/** When a limit is reached, minutes from the beginning; null: never, as it is forecast. */
export function reachesAt(fit: ThermalFit, limitC: number): number | null {
  const { ambientC, riseC, tauMin, endC } = fit
  if (ambientC >= limitC) return 0
  return endC <= limitC || riseC <= 0 ? null : -tauMin * Math.log(1 - (limitC - ambientC) / riseC)
}

/** Skin on bare metal for a minute, °C. Source: ISO 13732-1. */
export const SKIN_C = 51
export const WARNINGS = ['reached', 'will', 'may', 'not-known'] as const
export type Warning = (typeof WARNINGS)[number]

/** Whether a limit is reached, will be by the forecast, may be by its interval, or cannot be told yet; null: all of the interval lies under it. */
export function warnsOf(run: readonly Warm[], { endC, endHighC }: ThermalFit, limitC: number): Warning | null {
  if (run.some(r => r.celsius >= limitC)) return 'reached'
  if (endHighC === null) return endC > limitC ? 'may' : 'not-known'
  return endC > limitC ? 'will' : endHighC > limitC ? 'may' : null
}

/** A run against its baseline with a right load. Rises are compared, not ends: rooms differ from day to day. `sure`: that it rises more. */
export function against(fit: ThermalFit, baseline: ThermalFit): { riseRatio: number, sure: number } | null {
  const sigma = (f: ThermalFit) => f.endLowC === null || f.endHighC === null ? null : (f.endHighC - f.endLowC) / (2 * 1.96)
  const [one, other] = [sigma(fit), sigma(baseline)]
  if (baseline.riseC <= 0) return null
  // With no bound to either nobody can say which rises more.
  const sure = one === null || other === null ? 0.5 : normalBelow((fit.riseC - baseline.riseC) / Math.max(Math.hypot(one, other), 1e-9))
  return { riseRatio: fit.riseC / baseline.riseC, sure }
}

export const thermalSchema = z.strictObject({
  ambientC: z.number(), riseC: z.number(), tauMin: z.number(), endC: z.number(), endLowC: z.number().nullable(), endHighC: z.number().nullable(),
  limitC: z.number(),
  /** Minutes from the beginning at which the limit is reached, by the forecast. */
  limitAtMin: z.number().nullable(),
  warns: z.enum(WARNINGS).nullable(),
  /** The interval of the end is narrower than 3 K: it need not go on. */
  isEnough: z.boolean(),
  against: z.strictObject({ riseRatio: z.number(), sure: z.number() }).nullable(),
  says: z.array(z.string()),
})

/** All that a run says, and what it cannot say yet. */
export function thermalReport(run: readonly Warm[], baseline: readonly Warm[] | null, limitC: number): z.infer<typeof thermalSchema> {
  const fit = fitThermal(run)
  const compared = baseline === null ? null : against(fit, fitThermal(baseline))
  const warns = warnsOf(run, fit, limitC)
  const isEnough = fit.endLowC !== null && fit.endHighC !== null && fit.endHighC - fit.endLowC < ENOUGH_K
  const says = wordsOf(fit, { limitC, warns, isEnough, compared, isBaseline: baseline === null })
  return { ...fit, limitC, limitAtMin: reachesAt(fit, limitC), warns, isEnough, against: compared, says }
}

const whole = (celsius: number) => `${Math.round(celsius)} °C`
/** How sure somebody must be before a load is called right or wrong. Common practice, no source. */
const DECIDES = 0.95
/** A rise that is so much more is another load. Common practice, no source: mains and rooms make some percent. */
const MORE_RISE = 1.1

interface Said { limitC: number, warns: Warning | null, isEnough: boolean, compared: { riseRatio: number, sure: number } | null, isBaseline: boolean }
function wordsOf({ endC, endLowC, endHighC }: ThermalFit, { limitC, warns, isEnough, compared, isBaseline }: Said): string[] {
  const limit = limitC === SKIN_C ? `${whole(limitC)}, which skin stands for a minute on bare metal (ISO 13732-1)` : `your own limit of ${whole(limitC)}`
  const told: Record<Warning, string> = {
    'reached': `It has reached ${limit}. Off, and let it cool.`, 'will': `It will pass ${limit}. Off before it does.`,
    'may': `It may pass ${limit}: stay with it.`, 'not-known': `Whether it reaches ${limit} cannot be told yet: stay with it.`,
  }
  const between = endLowC === null || endHighC === null ? 'between what and what cannot be told yet' : `between ${whole(endLowC)} and ${whole(endHighC)}`
  return [
    ...warns === null ? [] : [told[warns]],
    `It will end near ${whole(endC)}, ${between}.${isEnough ? ' That is narrow enough to stop.' : ' Go on until that is narrower than 3 K.'}`,
    ...compared === null
      ? isBaseline ? ['Nothing to hold it against: first a run with a right load, from cold, in the same room, with the same programme.'] : []
      : compared.sure >= DECIDES && compared.riseRatio > MORE_RISE
        ? ['It rises more than with the right load: it is too low a load for this tap. Off.']
        : compared.sure <= 1 - DECIDES ? ['It rises no more than with the right load.'] : ['Whether it rises more than with the right load cannot be told yet.'],
    'Never inside a live chassis: valve amplifiers hold lethal voltage, also unplugged. The power transformer from outside, not the output transformer: it is the one that carries what the load asks for.',
  ]
}
