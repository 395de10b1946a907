import { ANSWERS, QUESTIONS, type Question, type UNIT_KINDS } from '#core/job/sections/tickets/schema'
import { entropy } from '#core/trace/chances'
import type { FaultKind } from '#core/job/schema'
import { coilBandOhm } from './intermittent'
import { writtenOf, type Ticket } from './ticket'

/** Which one is it, and what of it: a few answers about one unit and its sound twin, and what may be wrong after each. */

export const CAUSES = ['nothing', 'setting', 'amplifier', 'jack', 'lead', 'contact', 'coil', 'lead-out', 'high-unit', 'capacitor', 'cone', 'rubbing'] as const
export type Cause = (typeof CAUSES)[number]
/** What lies outside of the unit, and is looked at before anything is opened. */
export const OUTSIDE: readonly Cause[] = ['nothing', 'setting', 'amplifier', 'jack', 'lead']

/** `fault`: what it is called in the catalogue of the tracer, where it is there. */
export const CAUSE_WORDS: Record<Cause, { says: string, look: string, fault: FaultKind | null }> = {
  'nothing': { says: 'nothing: it plays as it should', look: 'Play it where the complaint came from, with its own source.', fault: null },
  'setting': { says: 'a setting: turned down, balance to one side, muted', look: 'Balance to the middle, every dial up, every switch once over.', fault: 'control-turned-down' },
  'amplifier': { says: 'the amplifier or source of that side', look: 'Give its output a unit that is known to be good.', fault: 'amplifier-dead' },
  'jack': { says: 'its plug or socket', look: 'Another plug in that socket; clean it, turn it.', fault: 'dirty-contact' },
  'lead': { says: 'its lead', look: 'Another lead; or ohms from end to end while it is moved along its length.', fault: 'break-in-reach' },
  'contact': { says: 'a switch or spring contact in it', look: 'Ohms over the contact, pressed and not.', fault: 'dirty-contact' },
  'coil': { says: 'its coil', look: 'Ohms at the tabs of the unit itself, its wires off.', fault: 'coil-open' },
  'lead-out': { says: 'a lead-out or glued joint that came loose', look: 'Ohms at the tabs while the cone is pressed gently; look at the lead-outs.', fault: 'comes-and-goes' },
  'high-unit': { says: 'its high unit', look: 'Ohms of the high unit by itself, its capacitor out of the way.', fault: 'high-unit-gone' },
  'capacitor': { says: 'the capacitor in line', look: 'Bridge it with one that is known to be good, quietly.', fault: null },
  'cone': { says: 'cone or surround torn', look: 'Look at it in good light, from both sides.', fault: null },
  'rubbing': { says: 'coil rubs: heat, a knock, dirt', look: 'Press the cone evenly with spread fingers and feel.', fault: 'rubbing' },
}

export const ANSWER_WORDS: Record<Question, { asks: string, how: string, minutes: number, opens: boolean, answers: Record<string, string> }> = {
  plays: {
    asks: 'What does it do?', how: 'Quiet to normal, speech or music that you know.', minutes: 0.5, opens: false,
    answers: { 'plays': 'plays as it should', 'thin': 'plays thin or dull', 'scratchy': 'plays scratchy', 'comes-and-goes': 'comes and goes', 'silent': 'silent' },
  },
  twin: {
    asks: 'And the other side, or its sound twin?', how: 'Same source, same setting.', minutes: 0.5, opens: false,
    answers: { 'twin-plays': 'the other is better', 'both-the-same': 'both the same' },
  },
  swap: {
    asks: 'Exchanged with the other: where does it go?', how: 'Off first. Exchange the two units on their leads, then listen.', minutes: 2, opens: false,
    answers: { 'follows-the-unit': 'it follows the unit', 'stays-with-the-lead': 'it stays with the lead' },
  },
  wiggle: {
    asks: 'Plug and lead moved while it plays?', how: 'Along its length, worst at both ends.', minutes: 0.5, opens: false,
    answers: { 'cuts-in-and-out': 'cuts in and out', 'nothing-changes': 'nothing changes' },
  },
  look: {
    asks: 'Open: what is to be seen?', how: 'Good light. Cone, surround, lead-outs, springs and tabs.', minutes: 4, opens: true,
    answers: { 'looks-whole': 'looks whole', 'torn': 'torn', 'loose-lead-out': 'a lead-out hangs loose', 'green-contact': 'a green or black contact' },
  },
  cone: {
    asks: 'Open: the cone pressed evenly?', how: 'Spread fingers, a few millimetres, off.', minutes: 4, opens: true,
    answers: { 'moves-freely': 'moves freely', 'rubs': 'rubs', 'stuck': 'does not move' },
  },
}

