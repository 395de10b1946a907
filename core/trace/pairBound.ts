/** The most that two faults can come to, before what a meter shows with both in is worked out. */

/** What a fault does to readings that are not in ohms: those that are otherwise with it, in their order, and of all of them the logarithm of how much. */
export interface Touches { at: Int16Array, delta: Float64Array, sum: number }

/** What a pair is by each of its parts. */
export interface Bounded {
  members: readonly unknown[]
  /** Number of its place; two at one place are not tried. */
  place: number
  /** Prior, and what coils, eyes, testers and ears say of each alone, against nothing wrong: of all of them together. */
  ownLog: number
  /** For each reading in ohms: what it changes, as a number of all changes, and the variance of its sizes. */
  change: number
  between: readonly number[]
  ears: Touches
  told: Touches
}

/** What is asked of every part of a list a thousand times, side by side: a quarter of the time of reading it off each. */
export interface Columns {
  place: Int32Array
  members: Int32Array
  ownLog: Float64Array
  change: Int32Array
  between: readonly Float64Array[]
  earsSum: Float64Array
  ears: Touched
  told: Touched
}
/** Of each reading: one for those that touch it; and what comes back of theirs where it is sure of what was noted. */
interface Touched { ones: readonly Float64Array[], relief: readonly Float64Array[] }

export function columnsOf(list: readonly Bounded[]): Columns {
  return {
    place: Int32Array.from(list, p => p.place), members: Int32Array.from(list, p => p.members.length),
    ownLog: Float64Array.from(list, p => p.ownLog), change: Int32Array.from(list, p => p.change),
    between: (list[0]?.between ?? []).map((_, k) => Float64Array.from(list, p => p.between[k]!)),
    earsSum: Float64Array.from(list, p => p.ears.sum), ears: touchedOf(list.map(p => p.ears)),
    told: touchedOf(list.map(p => p.told)),
  }
}
function touchedOf(list: readonly Touches[]): Touched {
  const readings = [...list[0]?.delta.keys() ?? []]
  const ones = readings.map(() => new Float64Array(list.length))
  list.forEach(({ at }, n) => at.forEach((r) => { ones[r]![n] = 1 }))
  return { ones, relief: readings.map(r => Float64Array.from(list, (p, n) => -p.delta[r]! * ones[r]![n]!)) }
}

/** How well each reading is explained where nothing is wrong, against the most that anything explains it by. Logarithms. */
export interface Under { ears: readonly number[], told: readonly number[] }
/** Of every part of a list with one: the most that both come to by all but ears and ohms, and by all but ohms. */
export interface Mosts { unheard: Float64Array, heard: Float64Array }
export const mostsFor = (count: number): Mosts => ({ unheard: new Float64Array(count), heard: new Float64Array(count) })

/**
 * Into `mosts`, from `from` on. Readings that both touch are taken to be sure of what was noted. Found one reading after the other for the whole list: pair by
 * pair it took as long as what it spares. `byLevels`: what levels come to at most with both, against what each does by itself.
 */
export function mostTogether(
  { ears, told }: Pick<Bounded, 'ears' | 'told'>, byLevels: Float64Array, of: Columns, from: number, under: Under, { unheard, heard }: Mosts,
): void {
  for (let n = from; n < of.ownLog.length; n++) unheard[n] = of.ownLog[n]! + byLevels[n]!
  relieve(unheard, told, of.told, under.told, from)
  heard.set(unheard.subarray(from), from)
  relieve(heard, ears, of.ears, under.ears, from)
}
function relieve(most: Float64Array, { at, delta }: Touches, { ones, relief }: Touched, under: readonly number[], from: number): void {
  for (const r of at) {
    const sure = under[r]! + delta[r]!
    const [one, back] = [ones[r]!, relief[r]!]
    for (let n = from; n < one.length; n++) most[n]! += back[n]! - one[n]! * sure
  }
}
