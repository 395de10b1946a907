/** One school of how much amplifier suits speakers of a continuous rating C (program rating is 2·C). */
export interface PowerSchool {
  id: string
  name: string
  /** Least and most amplifier power as a share of C; least 0 means "no more than". */
  fromC: number
  toC: number
  risks: string
}

/**
 * Program = 2 × continuous, from pink noise of 6 dB crest. Source of that: AES2, IEC 60268-5.
 * Source of the schools: common practice, no source. They contradict each other; all are shown, one is chosen.
 */
export const POWER_SCHOOLS = [
  { id: 'careful', name: 'careful', fromC: 1, toC: 1.5, risks: 'nothing breaks; peaks clip when pushed' },
  { id: 'even', name: 'even', fromC: 1.9, toC: 2.1, risks: 'amplifier about the program rating; long dense material heats the coil' },
  { id: 'twice-continuous', name: 'twice continuous', fromC: 2, toC: 2, risks: 'the usual reading of a continuous rating; needs an ear on clipping' },
  { id: 'room-to-spare', name: 'room to spare', fromC: 3, toC: 4, risks: 'never clips; needs a careful hand or a limiter' },
  { id: 'dense-material', name: 'dense material', fromC: 0, toC: 1, risks: 'distorted guitar, synth bass, pads: no more than the continuous rating' },
  { id: 'instrument-cabinet', name: 'instrument cabinet', fromC: 0, toC: 0.5, risks: 'a valve amplifier driven hard gives far more than its rating' },
  { id: 'vehicle-sub', name: 'vehicle sub', fromC: 1, toC: 1.25, risks: 'a little more than continuous; watch the heat on long drives' },
] as const satisfies readonly PowerSchool[]

export type PowerSchoolId = (typeof POWER_SCHOOLS)[number]['id']

/** A unit stands its continuous rating for long, and four times of it in peaks (AES2, IEC 60268-5: pink noise of 6 dB crest). */
export const PEAK_OF_CONTINUOUS = 4
/** Program rating over continuous. Source: AES2, IEC 60268-5 for the noise. */
export const PROGRAM_OF_CONTINUOUS = 2

/** The commonest rule for a comparable (continuous) rating. */
export const DEFAULT_POWER: PowerSchoolId = 'twice-continuous'

/** A school is a rule of thumb: so much beside it is inside. Common practice, no source. */
export const BESIDE_SCHOOL = 0.1

/** Amplifier power that a school asks for, least and most, for a line that stands `continuousW`. */
export function schoolBandW(school: PowerSchool, continuousW: number): { fromW: number, toW: number } {
  return { fromW: school.fromC * continuousW, toW: school.toC * continuousW }
}

export function powerSchool(id: PowerSchoolId): PowerSchool {
  return POWER_SCHOOLS.find(school => school.id === id)!
}
