import { CLOSING_CHECKS } from '#core/job/sections/tickets/schema'
import { coilBandOhm, intermittent, type DayReading } from './intermittent'
import { missingOf, missingWords } from './opening'
import { plusOf } from './plus'
import { CHECK_WORDS, READ_WORDS } from './ticketWords'
import { writtenOf, type Ticket } from './ticket'

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

/** All that keeps it from going out as proved, a sentence each; empty: nothing does. */
export function stillOpen(ticket: Ticket): string[] {
  const states = checkStates(ticket)
  return [...unitOpen(ticket), ...missingOf(ticket).map(missingWords), ...CLOSING_CHECKS.flatMap(check => openCheck(check, states))]
}

/** Of the unit that goes out: the one that came, or the one that took its place. */
function unitOpen(ticket: Ticket): string[] {
  const fit = writtenOf(ticket, 'fit').at(-1)?.what
  if (!fit) return comesAndGoes(ticket)
  const coil = readingsOf(ticket, 'new', 'coil').at(-1)
  const band = fit.nominalOhm === null ? null : coilBandOhm(fit.nominalOhm)
  const isRight = coil && coil.ohm !== null && (band === null || (coil.ohm >= band.lowOhm * 0.93 && coil.ohm <= band.highOhm * 1.05))
  const plus = plusOf(ticket, 'new')
  return [
    ...!coil ? [`“${fit.name}”: its coil is not read`] : isRight ? [] : [`“${fit.name}”: its coil reads ${coil.ohm === null ? 'open' : 'outside of what its label says'}`],
    ...plus.isProved ? [] : [`“${fit.name}”: which tab is plus is not proved on the bench`],
  ]
}

/** A part that was read on several looks must have settled. One that was never read is asked for by its sound alone. */
function comesAndGoes(ticket: Ticket): string[] {
  return (['coil', 'lead', 'contact'] as const).flatMap((of) => {
    const readings = readingsOf(ticket, 'this', of)
    if (readings.length === 0) return []
    if (of !== 'coil') {
      const bad = readings.at(-1)!.ohm
      return bad === null || bad > 1 ? [`${READ_WORDS[of]}: last read ${bad === null ? 'open' : 'above 1 Ω'}`] : []
    }
    if (ticket.head.labelOhm === null) return readings.some(r => r.ohm === null) ? ['coil: read open'] : []
    const { verdict } = intermittent(readings, ticket.head.labelOhm)
    if (verdict === 'right') return []
    if (verdict === 'not-known') return ticket.entries.some(e => e.what.is === 'answer' && e.what.to === 'plays' && e.what.answer === 'comes-and-goes') ? ['coil: whether it comes and goes is not settled'] : readings.at(-1)!.ohm === null ? ['coil: last read open'] : []
    return [`coil: ${verdict === 'comes-and-goes' ? 'comes and goes' : verdict}`]
  })
}
