import type { Written } from '#core/job/schema'
import type { CLOSING_CHECKS, CONDITIONS, OPENING_STEPS, PART_KINDS, PLUS_SEEN, PLUS_WAYS, READ_OF, TICKET_STATES, UNIT_KINDS, WHICH_UNITS } from '#core/job/sections/tickets/schema'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import { ANSWER_WORDS } from './whichOne'

/** Words of the bench. */

type Words<T extends readonly string[]> = Record<T[number], string>

export const UNIT_WORDS: Words<typeof UNIT_KINDS> = {
  'speaker': 'speaker', 'handset': 'handset', 'headphone': 'headphone', 'talk-back': 'talk-back unit', 'megaphone': 'megaphone', 'radio': 'radio', 'saddle-speaker': 'fairing or vehicle speaker',
  'cabinet': 'cabinet', 'something-else': 'something else',
}
export const STATE_WORDS: Words<typeof TICKET_STATES> = { 'came-in': 'came in', 'waits': 'waits for a part', 'on-test': 'on test', 'again': 'to be seen again', 'gone-out': 'gone out' }
export const PART_WORDS: Words<typeof PART_KINDS> = { 'screw': 'screws', 'clip': 'clips', 'bushing': 'bushings', 'wire': 'wire on a tab', 'way-round': 'which way round', 'other': 'other' }
export const STEP_WORDS: Words<typeof OPENING_STEPS> = { 'off': 'off', 'unplugged': 'unplugged', 'battery-off': 'battery disconnected', 'discharged': 'discharged' }
export const READ_WORDS: Words<typeof READ_OF> = { coil: 'coil', lead: 'lead', contact: 'contact' }
export const WHICH_WORDS: Words<typeof WHICH_UNITS> = { this: 'this one', twin: 'its sound twin', new: 'the new one' }
export const CONDITION_WORDS: Words<typeof CONDITIONS> = { 'as-it-lay': 'as it lay', 'warm': 'warm', 'cold': 'cold', 'pressed': 'pressed', 'wiggled': 'wiggled' }
export const PLUS_WAY_WORDS: Words<typeof PLUS_WAYS> = { battery: 'a battery', millivolts: 'millivolts, cone pushed in', pulse: 'a pulse tester', mark: 'the maker’s mark' }
export const SEEN_PLUS_WORDS: Words<typeof PLUS_SEEN> = { 'cone-out': 'cone moved out', 'cone-in': 'cone moved in', 'positive': 'plus', 'negative': 'minus', 'not-seen': 'nothing to be seen' }
export const CHECK_WORDS: Record<(typeof CLOSING_CHECKS)[number], { says: string, how: string }> = {
  'power': { says: 'Powered, still open', how: 'On again, level at the bottom, before anything is closed.' },
  'listen': { says: 'Listened to, still open', how: 'Speech and music, quiet to normal. No scratch, no cutting out when the lead is moved.' },
  'balance': { says: 'As loud as its neighbour', how: 'Side by side at one setting; 3 dB is plain to the ear, 1 dB is not.' },
  'polarity': { says: 'Same way round as its neighbour', how: 'Between the two, on bass: the fuller way is right.' },
  'level': { says: 'Level by ear or meter', how: 'Same place, same programme, same setting.' },
  'snug': { says: 'Screws started, then snug', how: 'Start all of them, then snug them crosswise. The driver’s bit is shielded from the cone; plastic cracks.' },
  'closed': { says: 'Closed', how: 'All that was counted out is in again.' },
  'listen-again': { says: 'Listened to once more, closed', how: 'A wire that is squeezed shows now.' },
  'label': { says: 'Label inside', how: 'Ticket, day, what was done.' },
}

