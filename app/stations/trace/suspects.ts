import { computed, shallowRef, watch } from 'vue'
import { defineStore } from 'pinia'
import { groupSuspects, type SuspectGroup } from '#core/trace/groups'
import { rankInSteps } from '#core/trace/rank'
import { useSelectionStore } from '~/stores/selection'
import { shownGroups } from './shown'

/** Longest stretch of ranking between two frames. */
const SLICE_MS = 12

/** Ranked faults of the selected line, in groups that read alike; worked out only while someone looks, in slices that leave the page its frames. */
export const useTraceStore = defineStore('trace', () => {
  const selected = useSelectionStore()
  const groups = shallowRef<(SuspectGroup & { more: number })[]>([])
  const chosenSuspect = shallowRef(0)
  const tracing = shallowRef(false)
  /** Share of the faults tried out; null when all are. */
  const tried = shallowRef<number | null>(null)
  let newest = 0
  /** All that is shown, in order: what a place on the rail and a number stand for. */
  const suspects = computed(() => groups.value.flatMap(g => g.suspects))

  watch(() => selected.selection.outputId, () => { chosenSuspect.value = 0 })
  watch([tracing, () => selected.line, () => selected.proof], async () => {
    // What is under way for an older state of the line ends here: it sees that it is not the newest any more.
    const mine = ++newest
    if (!tracing.value || !selected.line || !selected.proof) {
      groups.value = []
      tried.value = null
      return
    }
    const { line: { output }, proof } = selected
    const steps = rankInSteps(output, proof)
    for (;;) {
      const until = performance.now() + SLICE_MS
      let step = steps.next()
      while (!step.done && performance.now() < until) step = steps.next()
      if (step.done) {
        groups.value = shownGroups(groupSuspects(step.value, output, proof))
        tried.value = null
        return
      }
      tried.value = step.value
      await new Promise(resolve => setTimeout(resolve))
      if (mine !== newest) return
    }
  }, { immediate: true })

  return { groups, suspects, chosenSuspect, tracing, tried }
})
