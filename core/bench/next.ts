import { openOf, readingsOf } from './closing'
import { intermittent } from './intermittent'
import { partsOf } from './opening'
import { seeAgainOn, writtenOf, type Ticket } from './ticket'
import { ANSWER_WORDS, CAUSE_WORDS, whichOne } from './whichOne'

/** The steps of a ticket, in the order of the work. */
export const FACES = [
  { value: 'complaint', says: 'Complaint' }, { value: 'which', says: 'Which one' }, { value: 'opening', says: 'Opening' }, { value: 'readings', says: 'Readings' },
  { value: 'replacing', says: 'Replacing' }, { value: 'plus', says: 'Plus' }, { value: 'closing', says: 'Before it is closed' }, { value: 'load', says: 'Load on a valve amplifier' },
] as const
export type Face = (typeof FACES)[number]['value']

/** What its coil is, in a sentence, where readings condemn it; null: they do not. */
function badCoil(ticket: Ticket): string | null {
  const readings = readingsOf(ticket, 'this', 'coil')
  const { labelOhm } = ticket.head
  if (readings.length === 0 || labelOhm === null) return null
  const { verdict } = intermittent(readings, labelOhm)
  if (verdict === 'comes-and-goes') return 'Its coil comes and goes: it is replaced, not mended.'
  // One reading of an open coil is looked at twice, and is open all the same.
  return verdict === 'open' || readings.every(r => r.ohm === null) ? 'Its coil is open.' : null
}

/** Likely enough to look at it. */
const LIKELY = 0.5

/** What comes next on a ticket, and where it is done; null: nothing. */
export function nextWords(ticket: Ticket): { says: string, face: Face } | null {
  if (ticket.state.state === 'gone-out') return seeAgainOn(ticket) ? { says: 'ask its owner how it plays, on the day.', face: 'complaint' } : null
  const fit = writtenOf(ticket, 'fit').at(-1)?.what
  const checks = writtenOf(ticket, 'check')
  const runs = writtenOf(ticket, 'run')
  if (checks.length > 0 || fit) {
    const [first] = openOf(ticket)
    return first ? { says: `${first.says}.`, face: first.at } : { says: 'all is right: it can go out as proved.', face: 'closing' }
  }
  const bad = badCoil(ticket)
  if (bad !== null) return { says: `${bad} What takes its place?`, face: 'replacing' }
  const { causes, next, notYet } = whichOne(ticket)
  const [likeliest] = causes
  const asked = writtenOf(ticket, 'answer').length
  if (asked === 0 && runs.length > 0) return { says: 'go on with the run, or write down what it came to.', face: 'load' }
  if (likeliest!.chance < LIKELY && next) return { says: notYet ? `${ANSWER_WORDS[next].asks} Do not open it yet.` : ANSWER_WORDS[next].asks, face: 'which' }
  const of = CAUSE_WORDS[likeliest!.cause]
  if (likeliest!.cause === 'coil' || likeliest!.cause === 'lead-out') return { says: of.look, face: partsOf(ticket).length === 0 ? 'opening' : 'readings' }
  return { says: of.look, face: 'which' }
}
