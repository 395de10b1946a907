import type { FaultKind } from '#core/job/schema'

/** What a fault is called at a place, and how it is repaired. */
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
