import { EmptyBTree } from 'sorted-btree'
import type BTree from 'sorted-btree'

/** An entry of a section that only grows: what was read or done at a place of a line, or written on a ticket of the bench. */
export type Placed = { id: string } & ({ outputId: string } | { ticketId: string })
/** The line or the ticket that it stands under. */
const ownerOf = (entry: Placed): string => 'outputId' in entry ? entry.outputId : entry.ticketId

/** Entries of one line, or of one ticket. Versions of a line share one list as long as each only adds to the one before: adding copies nothing. */
interface Line<T> { shared: T[], length: number, list: readonly T[] | null }

/** A tree of pairs; `true`, here and below: without it a tree that has the key already is given back as it was. */
const treeOf = <K, V>(pairs: [K, V][]): BTree<K, V> => EmptyBTree.withPairs(pairs, true)

/** Both are shared between versions: a copy is made of the nodes on the way to what changes. An order counts up: nothing is ever taken out. */
interface Index<T> { orderOf: BTree<string, number>, entries: BTree<number, T> }

interface Held<T> {
  /** Entries as they were given; the index over them is made when it is first asked for. */
  given: readonly T[]
  index: Index<T> | null
  lines: BTree<string, Line<T>>
  /** Entries that are kept elsewhere and count all the same. */
  elsewhere: number
}

/**
 * Entries of a growing section, held by id, by line and in order. Immutable: adding one shares all the rest, in time that
 * does not grow with how many there are (measured: 20,000 readings in an array cost every edit a copy and every judged line
 * a look at all of them; a list a line, copied with each addition, was still half of the time of 4,000 at once). The list of a
 * line keeps its identity while no entry of that line changes: what is worked out from it can be remembered by it.
 */
export class Records<T extends Placed> implements Iterable<T> {
  private declare readonly held: Held<T>

  private constructor(held: Held<T>) {
    // Not listed among its properties: two records are equal by what they hold, not by how they came to hold it.
    Object.defineProperty(this, 'held', { value: held })
  }

  /**
   * Records of a list, in its order. An id that stands twice is the caller's to refuse. A server holds only those that an
   * edit is about, and says how many more there are.
   */
  static of<T extends Placed>(entries: Iterable<T> = [], elsewhere = 0): Records<T> {
    const all = [...entries]
    const lines = new Map<string, Line<T>>()
    for (const entry of all) {
      const line = lines.get(ownerOf(entry))
      if (line) line.length = line.shared.push(entry)
      else lines.set(ownerOf(entry), { shared: [entry], length: 1, list: null })
    }
    return new Records({ given: all, index: null, lines: treeOf([...lines]), elsewhere })
  }

  /** Opening a job asks for its lines alone, and waits for it: 20,000 readings took 40 to 90 ms to be put in order by id. */
  private get index(): Index<T> {
    const { given } = this.held
    return this.held.index ??= { orderOf: treeOf(given.map((e, order) => [e.id, order])), entries: treeOf(given.map((e, order) => [order, e])) }
  }

  get size(): number {
    return (this.held.index?.entries.size ?? this.held.given.length) + this.held.elsewhere
  }

  get(id: string): T | undefined {
    const { orderOf, entries } = this.index
    const order = orderOf.get(id)
    return order === undefined ? undefined : entries.get(order)
  }

  /** Entries of one line, or of one ticket, in the order in which they were added. */
  under(ownerId: string): readonly T[] {
    const line = this.held.lines.get(ownerId)
    return line ? line.list ??= line.shared.slice(0, line.length) : NONE
  }

  added(entry: T): Records<T> {
    const { lines } = this.held
    const { orderOf, entries } = this.index
    const order = entries.size
    const line = lines.get(ownerOf(entry))
    // Somebody else has added to the same version before: this one goes its own way from here.
    const shared = !line ? [] : line.shared.length === line.length ? line.shared : line.shared.slice(0, line.length)
    const length = shared.push(entry)
    const grown = lines.with(ownerOf(entry), { shared, length, list: null }, true)
    return new Records({ ...this.held, index: { orderOf: orderOf.with(entry.id, order, true), entries: entries.with(order, entry, true) }, lines: grown })
  }

  /** With another state of an entry that is there. */
  replaced(entry: T): Records<T> {
    const shared = this.under(ownerOf(entry)).map(e => e.id === entry.id ? entry : e)
    const line = { shared, length: shared.length, list: null }
    const { orderOf, entries } = this.index
    return new Records({
      ...this.held, index: { orderOf, entries: entries.with(orderOf.get(entry.id)!, entry, true) }, lines: this.held.lines.with(ownerOf(entry), line, true),
    })
  }

  * [Symbol.iterator](): Iterator<T> {
    if (!this.held.index) yield* this.held.given
    else yield* this.index.entries.values()
  }

  /** The entry of this order and those after it. */
  * since(order: number): Generator<T> {
    if (!this.held.index) yield* this.held.given.slice(order)
    else for (const [, entry] of this.index.entries.entries(order)) yield entry
  }

  toJSON(): T[] {
    return [...this]
  }
}

const NONE: readonly never[] = []
