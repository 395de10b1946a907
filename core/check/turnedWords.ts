import type { PolarityHow, ReadingValue, Turned } from '#core/job/schema'

/** Which way round: what was seen or heard, by the way it was found out. */
const SEEN: Record<PolarityHow, Record<Turned, string>> = {
  'battery-run': { 'right-way': 'cone out', 'reversed': 'cone in', 'cannot-tell': 'cannot see' },
  'battery-driver': { 'right-way': 'cone out', 'reversed': 'cone in', 'cannot-tell': 'cannot see' },
  'meter-push': { 'right-way': 'minus', 'reversed': 'plus', 'cannot-tell': 'cannot tell' },
  'pulse': { 'right-way': 'plus', 'reversed': 'minus', 'cannot-tell': 'cannot tell' },
  'ear': { 'right-way': 'full', 'reversed': 'hollow', 'cannot-tell': 'cannot tell' },
  'neighbour': { 'right-way': 'alike', 'reversed': 'opposed', 'cannot-tell': 'cannot tell' },
}
export const seenWords = (how: PolarityHow, turned: Turned): string => SEEN[how][turned]

/**
 * How it is found out, in a few words, what to do, and what it may hurt. Common practice, no source; the
 * signs follow from how a driver is marked (IEC 60268-5).
 */
export const HOW_WORDS: Record<PolarityHow, { says: string, short: string, steps: string[], caution: string | null }> = {
  'battery-run': {
    says: 'battery at the rack', short: 'battery, run',
    steps: ['Battery across the pair at the rack, + on its plus: a tap, not a hold. Watch this cone.', '1.5 V for small units, 9 V for large ones.'],
    caution: 'Never into an amplifier, a transformer or behind a capacitor. Tweeters, compression drivers: not at all. Headphones and other small coils: 1.5 V at most, through 100 Ω.',
  },
  'battery-driver': {
    says: 'battery at the driver', short: 'battery, driver',
    steps: ['One lead off the driver. Battery on its tabs, + on the one that is marked or wider: a tap, not a hold. Watch the cone.', 'It proves the unit, not the run to it.'],
    caution: 'Never into the line or its transformer. Tweeters, compression drivers: not at all. Headphones and other small coils: 1.5 V at most, through 100 Ω.',
  },
  'meter-push': {
    says: 'meter’s sign, cone pushed', short: 'meter, cone pushed',
    steps: ['Meter on the pair at the rack, millivolts DC, red on its plus. Somebody pushes this cone in, gently and evenly.', 'Pushed in, a unit that is right shows minus.'],
    caution: null,
  },
  'pulse': {
    says: 'pulse and listening tester', short: 'pulse',
    steps: ['A pulse through the amplifier, the tester close to this speaker alone.', 'A crossover may turn one band on purpose: hold it before the woofer, and read all of one model alike.'],
    caution: 'Low to begin with: pulses are hard on ears and on tweeters.',
  },
  'ear': {
    says: 'by ear, between two', short: 'by ear',
    steps: ['Bass or pink noise on both, alike loud. Stand half way between this one and its neighbour: full, or hollow?', 'Not sure: turn the pair of one round; the fuller way is the right one.'],
    caution: 'Off before the pair is turned round.',
  },
  'neighbour': {
    says: 'against a known-good one', short: 'known-good neighbour',
    steps: ['Close to this one and to a neighbour that was proved, on the same programme: do they pull alike?'],
    caution: null,
  },
}

export function turnedWords({ is, how }: Extract<ReadingValue, { how: unknown }>): string {
  return `${seenWords(how, is)} (${HOW_WORDS[how].short})`
}
