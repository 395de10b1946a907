import { lineVoltageName, type ChannelMode } from '#core/amplifier/index'
import { PEAK_OF_CONTINUOUS, powerSchool } from '#core/schools/power'
import { reserveSchool } from '#core/schools/reserve'
import { valveSchool } from '#core/schools/valve'
import { exceeds, isSameLoad } from '#core/quantity/tolerance'
import { writeLength } from '#core/quantity/units'
import { writeDb, writeNumber, writeQuantity } from '#core/quantity/write'
import { INPUT_WORDS } from './inputWords'
import { bandWords } from './playedBand'
import type { Sentence } from './sentence'
import type { Finding, FindingCode, FindingFacts, FindingOf } from './finding'

const inWatts = (watts: number) => writeQuantity(watts, 'W')
const Ohm = (ohm: number) => writeQuantity(ohm, 'Ω')
const V = (volts: number) => writeQuantity(volts, 'V')
const Hz = (hz: number) => writeQuantity(hz, 'Hz')
const percent = (share: number) => `${Math.round(share * 100)} %`

const BASIS: Record<FindingFacts['load-suits']['basis'], string> = {
  'rated': 'rated for exactly this load', 'between': 'between two rated loads', 'above': 'above its highest rated load, so its volts stay and power falls',
  'not-rated': 'below its lowest rated load', 'under-floor': 'below its floor', 'line': 'at its line voltage',
  'limited': 'held by its limiter', 'matched': 'which is its tap', 'above-tap': 'above its tap, so power falls', 'below-tap': 'below its tap, so power falls and the output stage heats',
}

const STAND_NOT_KNOWN = 'Whether they stand it is not known: no rating is stated.'

const leftOn = ({ ohm, tapOhm }: FindingFacts['valve-unloaded']) => ohm === null ? 'nothing on this valve output' : `${Ohm(ohm)}${tapOhm === null ? '' : ` on the ${Ohm(tapOhm)} tap`}`

