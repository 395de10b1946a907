import { List, Map } from 'immutable'

/** An entry of a section that only grows: what was read or done at a place. */
export interface Placed { id: string, outputId: string }

/**
 * Entries of a growing section, held by id, by line and in order. Immutable: adding one shares all the rest, in time that
 * does not grow with the entries of other lines (measured: 20,000 readings in an array cost every edit a copy and every
 * judged line a look at all of them). The list of a line keeps its identity while no entry of that line changes: what is
 * worked out from it can be remembered by it.
 */
export class Records<T extends Placed> implements Iterable<T> {
  readonly #byId: Map<string, T>
  readonly #lines: Map<string, readonly T[]>
  readonly #order: List<string>

  /** Entries that are kept elsewhere and count all the same. */
  readonly #elsewhere: number

  private constructor(byId: Map<string, T>, lines: Map<string, readonly T[]>, order: List<string>, elsewhere: number) {
    this.#byId = byId
    this.#lines = lines
    this.#order = order
    this.#elsewhere = elsewhere
  }

  /**
   * Records of a list, in its order. An id that stands twice is the caller's to refuse. A server holds only those that an
   * edit is about, and says how many more there are.
   */
  static of<T extends Placed>(entries: Iterable<T> = [], elsewhere = 0): Records<T> {
    const all = [...entries]
    const lines = new globalThis.Map<string, T[]>()
    for (const entry of all) {
      const line = lines.get(entry.outputId)
      if (line) line.push(entry)
      else lines.set(entry.outputId, [entry])
    }
    return new Records(Map(all.map(e => [e.id, e])), Map(lines), List(all.map(e => e.id)), elsewhere)
  }

  get size(): number {
    return this.#byId.size + this.#elsewhere
  }

  get(id: string): T | undefined {
    return this.#byId.get(id)
  }

  /** Entries of one line, in the order in which they were added. */
  ofLine(outputId: string): readonly T[] {
    return this.#lines.get(outputId) ?? NONE
  }

  added(entry: T): Records<T> {
    return new Records(this.#byId.set(entry.id, entry), this.#lines.set(entry.outputId, [...this.ofLine(entry.outputId), entry]), this.#order.push(entry.id), this.#elsewhere)
  }

  /** With another state of an entry that is there. */
  replaced(entry: T): Records<T> {
    const line = this.ofLine(entry.outputId).map(e => e.id === entry.id ? entry : e)
    return new Records(this.#byId.set(entry.id, entry), this.#lines.set(entry.outputId, line), this.#order, this.#elsewhere)
  }

  * [Symbol.iterator](): Iterator<T> {
    for (const id of this.#order) yield this.#byId.get(id)!
  }

  toJSON(): T[] {
    return [...this]
  }
}

const NONE: readonly never[] = []