/** What is wrong with such a unit when one is brought, before anything is asked: parts of a hundred. Common practice, no source. */
const PRIOR: Record<Cause, number> = { 'nothing': 4, 'setting': 6, 'amplifier': 12, 'jack': 12, 'lead': 14, 'contact': 8, 'coil': 16, 'lead-out': 6, 'high-unit': 6, 'capacitor': 3, 'cone': 7, 'rubbing': 8 }
type UnitKind = (typeof UNIT_KINDS)[number]
/** How much more or less of a cause in some units. Common practice, no source: what is held in a hand breaks at its lead, and has one driver. */
const MORE: Partial<Record<UnitKind, Partial<Record<Cause, number>>>> = {
  'handset': { 'lead': 2, 'contact': 1.5, 'high-unit': 0, 'capacitor': 0 },
  'headphone': { 'lead': 2.5, 'jack': 1.5, 'high-unit': 0, 'capacitor': 0 },
  'talk-back': { 'contact': 2, 'high-unit': 0 },
  'megaphone': { 'contact': 3, 'lead': 2, 'high-unit': 0, 'capacitor': 0, 'cone': 0.3 },
  'radio': { 'contact': 2, 'amplifier': 2 },
  'cabinet': { 'jack': 1.5, 'contact': 0.5 },
}

const rest = (most: number, others: number) => [most, others] as const
/** Chances of each answer, in the order of ANSWERS, with a cause. Common practice, no source. */
const GIVEN: Record<Question, Record<Cause, readonly number[]>> = {
  plays: {
    'nothing': [0.93, 0.02, 0.02, 0.02, 0.01], 'setting': [0.05, 0.05, 0.02, 0.03, 0.85], 'amplifier': [0.04, 0.05, 0.11, 0.15, 0.65], 'jack': [0.03, 0.07, 0.15, 0.45, 0.3],
    'lead': [0.03, 0.04, 0.08, 0.45, 0.4], 'contact': [0.04, 0.08, 0.2, 0.48, 0.2], 'coil': [0.02, 0.03, 0.1, 0.15, 0.7], 'lead-out': [0.03, 0.04, 0.3, 0.48, 0.15],
    'high-unit': [0.03, 0.9, 0.04, 0.02, 0.01], 'capacitor': [0.03, 0.75, 0.05, 0.1, 0.07], 'cone': [0.05, 0.1, 0.8, 0.03, 0.02], 'rubbing': [0.04, 0.06, 0.86, 0.03, 0.01],
  },
  twin: {
    ...sameFor(rest(0.96, 0.04)), 'nothing': rest(0.08, 0.92), 'setting': rest(0.4, 0.6), 'amplifier': rest(0.55, 0.45),
  },
  swap: {
    ...sameFor(rest(0.96, 0.04)), 'nothing': rest(0.5, 0.5), 'setting': rest(0.05, 0.95), 'amplifier': rest(0.04, 0.96), 'jack': rest(0.25, 0.75), 'lead': rest(0.06, 0.94),
  },
  wiggle: {
    ...sameFor(rest(0.04, 0.96)), 'jack': rest(0.8, 0.2), 'lead': rest(0.8, 0.2), 'contact': rest(0.5, 0.5), 'lead-out': rest(0.4, 0.6), 'coil': rest(0.08, 0.92),
  },
  cone: { ...sameFor([0.95, 0.04, 0.01]), 'rubbing': [0.12, 0.75, 0.13], 'cone': [0.75, 0.2, 0.05], 'coil': [0.8, 0.1, 0.1] },
  look: {
    ...sameFor([0.93, 0.03, 0.02, 0.02]), 'cone': [0.1, 0.85, 0.03, 0.02], 'lead-out': [0.35, 0.02, 0.58, 0.05], 'contact': [0.4, 0.01, 0.04, 0.55], 'jack': [0.5, 0.02, 0.03, 0.45],
  },
}
function sameFor(chances: readonly number[]): Record<Cause, readonly number[]> {
  return Object.fromEntries(CAUSES.map(cause => [cause, chances])) as Record<Cause, readonly number[]>
}
/** A lead that is fixed to the unit goes with it where it is exchanged. */
const HAS_OWN_LEAD: readonly UnitKind[] = ['handset', 'headphone', 'megaphone']

function given(question: Question, kind: UnitKind, cause: Cause): readonly number[] {
  if (question === 'swap' && (cause === 'lead' || cause === 'jack') && HAS_OWN_LEAD.includes(kind)) return rest(0.85, 0.15)
  return GIVEN[question][cause]
}

