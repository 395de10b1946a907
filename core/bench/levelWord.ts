import { writeNumber } from '#core/quantity/write'

/** "2.1 dB louder, just heard": a difference of level in figures and in words. Common practice, no source: 3 dB is plain to the ear, 1 dB is not. */
export function levelWord(db: number): string {
  const size = Math.abs(db)
  if (size < 0.1) return 'as loud'
  return `${writeNumber(size, 2)} dB ${db > 0 ? 'louder' : 'quieter'}, ${size < 1 ? 'which nobody hears' : size < 3 ? 'just heard' : size < 8 ? 'plain to hear' : 'about twice as loud, or half, to the ear'}`
}