/** What a row of a ticket says, without its time. */
export function writtenWords(what: Written): string {
  switch (what.is) {
    case 'opened': return 'ticket opened'
    case 'told': return `known now: ${Object.entries(what.to).map(([field, value]) => `${FIELD_WORDS[field] ?? field} ${toldWords(value)}`).join(', ')}`
    case 'state': return [STATE_WORDS[what.state], what.as === 'proved' ? 'as proved' : what.as === 'left-so' ? 'left so' : '', what.on ? (what.state === 'gone-out' ? `look again ${what.on}` : what.on) : '', what.reason].filter(Boolean).join(', ')
    case 'said': return `${what.as}: ${what.text}`
    case 'answer': return ANSWER_WORDS[what.to].answers[what.answer]!
    case 'part': return `taken out: ${what.count} × ${what.name}${what.place ? `, ${what.place}` : ''}`
    case 'back': return `${what.count} back in`
    case 'step': return STEP_WORDS[what.step]
    case 'reading': return [`${READ_WORDS[what.of]} of ${WHICH_WORDS[what.unit]}: ${what.ohm === null ? 'open' : writeQuantity(what.ohm, 'Ω')}`, CONDITION_WORDS[what.condition], what.meter, what.leadsOhm === null ? 'leads not nulled' : `leads of ${writeNumber(what.leadsOhm)} Ω taken off`].filter(Boolean).join(', ')
    case 'plus': return `plus of ${what.unit === 'new' ? 'the new one' : 'this one'} by ${PLUS_WAY_WORDS[what.by]}: ${SEEN_PLUS_WORDS[what.seen]}${what.note ? `, ${what.note}` : ''}`
    case 'fit': return `goes in: ${what.name}${what.note ? `, ${what.note}` : ''}`
    case 'check': return `${CHECK_WORDS[what.check].says}: ${what.isRight ? 'right' : 'not right'}${what.note ? `, ${what.note}` : ''}`
    case 'run': return `${what.run === 'baseline' ? 'warm-up run with a right load' : 'warm-up run with the unknown load'}${what.note ? `, ${what.note}` : ''}`
    case 'warm': return `${writeNumber(what.celsius)} °C after ${writeNumber(what.minute)} min`
    case 'tap': return `tap of ${writeQuantity(what.tapOhm, 'Ω')}: ${HEARD_WORDS[what.heard]}`
    case 'photo': return what.caption ? `photo: ${what.caption}` : 'photo'
  }
}
export const HEARD_WORDS = { first: 'heard first', louder: 'louder', same: 'the same', quieter: 'quieter', trouble: 'sign of trouble, off' } as const
const FIELD_WORDS: Record<string, string> = { unit: 'unit', kind: 'kind', labelOhm: 'label Ω', labelW: 'label W', frameMm: 'frame mm', cutOutMm: 'cut-out mm', depthMm: 'depth mm', magnetMm: 'magnet mm', sensitivityDb: 'sensitivity dB', holes: 'holes', plusMark: 'plus marked by', complaint: 'complaint', folklore: 'everybody says', from: 'from' }
const toldWords = (value: unknown) => value === null ? 'not known' : typeof value === 'object' ? String((value as { says?: string }).says ?? '') : typeof value === 'number' ? writeNumber(value) : `“${String(value)}”`

/** Cautions that hold for what stands on the bench; always shown where they apply. */
export function cautionsOf(kind: (typeof UNIT_KINDS)[number]): string[] {
  const all = ['Off and unplugged before it is opened, and its capacitors discharged.']
  if (kind === 'saddle-speaker') all.push('Disconnect the vehicle’s battery first: minus before plus.')
  if (kind === 'radio' || kind === 'cabinet' || kind === 'something-else') all.push('Valve amplifiers hold lethal voltage, also unplugged: inside of one works a qualified technician.')
  if (kind === 'handset' || kind === 'headphone') all.push('Never more than 1.5 V, through a resistor, on a small coil; nothing on an ear while it is tested.')
  if (kind === 'megaphone') all.push('Never at an ear: a megaphone at arm’s length damages hearing.')
  return all
}
