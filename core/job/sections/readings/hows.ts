/** Ways to find out which way round a speaker is, and what is true of each. What is said of them stands in check/polarityWords.ts. */
interface HowFacts {
  /** The kind of reading that it gives, by what the amplifier must be meanwhile. */
  kind: 'polarity' | 'polarity-heard'
  /**
   * What it proves: the whole run with the unit at its end; the unit alone, whatever way the run to it is; that it agrees with
   * another one, whichever way that is.
   */
  proves: 'run' | 'unit' | 'agreement'
}

const HOWS = {
  'battery-run': { kind: 'polarity', proves: 'run' },
  'battery-driver': { kind: 'polarity', proves: 'unit' },
  'meter-push': { kind: 'polarity', proves: 'run' },
  'pulse': { kind: 'polarity-heard', proves: 'run' },
  'ear': { kind: 'polarity-heard', proves: 'agreement' },
  'neighbour': { kind: 'polarity-heard', proves: 'agreement' },
} as const satisfies Record<string, HowFacts>

export type PolarityHow = keyof typeof HOWS
export const POLARITY_HOWS = Object.keys(HOWS) as [PolarityHow, ...PolarityHow[]]
export const howFacts = (how: PolarityHow): HowFacts => HOWS[how]
export const howsOf = (kind: HowFacts['kind']): PolarityHow[] => POLARITY_HOWS.filter(how => HOWS[how].kind === kind)

/** What it shows. */
export const TURNED = ['right-way', 'reversed', 'cannot-tell'] as const
export type Turned = typeof TURNED[number]
