import { computed, shallowRef, watch } from 'vue'
import { defineStore } from 'pinia'
import { findOutput, findPlace, outputsOf } from '#core/job/tree'
import { useEvaluationStore } from './evaluation'
import { useJobStore } from './job'

export interface Selection { outputId: string | null, nodeId: string | null }

/** The line and the speaker that are looked at, at every station of a job. */
export const useSelectionStore = defineStore('selection', () => {
  const store = useJobStore()
  const evaluation = useEvaluationStore()
  const selection = shallowRef<Selection>({ outputId: null, nodeId: null })

  const line = computed(() => evaluation.lineById.get(selection.value.outputId ?? '') ?? null)
  const proof = computed(() => evaluation.proofs.get(selection.value.outputId ?? '') ?? null)
  const place = computed(() => store.job && selection.value.nodeId !== null ? findPlace(store.job, selection.value.nodeId) : null)
  const speaker = computed(() => place.value?.branch.node.kind === 'speaker' ? place.value.branch.node : null)

  function select(outputId: string | null, nodeId: string | null = null): void {
    if (selection.value.outputId !== outputId || selection.value.nodeId !== nodeId) selection.value = { outputId, nodeId }
    evaluation.beginWith(outputId)
  }

  /** The line that an address asks for; null where it asks for none, or for one that is not there. */
  function asked(outputId: unknown): string | null {
    return store.job && typeof outputId === 'string' && findOutput(store.job, outputId) ? outputId : null
  }

  // What is selected may be gone: removed here, undone, or taken away in another window.
  watch(() => store.job, (job) => {
    const { outputId, nodeId } = selection.value
    if (!job || outputId === null) return
    const found = nodeId === null ? null : findPlace(job, nodeId)
    if (found) select(found.output.id, nodeId)
    else if (!findOutput(job, outputId)) select(outputsOf(job)[0]?.id ?? null)
    else select(outputId)
  })

  return { selection, line, proof, place, speaker, select, asked, reset: () => select(null) }
})
