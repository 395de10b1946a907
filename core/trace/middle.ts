/** The middle of some figures: half of them are under it, half above. */

/** The middle of some figures, which are put in another order; of an even number that between two (Hoare). A sort took four times as long. */
export function middleOf(all: Float64Array): number {
  const at = all.length >> 1
  for (let [from, to] = [0, all.length - 1]; from < to;) {
    const pivot = all[at]!
    let [low, high] = [from, to]
    while (low <= high) {
      while (all[low]! < pivot) low++
      while (all[high]! > pivot) high--
      if (low > high) break
      const held = all[low]!
      all[low++] = all[high]!
      all[high--] = held
    }
    if (high < at) from = low
    if (at < low) to = high
  }
  if (all.length % 2 === 1) return all[at]!
  let below = -Infinity
  for (let k = 0; k < at; k++) below = Math.max(below, all[k]!)
  return (below + all[at]!) / 2
}

/** The middle of what is in order. */
export const middleInOrder = (all: Float64Array): number => (all[(all.length - 1) >> 1]! + all[all.length >> 1]!) / 2

/** The middle of what is in order, with one of it, that `was`, what it `is`. */
export function middleWithOne(inOrder: Float64Array, was: number, is: number): number {
  const rest = (k: number) => k < 0 ? -Infinity : inOrder[k]! < was ? inOrder[k]! : inOrder[k + 1] ?? Infinity
  const at = (k: number) => Math.min(rest(k), Math.max(rest(k - 1), is))
  const [low, high] = [(inOrder.length - 1) >> 1, inOrder.length >> 1]
  return low === high ? at(low) : (at(low) + at(high)) / 2
}

/** The middle of what is in order, with `count` of it, that `was`, what `is`. Both are put in order. */
export function middleWith(inOrder: Float64Array, was: Float64Array, is: Float64Array, count: number): number {
  putInOrder(was, count)
  putInOrder(is, count)
  const [low, high] = [(inOrder.length - 1) >> 1, inOrder.length >> 1]
  let at = Math.max(0, low - count)
  // Of some that are equal each may be the one that is another now.
  while (at > 0 && inOrder[at - 1] === inOrder[at]) at--
  let [gone, come] = [0, 0]
  if (at > 0) {
    while (gone < count && was[gone]! < inOrder[at]!) gone++
    while (come < count && is[come]! < inOrder[at]!) come++
  }
  let lower = 0
  for (let taken = at - gone + come; ; taken++) {
    while (gone < count && inOrder[at] === was[gone]) {
      at++
      gone++
    }
    const isCome = come < count && !(inOrder[at]! < is[come]!)
    const next = isCome ? is[come++]! : inOrder[at++]!
    if (taken === low) lower = next
    if (taken === high) return (lower + next) / 2
  }
}
function putInOrder(all: Float64Array, count: number): void {
  for (let k = 1; k < count; k++) for (let n = k; n > 0 && all[n - 1]! > all[n]!; n--) [all[n - 1], all[n]] = [all[n]!, all[n - 1]!]
}
