/** What is done when something changes that a trace is asked with: a line is tried out once, and asked again as often as somebody cannot do a test. */
export type Asking = 'end' | 'begin' | 'anew' | 'ask' | 'wait'

/** `isSame`: the same line with the same readings as the one that is tried out, or was. */
export function askingOf({ isWanted, isSame, worker }: { isWanted: boolean, isSame: boolean, worker: 'none' | 'busy' | 'ready' }): Asking {
  if (!isWanted) return 'end'
  if (worker === 'none') return 'begin'
  // Who is at nothing is given the next line or reading: a worker that starts takes twice as long. Who is at what nobody asks for any more is ended.
  if (!isSame) return worker === 'ready' ? 'anew' : 'begin'
  // One question after the other, and of those that wait the last.
  return worker === 'ready' ? 'ask' : 'wait'
}
