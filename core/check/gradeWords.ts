import type { ReadingKind } from '#core/job/schema'
import type { Grade } from './verdict'

/** The few words of readings and verdicts that stand on every page; all that is said of a reading is in words.ts. */

/** As planned: what is said of the drawing. What is said of readings (as found) shares none of these words. */
export const GRADE_WORDS: Record<Grade, string> = { good: 'Good', tight: 'Tight', stop: 'Stop', unknown: 'Not known' }

/** The grade of a drawing beside what was read of it: a drawing is good on paper only, while a reading contradicts it. */
export function plannedWords(grade: Grade, wrongReadings: number): string {
  return grade === 'good' && wrongReadings > 0 ? 'Fits on paper' : GRADE_WORDS[grade]
}

/** The mark of a reading at its place, and what it is called where it cannot be seen. */
export const MARKS: Record<Grade, { mark: string, says: string }> = {
  good: { mark: '✓', says: 'as it should be' }, tight: { mark: '✕', says: 'reads just outside' }, stop: { mark: '✕', says: 'reads wrong' }, unknown: { mark: '~', says: 'read' },
}

/** What each kind of reading is called in a list. */
export const KIND_NAMES: Record<ReadingKind, string> = {
  'leg-earth': 'leg to earth',
  'pair-apart': 'pair apart',
  'pair-through': 'pair through',
  'polarity': 'polarity',
  'polarity-heard': 'polarity heard',
  'line-impedance': 'line impedance',
  'line-dcr': 'line DCR',
  'coil-dcr': 'coil DCR',
  'tap-found': 'tap as found',
  'looked': 'looked at',
  'outward-impedance': 'outward',
  'head-volts-amps': 'volts and amps',
  'beside': 'beside another',
  'level': 'level',
  'swapped': 'another unit',
  'sound': 'sound',
}
