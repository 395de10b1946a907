import { gainOf } from '#core/amplifier/index'
import { setBand } from '#core/hands/systemBands'
import { partsOf, together, type Edit } from '#core/job/edits'
import type { Band, Job } from '#core/job/schema'
import { findOutput } from '#core/job/tree'
import type { ClipReport } from '#core/programme/clip'
import { writeQuantity } from '#core/quantity/write'
import { bandsBeside, sharedOf } from '#core/line/surroundings'
import { isSameBand, MEETS } from '#core/line/playedBand'
import type { LineFacts } from '#core/line/facts'
import { PLAYED, powerMatch } from './powerMatch'

/** The outputs of a system that share the range: how loud each is for the same signal, and what each is to be set down by. */

export interface BandLevel {
  outputId: string
  label: string
  name: string
  band: Band
  /** At full output, W; level at one metre then, dB. Nulls are not known. */
  fullW: number | null
  fullDb: number | null
  gainDb: number | null
  /** Level at one metre for one volt into the amplifier, dB; where no gain is stated anywhere, for one volt out of it. */
  perVoltDb: number | null
  /** What its band is set down by so that all bands are as loud as the quietest, all outputs of a band together, dB; null while one of them is not known. */
  downDb: number | null
}

export interface SystemLevels {
  system: string
  /** From the lowest band up, in the order of the job. */
  rows: BandLevel[]
  /** Gains: stated of all; of none, so that equal ones are taken; or of some, which says nothing. */
  gains: 'stated' | 'taken-equal' | 'partly'
  /** Loudest band against quietest as they are set, dB; null while that is not known. */
  apartDb: number | null
}

/** Null for an output that plays everything. Source: sensitivity and power sum (product of level and gain in dB). */
export function systemLevels(job: Job, outputId: string, lines: readonly LineFacts[]): SystemLevels | null {
  const own = findOutput(job, outputId)?.output.band ?? null
  if (own === null) return null
  const rows = bandsBeside(sharedOf(job).bands, own)
    .flatMap(({ outputId: id, band }) => {
      const found = findOutput(job, id)
      const line = lines.find(l => l.output.id === id)
      return found && line ? [rowOf(job, found, line, band)] : []
    })
    .sort((a, b) => (a.band.fromHz ?? 0) - (b.band.fromHz ?? 0))
  const known = rows.filter(r => r.gainDb !== null).length
  const gains = known === rows.length ? 'stated' : known === 0 ? 'taken-equal' : 'partly'
  const withGain = rows.map(r => ({ ...r, perVoltDb: gains === 'partly' || r.perVoltDb === null ? null : r.perVoltDb + (gains === 'stated' ? r.gainDb! : 0) }))
  const isKnown = withGain.every(r => r.perVoltDb !== null)
  /** What all outputs of a band bring, as they are or as they are set. */
  const broughtDb = (band: Band, isAsSet: boolean) => addedDb(withGain.filter(r => isSameBand(r.band, band))
    .map(r => r.perVoltDb! - (isAsSet ? r.band.setDb! : 0)))
  const quietest = isKnown ? Math.min(...withGain.map(r => broughtDb(r.band, false))) : null
  const asSet = isKnown && withGain.every(r => r.band.setDb !== null) ? withGain.map(r => broughtDb(r.band, true)) : []
  return {
    system: own.system, gains, rows: withGain.map(r => ({ ...r, downDb: quietest === null ? null : broughtDb(r.band, false) - quietest })),
    apartDb: asSet.length === 0 ? null : Math.max(...asSet) - Math.min(...asSet),
  }
}

/** Crossovers are set in steps of half a decibel. Common practice, no source. */
const STEP_DB = 0.5

/** Whether a band is set down by what it should be, as near as its knob goes; null while that is not known. */
export const isSetRight = ({ band, downDb }: Pick<BandLevel, 'band' | 'downDb'>): boolean | null => downDb === null
  ? null
  : band.setDb !== null && Math.abs(band.setDb - downDb) <= STEP_DB / 2 + 1e-9

