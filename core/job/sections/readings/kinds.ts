/**
 * The kinds of reading, and what is true of each: all else asks here, so that a new kind is found everywhere. What is foretold of it, said of it
 * and made of it by a trace stands where the compiler leads: check/predict.ts, check/words.ts, trace/evidence.ts.
 */
export const PHASES = ['bare', 'hang', 'closed', 'on'] as const
export type Phase = typeof PHASES[number]

interface KindFacts {
  /** Where it is read; anywhere: at the rack, at a speaker, at what a group hangs behind. */
  at: 'head' | 'speaker' | 'anywhere'
  /**
   * What is written down: ohms (or open), what was heard, which way round it is, a tap, volts with amperes, how loud beside another, a sound level,
   * what was seen, whether it went with the unit.
   */
  value: 'ohm' | 'heard' | 'turned' | 'tap' | 'volts-amps' | 'beside' | 'level' | 'seen' | 'swapped'
  /** What the amplifier must be meanwhile. Common practice, no source: a meter on a driven line is wrong, and may be broken. */
  amplifier: 'off' | 'on'
  /** Copper alone is measured, so that the meter's own leads matter. */
  isCopper: boolean
  /** Measured with a tone: what is right hangs on its frequency. */
  isOfTone: boolean
  /** What it belongs to of the work: bare pairs before speakers hang, each speaker as it hangs, the line closed, the amplifier on. */
  phase: Phase
  /** Marked at its place on the rails: what a job asks for unless it says otherwise. */
  proves: boolean
}

/** In the order in which they are read at one place. */
const KINDS = {
  'leg-earth': { at: 'head', value: 'ohm', amplifier: 'off', isCopper: false, isOfTone: false, phase: 'bare', proves: false },
  'pair-apart': { at: 'head', value: 'ohm', amplifier: 'off', isCopper: true, isOfTone: false, phase: 'bare', proves: false },
  'pair-through': { at: 'speaker', value: 'ohm', amplifier: 'off', isCopper: true, isOfTone: false, phase: 'bare', proves: false },
  'line-impedance': { at: 'head', value: 'ohm', amplifier: 'off', isCopper: false, isOfTone: true, phase: 'closed', proves: true },
  'line-dcr': { at: 'head', value: 'ohm', amplifier: 'off', isCopper: true, isOfTone: false, phase: 'closed', proves: false },
  'coil-dcr': { at: 'speaker', value: 'ohm', amplifier: 'off', isCopper: true, isOfTone: false, phase: 'hang', proves: true },
  'polarity': { at: 'speaker', value: 'turned', amplifier: 'off', isCopper: false, isOfTone: false, phase: 'hang', proves: true },
  'polarity-heard': { at: 'speaker', value: 'turned', amplifier: 'on', isCopper: false, isOfTone: false, phase: 'on', proves: true },
  'tap-found': { at: 'speaker', value: 'tap', amplifier: 'off', isCopper: false, isOfTone: false, phase: 'hang', proves: false },
  'looked': { at: 'anywhere', value: 'seen', amplifier: 'off', isCopper: false, isOfTone: false, phase: 'hang', proves: false },
  'outward-impedance': { at: 'speaker', value: 'ohm', amplifier: 'off', isCopper: false, isOfTone: true, phase: 'closed', proves: false },
  'head-volts-amps': { at: 'head', value: 'volts-amps', amplifier: 'on', isCopper: false, isOfTone: true, phase: 'on', proves: false },
  'beside': { at: 'speaker', value: 'beside', amplifier: 'on', isCopper: false, isOfTone: false, phase: 'on', proves: false },
  'level': { at: 'speaker', value: 'level', amplifier: 'on', isCopper: false, isOfTone: false, phase: 'on', proves: false },
  'swapped': { at: 'speaker', value: 'swapped', amplifier: 'on', isCopper: false, isOfTone: false, phase: 'on', proves: false },
  'sound': { at: 'speaker', value: 'heard', amplifier: 'on', isCopper: false, isOfTone: false, phase: 'on', proves: true },
} as const satisfies Record<string, KindFacts>

export type ReadingKind = keyof typeof KINDS
/** Kinds that are measured in ohms: a band can be foretold of them. */
export type MeasuredKind = { [K in ReadingKind]: (typeof KINDS)[K]['value'] extends 'ohm' ? K : never }[ReadingKind]

export const READING_KINDS = Object.keys(KINDS) as [ReadingKind, ...ReadingKind[]]
export const factsOf = (kind: ReadingKind): KindFacts => KINDS[kind]

const of = (holds: (facts: KindFacts) => boolean): ReadingKind[] => READING_KINDS.filter(kind => holds(KINDS[kind]))
export const READ_AT_HEAD = of(facts => facts.at !== 'speaker')
export const READ_AT_SPEAKER = of(facts => facts.at !== 'head')
/** Read at the head and nowhere else. */
export const ONLY_AT_HEAD = of(facts => facts.at === 'head')
/** At the rack as well as at a speaker. */
export const READ_ANYWHERE = of(facts => facts.at === 'anywhere')
export const HEARD = of(facts => facts.value === 'heard')
export const TURNED_KINDS = of(facts => facts.value === 'turned')
export const BESIDE_KINDS = of(facts => facts.value === 'beside')
export const SEEN_KINDS = of(facts => facts.value === 'seen')
export const SWAPPED_KINDS = of(facts => facts.value === 'swapped')
export const MEASURED_KINDS = of(facts => facts.value === 'ohm') as MeasuredKind[]

export const isReadAtHead = (kind: ReadingKind): boolean => KINDS[kind].at === 'head'
/** Heard, not measured in ohms. */
export const isHeard = (kind: ReadingKind): boolean => KINDS[kind].value === 'heard'
/** Read as which way round, not in ohms. */
export const isTurned = (kind: ReadingKind): boolean => KINDS[kind].value === 'turned'
