import type { Network, Unit } from './network'

/**
 * Every two-terminal series-parallel network of given speakers, equals told apart from nobody: (a + b) || c is one with c || (b + a). A network is a single
 * speaker, a series of networks that are not series themselves, or a parallel of ones that are not parallel: so each stands once.
 * Counts of n equal ones: P. A. MacMahon, "The combinations of resistances", The Electrician, 1892 (1, 2, 4, 10, 24, 66, 180, 522).
 */

/** Up to so many speakers all networks are gone through; beyond, only those in which all get what they are to have. */
export const MOST_WHOLE = 8
/**
 * Blocks of up to so many speakers are kept while larger ones are made of them; larger ones are made anew each time. Measured for eight unlike: three to five
 * take the same time, with six the memory costs more than it saves.
 */
const KEPT = 5

/**
 * A tree of parts, with nothing said of its outermost joint: by exchange of series and parallel throughout it is two networks, and both are made in one go.
 * `S`: its outermost joint is series, that of its parts parallel; `P`: the other way round. `joints`: those inside; `depth`: how often series and parallel
 * alternate; `isFair`: each speaker in it gets what its weight says. Made with these keys in this order everywhere: millions are looked at, and `network` is
 * made of what a lent one stands for just then.
 */
export interface Block {
  ohmS: number
  ohmP: number
  jointsS: number
  jointsP: number
  depth: number
  isFairS: boolean
  isFairP: boolean
  weight: number
  network: (kind: Joined) => Network
}
/** How many of each unit. */
type Counts = readonly number[]
type Joined = 'series' | 'parallel'
/** `parts` are only lent: what is to be kept is made of them at once. */
export type Seen = (kind: Joined, parts: readonly Block[], ohm: number, joints: number, depth: number) => void
/** A tree as it was just put together; lent, like its parts. */
type Made = Omit<Block, 'weight' | 'network'>

const inner = (kind: Joined): Joined => kind === 'series' ? 'parallel' : 'series'
export const networkOf = (kind: Joined, parts: readonly Block[]): Network => ({ kind, parts: parts.map(p => p.network(inner(kind))) })
const NEAR = 1e-9
const near = (x: number, y: number) => Math.abs(x - y) <= NEAR * x

export class Networks {
  private readonly size: readonly number[]
  private readonly top: number
  private readonly kept = new Map<number, Block[]>()
  /** Of each set: its counts, how many they are, its largest speaker alone, the sets in it from the largest down; made when first asked for. */
  private readonly sets: { counts: Counts, count: number, largest: number, inside: number[] | null }[] = []

  /** `fairOnly`: none but those in which each speaker gets what its weight says. */
  constructor(private readonly units: readonly Unit[], private readonly fairOnly = false) {
    this.size = units.map(u => u.count + 1)
    this.top = this.size.reduce((all, n) => all * n, 1) - 1
  }

  /** A set of speakers is one number, its counts the digits: a set inside another is smaller, and what is left is the difference. */
  private set(key: number) {
    const known = this.sets[key]
    if (known) return known
    const counts: number[] = Array<number>(this.size.length)
    let [rest, place, largest] = [key, 1, 0]
    for (let k = this.size.length - 1; k >= 0; k--) {
      counts[k] = rest % this.size[k]!
      if (counts[k]! > 0) largest = place
      rest = Math.floor(rest / this.size[k]!)
      place *= this.size[k]!
    }
    return this.sets[key] = { counts, count: counts.reduce((a, b) => a + b, 0), largest, inside: null }
  }

  private inside(key: number): number[] {
    const set = this.set(key)
    if (set.inside) return set.inside
    set.inside = []
    for (let k = key; k > 0; k--) if (this.set(k).counts.every((c, i) => c <= set.counts[i]!)) set.inside.push(k)
    return set.inside
  }