/** The levels that are yet to be noted as set, to half a decibel; null where there is none. */
export function levelsSet(job: Job, { rows }: SystemLevels): Edit | null {
  return together(rows.flatMap((r) => {
    const edit = isSetRight(r) === false ? setBand(job, r.outputId, { ...r.band, setDb: Math.round(r.downDb! / STEP_DB) * STEP_DB }) : null
    return edit ? partsOf(edit) : []
  }))
}

/** Levels of several sources at once: powers add. */
const addedDb = (levels: readonly number[]): number => 10 * Math.log10(levels.reduce((sum, db) => sum + 10 ** (db / 10), 0))

function rowOf(job: Job, { amplifier, output }: NonNullable<ReturnType<typeof findOutput>>, line: LineFacts, band: Band): BandLevel {
  const match = powerMatch(line, job.practice, job.kinds, PLAYED[0]!)
  const volts = line.upDrive && line.upDrive.basis !== 'under-floor' ? line.upDrive.mostVolts : null
  const fullDb = match?.levelDb ?? null
  return {
    outputId: output.id, label: output.label, name: output.name, band, fullW: line.mostW, fullDb, gainDb: gainOf(output.rating, amplifier),
    perVoltDb: fullDb === null || volts === null ? null : fullDb - 20 * Math.log10(volts), downDb: null,
  }
}

/** Where an amplifier for everything would send its harmonics: the highest crossover, and the power of the band below it, W. */
export interface Protected { above: string[], crossoverHz: number, powerW: number }
export function protectedAt({ rows }: SystemLevels): Protected | null {
  const crossoverHz = Math.max(...rows.map(r => r.band.fromHz ?? 0))
  const below = rows.filter(r => r.band.toHz !== null && r.band.toHz <= crossoverHz * MEETS && r.fullW !== null)
  if (crossoverHz === 0 || below.length === 0) return null
  return { above: rows.filter(r => r.band.fromHz === crossoverHz).map(r => r.label), crossoverHz, powerW: Math.max(...below.map(r => r.fullW!)) }
}

/** `clipped`: that amplifier playing everything, so far overdriven; null while it is worked out. */
export function protectionSentence({ above, crossoverHz, powerW }: Protected, clipped: ClipReport | null, overDb: number): string {
  const hz = writeQuantity(crossoverHz, 'Hz')
  const stays = `What clips in a band stays in it: its harmonics go to its own units, and none to those on ${above.join(' and ')}.`
  if (!clipped) return stays
  return `${stays} One amplifier of ${writeQuantity(powerW, 'W')} for everything, driven ${overDb} dB into clipping with open music, would send ${writeQuantity(clipped.highW, 'W')} above ${hz}, where a clean signal has ${writeQuantity(clipped.cleanHighW, 'W')}.`
}

/** What follows from it, in a sentence. */
export function levelsSentence({ rows, gains, apartDb }: SystemLevels): string {
  if (rows.length < 2) return 'Only one band has an output: give the other one the same name.'
  if (rows.some(r => r.perVoltDb === null)) {
    return gains === 'partly'
      ? 'How loud they are to each other is not known: the gain of some amplifiers is stated, of others not.'
      : 'How loud they are to each other is not known: every speaker needs a kind with its sensitivity, every output its rated power.'
  }
  const taken = gains === 'taken-equal' ? ' No gain is stated: equal gains are taken.' : ''
  const bands = new Map<string, string[]>()
  for (const { label, downDb } of rows) if (downDb! >= 0.05) bands.set(downDb!.toFixed(1), [...bands.get(downDb!.toFixed(1)) ?? [], label])
  const down = [...bands].map(([db, labels]) => `${labels.join(' and ')} ${db} dB`)
  const sets = down.length === 0 ? 'All bands are equally loud as they are.' : `Equally loud with ${down.join(', ')} down.`
  if (apartDb === null) return `${sets}${taken}`
  return `${sets}${taken} As they are set they are ${apartDb < 0.5 ? 'equally loud within half a decibel' : `${apartDb.toFixed(1)} dB apart`}.`
}
