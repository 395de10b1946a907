import { writeNumber, writeQuantity } from '#core/quantity/write'
import type { LevelSignal, Reading, ReadingKind, ReadingValue, Sound } from '#core/job/schema'
import type { Phase } from '#core/job/sections/readings/kinds'
import type { Predicted } from './predict'
import { SEEN_WORDS, SWAPPED_WORDS } from './lookedWords'
import { seenWords, turnedWords } from './turnedWords'
import type { VerdictCode } from './verdict'

/** Words of the checks: what to measure and how. What a verdict says is in signs.ts, the few words that stand on every page in gradeWords.ts, faults in
 * faultWords.ts. */

/** The phases of the work, as they are done one after the other. */
export const PHASE_WORDS: Record<Phase, string> = {
  bare: 'Bare pairs, before speakers hang', hang: 'Each speaker as it hangs, amplifier off', closed: 'The line closed, at the rack, amplifier off', on: 'Then, with the amplifier on',
}

/** `before`: what is seen to beside the amplifier's switch; `steps`: the one that matters first. */
export const KIND_WORDS: Record<ReadingKind, { title: string, before: string, steps: string[] }> = {
  'leg-earth': {
    title: 'Leg to earth', before: 'and disconnected, nothing hanging on the pair.',
    steps: ['Highest ohms range. Each conductor in turn to earth and to bare metalwork: write down the lower figure, or open.', 'Touch the leads together first: the meter must show a short. Fingers off the tips, they read a megohm.'],
  },
  'pair-apart': {
    title: 'Pair not shorted', before: 'and disconnected, nothing hanging on the pair.',
    steps: ['Meter on the two conductors at the rack, all far ends apart: open.', 'Ohms instead of open: it is shorted along its way, or something hangs on it. Null the leads: 0.1 Ω is metres of cable.'],
  },
  'pair-through': {
    title: 'Pair goes through', before: 'and disconnected, nothing hanging on the pair.',
    steps: ['Hold the two conductors together here, at this end, and nowhere else. Meter on the pair at the rack: a beep, and the ohms of its copper.', 'Take the short off again before you go on.'],
  },
  'polarity': {
    title: 'Which way round', before: 'and disconnected at both its terminals.',
    steps: ['Before the grille goes on, so that the cone is seen.'],
  },
  'polarity-heard': {
    title: 'Which way round, heard', before: 'with the line plugged in, level low to begin with.',
    steps: ['Two ears, or a listening tester, at this speaker.'],
  },
  'line-impedance': {
    title: 'Impedance of the line', before: 'and the line unplugged at the rack.',
    steps: [
      'Impedance meter on the two conductors, 1 kHz unless you say another tone. An ohmmeter cannot read this.',
      'Wait until it settles; write down what it shows.',
    ],
  },
  'line-dcr': {
    title: 'Resistance of the line', before: 'and the line unplugged at the rack.',
    steps: ['Ohmmeter on the two conductors.', 'Meter leads together first: take off what they read.'],
  },
  'coil-dcr': {
    title: 'Resistance of the coil', before: 'and the line unplugged at the rack.',
    steps: ['One lead off the driver: its transformer, or its neighbours, hang on it. Meter on its two tabs.', '200 Ω range. Leads together first: take off what they read.'],
  },
  'tap-found': {
    title: 'Tap or dial as found', before: 'and the line unplugged at the rack.',
    steps: ['Read the dial, or which lead is on: the watts, and the volts of the scale that it stands on. Dials often carry two scales.', 'Write down what is there; turn it afterwards.'],
  },
  'looked': {
    title: 'Look at it', before: 'before anything is opened; lights and knobs of a rack are looked at as they stand.',
    steps: ['Joint, plug, colours, strands, dial; a tug at each lead. At a control its knob and its rating, at the rack its lights, knobs, plugs and tags.', 'What is seen is written down before it is put right.'],
  },
  'outward-impedance': {
    title: 'Impedance from here outward', before: 'and the line unplugged at the rack.',
    steps: ['Open the line before this place. Impedance meter on the pair that goes on, this speaker and all behind it.', 'It halves the line: what reads right is out of it. Join it again afterwards.'],
  },
  'head-volts-amps': {
    title: 'Volts and amperes at the rack', before: 'programme off, a steady test tone on, low to begin with.',
    steps: ['Say the tone. True-rms voltmeter across the pair, clamp or ammeter in one leg: check that both reach that tone.', 'Volts by amperes are volt-amperes, not watts: watts only where the phase is known. Off before the leads come off.'],
  },
  'beside': {
    title: 'As loud as its neighbour', before: 'with the line plugged in, level low to begin with.',
    steps: ['Pink noise or one programme on both; stand as far from the one as from the other.', 'By ear 3 dB is plain, 1 dB is not.'],
  },
  'level': {
    title: 'Level at this place', before: 'with the line plugged in, pink noise on, level low to begin with.',
    steps: ['Meter at ears, under this speaker, a few seconds\u2019 mean. The same weighting, signal and setting as under its neighbours: those it is held against.', 'Rooms add: it is no absolute figure. With the volts at the rack it is told whether it is less than it must be. Mind your ears.'],
  },
  'swapped': {
    title: 'Another unit in its place', before: 'only to listen, level low to begin with: off, and its plug out, before each change.',
    steps: ['A unit that is known to be good on the same tap; or this one and its neighbour in each other\u2019s place, each on the tap of its place.', 'The same wrong with the other one here: it stays. Gone, or moved along: it goes with the unit.'],
  },
  'sound': {
    title: 'Does it play', before: 'with the line plugged in, level low to begin with.',
    steps: ['Speech or quiet music. Ear under this speaker only.'],
  },
}

