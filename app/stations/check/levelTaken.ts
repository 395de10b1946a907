import { SIGNAL_WORDS } from '#core/check/words'
import type { Job, LevelSignal, ReadingValue } from '#core/job/schema'
import { LEVEL_SIGNALS, WEIGHTINGS } from '#core/job/sections/readings/schema'
import { InputError } from '#core/quantity/inputError'
import { readQuantity } from '#core/quantity/read'

type Level = Extract<ReadingValue, { is: 'level' }>

export const SIGNAL_CHOICES = LEVEL_SIGNALS.map((value): { value: LevelSignal, says: string } => ({ value, says: SIGNAL_WORDS[value] }))
export const WEIGHTING_CHOICES = WEIGHTINGS.map(value => ({ value, says: value === 'Z' ? 'none' : value }))

/** How the last level on a line was taken: along a walk the meter and the setting stay as they are. */
export function levelTaken(job: Pick<Job, 'readings'>, outputId: string): Pick<Level, 'weighting' | 'signal' | 'headV'> {
  const last = [...job.readings.under(outputId)].filter(r => !r.withdrawn && r.value.is === 'level').at(-1)
  return last?.value.is === 'level' ? { weighting: last.value.weighting, signal: last.value.signal, headV: last.value.headV } : { weighting: 'A', signal: 'pink-noise', headV: null }
}

/** What was typed of a level, or why it is none. Empty volts were not read. */
export function levelTyped(db: string, volts: string): Pick<Level, 'db' | 'headV'> | string {
  const figure = Number(db.trim().replace(',', '.').replace(/\s*dB\s*(\([ACZ]\)|[ACZ])?$/i, ''))
  if (!(figure >= 20 && figure <= 150)) return 'A level lies between 20 and 150 dB. For example: 81.5.'
  try {
    return { db: figure, headV: volts.trim() === '' ? null : readQuantity('voltage', volts) }
  }
  catch (error) {
    if (!(error instanceof InputError)) throw error
    return error.message
  }
}
