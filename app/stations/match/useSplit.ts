import { watch } from 'vue'
import { findOutput } from '#core/job/tree'
import { applyEdit } from '#core/job/apply'
import { newId } from '~/api/ids'
import { codeLater } from '~/composables/fetchedLater'
import { useSearch } from '~/solver/useSearch'
import { useEvaluationStore } from '~/stores/evaluation'
import { useJobStore } from '~/stores/job'
import { useSelectionStore } from '~/stores/selection'

const splitting = codeLater(() => import('#core/search/plan/splitLine'))

/** Splits the line that is looked at onto as few outputs as it takes; what was found is done as one edit, and said. */
export function useSplit(): () => void {
  const store = useJobStore()
  const evaluation = useEvaluationStore()
  const selected = useSelectionStore()
  const { answer, problem, isSlow, start } = useSearch('split')
  let outputId = ''

  watch(isSlow, (slow) => { if (slow) store.say('Trying ways to split it…') })
  watch(problem, (says) => { if (says !== '') store.sayNot(says) })
  watch(answer, async (split) => {
    if (split === null) return
    answer.value = null
    const { NOT_SPLIT_WORDS, splitEdit, splitWords } = await splitting()
    if (typeof split === 'string') return void (store.sayNot(NOT_SPLIT_WORDS[split]))
    const line = evaluation.lineById.get(outputId)
    if (!store.job || !line) return
    if (!split.feasible) return void (store.sayNot('One speaker alone is more than such an output carries: a larger amplifier, or a lower tap.'))
    const done = splitEdit(store.job, line, split, newId)
    if (!done) return
    const after = applyEdit(store.job, done.edit).job
    const labels = done.outputIds.map(id => findOutput(after, id)?.output.label ?? '?')
    if (store.edit(done.edit)) store.say(splitWords(line.output.label, split, labels))
  })

  return () => {
    outputId = selected.selection.outputId ?? ''
    if (store.job && outputId !== '') start(store.job, { outputId })
  }
}
