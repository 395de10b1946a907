import { lineVoltageName } from '#core/amplifier/index'
import { powerSchool } from '#core/practice/power'
import { reserveSchool } from '#core/practice/reserve'
import { writeDb, writeQuantity } from '#core/quantity/write'
import type { Finding, FindingCode, FindingFacts, FindingOf } from './finding'

/** A finding in words: what is, with the number and its limit; why it matters; what to do. */
export interface Sentence { what: string, why: string, todo: string }

const W = (watts: number) => writeQuantity(watts, 'W')
const Ohm = (ohm: number) => writeQuantity(ohm, 'Ω')
const V = (volts: number) => writeQuantity(volts, 'V')
const percent = (share: number) => `${Math.round(share * 100)} %`

const BASIS: Record<FindingFacts['load-suits']['basis'], string> = {
  'rated': 'rated for exactly this load', 'between': 'between two rated loads', 'above': 'above its highest rated load, so its volts stay and power falls',
  'not-rated': 'below its lowest rated load', 'under-floor': 'below its floor', 'line': 'at its line voltage',
}

/** The one place where findings become sentences. */
const WORDS: { [K in FindingCode]: (facts: FindingFacts[K]) => Sentence } = {
  'nothing-connected': () => ({ what: 'Nothing hangs on this output.', why: '', todo: 'Add a speaker.' }),
  'amplifier-not-known': ({ kind }) => ({
    what: 'The amplifier’s power is not known.',
    why: kind === 'constant-voltage' ? 'Without it there is no saying whether the taps fit.' : 'Without its ratings there is no saying what each speaker gets.',
    todo: kind === 'constant-voltage' ? 'Enter its power, or read what each rule asks for.' : 'Enter its rated powers and lowest load.',
  }),
  'fits-with-reserve': f => ({
    what: `The taps ask ${W(f.tapsW)}; this output gives ${W(f.ratedW)}.`,
    why: `By “${reserveSchool(f.practice).name}” it wants ${W(f.requiredW)}: ${W(f.ratedW - f.requiredW)} are left above that.`, todo: '',
  }),
  'reserve-short': f => ({
    what: `The taps ask ${W(f.tapsW)}; by “${reserveSchool(f.practice).name}” this output carries ${W(f.allowedW)}. Over by ${W(f.tapsW - f.allowedW)}.`,
    why: 'It will play. Turned up, it has nothing left for peaks or for one more speaker.',
    todo: `Take taps down, move speakers, or an amplifier of ${W(f.requiredW)}.`,
  }),
  'taps-over-amplifier': f => ({
    what: `The taps ask ${W(f.tapsW)}; the output gives ${W(f.ratedW)}. Over by ${W(f.tapsW - f.ratedW)}.`,
    why: 'The amplifier overloads: it clips, runs hot and may cut out.', todo: 'Do not switch on so. Take taps down, move speakers, or a larger amplifier.',
  }),
  'scale-mismatch': f => ({
    what: `${f.label} is set to ${W(f.tapW)} on its ${lineVoltageName(f.ratedV)} scale; on this ${lineVoltageName(f.lineV)} line it takes ${W(f.takesW)}.`,
    why: f.takesW > f.tapW ? 'Transformer and driver get more than they are set for.' : 'It plays quieter than meant.',
    todo: 'Choose the tap on the scale of this line’s voltage.',
  }),
  'plain-speaker-on-line': f => ({
    what: `${f.label} is a plain ${Ohm(f.nominalOhm)} speaker on a ${lineVoltageName(f.lineV)} line: it would draw ${W(f.wouldTakeW)}.`,
    why: 'That is a near short for the line, and the end of the speaker.', todo: 'Do not switch on. Give it a transformer, or a low-impedance output.',
  }),
  'transformer-on-plain-output': f => ({
    what: `${f.label} has a line transformer, but this output is low impedance.`,
    why: 'It will hardly be heard; the transformer is made for a line voltage.', todo: 'Put it on a constant-voltage line, or wire past the transformer.',
  }),
  'far-end-loss': f => ({
    what: `At ${f.label} the wire has taken ${writeDb(-f.lossDb)}; the aim is under ${writeDb(f.limitDb)}.${f.volts === null ? '' : ` It has ${V(f.volts)} and gets ${W(f.powerW ?? 0)}.`}`,
    why: 'The far end plays quieter than the near one, and the difference heats the cable.', todo: 'Thicker cable, or fewer watts on this line.',
  }),
  'cable-not-stated': () => ({
    what: 'No cable is stated.', why: 'What the wire loses is not known; figures are as if the speakers stood at the amplifier.', todo: 'Enter cable and lengths.',
  }),
  'tap-off': f => ({ what: `${f.label} is set to off.`, why: 'It will be silent.', todo: 'Choose a tap, if it is meant to play.' }),
  'load-under-floor': f => ({
    what: `${Ohm(f.loadOhm)} is under this output’s floor of ${Ohm(f.floorOhm)}.`,
    why: 'More current than the amplifier may give: it runs hot, cuts out, or breaks.', todo: 'Do not switch on so. Wire in series, or take speakers off.',
  }),
  'curve-under-floor': f => ({
    what: `The curve dips to ${Ohm(f.lowestOhm)} at ${writeQuantity(f.frequencyHz, 'Hz')}; the output’s floor is ${Ohm(f.floorOhm)}.`,
    why: 'The label is only a label: there the amplifier sees less than it may be given.', todo: 'Keep it quiet there, or wire for a higher load.',
  }),
  'curve-not-known': f => ({
    what: `The lowest point of the impedance curve is not known. By the label it may go down to ${Ohm(f.permittedOhm)}.`,
    why: 'A label permits 0.8 of itself (IEC 60268-5).', todo: 'Enter the drive unit’s parameters to know.',
  }),
  'load-suits': f => ({
    what: f.basis === 'rated'
      ? `${Ohm(f.loadOhm)} is what this output is made for.`
      : `${Ohm(f.loadOhm)} is above the floor of ${Ohm(f.floorOhm)}.`,
    why: `It gives ${f.basis === 'not-rated' ? 'at least ' : ''}${W(f.powerW)}: ${BASIS[f.basis]}.${f.count > 1 && f.equal ? ` ${allOf(f.count)} get the same.` : ''}`,
    todo: '',
  }),
  'load-not-rated': f => ({
    what: `No power is rated at ${Ohm(f.loadOhm)}; the lowest rated load is ${Ohm(f.lowestRatedOhm)}.`,
    why: `Allowed by its floor. ${W(f.atLeastW)} is the least it gives, from the current it is known to give.`, todo: 'Enter the rating at this load, if the maker states one.',
  }),
  'unequal-shares': f => ({
    what: `${f.most} takes ${percent(f.mostShare)} of the power, ${f.least} ${percent(f.leastShare)}.`,
    why: 'The first one to reach its limit limits the whole line.', todo: 'Use equal speakers on one output, or mind the one that takes most.',
  }),
  'speaker-overdriven': f => ({
    what: `${f.label} can get ${W(f.powerW)}; it is rated ${W(f.continuousW)} continuous.`,
    why: 'More than its peak rating, four times continuous.', todo: 'A smaller amplifier, more speakers to share, or a limiter.',
  }),
  'amplifier-outside-rule': f => ({
    what: `This output gives ${W(f.amplifierW)}; by “${powerSchool(f.practice).name}” these speakers want ${band(f)}.`,
    why: f.amplifierW < f.fromW
      ? 'A smaller amplifier breaks nothing by itself; pushed into clipping it does.'
      : powerSchool(f.practice).risks[0]!.toUpperCase() + powerSchool(f.practice).risks.slice(1) + '.',
    todo: f.amplifierW < f.fromW ? 'Keep it out of clipping.' : 'Hold it back, set a limiter, or choose another rule with open eyes.',
  }),
  'amplifier-inside-rule': f => ({
    what: `This output gives ${W(f.amplifierW)}; by “${powerSchool(f.practice).name}” these speakers want ${band(f)}.`, why: '', todo: '',
  }),
  'head-short': () => ({ what: 'As drawn, the two conductors of this line are joined.', why: 'The amplifier would drive a short.', todo: 'Do not switch on. Correct the wiring.' }),
  'head-open': () => ({ what: 'As drawn, no current can flow: the line is open.', why: 'Nothing will play.', todo: 'Look for a tap on off, or a gap in a series.' }),
}

function band({ fromW, toW }: { fromW: number, toW: number }): string {
  if (fromW === 0) return `no more than ${W(toW)}`
  return Math.abs(toW / fromW - 1) < 0.02 ? W(fromW) : `${W(fromW)} to ${W(toW)}`
}

function allOf(count: number): string {
  const names: Record<number, string> = { 2: 'Both', 3: 'All three', 4: 'All four', 5: 'All five', 6: 'All six' }
  return names[count] ?? `All ${count}`
}

export function findingWords<K extends FindingCode>(finding: FindingOf<K>): Sentence {
  return WORDS[finding.code](finding.facts)
}

/** The sentence in one string, for files and the terminal. */
export function findingText(finding: Finding): string {
  const { what, why, todo } = findingWords(finding)
  return [what, why, todo].filter(Boolean).join(' ')
}
