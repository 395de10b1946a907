import { USUAL_LINE_V } from '#core/amplifier/index'
import { isTable, readTable } from '#core/format/table'
import type { NewId } from '#core/hands/intents'
import { fieldsOf } from '#core/hands/kinds'
import type { Branch, Kind } from '#core/job/schema'
import { writeQuantity } from '#core/quantity/write'
import type { Cable } from '#core/quantity/cable'
import { InputError } from '#core/quantity/inputError'
import { parseQuick, type QuickLine } from '#core/quick/parse'
import { toOutput } from '#core/quick/toJob'
import { readClip } from './clip'

export { TableError } from '#core/format/table'

/** Line ends change on their way through a clipboard. */
const plain = (text: string) => text.replace(/\r\n/g, '\n').trim()

/**
 * The speakers of a pasted text: what was taken here last with all its groups, a table of a spreadsheet, or a typed line.
 * @param kept what `writeClip` wrote, if anything
 * @throws InputError where it is none of them
 */
export function branchesOf(text: string, kept: string | null, usual: { lineV: number | null, cable: Cable | null }, newId: NewId): Branch[] {
  const clip = kept === null ? null : readClip(kept)
  if (clip && plain(clip.text) === plain(text)) return clip.branches
  if (isTable(text)) return readTable(text, { lineV: usual.lineV ?? USUAL_LINE_V, cable: usual.cable }, newId)
  return toOutput(parseHere(text.trim(), usual.lineV ?? USUAL_LINE_V), newId).wiring.children
}

/**
 * Pasted speakers that are called like a kind of the job are of it, with all that it states; what a name or a tap says that the job does not know is told.
 * @returns the branches, and what is to be said, a sentence each
 */
export function asKinds(branches: readonly Branch[], kinds: readonly Kind[]): { branches: Branch[], said: string[] } {
  const plainName = (name: string) => name.trim().toLowerCase()
  const byName = new Map(kinds.map(kind => [plainName(kind.model.name), kind]))
  const unknown = new Set<string>()
  const lacking: string[] = []
  const known = branches.map((branch): Branch => {
    const { node } = branch
    if (node.kind !== 'speaker' || node.kindId !== null || node.name.trim() === '') return branch
    const kind = byName.get(plainName(node.name))
    if (!kind) {
      unknown.add(node.name.trim())
      return branch
    }
    const fields = fieldsOf(kind.model, node)
    const { load } = fields
    if (load.kind === 'tap' && load.tapW !== 0 && !load.tapsW.includes(load.tapW)) {
      lacking.push(`${node.label}: “${kind.model.name}” has no tap of ${writeQuantity(load.tapW, 'W')}`)
      return { ...branch, node: { ...node, kindId: kind.id } }
    }
    return { ...branch, node: { ...node, kindId: kind.id, ...fields } }
  })
  const names = [...unknown].map(name => `“${name}”`)
  const notFound = names.length === 0 ? [] : [`${names.slice(0, 3).join(', ')}${names.length > 3 ? ` and ${names.length - 3} more` : ''}: no kind of this job is called so; kept as a name`]
  return { branches: known, said: [...lacking, ...notFound] }
}

/** A typed line as it is meant on a rail: taps are for the volts of that line, several that do not say how they are wired hang on it side by side. */
function parseHere(text: string, lineV: number): QuickLine {
  try {
    return parseQuick(text)
  }
  catch (error) {
    if (!(error instanceof InputError)) throw error
    for (const meant of [`${text} on ${lineV} V`, `${text} parallel`]) {
      try {
        return parseQuick(meant)
      }
      catch (other) {
        if (!(other instanceof InputError)) throw other
      }
    }
    throw error
  }
}