/** What a reading in ohms was: right, open, above, below. */
const OHM_CLASSES = ['right', 'open', 'high', 'low'] as const
type OhmClass = (typeof OHM_CLASSES)[number]
/** With a cause, in the order of OHM_CLASSES, read at the part itself. Common practice, no source. */
const OHM_GIVEN: Record<'coil' | 'lead' | 'contact', Partial<Record<Cause, readonly number[]>>> = {
  coil: { 'coil': [0.15, 0.6, 0.13, 0.12], 'lead-out': [0.5, 0.3, 0.19, 0.01] },
  lead: { lead: [0.2, 0.6, 0.18, 0.02], jack: [0.6, 0.2, 0.19, 0.01] },
  contact: { contact: [0.25, 0.35, 0.39, 0.01] },
}
const OHM_ELSE = [0.95, 0.02, 0.02, 0.01] as const
/** A lead or a contact of more is bad. Common practice, no source. */
export const GOOD_CONTACT_OHM = 1

export function ohmClass(of: 'coil' | 'lead' | 'contact', ohm: number | null, labelOhm: number | null): OhmClass | null {
  if (ohm === null) return 'open'
  if (of !== 'coil') return ohm > GOOD_CONTACT_OHM ? 'high' : 'right'
  if (labelOhm === null) return null
  const { lowOhm, highOhm } = coilBandOhm(labelOhm)
  return ohm > highOhm * 1.05 ? 'high' : ohm < lowOhm * 0.93 ? 'low' : 'right'
}

export interface WhichOne {
  /** Likeliest first; they add up to 1. */
  causes: { cause: Cause, chance: number }[]
  /** The question that leaves the least open for its minutes; null: all are answered. */
  next: Question | null
  /** Why it is not to be opened yet; null where it may be. */
  notYet: string | null
}

/** Still in question from here on. */
export const STANDS = 0.02
/** While as much of what may be wrong lies outside, and can be told from outside, it is not opened. Common practice, no source. */
const OUTSIDE_MOST = 0.25

export function whichOne(ticket: Pick<Ticket, 'head' | 'entries'>): WhichOne {
  const { kind, labelOhm } = ticket.head
  const answered = new Map(writtenOf(ticket, 'answer').map(({ what }) => [what.to, what.answer]))
  const logs = CAUSES.map((cause) => {
    let log = Math.log(PRIOR[cause] * (MORE[kind]?.[cause] ?? 1))
    for (const [question, answer] of answered) log += Math.log(given(question, kind, cause)[(ANSWERS[question] as readonly string[]).indexOf(answer)]!)
    return log
  })
  // Of what was read at a part the last counts, and the worst of it: one that opens once has opened.
  for (const part of ['coil', 'lead', 'contact'] as const) {
    const classes = writtenOf(ticket, 'reading').filter(({ what }) => what.unit === 'this' && what.of === part).flatMap(({ what }) => ohmClass(part, what.ohm, labelOhm) ?? [])
    const worst = classes.find(c => c === 'open') ?? classes.find(c => c !== 'right') ?? classes.at(-1)
    if (worst) CAUSES.forEach((cause, k) => { logs[k]! += Math.log((OHM_GIVEN[part][cause] ?? OHM_ELSE)[OHM_CLASSES.indexOf(worst)]!) })
  }
  const most = Math.max(...logs)
  const weights = logs.map(log => Math.exp(log - most))
  const sum = weights.reduce((a, b) => a + b, 0)
  const chances = weights.map(w => w / sum)
  const open = QUESTIONS.filter(q => !answered.has(q))
  const next = best(open, chances, kind)
  const outside = CAUSES.reduce((so, cause, k) => so + (OUTSIDE.includes(cause) ? chances[k]! : 0), 0)
  const fromOutside = open.filter(q => !ANSWER_WORDS[q].opens)
  const notYet = outside > OUTSIDE_MOST && fromOutside.length > 0
    ? `Do not open it yet: ${Math.round(100 * outside)} in 100 say that it is not the unit, and ${fromOutside.length === 1 ? 'one question is' : `${fromOutside.length} questions are`} left that need no screwdriver.`
    : null
  const causes = CAUSES.map((cause, k) => ({ cause, chance: chances[k]! })).sort((a, b) => b.chance - a.chance)
  return { causes, next: notYet ? best(fromOutside, chances, kind) : next, notYet }
}

/** The question that takes the most bits a minute. */
function best(open: readonly Question[], chances: readonly number[], kind: UnitKind): Question | null {
  let found: Question | null = null
  let most = -1
  for (const question of open) {
    const rate = bitsOf(question, chances, kind) / ANSWER_WORDS[question].minutes
    if (rate > most) [found, most] = [question, rate]
  }
  return found
}

/** Bits that a question is expected to take of what is open. Source: Shannon. */
export function bitsOf(question: Question, chances: readonly number[], kind: UnitKind): number {
  const after = ANSWERS[question].map((_, a) => chances.map((p, k) => p * given(question, kind, CAUSES[k]!)[a]!))
  const left = after.reduce((so, joint) => {
    const share = joint.reduce((a, b) => a + b, 0)
    return share === 0 ? so : so + share * entropy(joint.map(p => p / share))
  }, 0)
  return entropy(chances) - left
}
