import { skippedWords, type ManyDone } from '#core/hands/many/many'
import type { Job } from '#core/job/schema'
import { useJobStore } from '~/stores/job'
import { useSelectionStore } from '~/stores/selection'

/** Does an edit about what is chosen, and says what could not be done. False where nothing was done. */
export function useOnChosen() {
  const store = useJobStore()
  const selected = useSelectionStore()
  return (make: (job: Job, ids: readonly string[]) => ManyDone): boolean => {
    if (!store.job || selected.ids.length === 0) return false
    const { edit, skipped } = make(store.job, selected.ids)
    const isDone = store.edit(edit)
    if (skipped.length > 0 && isDone) store.say(`Not all: ${skippedWords(skipped)}`)
    else if (skipped.length > 0) store.sayNot(skippedWords(skipped))
    return isDone
  }
}