/** Shown wherever a reading is taken. */
export const CAUTION = 'Off before wiring or changing cables. Constant-voltage outputs can shock; valve amplifiers hold lethal voltage, also unplugged. '
  + 'Mains wiring, fire codes and rigging: the local code and a licensed person decide.'

/** What is heard, as it is said and pressed. */
export const SOUND_WORDS: Record<Sound, string> = {
  'plays': 'plays', 'silent': 'silent', 'scratchy': 'scratchy', 'thin': 'thin', 'quiet': 'quiet', 'hum': 'hum', 'comes-and-goes': 'comes and goes',
}

/** Who read it, with what: "Iris, blue meter, leads nulled, at 330 Hz". Empty where nothing of it was said. */
export function takenWords(taken: Reading['taken'], frequencyHz: Reading['frequencyHz'] = null): string {
  const tone = frequencyHz === null ? '' : `at ${writeQuantity(frequencyHz, 'Hz')}`
  if (taken === null) return tone
  const leads = taken.leadsOhm === null ? '' : taken.leadsOhm === 0 ? 'leads nulled' : `leads of ${writeQuantity(taken.leadsOhm, 'Ω')} taken off`
  return [taken.by, taken.meter, leads, tone].filter(Boolean).join(', ')
}

/** What a level was taken of. */
export const SIGNAL_WORDS: Record<LevelSignal, string> = { 'pink-noise': 'pink noise', 'speech-noise': 'speech noise', 'tone-1k': 'a tone of 1 kHz', 'programme': 'programme' }

export function valueWords(value: ReadingValue): string {
  if ('how' in value) return turnedWords(value)
  if (value.is === 'tap') return value.tapW === 0 ? 'off' : `${writeQuantity(value.tapW, 'W')} on ${writeNumber(Math.floor(value.ratedV))} V`
  if (value.is === 'level') return `${writeNumber(value.db, 3)} dB${value.weighting === 'Z' ? '' : `(${value.weighting})`}, ${SIGNAL_WORDS[value.signal]}${value.headV === null ? '' : ` at ${writeQuantity(value.headV, 'V')}`}`
  if (value.is === 'volts-amps') return `${writeQuantity(value.volts, 'V')} at ${writeQuantity(value.amps, 'A')}`
  if (value.is === 'seen') return SEEN_WORDS[value.fault] ?? value.fault
  if ('withId' in value) return `${SWAPPED_WORDS[value.is]}, by ${value.withId === null ? 'a known-good unit' : 'its neighbour'}`
  if (value.is === 'as-it-should') return 'nothing amiss'
  return value.is === 'ohm' ? writeQuantity(value.ohm, 'Ω') : SOUND_WORDS[value.is as Sound] ?? value.is
}

/** The same where there is little room. */
export function valueShort(value: ReadingValue): string {
  if (value.is === 'level') return `${writeNumber(value.db, 3)} dB`
  return 'how' in value ? seenWords(value.how, value.is) : valueWords(value)
}

/** The verdict as a few words for a tag. */
export const VERDICT_TAGS: Record<VerdictCode, string> = {
  'as-planned': 'As it should be', 'plays': 'Plays', 'just-high': 'Reads wrong: just above', 'just-low': 'Reads wrong: just below',
  'high': 'Reads wrong: too high', 'low': 'Reads wrong: too low', 'far-high': 'Reads wrong: far too high', 'far-low': 'Reads wrong: far too low',
  'open': 'Reads wrong: open', 'short': 'Reads wrong: short', 'plays-though-off': 'Plays, though drawn off', 'silent': 'Silent', 'scratchy': 'Plays, but scratchy', 'thin': 'Plays, but thin',
  'quiet': 'Plays, but quiet', 'hum': 'Plays, with hum', 'comes-and-goes': 'Comes and goes', 'not-open': 'Not open: it says no more',
  'right-way': 'Right way round', 'reversed': 'Turned round', 'cannot-tell': 'Read: cannot tell', 'unit-right': 'The unit alone is right',
  'louder': 'Louder than its neighbour', 'alike': 'As loud as its neighbour', 'quieter': 'Quieter than its neighbour', 'other-tap': 'Another tap than drawn', 'other-scale': 'On another scale',
  'under-direct': 'Reads wrong: less than it must bring', 'over-direct': 'Read: no less than it must bring',
  'seen-wrong': 'Seen wrong', 'goes-with-it': 'It goes with the unit', 'stays': 'It stays at its place',
  'nothing-to-compare': 'Read: nothing to compare it with', 'next-to-nothing': 'Reads next to nothing',
}

/** Before anything is read: where what is right comes from, or why it is not known. */
export function rightWords({ kind, low, source }: Predicted): string {
  if (kind === 'sound') return 'Its control or tap is drawn off: silent is right here.'
  return low === null ? `What is right here is not known: ${source}.` : `Where the band comes from: ${source}.`
}
