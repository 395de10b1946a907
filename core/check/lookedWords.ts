import type { FaultKind, ReadingValue } from '#core/job/schema'

/** What is seen where somebody looks, as it is said and pressed: of each kind that can be seen. */
export const SEEN_WORDS: Partial<Record<FaultKind, string>> = {
  'open-at-drop': 'joint or plug open', 'short-at-drop': 'strands across, or pinched', 'high-resistance': 'joint loose or corroded', 'dirty-contact': 'contact dirty or worn',
  'turned-round': 'colours the other way round', 'speaker-missing': 'no speaker there', 'low-impedance-position': 'on its low-impedance position', 'winding-exchanged': 'line on the driver’s leads',
  'short-at-tabs': 'tabs touching', 'rubbing': 'cone rubs, or torn', 'comes-and-goes': 'lead-out loose', 'coil-opposed': 'one coil the other way round',
  'break-in-reach': 'plug or splice before it open', 'joint-in-run': 'splice before it loose', 'pair-crossed': 'pair crossed before it',
  'control-at-zero': 'turned to zero', 'control-turned-down': 'turned down', 'control-bypassed': 'bypassed', 'control-overrated': 'more behind it than its rating',
  'amplifier-dead': 'off, muted or in protection', 'amplifier-clipping': 'clip light', 'amplifier-low': 'knob or pad down', 'amplifier-wrong-tap': 'on the wrong terminal',
  'lines-exchanged': 'on another line’s output', 'source-one-side': 'one side not plugged in', 'another-cable': 'another cable than drawn', 'wrong-jack': 'wrong jack or switch',
}

export const SWAPPED_WORDS: Record<Extract<ReadingValue, { withId: string | null }>['is'], string> = { 'goes-with-it': 'it goes with the unit', 'stays': 'it stays here' }
