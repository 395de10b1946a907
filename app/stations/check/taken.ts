import type { Reading, ReadingKind, ReadingValue } from '#core/job/schema'
import { factsOf } from '#core/job/sections/readings/kinds'
import { readingSchema } from '#core/job/sections/readings/schema'
import { InputError } from '#core/quantity/inputError'
import { readQuantity } from '#core/quantity/read'

/** Leads of more than this are no meter's leads. */
const MOST_LEADS_OHM = 10

/** How a reading of a kind was taken, as it was typed; null where nothing was said. The leads matter where copper is measured. */
export function takenOf(kind: ReadingKind, typed: { by: string, meter: string, leads: string }): Reading['taken'] {
  const said = { by: typed.by.trim(), meter: typed.meter.trim(), leadsOhm: factsOf(kind).isCopper ? leadsOf(typed.leads) : null }
  return said.by === '' && said.meter === '' && said.leadsOhm === null ? null : said
}

/** 0 for nulled before; null for what is not stated or cannot be read. */
function leadsOf(typed: string): number | null {
  const text = typed.trim()
  if (/^(0+([.,]0+)?\s*(Ω|ohms?)?|nulled)$/i.test(text)) return 0
  try {
    const ohm = readQuantity('resistance', text)
    return ohm <= MOST_LEADS_OHM ? ohm : null
  }
  catch (error) {
    if (!(error instanceof InputError)) throw error
    return null
  }
}

/** How people write that nothing flows: as a word, or as the meter shows it. */
export const saysOpen = (typed: string): boolean => /^(open|o\.?l\.?|∞|inf(inity)?)$/i.test(typed.trim())

/** What was read without what the meter's own leads read; never under nothing. */
export function withoutLeads(ohm: number, taken: Reading['taken']): number {
  return Math.max(0, Number((ohm - (taken?.leadsOhm ?? 0)).toFixed(6)))
}

/** Ohms as they were typed, without the leads, or open; null for what cannot be read, or nothing. */
export function typedValue(typed: string, taken: Reading['taken']): ReadingValue | null {
  if (typed.trim() === '') return null
  if (saysOpen(typed)) return { is: 'open' }
  const ohm = orProblem(typed)
  return typeof ohm === 'number' ? { is: 'ohm', ohm: withoutLeads(ohm, taken) } : null
}
/** Why it cannot be read; nothing where it can. */
export function typedProblem(typed: string): string {
  const problem = orProblem(typed)
  return saysOpen(typed) || typeof problem === 'number' ? '' : `${problem} A reading is a number, as 31.4 or 2k2, or the word open.`
}
function orProblem(typed: string): number | string {
  try {
    return readQuantity('resistance', typed)
  }
  catch (error) {
    if (!(error instanceof InputError)) throw error
    return error.message
  }
}

/** Tones of usual impedance meters, Hz. Common practice, no source. */
export const TONES = [1000, 330, 400, 800] as const

/** The meter's tone as it was typed: null where nothing was said, and of what is not measured with one; what cannot be a tone is told. */
export function toneOf(kind: ReadingKind, typed: string): { frequencyHz: number | null, problem: string } {
  const text = typed.trim()
  if (!factsOf(kind).isOfTone || text === '') return { frequencyHz: null, problem: '' }
  try {
    const frequencyHz = readQuantity('frequency', text)
    return readingSchema.shape.frequencyHz.safeParse(frequencyHz).success
      ? { frequencyHz, problem: '' }
      : { frequencyHz: null, problem: `The tone of the meter: from 20 Hz to 20 kHz, not “${text}”.` }
  }
  catch (error) {
    if (!(error instanceof InputError)) throw error
    return { frequencyHz: null, problem: `The tone of the meter: ${error.message}` }
  }
}
