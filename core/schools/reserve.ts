/**
 * Draw of a line at full output, every control fully up, W. `tapsW`: what the taps draw at the line's full voltage. For the school that
 * counts it, as solved: `reachedW` what the transformers of the speakers draw through the cable; `lostW` what cable, controls and
 * transformers of groups turn into heat; `assumedW` what transformers of no stated loss are taken to lose on top.
 */
export interface CountedDraw { tapsW: number, reachedW: number, lostW: number, assumedW: number }

/** One school of how much amplifier a constant-voltage line wants. */
export interface ReserveSchool {
  id: string
  name: string
  /** One line for a list. */
  says: string
  /** When it fits, and what it risks. */
  suits: string
  /** Amplifier power asked for, W. */
  requiredW: (draw: CountedDraw) => number
}

/** Insertion loss of a line transformer, dB, where none is stated: taken on top of its tap. Common practice, no source: 0.5 to 1.5 dB. */
export const TRANSFORMER_LOSS_DB = 1

/** Reserve kept above the counted draw. */
export const COUNTED_RESERVE = 0.1

/** Source of all: common practice, no source. They are different numbers: 100 W of taps asks for 120, 125, 130 or 111 W. */
export const RESERVE_SCHOOLS = [
  {
    id: 'add-a-fifth', name: 'add a fifth', says: 'amplifier at least 1.2 × the taps',
    suits: 'covers what transformers and wire eat; little is left to add a speaker',
    requiredW: ({ tapsW }) => 1.2 * tapsW,
  },
  {
    id: 'use-four-fifths', name: 'use four fifths', says: 'taps no more than 0.8 × the amplifier',
    suits: 'the stricter reading of the commonest rule, and so the one chosen where nothing is said',
    requiredW: ({ tapsW }) => tapsW / 0.8,
  },
  {
    id: 'add-three-tenths', name: 'add three tenths', says: 'amplifier at least 1.3 × the taps',
    suits: 'a system that will grow',
    requiredW: ({ tapsW }) => 1.3 * tapsW,
  },
  {
    id: 'up-to-nine-tenths', name: 'up to nine tenths', says: 'taps no more than 0.9 × the amplifier',
    suits: 'only where nothing will ever be added',
    requiredW: ({ tapsW }) => tapsW / 0.9,
  },
  {
    id: 'count-it', name: 'count it', says: `draw and losses as solved, transformers of no stated loss at ${TRANSFORMER_LOSS_DB} dB, then a tenth above`,
    suits: 'cable and lengths are known; transformer loss is an assumption until its sheet is read',
    requiredW: ({ reachedW, lostW, assumedW }) => (reachedW + lostW + assumedW) * (1 + COUNTED_RESERVE),
  },
] as const satisfies readonly ReserveSchool[]

export type ReserveSchoolId = (typeof RESERVE_SCHOOLS)[number]['id']

export const DEFAULT_RESERVE: ReserveSchoolId = 'use-four-fifths'

export function reserveSchool(id: ReserveSchoolId): ReserveSchool {
  return RESERVE_SCHOOLS.find(school => school.id === id)!
}
