import type { SourceKind } from '#core/gear/inputs'
import { writeDb, writeNumber, writeQuantity } from '#core/quantity/write'
import type { FindingFacts } from './finding'
import type { Sentence } from './sentence'

/** What is said of what feeds an amplifier. */

const Ohm = (ohm: number) => writeQuantity(ohm, 'Ω')
const V = (volts: number) => writeQuantity(volts, 'V')
const percent = (share: number) => `${Math.round(share * 100)} %`

/** What an input is for, as it is called. */
export const SOURCE_WORDS: Record<SourceKind, string> = { microphone: 'microphone', media: 'music player', line: 'line' }

type InputCode = 'source-suits' | 'source-weak' | 'source-loaded' | 'input-other' | 'not-summed' | 'paging-under' | 'source-twice' | 'gain-contradicts'
export const INPUT_WORDS: { [K in InputCode]: (facts: FindingFacts[K]) => Sentence } = {
  'source-suits': f => ({
    what: `${f.source} brings ${V(f.volts)}; ${V(f.needsV)} drive this output full.`, why: f.moreDb > 6 ? `Turned up it drives it ${writeDb(f.moreDb)} into clipping: a limiter, or a mark at the knob.` : '', todo: '',
  }),
  'source-weak': f => ({
    what: `${f.source} brings ${V(f.volts)}; ${V(f.needsV)} drive this output full. It is ${writeDb(f.shortDb)} short: ${percent(f.ofFull)} of its power.`,
    why: 'Nothing breaks; it does not get louder than that.', todo: 'More gain before it, or an amplifier of more gain.',
  }),
  'source-loaded': f => ({
    what: `${f.source} is of ${Ohm(f.sourceOhm)} and sees ${Ohm(f.inputOhm)}${f.inputs > 1 ? `, ${f.inputs} inputs side by side` : ''}: ${writeNumber(f.inputOhm / f.sourceOhm)} times its own.`,
    why: `Low into high: at least ten times is usual. It costs ${writeDb(-f.lossDb)}, and long cable takes treble.`, todo: 'Fewer inputs on it, or a line amplifier between.',
  }),
  'gain-contradicts': f => ({
    what: `${V(f.inputV)} in and ${V(f.fullV)} out are ${writeDb(f.comesDb)} of gain; ${writeDb(f.gainDb)} are stated.`, why: 'One of the figures is of another setting, or wrong.', todo: 'Look at the sheet, and at the switch for its gain.',
  }),
  'input-other': f => ({
    what: `${f.source} brings ${f.brings === 'microphone' ? 'a microphone’s level' : f.brings === 'media' ? 'a player’s level' : 'line level'}; ${f.input} is made for ${f.takes.map(kind => SOURCE_WORDS[kind]).join(' or ')}.`,
    why: f.brings === 'microphone' ? 'It stays far too quiet: a microphone brings millivolts.' : f.takes.every(kind => kind === 'microphone') ? 'It is driven far too hard, and clips.' : 'Its level is not what that input expects.',
    todo: 'Another input, or its switch set over.',
  }),
  'not-summed': f => ({
    what: f.sum === null ? `${f.source} has two sides; whether both come in summed is not known.` : f.sum === 'one-side' ? `${f.source} has two sides, and one of them comes in.` : `${f.source} has two sides, and they come in apart.`,
    why: 'A line of many speakers is always mono: what is on the other side is not heard.', todo: 'Sum both sides by resistors or at the mixer; never two outputs on one plug.',
  }),
  'paging-under': f => ({
    what: `${f.source} calls over ${f.music.join(' and ')}: that it puts the music down is not set, or not known.`,
    why: 'A call has to be understood.', todo: 'Give it the input that goes over the others, and try it.',
  }),
  'source-twice': f => ({
    what: `${f.source} comes in ${f.ways.length === 2 ? 'twice' : `${f.ways.length} times`}: ${f.ways.join('; ')}.`, why: 'Its level adds up, and a small delay between the two colours it.', todo: 'Take one of them out.',
  }),
}
