import { fork } from 'node:child_process'
import { availableParallelism } from 'node:os'

/** A bench that takes long, by as many processes as there are cores: each plays every so-manieth rig. */

const [PART, OF] = [process.argv[3], availableParallelism()]
/** The seeds of this part, `count` from `from` on. */
export const seedsOfPart = (from: number, count: number): number[] =>
  Array.from({ length: count }, (_, k) => from + k).filter(seed => seed % OF === Number(PART))

/**
 * Runs the bench `file` once a part, each with `count`, and the parts of what it found, as often as one of them tells; in a part itself runs `play`. `tell`:
 * what was found until now, all of it.
 */
export async function byParts<Found>(
  file: string, count: number, play: (tell: (found: Found) => void) => void, write: (parts: readonly Found[]) => void,
): Promise<void> {
  if (PART !== undefined) return play(found => process.send!(found))
  const known = new Map<number, Found>()
  await Promise.all(Array.from({ length: OF }, (_, part) => new Promise<void>((resolve, reject) => {
    const child = fork(file, [String(count), String(part)])
    child.on('message', (found) => {
      known.set(part, found as Found)
      if (known.size === OF) write([...known.values()])
    })
    child.on('error', reject)
    child.on('exit', code => code === 0 ? resolve() : reject(new Error(`part ${part} of ${OF} ended with ${code}`)))
  })))
}
