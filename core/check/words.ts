import { writeNumber, writeQuantity } from '#core/quantity/write'
import type { FaultKind, Reading, ReadingKind, ReadingValue, Sound } from '#core/job/schema'
import type { Phase } from '#core/job/sections/readings/kinds'
import type { Predicted } from './predict'
import { METER_HZ } from './readingBands'
import { seenWords, turnedWords } from './turnedWords'
import type { Grade, VerdictCode } from './verdict'

/** Words of the checks: what to measure and how, what a reading says, what a fault is called. Nothing else words these. */

/** As planned: what is said of the drawing. What is said of readings (as found) shares none of these words. */
export const GRADE_WORDS: Record<Grade, string> = { good: 'Good', tight: 'Tight', stop: 'Stop', unknown: 'Not known' }

/** The grade of a drawing beside what was read of it: a drawing is good on paper only, while a reading contradicts it. */
export function plannedWords(grade: Grade, wrongReadings: number): string {
  return grade === 'good' && wrongReadings > 0 ? 'Fits on paper' : GRADE_WORDS[grade]
}

/** The mark of a reading at its place, and what it is called where it cannot be seen. */
export const MARKS: Record<Grade, { mark: string, says: string }> = {
  good: { mark: '✓', says: 'as it should be' }, tight: { mark: '✕', says: 'reads just outside' }, stop: { mark: '✕', says: 'reads wrong' }, unknown: { mark: '~', says: 'read' },
}

/** The phases of the work, as they are done one after the other. */
export const PHASE_WORDS: Record<Phase, string> = {
  bare: 'Bare pairs, before speakers hang', hang: 'Each speaker as it hangs, amplifier off', closed: 'The line closed, at the rack, amplifier off', on: 'Then, with the amplifier on',
}

