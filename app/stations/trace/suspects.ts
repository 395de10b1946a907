import { shallowRef, watch } from 'vue'
import { defineStore } from 'pinia'
import { rankInSteps, type Suspect } from '#core/trace/rank'
import { useSelectionStore } from '~/stores/selection'

/** Suspects weaker than this are not shown. */
const LEAST_SUSPICION = 0.005
const MOST_SUSPECTS = 8
/** Longest stretch of ranking between two frames. */
const SLICE_MS = 12

/** Ranked faults of the selected line; worked out only while someone looks, in slices that leave the page its frames. */
export const useTraceStore = defineStore('trace', () => {
  const selected = useSelectionStore()
  const suspects = shallowRef<Suspect[]>([])
  const chosenSuspect = shallowRef(0)
  const tracing = shallowRef(false)
  /** Share of the faults tried out; null when all are. */
  const tried = shallowRef<number | null>(null)
  let newest = 0

  watch(() => selected.selection.outputId, () => { chosenSuspect.value = 0 })
  watch([tracing, () => selected.line, () => selected.proof], async () => {
    // What is under way for an older state of the line ends here: it sees that it is not the newest any more.
    const mine = ++newest
    if (!tracing.value || !selected.line || !selected.proof) {
      suspects.value = []
      tried.value = null
      return
    }
    const steps = rankInSteps(selected.line.output, selected.proof)
    for (;;) {
      const until = performance.now() + SLICE_MS
      let step = steps.next()
      while (!step.done && performance.now() < until) step = steps.next()
      if (step.done) {
        suspects.value = step.value.filter(s => s.probability >= LEAST_SUSPICION).slice(0, MOST_SUSPECTS)
        tried.value = null
        return
      }
      tried.value = step.value
      await new Promise(resolve => setTimeout(resolve))
      if (mine !== newest) return
    }
  }, { immediate: true })

  return { suspects, chosenSuspect, tracing, tried }
})