  /** Goes through every network of all speakers; of one alone there is only itself. */
  forEach(seen: Seen): void {
    if (this.set(this.top).count === 1) return
    const isAny = !this.fairOnly
    this.visit(this.top, (parts, { ohmS, ohmP, jointsS, jointsP, depth, isFairS, isFairP }) => {
      if (isAny || isFairS) seen('series', parts, ohmS, jointsS, depth)
      if (isAny || isFairP) seen('parallel', parts, ohmP, jointsP, depth)
    })
  }

  private one(key: number): Block {
    const unit = this.set(key).counts.indexOf(1)
    const { ohm, weight } = this.units[unit]!
    const network: Network = { kind: 'one', unit }
    return { ohmS: ohm, ohmP: ohm, jointsS: 0, jointsP: 0, depth: 0, isFairS: true, isFairP: true, weight, network: () => network }
  }

  /** Every tree of a set. */
  private visit(all: number, seen: (parts: readonly Block[], made: Made) => void): void {
    const parts: Block[] = []
    const { count } = this.set(all)
    // Of the first so many parts: ohms, siemens, joints, depth; handed on as numbers they would each be made anew.
    const [ohms, siemens] = [new Float64Array(count + 1), new Float64Array(count + 1)]
    const [jointsS, jointsP, depths] = [new Int32Array(count + 1), new Int32Array(count + 1), new Int32Array(count + 1)]
    const [fairS, fairP] = [new Uint8Array(count + 1).fill(1), new Uint8Array(count + 1).fill(1)]
    const made: Made = { ohmS: 0, ohmP: 0, jointsS: 0, jointsP: 0, depth: 0, isFairS: true, isFairP: true }
    const add = (block: Block, key: number, at: number, rest: number): void => {
      const k = parts.length
      if (this.fairOnly) {
        const first = parts[0] ?? block
        fairS[k + 1] = fairS[k]! && block.isFairP && near(first.ohmP / first.weight, block.ohmP / block.weight) ? 1 : 0
        fairP[k + 1] = fairP[k]! && block.isFairS && near(first.ohmS * first.weight, block.ohmS * block.weight) ? 1 : 0
        if (!fairS[k + 1] && !fairP[k + 1]) return
      }
      ohms[k + 1] = ohms[k]! + block.ohmP
      siemens[k + 1] = siemens[k]! + 1 / block.ohmS
      jointsS[k + 1] = jointsS[k]! + block.jointsP
      jointsP[k + 1] = jointsP[k]! + block.jointsS
      depths[k + 1] = depths[k]! < block.depth ? block.depth : depths[k]!
      parts.push(block)
      if (rest > 0) take(rest, key, at)
      else {
        made.ohmS = ohms[k + 1]!
        made.ohmP = 1 / siemens[k + 1]!
        made.jointsS = jointsS[k + 1]! + k
        made.jointsP = jointsP[k + 1]! + 2 * k
        made.depth = depths[k + 1]! + 1
        made.isFairS = fairS[k + 1] === 1
        made.isFairP = fairP[k + 1] === 1
        seen(parts, made)
      }
      parts.pop()
    }
    /** Parts are taken in falling order of set, then of place in its list: a choice of parts comes once. */
    const take = (left: number, mostKey: number, mostAt: number): void => {
      for (const key of this.inside(left)) {
        // All of it in one part is no joint.
        if (key > mostKey || key === all) continue
        // Of what is left one part has its largest speaker, and is no larger than this one.
        if (this.set(left - key).largest > key) continue
        const end = key === mostKey ? mostAt + 1 : Number.MAX_SAFE_INTEGER
        if (this.set(key).count > KEPT && !this.fairOnly) {
          this.lend(key, end, (block, at) => add(block, key, at, left - key))
          continue
        }
        const blocks = this.blocks(key)
        for (let at = 0; at < blocks.length && at < end; at++) add(blocks[at]!, key, at, left - key)
      }
    }
    take(all, all, 0)
  }

