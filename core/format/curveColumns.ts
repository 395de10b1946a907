import { InputError } from '#core/quantity/inputError'

/** What the columns of a measured curve are, as its own header says: a frequency, and ohms with a phase, or a real and an imaginary part. */
type Meaning = 'hz' | 'ohm' | 'deg' | 're' | 'im' | 'level'
interface Column { index: number, times: number }
export interface CurveColumns { hz: Column, parts: { ohm: Column, deg: Column | null } | { re: Column, im: Column } }

/** A column's name is a word or two, and its unit. */
const MOST_WORDS = 3
const DEGREES = 180 / Math.PI
/** Words and units of a column's name; the first that fits. */
const MEANINGS: readonly (readonly [Meaning, RegExp])[] = [
  ['level', /spl|\bdb|db\b|gain|level|pressure|sensitiv/i],
  ['hz', /freq|hz|^f$/i],
  ['deg', /phase|phi|deg|°|\brad|angle|\barg/i],
  ['im', /imag|^im\b|^x\b|reactance|\bim\(/i],
  ['re', /real|^re\b|^r\b|resistance|\bre\(/i],
  ['ohm', /imp|\bz\b|\|z\||ohm|Ω|mag/i],
]
/** What one of its unit is in Hz, Ω or degrees. */
const UNITS: readonly (readonly [RegExp, number])[] = [[/mΩ|m ?[oO]hm|milli/, 1e-3], [/kΩ|k ?ohm|khz/i, 1e3], [/\brad/i, DEGREES]]

/** A remark line as the names of columns; null where it names no frequency beside something measured. */
export function columnsOf(line: string): CurveColumns | 'level' | null {
  const names = namesIn(line)
  const found = new Map<Meaning, Column>()
  for (const [index, name] of names.entries()) {
    const meaning = MEANINGS.find(([, pattern]) => pattern.test(name))?.[0]
    if (meaning && !found.has(meaning)) found.set(meaning, { index, times: UNITS.find(([pattern]) => pattern.test(name))?.[1] ?? 1 })
  }
  const [hz, ohm, re, im] = (['hz', 'ohm', 're', 'im'] as const).map(m => found.get(m))
  // A sentence is no row of names.
  if (!hz || names.length < 2 || names.some(name => name.split(/\s+/).length > MOST_WORDS)) return null
  if (re && im) return { hz, parts: { re, im } }
  if (ohm) return { hz, parts: { ohm, deg: found.get('deg') ?? null } }
  if (re || im) throw new InputError(`It names ${re ? 'a real part and no imaginary' : 'an imaginary part and no real'} one: an impedance is both, or its magnitude.`, 0, [])
  return found.has('level') ? 'level' : null
}

/** Names between tabs, semicolons or commas; else between blanks, a unit in brackets with the name before it. */
function namesIn(line: string): string[] {
  const plain = line.replace(/^\s*[#*;%!"'/]+\s*/, '').trim()
  if (/[\t;]/.test(plain)) return plain.split(/[\t;]/).map(n => n.trim()).filter(Boolean)
  if (plain.includes(',')) return plain.split(',').map(n => n.trim())
  return plain.replace(/\s+([([])/g, '$1').split(/\s+/)
}

/** Whether a remark speaks of levels and of no impedance. */
export function isOfLevels(remarks: readonly string[]): boolean {
  const says = (pattern: RegExp) => remarks.some(remark => pattern.test(remark))
  return says(/\bspl\b|\bdb\b|dbspl/i) && says(/freq|hz\b/i) && !says(/imped|ohm|Ω|\bz\b/i)
}

/** One point out of the values of a row. `valueAt` reads a column's value; a phase that is not there was not measured. */
export function pointOf({ hz, parts }: CurveColumns, count: number, valueAt: (index: number) => number): { hz: number, ohm: number, deg: number | null } {
  const of = ({ index, times }: Column) => valueAt(index) * times
  if ('re' in parts) {
    const [re, im] = [of(parts.re), of(parts.im)]
    return { hz: of(hz), ohm: Math.hypot(re, im), deg: Math.atan2(im, re) * DEGREES }
  }
  return { hz: of(hz), ohm: of(parts.ohm), deg: parts.deg && parts.deg.index < count ? of(parts.deg) : null }
}
