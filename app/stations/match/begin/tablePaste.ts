import { lookAtTable, type ReadRow } from '#core/format/table'
import type { NewId } from '#core/hands/intents'
import type { Branch } from '#core/job/schema'
import { countOf } from '#core/quantity/write'
import type { Cable } from '#core/quantity/cable'
import { InputError } from '#core/quantity/inputError'

/** What a pasted table comes to while it is looked at: its rows, what can be hung of them, and a sentence. */
export interface Looked { rows: readonly ReadRow[], branches: Branch[], bad: number, says: string }

export function lookAt(text: string, usual: { lineV: number, cable: Cable | null }, newId: NewId): Looked {
  const none = { rows: [], branches: [], bad: 0 }
  if (text.trim() === '') return { ...none, says: '' }
  try {
    const rows = lookAtTable(text, usual, newId)
    const branches = rows.flatMap(({ branch }) => branch ?? [])
    const bad = rows.length - branches.length
    const read = `${countOf(branches.length, 'speaker')} can be hung`
    return { rows, branches, bad, says: bad === 0 ? `${read}.` : `${read}; ${countOf(bad, 'row')} cannot be read: mend ${bad === 1 ? 'it' : 'them'} above, or leave ${bad === 1 ? 'it' : 'them'} out.` }
  }
  catch (error) {
    if (!(error instanceof InputError)) throw error
    return { ...none, says: error.message }
  }
}

/** What a table may look like. Invented. */
export const EXAMPLE_TABLE = ['no.\twhat it is\ttap\tlength\tcable', '01\tCeiling 165\t5 W\t12 m\t16 AWG', '02\tCeiling 165\t5 W\t6 m\t16 AWG'].join('\n')