  /**
   * The trees of a set that are too many to be kept, up to a place in their order. One block stands for all of them, one after the other; it is lent like its
   * parts.
   */
  private lend(key: number, end: number, use: (block: Block, at: number) => void): void {
    let at = 0
    let live: readonly Block[] = []
    const lent: Block = { ohmS: 0, ohmP: 0, jointsS: 0, jointsP: 0, depth: 0, isFairS: true, isFairP: true, weight: this.weightOf(key),
      network: kind => networkOf(kind, live) }
    this.visit(key, (parts, made) => {
      if (at >= end) return
      live = parts
      lent.ohmS = made.ohmS
      lent.ohmP = made.ohmP
      lent.jointsS = made.jointsS
      lent.jointsP = made.jointsP
      lent.depth = made.depth
      use(lent, at++)
    })
  }

  private weightOf(key: number): number {
    return this.set(key).counts.reduce((sum, c, k) => sum + c * this.units[k]!.weight, 0)
  }

  private blocks(key: number): Block[] {
    const known = this.kept.get(key)
    if (known) return known
    const blocks: Block[] = []
    const weight = this.weightOf(key)
    if (this.set(key).count === 1) blocks.push(this.one(key))
    else this.visit(key, (lent, { ohmS, ohmP, jointsS, jointsP, depth, isFairS, isFairP }) => {
      const parts = [...lent]
      blocks.push({ ohmS, ohmP, jointsS, jointsP, depth, isFairS, isFairP, weight, network: kind => networkOf(kind, parts) })
    })
    this.kept.set(key, blocks)
    return blocks
  }

  /** How many there are in all, fair or not, counted without making them: multisets of blocks, set by set. */
  count(): bigint {
    if (this.set(this.top).count === 1) return 1n
    // Blocks with one outermost joint; by exchange of series and parallel there are as many of either. Sets with the same counts of whatever have as many.
    const blocks = new Map<number, bigint>()
    const known = new Map<string, bigint>()
    for (let key = 1; key <= this.top; key++) {
      const { counts, count } = this.set(key)
      const shape = counts.filter(c => c > 0).sort((a, b) => a - b).join()
      const joined = known.get(shape) ?? (count === 1 ? 1n : this.countJoined(key, blocks))
      known.set(shape, joined)
      blocks.set(key, joined)
    }
    return 2n * blocks.get(this.top)!
  }

  private countJoined(all: number, blocks: ReadonlyMap<number, bigint>): bigint {
    const { counts } = this.set(all)
    let ways = new Map<number, bigint>([[0, 1n]])
    for (const part of this.inside(all)) {
      if (part === all) continue
      const each = this.set(part).counts
      const kinds = blocks.get(part)!
      const next = new Map(ways)
      for (const [from, n] of ways) {
        const taken = this.set(from).counts
        // So many times from this set, repeats allowed: (kinds + times − 1 over times).
        let chosen = 1n
        for (let times = 1; each.every((c, k) => taken[k]! + times * c <= counts[k]!); times++) {
          chosen = chosen * (kinds + BigInt(times) - 1n) / BigInt(times)
          const to = from + times * part
          next.set(to, (next.get(to) ?? 0n) + n * chosen)
        }
      }
      ways = next
    }
    return ways.get(all) ?? 0n
  }
}

/** Networks of one kind of speaker, all getting the same: nested strings and groups of equal size, as many ways as the count has ordered factors. */
export function evenNetworks(count: number, most = 400): Network[] {
  const found: Network[] = []
  const grow = (network: Network, left: number, kind: 'series' | 'parallel'): void => {
    if (found.length >= most) return
    if (left === 1) return void found.push(network)
    for (let size = 2; size <= left; size++) {
      if (left % size === 0) grow({ kind, parts: Array.from({ length: size }, () => network) }, left / size, kind === 'series' ? 'parallel' : 'series')
    }
  }
  const one: Network = { kind: 'one', unit: 0 }
  if (count === 1) return [one]
  grow(one, count, 'series')
  grow(one, count, 'parallel')
  return found
}
