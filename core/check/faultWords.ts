import type { FaultKind } from '#core/job/schema'

interface FaultWords {
  /** What it is called at a place. */
  at: (place: string) => string
  /** How it is repaired: steps, with the caution that applies. */
  repair: string
  /** What parts it from what reads alike. */
  apart: string
  /** Part that may be needed; none where it is mended with what is there. */
  part?: string
  /** Look again, in so many days: what came once may come again. */
  againDays?: number
}

const OFF = 'Amplifier off, and its plug out.'
const NEW_UNIT = 'a drive unit of the same ohms, frame and rating'
const TWO_WEEKS = 14

/** What a fault is called at a place, what parts it from its neighbours, and how it is repaired. */
export const FAULT_WORDS: Record<FaultKind, FaultWords> = {
  'open-at-drop': { at: place => `Open joint or plug at ${place}`, repair: `${OFF} Remake the joint, strands fully inside, strain relieved; if the coil reads open, replace the unit.`, apart: 'Read its coil with the leads off: right, it is the joint; open, the coil.' },
  'coil-open': { at: place => `Coil of ${place} open`, repair: `${OFF} Note which wire is on which tab. Replace the unit; the new one’s ohms and polarity first.`, apart: 'Read its coil with the leads off: open.', part: NEW_UNIT, againDays: TWO_WEEKS },
  'coil-high': { at: place => `Failing coil at ${place}`, repair: `${OFF} Replace the unit: it reads otherwise tomorrow.`, apart: 'Read its coil with the leads off, today and tomorrow: far above its label, and never the same.', part: NEW_UNIT, againDays: TWO_WEEKS },
  'high-resistance': { at: place => `Bad joint at ${place}`, repair: `${OFF} Clean and remake the joint; if the coil itself reads high, replace the unit.`, apart: 'Read its coil with the leads off: right, it is the joint.', againDays: TWO_WEEKS },
  'shorted-turns': { at: place => `Shorted turns at ${place}`, repair: `${OFF} Read its coil with the leads off; replace the unit, and ask what drove it so hard.`, apart: 'Read its coil with the leads off: under 0.6 of its label.', part: NEW_UNIT },
  'short-at-drop': { at: place => `Short at ${place}`, repair: `${OFF} Unplug this drop; look for strands across the terminals and pinched cable. Not on again before the line reads right.`, apart: 'Unplug the drop: the line comes back.' },
  'short-at-tabs': { at: place => `Tabs of the driver at ${place} touching`, repair: `${OFF} Part the tabs, insulate them, read the coil again.`, apart: 'Read its coil: nothing, with the line not shorted.' },
  'coil-opposed': { at: place => `One coil of ${place} against the other`, repair: 'Swap the leads of one coil, then listen: two coils that pull alike are loud, opposed they are silent.', apart: 'A battery on each coil: the cone must move the same way.' },
  'rubbing': { at: place => `Rubbing coil, dirt or a torn cone at ${place}`, repair: 'Push the cone straight in, gently: scraping is the coil. Dirt comes out with tape; a coil that rubs is replaced.', apart: 'Right ohms, and scratchy at any level.', part: NEW_UNIT },
  'high-unit-gone': { at: place => `High unit of ${place} gone`, repair: `${OFF} Read the high unit behind its capacitor, with one lead off; replace what is open, and look for the clipping that did it.`, apart: 'Listen close: nothing from the small unit. Its coil is read behind the capacitor, which reads open.', part: 'a high unit and its capacitor' },
  'one-driver-gone': { at: place => `One drive unit of ${place} open`, repair: `${OFF} Each unit by itself, one lead off; replace the open one.`, apart: 'Its ohms read as one unit fewer.', part: NEW_UNIT },
  'comes-and-goes': { at: place => `${place} comes and goes: lead-out or joint inside`, repair: 'Read its coil on three days, cold, warm, pressed: the spread is the evidence. Replace it when it is.', apart: 'Readings of several days that do not agree.', part: NEW_UNIT, againDays: TWO_WEEKS },
  'dirty-contact': { at: place => `Dirty contact at the plug or jack of ${place}`, repair: `${OFF} Clean it, work it a few times; a worn jack is replaced.`, apart: 'Wiggle it while it plays: scratch and silence follow the hand.', againDays: TWO_WEEKS },
  'winding-open': { at: place => `Transformer of ${place} open`, repair: `${OFF} Read the tap lead against common: open is the winding. Replace the transformer.`, apart: 'Coil right, and nothing flows at the tap: open on the primary.', part: 'a transformer of the same taps' },
  'winding-shorted': { at: place => `Shorted winding in the transformer of ${place}`, repair: `${OFF} Replace the transformer; a high-pass at 50 to 80 Hz before lines of small ones.`, apart: 'Unplug the drop and read from it outward: far below its tap, with the coil right.', part: 'a transformer of the same taps' },
  'winding-exchanged': { at: place => `Primary and secondary exchanged at ${place}`, repair: `${OFF} By the colour key of that transformer; unused leads insulated. Do not switch on before.`, apart: 'Look at its leads: the line is on the two that are made for the driver.' },
  'low-impedance-position': { at: place => `${place} on its low-impedance position`, repair: 'Set its transformer to the tap of the plan. Do not switch on before.', apart: 'Look at its dial.' },
  'wrong-tap': { at: place => `Wrong tap at ${place}`, repair: 'Set the tap to the plan, on the scale of this line’s voltage.', apart: 'Look at its dial, or listen beside its equal: 3 dB is plain.' },
  'wrong-scale': { at: place => `${place} set by the wrong scale of its dial`, repair: 'Set it by the scale of this line’s voltage.', apart: 'Look at its dial: the right number on the other scale.' },
  'taps-on-other-scale': { at: () => 'All taps on the other scale', repair: 'Set every dial by the scale of this line’s voltage, or correct the plan if it was meant so.', apart: 'Look at one dial: what is wrong with one is wrong with all.' },
  'taps-one-off': { at: () => 'All taps one off', repair: 'Set every tap to the plan, or correct the plan if it was meant so.', apart: 'Look at two dials.' },
  'break-in-reach': { at: place => `Nothing gets past before ${place}: cable, splice or plug`, repair: `${OFF} Between the last good one and this: a plug, a splice, or the cable. Mend what it is, or pull new.`, apart: 'Listen before and behind it: all that is beyond is silent.' },
  'joint-in-run': { at: place => `Bad joint in the run before ${place}`, repair: `${OFF} Remake the splice or plug before it; one that has been hot is cut out.`, apart: 'All beyond is quieter than all before. From it outward the line reads right.', againDays: TWO_WEEKS },
  'short-in-run': { at: place => `Cable shorted before ${place}`, repair: `${OFF} How far along, the ohms of the pair say. Clear it or pull new. Not on again before the line reads right.`, apart: 'Part the run there: what is before it comes back.' },
  'pair-crossed': { at: place => `Pair crossed before ${place}: all behind it the other way round`, repair: 'Swap the pair at that joint, then prove one behind it.', apart: 'Everything behind one joint is reversed, nothing before it.' },
  'leak-across': { at: place => `Something leaks across the line at ${place}`, repair: `${OFF} Part the line on either side and read both, damp boxes first.`, apart: 'Every speaker plays as it should, and the line reads low; otherwise after rain.', againDays: TWO_WEEKS },
  'leg-earth': { at: () => 'A leg of the line on earth', repair: `${OFF} Each leg to earth; halve the line until the half that reads low is found. With a tingle: hands off, mains off at the breaker, a licensed person; measure nothing yourself.`, apart: 'Each leg to earth, nothing else connected: megohms, or not.' },
  'another-cable': { at: () => 'Another cable than drawn', repair: 'Look at what is printed on its jacket; correct the plan, or pull what was drawn.', apart: 'Far ends quieter than near ones, more than drawn.' },
  'turned-round': { at: place => `${place} the other way round`, repair: 'Swap its pair at one place, then prove it: battery, pulse, or by ear beside its neighbour.', apart: 'Battery or pulse at this one.' },
  'extra-speaker': { at: place => `One more speaker than drawn, beside ${place}`, repair: 'Find it and take it off, or draw it.', apart: 'Count them.' },
  'speaker-missing': { at: place => `No speaker at ${place}`, repair: 'Hang it, or correct the plan.', apart: 'Go and look.' },
  'drops-exchanged': { at: place => `${place} and another hang in each other’s place`, repair: 'Exchange them, or correct the plan.', apart: 'Look at both dials.' },
  'wrong-jack': { at: place => `${place} on another jack, or its switch the other way`, repair: `${OFF} A valve amplifier with no load is not switched on. Plug and switch as drawn, or correct the plan.`, apart: 'Look at its panel.' },
  'control-at-zero': { at: place => `${place} turned to zero`, repair: 'Turn it up; mark where it belongs.', apart: 'Look at it. Everything behind it is silent.' },
  'control-turned-down': { at: place => `${place} turned down`, repair: 'Turn it up; mark where it belongs.', apart: 'Look at it. Everything behind it is quieter.' },
  'control-bypassed': { at: place => `${place} bypassed`, repair: `${OFF} Put the branch behind it, or correct the plan.`, apart: 'Turn it: nothing changes.' },
  'control-overrated': { at: place => `More behind ${place} than it is rated for`, repair: 'Lower the taps behind it, part the branch, or a larger control.', apart: 'Add the watts behind it.', part: 'a control of a higher rating' },
  'amplifier-dead': { at: () => 'Amplifier channel silent: off, muted, its protection, its fuse', repair: 'Is it on, not muted, its level up, its protection lit? Then another line on the same channel, quietly. Inside is a qualified technician’s.', apart: 'All silent at once, with the line read right: before any cable.' },
  'amplifier-clipping': { at: () => 'Amplifier clipping', repair: 'Down until it is clean; then find what asks for so much: a source too hot, a load too low, a boost.', apart: 'Harsh when loud, everywhere; clean when quiet.' },
  'amplifier-low': { at: () => 'Amplifier or source set low', repair: 'Its knob, a pad, the source’s own level.', apart: 'Quiet everywhere, alike.' },
  'amplifier-wrong-tap': { at: () => 'Line on the wrong terminal of the amplifier', repair: 'Off before it is moved. The terminal of this line’s voltage, or of this load’s ohms.', apart: 'Look at the terminals.' },
  'lines-exchanged': { at: () => 'Two lines on each other’s output', repair: 'Off, then exchange the plugs; tag both.', apart: 'This line reads as the other should, and the other as this.' },
  'source-one-side': { at: () => 'One side of the source silent', repair: 'Swap the two sides at the input: if the silence moves with it, it is the source or its lead.', apart: 'Swap the two sides at the input.' },
  'something-else': { at: () => 'Something that is not in this list', repair: 'Halve the line and read again: a part that reads right is out of it.', apart: 'Halve the line.' },
}