/** The one place where findings become sentences. */
const WORDS: { [K in FindingCode]: (facts: FindingFacts[K]) => Sentence } = {
  'nothing-connected': () => ({ what: 'Nothing hangs on this output.', why: '', todo: 'Add a speaker.' }),
  'amplifier-not-known': ({ kind }) => ({
    what: 'The amplifier’s power is not known.',
    why: kind === 'constant-voltage' ? 'Without it there is no saying whether the taps fit.' : 'Without its ratings there is no saying what each speaker gets.',
    todo: kind === 'constant-voltage' ? 'Enter its power, or read what each rule asks for.' : 'Enter its rated powers and lowest load.',
  }),
  'rating-contradicts': f => ({
    what: f.why === 'twice'
      ? `Two powers are stated at ${Ohm(f.heavier.loadOhm)}: ${inWatts(f.lighter.powerW)} and ${inWatts(f.heavier.powerW)}.`
      : `${inWatts(f.lighter.powerW)} at ${Ohm(f.lighter.loadOhm)} and ${inWatts(f.heavier.powerW)} at ${Ohm(f.heavier.loadOhm)} do not go together.`,
    why: {
      'twice': 'Only one of them can be right.',
      'more-volts': 'An amplifier does not give more volts into a heavier load.',
      'less-amps': 'It would give less current into the heavier load than into the lighter one: then it holds back there, or one figure is wrong.',
    }[f.why],
    todo: 'Look at the sheet again: watts at which load, and by which method.',
  }),
  'line-voltage-not-known': f => ({
    what: `Transformers for ${list(f.printedV.map(lineVoltageName))} hang on one line, and its voltage is not known.`,
    why: 'What each takes hangs on the volts of the line.', todo: 'Enter the amplifier, or at least its line voltage.',
  }),
  'fits-with-reserve': f => ({
    what: `The taps ask ${inWatts(f.drawW)}; this output gives ${inWatts(f.ratedW)}.`,
    why: `By “${reserveSchool(f.practice).name}” it wants ${inWatts(f.requiredW)}: ${inWatts(f.ratedW - f.requiredW)} are left above that.`, todo: '',
  }),
  'reserve-short': f => ({
    what: `The taps ask ${inWatts(f.drawW)}; by “${reserveSchool(f.practice).name}” this output carries ${inWatts(f.allowedW)}. Over by ${inWatts(f.drawW - f.allowedW)}.`,
    why: 'It will play. Turned up, it has nothing left for peaks or for one more speaker.',
    todo: `Take taps down, move speakers, or an amplifier of ${inWatts(f.requiredW)}.`,
  }),
  'taps-over-amplifier': f => ({
    what: `The taps ask ${inWatts(f.drawW)}; the output gives ${inWatts(f.ratedW)}. Over by ${inWatts(f.drawW - f.ratedW)}.`,
    why: 'The amplifier overloads: it clips, runs hot and may cut out.', todo: 'Do not switch on so. Take taps down, move speakers, or a larger amplifier.',
  }),
  'draw-is-not-taps': f => ({
    what: `The taps are set to ${inWatts(f.tapsW)} in all; as they are wired they draw ${inWatts(f.drawW)}.`,
    why: 'In series each has only a part of the line’s volts, and takes that part squared.', todo: 'Hang every transformer across the line, in parallel.',
  }),
  'scale-mismatch': f => ({
    what: `${f.label} is set to ${inWatts(f.tapW)} on its ${lineVoltageName(f.ratedV)} scale; on this ${lineVoltageName(f.lineV)} line it takes ${inWatts(f.takesW)}.`,
    why: f.takesW > f.tapW ? 'Transformer and driver get more than they are set for.' : 'It plays quieter than meant.',
    todo: 'Choose the tap on the scale of this line’s voltage.',
  }),
  'tap-not-listed': f => ({
    what: `${f.label} is set to ${inWatts(f.tapW)}, but its taps are ${list(f.tapsW.map(inWatts))}.`,
    why: 'One of the two is wrong: figures are as if it stood at what is set.', todo: 'Look at the dial, then correct the tap or the list.',
  }),
  'tap-over-rating': f => ({
    what: `${f.label} takes ${inWatts(f.takesW)} from this line; it is rated ${inWatts(f.continuousW)} continuous.`,
    why: exceeds(f.takesW, PEAK_OF_CONTINUOUS * f.continuousW) ? 'More than its peak rating, four times continuous.' : 'Loud and long it gets hotter than it is made for.',
    todo: 'A lower tap, or a unit that stands it.',
  }),
  'plain-speaker-on-line': f => ({
    what: `${f.label} is a plain ${Ohm(f.nominalOhm)} speaker on a ${lineVoltageName(f.lineV)} line: it would draw ${inWatts(f.wouldTakeW)}.`,
    why: 'That is a near short for the line, and the end of the speaker.', todo: 'Do not switch on. Give it a transformer, or a low-impedance output.',
  }),
  'transformer-on-plain-output': f => ({
    what: `${f.label} has a line transformer, but this output is low impedance${f.takesW === null ? '' : `: of its ${inWatts(f.tapW)} it gets ${inWatts(f.takesW)}`}.`,
    why: f.takesW !== null && f.takesW > f.tapW
      ? 'Transformer and driver get more than they are set for.'
      : f.takesW === null || f.takesW < 0.1 * f.tapW ? 'It will hardly be heard; the transformer is made for a line voltage.' : 'It plays quieter than meant; the transformer is made for a line voltage.',
    todo: 'Put it on a constant-voltage line, or wire past the transformer.',
  }),
  'plain-output-drives-line': f => ({
    what: `This output gives ${V(f.volts)} here: it drives a ${lineVoltageName(f.ratedV)} line without a transformer.`,
    why: f.count === 1 ? 'The tap gets what it is set for.' : 'Each tap gets what it is set for.', todo: '',
  }),
  'far-end-loss': f => ({
    what: `At ${f.label} the wire has taken ${f.missing > 0 ? 'at least ' : ''}${writeDb(-f.lossDb)}; the aim is under ${writeDb(f.limitDb)}.${f.volts === null ? '' : ` It has ${V(f.volts)} and gets ${inWatts(f.powerW ?? 0)}.`}`,
    why: 'The far end plays quieter than the near one, and the difference heats the cable.', todo: 'Thicker cable, or fewer watts on this line.',
  }),
  'cable-not-stated': f => ({
    what: f.lengthM > 0 ? `${writeLength(f.lengthM)} of cable are of no stated size.` : 'No cable is stated.',
    why: 'What the wire loses is not known; figures are as if the speakers stood at the amplifier.',
    todo: f.lengthM > 0 ? 'Say of which size, or find the cable for these lengths.' : 'Enter cable and lengths.',
  }),
  'cable-partly-stated': f => ({
    what: `${f.missing} of ${f.of} lengths of cable are not stated${f.sizeless === 0 ? '' : `, ${f.sizeless} of them only of no stated size`}.`,
    why: `What the wire loses is at least ${writeDb(Math.abs(f.lossDb))} at the worst place; how much more is not known.`, todo: 'Enter the missing lengths; 0 m where a speaker stands at the place before.',
  }),
  'tap-off': f => ({ what: `${f.label} is set to off.`, why: 'It will be silent.', todo: 'Choose a tap, if it is meant to play.' }),
  'dead-member': f => ({
    what: `Nothing can flow through ${f.label}: the series that it is in is open.`, why: 'It will be silent, and with it all that hangs in that series.',
    todo: 'Look for a tap on off or a gap beside it.',
  }),
  'load-under-floor': f => ({
    what: `${Ohm(f.loadOhm)} is under ${floorOf(f)}.`,
    why: f.made === 'receiver' && !f.isFloorStated
      ? 'Of this load its maker says nothing, and only what its maker states counts.'
      : 'More current than the amplifier may give: it runs hot, cuts out, or breaks.',
    todo: 'Do not switch on so. Wire in series, or take speakers off.',
  }),
  'curve-under-floor': f => ({
    what: `The curve dips to ${Ohm(f.lowestOhm)} at ${writeQuantity(f.frequencyHz, 'Hz')}: under ${floorOf(f)}.`
      + (f.permittedOhm === null ? '' : ` Members known by their label alone may take it to ${Ohm(f.permittedOhm)}.`),
    why: 'The label is only a label: there the amplifier sees less than it may be given.', todo: 'Keep it quiet there, or wire for a higher load.',
  }),
  'curve-not-known': f => ({
    what: f.isMixed
      ? `The lowest point is known in part: with curves where they are known, and elsewhere by the label, it may go down to ${Ohm(f.permittedOhm)}.`
      : `The lowest point of the impedance curve is not known. By the label it may go down to ${Ohm(f.permittedOhm)}.`,
    why: 'A label permits 0.8 of itself (IEC 60268-5).', todo: 'Enter the drive unit’s parameters, or a measured curve, to know.',
  }),
  'load-suits': f => ({
    what: f.basis === 'rated'
      ? `${Ohm(f.loadOhm)} is what this output is made for.`
      : `${Ohm(f.loadOhm)} is ${isSameLoad(f.loadOhm, f.floorOhm) ? 'just' : 'above'} ${floorOf(f)}.`,
    why: `It gives ${f.basis === 'not-rated' ? 'at least ' : ''}${inWatts(f.powerW)}: ${BASIS[f.basis]}.${f.count > 1 && f.equal ? ` ${allOf(f.count)} get the same.` : ''}${f.isStandKnown ? '' : ` ${STAND_NOT_KNOWN}`}`,
    todo: '',
  }),
  'curve-ends': f => ({
    what: `What was measured of ${list(f.labels)} covers ${f.fromHz < f.toHz ? `${writeQuantity(f.fromHz, 'Hz')} to ${writeQuantity(f.toHz, 'Hz')}` : 'no stretch that all of them share'}.`,
    why: 'Beyond it nothing is known: there each is taken as its label.', todo: 'Measure it over the whole range, if what lies beyond matters.',
  }),
  'curve-without-phase': f => ({
    what: `Of ${list(f.labels)} the phase was not measured.`, why: 'It is taken as none: alone that changes nothing of its ohms, beside others it does.', todo: 'Measure the phase too, to know how they add up.',
  }),
  'valve-tap-not-known': f => ({
    what: `Which tap ${Ohm(f.loadOhm)} hangs on is not stated; there are ${list(f.tapsOhm.map(Ohm))}.`,
    why: 'A valve output wants its load at the tap: too low overheats it, far too high can break it.', todo: bestOf(f.bestOhm),
  }),
  'valve-matched': f => ({
    what: `${Ohm(f.loadOhm)} on the ${Ohm(f.tapOhm)} tap: matched.`, why: `${f.powerW === null ? '' : `It gives its ${inWatts(f.powerW)}.`}${f.isStandKnown ? '' : ` ${STAND_NOT_KNOWN}`}`.trim(), todo: '',
  }),
  'valve-low': f => ({
    what: `${Ohm(f.loadOhm)} on the ${Ohm(f.tapOhm)} tap: ${percent(f.loadOhm / f.tapOhm)} of what it is made for.`,
    why: 'Output stage and transformer overheat on a load below the tap.',
    todo: `${f.isTooLow ? 'Do not switch on so.' : 'Only quietly, and watched.'} ${bestOf(f.bestOhm)}`,
  }),
  'valve-high': f => ({
    what: `${Ohm(f.loadOhm)} on the ${Ohm(f.tapOhm)} tap: ${writeNumber(f.loadOhm / f.tapOhm)} times what it is made for. It costs ${writeDb(-f.lossDb)} of power.`,
    why: f.practice === 'up-is-safe'
      ? `By “${valveSchool(f.practice).name}” that is allowed, for listening; an instrument amplifier driven hard can break its output transformer so.`
      : `By “${valveSchool(f.practice).name}” it is not: driven hard, the voltage flies back${f.isFar ? ' and can break the output transformer' : ''}.`,
    todo: f.bestOhm === f.tapOhm ? 'It is the nearest tap there is: keep it quiet, or wire for the tap.' : bestOf(f.bestOhm),
  }),
  'valve-open': () => ({
    what: 'Nothing is connected to this valve output.', why: 'Without a load the voltage flies back: valves and output transformer can break within seconds.',
    todo: 'Never switch on so. Connect the speakers first.',
  }),
  'valve-unloaded': f => ({
    what: f.off.length > 0
      ? `Turned ${f.ohm === null ? 'off' : 'down or off'}, ${list(f.off)} ${f.off.length === 1 ? 'leaves' : 'leave'} ${leftOn(f)}.`
      : `At ${Hz(f.frequencyHz ?? 20)} there is next to no load: ${leftOn(f)}.`,
    why: `${f.off.length > 0 ? 'Anybody can turn it there, whatever it is set to now. ' : 'A capacitor or a coil keeps that part from the output, whatever the label says. '}Without its load the voltage of a valve output flies back: valves and output transformer can break.`,
    todo: f.off.length > 0 ? 'Do not switch on so. No such control on a valve output: set the level at the amplifier.' : 'Do not drive it so, or hang a unit beside it that takes that part.',
  }),
  'label-contradicts': f => ({
    what: `${list(f.labels)}: labelled ${Ohm(f.nominalOhm)}, but the curve ${f.isUnder ? `goes down to ${Ohm(f.lowestOhm)} at ${Hz(f.frequencyHz)}` : `never goes below ${Ohm(f.lowestOhm)}`}.`,
    why: `No ordinary unit of that label does. ${isSameLoad(f.judgedOhm, f.nominalOhm) ? 'Watts here still go by the label: it is a dip alone.' : `Loads and watts here go by the curve: as ${Ohm(f.judgedOhm)}.`}`, todo: 'Look at the unit and at the file: one of the two is of another.',
  }),
  'label-dips': f => ({
    what: `${list(f.labels)}: labelled ${Ohm(f.nominalOhm)}, the curve dips to ${Ohm(f.lowestOhm)} at ${Hz(f.frequencyHz)}.`,
    why: 'A label promises 0.8 of itself (IEC 60268-5); ordinary units go down to 0.7.', todo: '',
  }),
  'taken-as': f => ({
    what: `What ${list(f.labels)} ${f.labels.length === 1 ? 'is' : 'are'} is not known yet: what is drawn is a guess.`,
    why: 'All that is said of this line is said of that guess.', todo: 'Say what hangs there: its tap or its ohms, or a model of the library.',
  }),
  'labels-repeat': f => ({
    what: `${list(f.labels)} ${f.labels.length === 1 ? 'stands' : 'stand'} on this line more than once.`,
    why: 'A reading, a repair or a label of one would be taken for that of another.', todo: 'Give each a number of its own.',
  }),
  'coil-idle': f => ({
    what: `Of the ${f.of} coils of ${f.unit} ${f.driven === 1 ? 'one is' : `${f.driven} are`} wired.`,
    why: 'A coil that is not driven takes no part: less power, and other bass than the unit is made for.', todo: 'Wire every coil, each with the same signal; do not short the one left over.',
  }),
  'coils-unlike': f => ({
    what: `The coils of ${f.unit} are not driven alike${f.outputs.length > 1 ? ` (${list(f.outputs)})` : ''}.`, why: 'They move one cone: driven unlike, one of them carries the work and the heat; out of phase they work against each other.', todo: 'Equal outputs with the same signal at the same level, or join the coils on one output.',
  }),
  'coils-alike': f => ({
    what: `The coils of ${f.unit} hang on ${list(f.outputs)}, driven alike.`, why: '', todo: 'Both inputs get the same signal at the same level, in the same polarity.',
  }),
  'half-cabinet': f => ({
    what: `Of ${list(f.labels)} half the drivers play: so its jack and switch have it.`, why: 'The other half is silent until it gets a line of its own.', todo: 'Mono, to drive all of it from one jack.',
  }),
  'rating-believed': f => ({
    what: `Of ${list(f.labels)} the rating that you believe counts: ${inWatts(f.believedW)} continuous${f.sheetW === null ? '; the sheet states none' : `, where the sheet says ${inWatts(f.sheetW)}`}.`,
    why: 'All that is said here of what they stand goes by it.', todo: '',
  }),
  'load-not-rated': f => ({
    what: `No power is rated at ${Ohm(f.loadOhm)}; the lowest rated load is ${Ohm(f.lowestRatedOhm)}.`,
    why: `Allowed by its floor. It gives between ${inWatts(f.atLeastW)}, from the current it is known to give, and ${inWatts(f.atMostW)}, if it keeps its volts.`, todo: 'Enter the rating at this load, if the maker states one.',
  }),
  'unequal-shares': f => ({
    what: `${f.most} takes ${percent(f.mostShare)} of the power, ${f.least} ${percent(f.leastShare)}.`,
    why: 'The first one to reach its limit limits the whole line.', todo: 'Use equal speakers on one output, or mind the one that takes most.',
  }),
  'speaker-overdriven': f => ({
    what: `${f.label} can get ${f.isMost ? 'up to ' : ''}${inWatts(f.powerW)}; it is rated ${inWatts(f.continuousW)} continuous.`,
    why: 'More than its peak rating, four times continuous.', todo: 'A smaller amplifier, more speakers to share, or a limiter.',
  }),
  'amplifier-outside-rule': f => ({
    what: `This output gives ${f.isMost ? 'up to ' : ''}${inWatts(f.amplifierW)}; by “${powerSchool(f.practice).name}” these speakers want ${band(f)}.`,
    why: f.amplifierW < f.fromW
      ? 'A smaller amplifier breaks nothing by itself; pushed into clipping it does.'
      : powerSchool(f.practice).risks[0]!.toUpperCase() + powerSchool(f.practice).risks.slice(1) + '.',
    todo: f.amplifierW < f.fromW ? 'Keep it out of clipping.' : 'Hold it back, set a limiter, or choose another rule with open eyes.',
  }),
  'amplifier-inside-rule': f => ({
    what: `This output gives ${f.isMost ? 'up to ' : ''}${inWatts(f.amplifierW)}; by “${powerSchool(f.practice).name}” these speakers want ${band(f)}.`, why: '', todo: '',
  }),
  'control-fits': f => ({ what: `Behind ${f.label} hang ${inWatts(f.behindW)}; it is rated ${inWatts(f.ratingW)}.`, why: '', todo: '' }),
  'control-tight': f => ({
    what: `Behind ${f.label} hang ${inWatts(f.behindW)} of the ${inWatts(f.ratingW)} that it is rated for.`, why: 'It carries that; nothing is left for one more speaker or a tap up.', todo: 'Leave it so, or a control of the next size.',
  }),
  'control-over': f => ({
    what: `Behind ${f.label} hang ${inWatts(f.behindW)}; it is rated ${inWatts(f.ratingW)}. Over by ${inWatts(f.behindW - f.ratingW)}.`,
    why: 'It overheats inside the wall, and distorts before that.', todo: 'Taps down behind it, fewer speakers behind it, or a larger control.',
  }),
  'control-rating-not-known': f => ({
    what: `The rating of ${f.label} is not known${f.behindW === null ? '' : `; behind it hang ${inWatts(f.behindW)}`}.`, why: 'All that hangs behind a control must not exceed its rating.', todo: 'Enter its watts.',
  }),
  'control-off': f => ({ what: `${f.label} is set to off.`, why: `${list(f.silent)} will be silent.`, todo: 'Turn it up, if they are meant to play.' }),
  'control-wrong-line': f => ({
    what: `${f.label} is made for a ${lineVoltageName(f.ratedV)} line; this one has ${lineVoltageName(f.lineV)}.`,
    why: f.ratedV < f.lineV ? 'Its winding saturates: a heavy load for the amplifier, and heat.' : 'It carries less than it is rated for there.', todo: 'A control for this line voltage.',
  }),
  'transformer-over': f => ({
    what: `${f.label} carries ${inWatts(f.takesW)}; it is rated ${inWatts(f.ratingW)}.`, why: 'It overheats, and saturates in the bass before that.', todo: 'A lower tap, or a larger transformer.',
  }),
  'transformer-load': f => ({
    what: `${f.label} is made for ${Ohm(f.secondaryOhm)}; with what hangs behind it the line gives ${inWatts(f.takesW)} instead of ${inWatts(f.tapW)}.`,
    why: f.takesW > f.tapW ? 'Transformer and line get more than they are set for.' : 'It plays quieter than meant.', todo: 'Set it to the ohms of its group, or wire the group to them.',
  }),
  'through-on-line': f => ({
    what: `${f.label} stands on its ${Ohm(f.nominalOhm)} position, past its transformer, on a ${lineVoltageName(f.lineV)} line: it would draw ${inWatts(f.wouldTakeW)}.`,
    why: 'That is a near short for the line, and the end of the speaker.', todo: 'Do not switch on. Turn its dial to a tap.',
  }),
  'no-high-pass': f => ({
    what: f.hz === null ? 'This amplifier has no high-pass before a line of transformers.' : `The high-pass stands at ${writeQuantity(f.hz, 'Hz')}, below what small transformers carry.`,
    why: 'In the deep bass a small transformer saturates, and the amplifier sees nearly a short.', todo: 'A high-pass at 50 to 80 Hz, in the amplifier or before it.',
  }),
  'asks-for-can': f => ({ what: `${list(f.labels)}: open at the back, and its remark says “${f.remark}”.`, why: 'What stands behind an open unit takes part in its bass, and dust and fire codes may ask for more.', todo: 'A can over it, or the model that has one; the local code decides.' }),
  'cable-grows': f => ({
    what: `From ${f.label} on the run is ${f.thick}; before it, it is ${f.thin}.`, why: 'Near the amplifier the cable carries all of the current: there the thin one loses most.', todo: 'The thick one first.',
  }),
  'protection-says': f => ({
    what: `Of the protection of ${f.amplifier} its maker says: “${f.protection}”`, why: 'It saves the amplifier, not the programme: it goes quiet, or off.', todo: '',
  }),
  'stable-says': f => ({
    what: `Its maker says that it runs from ${Ohm(f.floorOhm)}; watts are stated down to ${Ohm(f.lowestRatedOhm)} only.`,
    why: `“Stable” promises that it does not shut down. It does not promise watts there, nor ${f.mode === 'bridged' ? 'hours of it without heat' : `the same ohms on two channels bridged, where each sees half: ${Ohm(2 * f.floorOhm)} then`}.`,
    todo: 'Enter the watts at this load, if its maker states them; leave air around it.',
  }),
  'bridged-floor-taken': f => ({
    what: `The lowest load of two bridged is not stated; ${Ohm(f.floorOhm)} is taken, twice that of one.`, why: 'Each half sees half the load.', todo: 'Enter its maker’s own figure: “bridged from 4”.',
  }),
  'limiter-holds': f => ({ what: `The limiter holds it at ${V(f.limiterV)}: ${inWatts(f.powerW)} of the ${inWatts(f.couldW)} that it could give.`, why: '', todo: '' }),
  'limiter-idle': f => ({
    what: `The limiter is set to ${V(f.limiterV)}; this output gives ${V(f.fullV)} at most.`, why: 'It holds nothing back.', todo: 'Set it lower, if it is there to save the speakers.',
  }),
  'bands-meet': f => ({
    what: `${f.system}: ${list(f.bands.map(b => `${list(b.outputs)} ${bandWords(b)}`))}.`, why: `What clips in one band stays out of the units of the others.`, todo: '',
  }),
  'band-alone': f => ({
    what: `Of ${f.system} only one band has an output: nothing plays ${[...(f.toHz === null ? [] : [`below ${Hz(f.toHz)}`]), ...(f.fromHz === null ? [] : [`above ${Hz(f.fromHz)}`])].join(' or ')}.`,
    why: 'Each band needs an amplifier of its own, behind the crossover.', todo: `Give the output of the other band the same name, ${f.system}.`,
  }),
  'band-gap': f => ({ what: `${f.system}: nothing plays ${Hz(f.fromHz)} to ${Hz(f.toHz)}.`, why: 'There is a hole in the sound.', todo: 'Let one begin where the other ends.' }),
  'band-overlap': f => ({ what: `${f.system}: two bands play ${Hz(f.fromHz)} to ${Hz(f.toHz)}.`, why: 'Levels add there, or cancel, as they stand to each other.', todo: 'Let one begin where the other ends.' }),
  'band-under-unit': f => ({
    what: `This band begins at ${Hz(f.fromHz)}; ${f.label} is made for ${Hz(f.unitHz)} up.`, why: 'Below it the diaphragm travels too far and takes power that it turns into heat.', todo: 'A higher crossover.',
  }),
  'band-over-unit': f => ({ what: `This band ends at ${Hz(f.toHz)}; ${f.label} is made for up to ${Hz(f.unitHz)}.`, why: 'What lies between it hardly plays.', todo: 'A lower crossover.' }),
  'band-under-high-pass': f => ({
    what: `This output plays ${bandWords(f)}; the high-pass of its amplifier stands at ${Hz(f.highPassHz)}.`,
    why: f.fromHz === null ? 'Less than an octave is left between the two: it hardly plays.' : `From ${Hz(f.fromHz)} to ${Hz(f.highPassHz)} hardly anything plays.`,
    todo: 'Set the high-pass lower, or put this band on an output without.',
  }),
  ...INPUT_WORDS,
  'head-short': () => ({ what: 'As drawn, the two conductors of this line are joined.', why: 'The amplifier would drive a short.', todo: 'Do not switch on. Correct the wiring.' }),
  'head-open': () => ({ what: 'As drawn, no current can flow: the line is open.', why: 'Nothing will play.', todo: 'Look for a tap on off, or a gap in a series.' }),
}

