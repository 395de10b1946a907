import { writeNumber, writeQuantity } from '#core/quantity/write'
import type { ReadingKind } from '#core/job/schema'
import { factsOf } from '#core/job/sections/readings/kinds'
import type { LevelPlan } from './levels'
import type { Predicted } from './predict'
import { METER_HZ } from './readingBands'
import type { VerdictCode } from './verdict'

/** What a verdict says of a reading: its band, and what it usually means. */

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
  'far-low': 'Look for a speaker on its 8 Ω position, dials set by the scale of a lower line voltage, or pinched cable. Do not switch on.',
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
  'looked': { 'seen-wrong': 'Put it right, and read the line again: what was seen may not be all of it.' },
  'swapped': {
    'goes-with-it': 'It is the unit, its transformer or its dial: not the joint, not the run. Read its coil before it is thrown away.',
    'stays': 'It is the joint, the run or what is before it: the unit is right.',
  },
  'beside': { louder: BESIDE_SIGN, quieter: BESIDE_SIGN },
  'level': {
    'louder': BESIDE_SIGN, 'quieter': BESIDE_SIGN,
    'under-direct': `Its direct sound alone should bring more at these volts. ${BESIDE_SIGN}`,
    'over-direct': 'At least what its own sound alone brings; the room and its neighbours are in it, too: it proves no more. Read it under others like it.',
  },
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

/** How much too much hangs on it: by what its output stands, where that is known. */
function loadWords(kind: ReadingKind, predicted: Predicted | null): string {
  if (SIGNS[kind] !== OF_LINE) return ''
  if (predicted?.overloadOhm != null) return 'More than the output stands.'
  return `More than twice the load that is right${factsOf(kind).at === 'head' ? '; what the output stands is not known' : ''}.`
}

/** What a reading inside its band leaves open. */
function blindWords({ label, ohm, of }: NonNullable<Predicted['cannotTell']>): string {
  return `With ${label} of these ${of} dead it would read ${writeQuantity(ohm, 'Ω')}: this reading cannot tell. Each is proved by its own.`
}

/** What a level is held against. */
function levelWords({ besideDb, of, atLeastDb }: LevelPlan): string {
  const beside = besideDb === null ? '' : `${of === 1 ? 'Under one like it' : `Under ${of} like it, in the middle,`} ${writeNumber(besideDb, 3)} dB, brought to its watts.`
  return [beside, atLeastDb === null ? '' : `Its direct sound alone brings at least ${writeNumber(atLeastDb, 3)} dB.`].filter(Boolean).join(' ')
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
  const level = predicted?.level ?? null
  if (level) return [levelWords(level), code === 'alike' ? 'As loud as those, within 2 dB.' : SIGNS[kind][code] ?? ''].filter(Boolean).join(' ') || `Nothing to compare with: ${predicted!.source}.`
  if (code === 'alike') return 'As loud as it should be, as far as ears tell: 1 dB they do not.'
  if (code === 'right-way') return kind === 'polarity' ? 'It moves as it should, with all joints between here and the rack.' : 'It pulls as it should.'
  if (code === 'plays') return 'It is reached and it sounds.'
  if (code === 'just-high' || code === 'just-low') return `${band} ${code === 'just-high' ? cableWords(predicted) : ''}Just outside: null the leads and read again before anything is opened.`
  if (code === 'nothing-to-compare') return `Nothing to compare with: ${predicted?.source ?? 'no plan for this place'}.`
  return [band, code === 'high' ? cableWords(predicted).trim() : '', code === 'far-low' ? loadWords(kind, predicted) : '', SIGNS[kind][code] ?? ''].filter(Boolean).join(' ')
}
