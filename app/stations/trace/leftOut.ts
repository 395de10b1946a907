import { foldLabel } from '#core/job/labels'

/** Beside each other so many are told as one. */
const LEAST = 3

/** What a walk leaves out, in the order of the line, and why; nothing where it leaves out none: "Left out, since they say nothing: 04, 10–40." */
export function leftOutSays(speakers: readonly { id: string, label: string }[], isOut: (id: string) => boolean): string {
  const runs: string[][] = []
  speakers.forEach(({ id, label }, k) => {
    if (!isOut(id)) return
    if (k > 0 && isOut(speakers[k - 1]!.id)) runs.at(-1)!.push(label)
    else runs.push([label])
  })
  if (runs.length === 0) return ''
  const says = runs.flatMap(run => run.length < LEAST ? run : foldLabel(run)).join(', ')
  return `Left out, since ${runs.flat().length === 1 ? 'it says' : 'they say'} nothing: ${says}.`
}