/** `before`: what is seen to beside the amplifier's switch; `steps`: the one that matters first. */
export const KIND_WORDS: Record<ReadingKind, { title: string, short: string, before: string, steps: string[] }> = {
  'leg-earth': {
    title: 'Leg to earth', short: 'leg to earth', before: 'and disconnected, nothing hanging on the pair.',
    steps: ['Highest ohms range. Each conductor in turn to earth and to bare metalwork: write down the lower figure, or open.', 'Touch the leads together first: the meter must show a short. Fingers off the tips, they read a megohm.'],
  },
  'pair-apart': {
    title: 'Pair not shorted', short: 'pair apart', before: 'and disconnected, nothing hanging on the pair.',
    steps: ['Meter on the two conductors at the rack, all far ends apart: open.', 'Ohms instead of open: it is shorted along its way, or something hangs on it. Null the leads: 0.1 Ω is metres of cable.'],
  },
  'pair-through': {
    title: 'Pair goes through', short: 'pair through', before: 'and disconnected, nothing hanging on the pair.',
    steps: ['Hold the two conductors together here, at this end, and nowhere else. Meter on the pair at the rack: a beep, and the ohms of its copper.', 'Take the short off again before you go on.'],
  },
  'polarity': {
    title: 'Which way round', short: 'polarity', before: 'and disconnected at both its terminals.',
    steps: ['Before the grille goes on, so that the cone is seen.'],
  },
  'polarity-heard': {
    title: 'Which way round, heard', short: 'polarity heard', before: 'with the line plugged in, level low to begin with.',
    steps: ['Two ears, or a listening tester, at this speaker.'],
  },
  'line-impedance': {
    title: 'Impedance of the line', short: 'line impedance', before: 'and the line unplugged at the rack.',
    steps: [
      'Impedance meter on the two conductors, 1 kHz unless you say another tone. An ohmmeter cannot read this.',
      'Wait until it settles; write down what it shows.',
    ],
  },
  'line-dcr': {
    title: 'Resistance of the line', short: 'line DCR', before: 'and the line unplugged at the rack.',
    steps: ['Ohmmeter on the two conductors.', 'Meter leads together first: take off what they read.'],
  },
  'coil-dcr': {
    title: 'Resistance of the coil', short: 'coil DCR', before: 'and the line unplugged at the rack.',
    steps: ['One lead off the driver: its transformer, or its neighbours, hang on it. Meter on its two tabs.', '200 Ω range. Leads together first: take off what they read.'],
  },
  'tap-found': {
    title: 'Tap or dial as found', short: 'tap as found', before: 'and the line unplugged at the rack.',
    steps: ['Read the dial, or which lead is on: the watts, and the volts of the scale that it stands on. Dials often carry two scales.', 'Write down what is there; turn it afterwards.'],
  },
  'outward-impedance': {
    title: 'Impedance from here outward', short: 'outward', before: 'and the line unplugged at the rack.',
    steps: ['Open the line before this place. Impedance meter on the pair that goes on, this speaker and all behind it.', 'It halves the line: what reads right is out of it. Join it again afterwards.'],
  },
  'head-volts-amps': {
    title: 'Volts and amperes at the rack', short: 'volts and amps', before: 'programme off, a steady test tone on, low to begin with.',
    steps: ['Say the tone. True-rms voltmeter across the pair, clamp or ammeter in one leg: check that both reach that tone.', 'Volts by amperes are volt-amperes, not watts: watts only where the phase is known. Off before the leads come off.'],
  },
  'beside': {
    title: 'As loud as its neighbour', short: 'beside another', before: 'with the line plugged in, level low to begin with.',
    steps: ['Pink noise or one programme on both; stand as far from the one as from the other.', 'By ear 3 dB is plain, 1 dB is not.'],
  },
  'sound': {
    title: 'Does it play', short: 'sound', before: 'with the line plugged in, level low to begin with.',
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

export function valueWords(value: ReadingValue): string {
  if ('how' in value) return turnedWords(value)
  if (value.is === 'tap') return value.tapW === 0 ? 'off' : `${writeQuantity(value.tapW, 'W')} on ${writeNumber(Math.floor(value.ratedV))} V`
  if (value.is === 'volts-amps') return `${writeQuantity(value.volts, 'V')} at ${writeQuantity(value.amps, 'A')}`
  return value.is === 'ohm' ? writeQuantity(value.ohm, 'Ω') : SOUND_WORDS[value.is as Sound] ?? value.is
}

/** The same where there is little room. */
export function valueShort(value: ReadingValue): string {
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
  'nothing-to-compare': 'Read: nothing to compare it with', 'next-to-nothing': 'Reads next to nothing',
}

type Signs = Partial<Record<VerdictCode, string>>

/** What a bad reading usually means, by what was read. Source: common practice, no source. */
const REVERSED = 'Its pair is crossed somewhere between the amplifier and its terminals, or the unit is marked wrong. Beside speakers that are right the bass goes, half way between them. Swap its pair at one place, and read it again.'
const TURNED_SIGNS: Signs = {
  'reversed': REVERSED,
  'cannot-tell': 'Nothing is proved by that. Try another way.',
  'unit-right': 'The unit moves as it is marked. Of the run to it that says nothing: read it from the rack, or by ear beside its neighbour.',
}
const BESIDE_SIGN = 'Another tap, another scale of its dial, or a control. Look at the dials of both before anything is opened.'
const LEAKS = 'Something conducts that should not: a nicked or pinched cable, strands at a terminal, damp, or something that hangs on it still.'

const OF_LINE: Signs = {
  'high': 'A speaker is missing or on a lower tap, a dial is set by the scale of a higher line voltage than this one, or the cable is open somewhere.',
  'far-high': 'Much of the line is missing: a break near the head.',
  'low': 'A speaker more than drawn, a higher tap, or leakage.',
  'far-low': 'More than the output stands: look for a speaker on its 8 Ω position, dials set by the scale of a lower line voltage, or pinched cable. Do not switch on.',
  'open': 'Nothing hangs on these two conductors: a break before the first speaker, or the wrong pair.',
  'short': 'The conductors touch, or the line still hangs on the amplifier, which reads as a short: unplug it and read again. Do not switch on.',
}

const SIGNS: Record<ReadingKind, Signs> = {
  'leg-earth': { 'low': `A leg leaks to earth. ${LEAKS}`, 'far-low': `A leg touches earth or metalwork: it hums, and may shock. ${LEAKS} Do not switch on.`, 'just-low': `A leg leaks to earth. ${LEAKS}`, 'short': 'A leg lies on earth or metalwork. Do not switch on.' },
  'pair-apart': { 'low': LEAKS, 'just-low': LEAKS, 'far-low': `Shorted along its way, or something hangs on it still. ${LEAKS} Do not switch on.`, 'short': 'Shorted near the rack. Do not switch on.' },
  'pair-through': {
    'open': 'It does not go through: a break, a joint left open, the wrong pair, or the far end is not held together.',
    'high': 'More copper than drawn, or a bad joint on the way.', 'far-high': 'A bad joint on the way, or another pair than you think.',
    'low': 'Shorter than drawn, or shorted on the way.', 'far-low': 'Shorted on the way, well before this end.', 'short': 'Shorted on the way, well before this end.',
  },
  'tap-found': {
    'other-tap': 'Set it to the plan, or correct the plan if it was meant so.',
    'other-scale': 'The watts of another line voltage: on this line it takes more, or less. Set it by the scale of this line.',
  },
  'beside': { louder: BESIDE_SIGN, quieter: BESIDE_SIGN },
  'polarity': TURNED_SIGNS,
  'polarity-heard': { ...TURNED_SIGNS, 'reversed': `${REVERSED} A crossover may turn one band on purpose: read the whole unit, not its tweeter.` },
  'line-impedance': OF_LINE,
  'outward-impedance': OF_LINE,
  'head-volts-amps': OF_LINE,
  'line-dcr': {
    'high': 'A speaker is missing, or a joint is bad.', 'far-high': 'Most of the line is missing, or a joint is bad.',
    'low': 'A speaker more than drawn, or a coil with shorted turns.', 'far-low': 'A near short, or speakers wired across that should be in series.',
    'open': 'A break before the first speaker, or the wrong pair.', 'short': 'The conductors touch before the coils. Do not switch on.',
    'next-to-nothing': 'A short, or many windings side by side: twenty may read so and be sound. Read the impedance before you decide; do not switch on before that.',
    'not-open': 'It proves “not open”, never “right”: an ohmmeter sees only the copper of the windings. Read the impedance.',
  },
  'coil-dcr': {
    'high': 'A joint that begins to fail, or another unit than drawn.',
    'far-high': 'A corroding joint or a failing coil; it may read differently tomorrow.',
    'low': 'Another unit than drawn, or a coil that begins to short.',
    'far-low': 'Shorted turns, or two units across each other.',
    'open': 'The coil is broken, or its lead-out, or the terminal.', 'short': 'A short before the coil.',
  },
  'sound': {
    'plays-though-off': 'Its control or its tap is drawn off: it was turned up since, or it hangs elsewhere than drawn. Turn it off, or correct the drawing.',
    'silent': 'If all are silent, first the amplifier: on, not muted, its source, its protection. One alone: an open coil or joint, a tap on off, its control at zero, something unplugged, or cable broken before it.',
    'scratchy': 'A rubbing coil, by heat or too much travel; dirt; a torn cone or surround. Read its coil: right ohms are no proof, for a coil that rubs reads right too; wrong ohms say that it has been hot.',
    'thin': 'Its neighbour the other way round, or one of its own drive units silent.',
    'quiet': 'A lower tap than drawn, its control turned down, a bad joint, or volts lost on the way.',
    'hum': 'A leg to earth or shared grounds: off, then measure each leg to earth. With a tingle: hands off, mains off at the breaker, and a licensed person; measure nothing yourself.',
    'comes-and-goes': 'A joint or lead-out that opens. Read its coil on several days: the spread is the evidence.',
  },
}

/** The tone, where it is not the usual one. */
const toneWords = ({ frequencyHz }: Predicted) => frequencyHz === null || frequencyHz === METER_HZ ? '' : ` at ${writeQuantity(frequencyHz, 'Hz')}`
/** Where the band was learned. */
const learnedWords = ({ learned }: Predicted) => learned ? `, learned from ${learned.from.join(', ')}` : ''

/** Before leads and joints: cable that nobody stated is not in what is right. */
const cableWords = (predicted: Predicted | null) => predicted && predicted.cableMissing > 0 ? 'Cable that is not stated adds to it: enter its size and length first. ' : ''

/** What a reading inside its band leaves open. */
function blindWords({ label, ohm, of }: NonNullable<Predicted['cannotTell']>): string {
  return `With ${label} of these ${of} dead it would read ${writeQuantity(ohm, 'Ω')}: this reading cannot tell. Each is proved by its own.`
}

/** One or two sentences: the band, and what the reading usually means. */
export function verdictWords(kind: ReadingKind, code: VerdictCode, predicted: Predicted | null): string {
  const band = predicted?.low != null && predicted.high != null
    ? `Right would be ${writeQuantity(predicted.low, 'Ω')} to ${writeQuantity(predicted.high, 'Ω')}${toneWords(predicted)}${learnedWords(predicted)}.`
    : ''
  if (code === 'as-planned' && predicted?.kind === 'sound') return 'Its control or tap is drawn off: silent is as it should be. Of the speaker itself it says nothing.'
  if (code === 'as-planned' && predicted?.isOpen) return 'Nothing flows here as it is drawn: open is as it should be.'
  if (code === 'as-planned' && predicted?.cannotTell) return `${band} Inside it. ${blindWords(predicted.cannotTell)}`
  if (code === 'as-planned') return `${band} As it should be.`
  if (code === 'alike') return 'As loud as it should be, as far as ears tell: 1 dB they do not.'
  if (code === 'right-way') return kind === 'polarity' ? 'It moves as it should, with all joints between here and the rack.' : 'It pulls as it should.'
  if (code === 'plays') return 'It is reached and it sounds.'
  if (code === 'just-high' || code === 'just-low') return `${band} ${code === 'just-high' ? cableWords(predicted) : ''}Just outside: null the leads and read again before anything is opened.`
  if (code === 'nothing-to-compare') return `Nothing to compare with: ${predicted?.source ?? 'no plan for this place'}.`
  return [band, code === 'high' ? cableWords(predicted).trim() : '', SIGNS[kind][code] ?? ''].filter(Boolean).join(' ')
}

/** Before anything is read: where what is right comes from, or why it is not known. */
export function rightWords({ kind, low, source }: Predicted): string {
  if (kind === 'sound') return 'Its control or tap is drawn off: silent is right here.'
  return low === null ? `What is right here is not known: ${source}.` : `Where the band comes from: ${source}.`
}

export const FAULT_WORDS: Record<FaultKind, { at: (place: string) => string, repair: string }> = {
  'open-at-drop': { at: place => `Open at ${place}: coil, joint or plug`, repair: 'Remake the joint; if the coil reads open, replace the unit.' },
  'break-in-reach': { at: place => `Nothing gets past before ${place}: cable, plug, or a control at zero`, repair: 'Between the last good one and this: a plug, a splice, a control at zero, or the cable. Mend what it is, or pull new.' },
  'short-at-drop': { at: place => `Short at ${place}`, repair: 'Unplug this drop; look for strands across the terminals and pinched cable.' },
  'wrong-tap': { at: place => `Wrong tap at ${place}`, repair: 'Set the tap to the plan, on the scale of this line’s voltage.' },
  'taps-on-other-scale': { at: () => 'All taps on the other scale', repair: 'Set every dial by the scale of this line’s voltage.' },
  'taps-one-off': { at: () => 'All taps one off', repair: 'Set every tap to the plan, or correct the plan if it was meant so.' },
  'low-impedance-position': { at: place => `${place} on its low-impedance position`, repair: 'Set its transformer to the tap of the plan. Do not switch on before.' },
  'shorted-turns': { at: place => `Shorted turns at ${place}`, repair: 'Read its coil with the leads off; replace the unit or its transformer.' },
  'extra-speaker': { at: place => `One more speaker than drawn, like ${place}`, repair: 'Find it and take it off, or draw it.' },
  'something-else': { at: () => 'Something that is not in this list', repair: 'Halve the line and read again: a part that reads right is out of it.' },
  'turned-round': { at: place => `${place} the other way round`, repair: 'Swap its pair at one place, then prove it: battery, pulse, or by ear beside its neighbour.' },
  'coil-opposed': { at: place => `One coil of ${place} against the other`, repair: 'Swap the leads of one coil, then listen: two coils that pull alike are loud, opposed they are silent.' },
  'high-resistance': { at: place => `Bad joint or failing coil at ${place}`, repair: 'Clean and remake the joint; if the coil itself reads high, replace the unit.' },
}
