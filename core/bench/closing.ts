import { CLOSING_CHECKS } from '#core/job/sections/tickets/schema'
import { intermittent, type DayReading } from './intermittent'
import { missingOf, missingWords } from './opening'
import { plusOf } from './plus'
import { CHECK_WORDS, READ_WORDS } from './ticketWords'
import { writtenOf, type Ticket } from './ticket'
import { GOOD_CONTACT_OHM, ohmClass } from './whichOne'

/** What is still open on a ticket: with any of it a unit goes out left so, with the reason, and never as proved. */

type Check = (typeof CLOSING_CHECKS)[number]
/** They come before the lid. */
const BEFORE_CLOSING: readonly Check[] = ['power', 'listen', 'balance', 'polarity', 'level', 'snug']

/** How a check stands: by the last that was written of it. */
export function checkStates(ticket: Pick<Ticket, 'entries'>): Map<Check, boolean> {
  return new Map(writtenOf(ticket, 'check').map(({ what }) => [what.check, what.isRight]))
}

/** Readings of one part, as the verdict on what comes and goes takes them. */
export function readingsOf(ticket: Pick<Ticket, 'entries'>, unit: 'this' | 'twin' | 'new', of: 'coil' | 'lead' | 'contact'): DayReading[] {
  return writtenOf(ticket, 'reading').filter(({ what }) => what.unit === unit && what.of === of).map(({ at, what }) => ({ at, ohm: what.ohm }))
}

/** Why it must not be closed yet, a sentence each. */
export function beforeClosing(ticket: Ticket): string[] {
  const states = checkStates(ticket)
  // A part that is missing is told before the lid is on, and so is a check that nobody has made.
  return [...missingOf(ticket).map(missingWords), ...BEFORE_CLOSING.flatMap(check => openCheck(check, states))]
}

function openCheck(check: Check, states: ReadonlyMap<Check, boolean>): string[] {
  const state = states.get(check)
  return state === true ? [] : [`${CHECK_WORDS[check].says}: ${state === false ? 'not right' : 'not done'}`]
}

/** Something that is open, and the step of the ticket at which it is seen to. */
export interface Open { at: 'readings' | 'plus' | 'opening' | 'closing', says: string }

/** All that keeps it from going out as proved; empty: nothing does. */
export function openOf(ticket: Ticket): Open[] {
  const states = checkStates(ticket)
  return [
    ...unitOpen(ticket),
    ...missingOf(ticket).map((part): Open => ({ at: 'opening', says: missingWords(part) })),
    ...CLOSING_CHECKS.flatMap(check => openCheck(check, states)).map((says): Open => ({ at: 'closing', says })),
  ]
}
/** The same, a sentence each. */
export const stillOpen = (ticket: Ticket): string[] => openOf(ticket).map(o => o.says)

/** Of the unit that goes out: the one that came, or the one that took its place. */
function unitOpen(ticket: Ticket): Open[] {
  const fit = writtenOf(ticket, 'fit').at(-1)?.what
  if (!fit) return comesAndGoes(ticket).map(says => ({ at: 'closing', says }))
  const coil = readingsOf(ticket, 'new', 'coil').at(-1)
  const is = coil && ohmClass('coil', coil.ohm, fit.nominalOhm)
  const open: Open[] = []
  if (!coil) open.push({ at: 'readings', says: `“${fit.name}”: its coil is not read` })
  // Where its label is not known whatever is not open is taken as it is.
  else if (is !== 'right' && is !== null) open.push({ at: 'readings', says: `“${fit.name}”: its coil reads ${is === 'open' ? 'open' : 'outside of what its label says'}` })
  if (!plusOf(ticket, 'new').isProved) open.push({ at: 'plus', says: `“${fit.name}”: which tab is plus is not proved on the bench` })
  return open
}

/** A part that was read on several looks must have settled. One that was never read is asked for by its sound alone. */
function comesAndGoes(ticket: Ticket): string[] {
  const ofContacts = (['lead', 'contact'] as const).flatMap((part) => {
    const last = readingsOf(ticket, 'this', part).at(-1)
    const is = last ? ohmClass(part, last.ohm, null) : 'right'
    return is === 'right' ? [] : [`${READ_WORDS[part]}: last read ${is === 'open' ? 'open' : `above ${GOOD_CONTACT_OHM} Ω`}`]
  })
  return [...coilOpen(ticket), ...ofContacts]
}

function coilOpen(ticket: Ticket): string[] {
  const readings = readingsOf(ticket, 'this', 'coil')
  if (readings.length === 0) return []
  if (ticket.head.labelOhm === null) return readings.some(r => r.ohm === null) ? ['coil: read open'] : []
  const { verdict } = intermittent(readings, ticket.head.labelOhm)
  if (verdict === 'right') return []
  if (verdict !== 'not-known') return [`coil: ${verdict === 'comes-and-goes' ? 'comes and goes' : verdict}`]
  if (writtenOf(ticket, 'answer').some(({ what }) => what.to === 'plays' && what.answer === 'comes-and-goes')) return ['coil: whether it comes and goes is not settled']
  return readings.at(-1)!.ohm === null ? ['coil: last read open'] : []
}