/** A floor that nobody stated is named as what it is: taken from the lowest rated load. */
function floorOf({ floorOhm, isFloorStated, mode }: { floorOhm: number, isFloorStated: boolean, mode: ChannelMode }): string {
  if (mode !== 'single') return `${Ohm(floorOhm)}, ${mode === 'bridged' ? 'twice' : 'half'} ${isFloorStated ? 'the floor' : 'the lowest rated load'} of one channel, as these two are ${mode === 'bridged' ? 'bridged: each sees half the load' : 'in parallel: they share the current'}`
  return isFloorStated ? `this output’s floor of ${Ohm(floorOhm)}` : `${Ohm(floorOhm)}, this output’s lowest rated load (no floor is stated)`
}

const bestOf = (bestOhm: number | null) => bestOhm === null ? 'It is below all taps there are: wire it for more ohms.' : `Use the ${Ohm(bestOhm)} tap.`

function list(words: string[]): string {
  return words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`
}

function band({ fromW, toW }: { fromW: number, toW: number }): string {
  if (fromW === 0) return `no more than ${inWatts(toW)}`
  return Math.abs(toW / fromW - 1) < 0.02 ? inWatts(fromW) : `${inWatts(fromW)} to ${inWatts(toW)}`
}

function allOf(count: number): string {
  const names: Record<number, string> = { 2: 'Both', 3: 'All three', 4: 'All four', 5: 'All five', 6: 'All six' }
  return names[count] ?? `All ${count}`
}

/** Every finding that there is. */
export const FINDING_CODES = Object.keys(WORDS) as FindingCode[]

export function findingWords<K extends FindingCode>(finding: FindingOf<K>): Sentence {
  return WORDS[finding.code](finding.facts)
}

/** The sentence in one string, for files and the terminal. */
export function findingText(finding: Finding): string {
  const { what, why, todo } = findingWords(finding)
  return [what, why, todo].filter(Boolean).join(' ')
}
