import type { Placed, Records } from '../records'
import { refuse } from '../refusal'
import type { Job } from '../schema'
import { findOutput } from '../tree'
import { none, type EditRule } from './section'
import type { GrowingList, Thing } from './shapes'

/** The two edits of every section that only grows: an entry is added, and withdrawn or brought back. */

type Entry = Placed & { withdrawn: boolean }
interface Growing<E extends Entry, Add, Withdraw> {
  shape: { things: readonly [Thing], grows: { list: GrowingList, most: number } }
  entryOf: (edit: Add) => E
  /** The edits that take back: by the id of the entry. */
  withdrawal: (id: string, withdrawn: boolean) => Withdraw
  idOf: (edit: Withdraw) => { id: string, withdrawn: boolean }
  /** Refuses an entry that does not fit; asked of one that is brought back, too, with `isNew` false. */
  fits: (job: Job, entry: E, isNew: boolean) => void
  words: { add: string, withdraw: string }
}

/** Whether the place of an entry is drawn: the line, or what `find` finds of it. */
export function placedBy(find: (job: Job, nodeId: string) => { output: { id: string } } | null) {
  return (job: Job, { outputId, nodeId }: { outputId: string, nodeId: string | null }): boolean =>
    nodeId === null ? findOutput(job, outputId) !== null : find(job, nodeId)?.output.id === outputId
}

export function growingRules<E extends Entry, Add, Withdraw>({ shape, entryOf, withdrawal, idOf, fits, words }: Growing<E, Add, Withdraw>) {
  const { things: [what], grows: { list, most } } = shape
  const recordsOf = (job: Job) => job[list] as unknown as Records<E>
  const add: EditRule<Add, Add | Withdraw> = {
    apply: (job, edit) => {
      const entry = entryOf(edit)
      if (recordsOf(job).size >= most) refuse({ code: 'too-many', what: list, most })
      fits(job, entry, true)
      return { job: { ...job, [list]: recordsOf(job).added(entry) }, inverse: withdrawal(entry.id, true) }
    },
    makes: edit => [entryOf(edit).id], refersTo: none, words: words.add,
  }
  const withdraw: EditRule<Withdraw, Add | Withdraw> = {
    apply: (job, edit) => {
      const { id, withdrawn } = idOf(edit)
      const entry = recordsOf(job).get(id) ?? refuse({ code: 'not-there', what, id })
      const changed = { ...entry, withdrawn }
      fits(job, changed, false)
      return { job: { ...job, [list]: recordsOf(job).replaced(changed) }, inverse: withdrawal(id, !withdrawn) }
    },
    makes: none, refersTo: none, words: words.withdraw,
  }
  return { add, withdraw }
}
