import { computed, shallowRef, watch } from 'vue'
import { defineStore } from 'pinia'
import { findOutput, findPlace, outputsOf, speakersOf } from '#core/job/tree'
import { isGroup } from '#core/network/tree'
import { inOrder, NONE, stillThere, toggled, upTo, type Choice } from './choice'
import { useEvaluationStore } from './evaluation'
import { useJobStore } from './job'

export interface Selection { outputId: string | null, nodeId: string | null }

/** The line and the speaker that are looked at, at every station of a job; on the run sheet several speakers, of which one is looked at. */
export const useSelectionStore = defineStore('selection', () => {
  const store = useJobStore()
  const evaluation = useEvaluationStore()
  const selection = shallowRef<Selection>({ outputId: null, nodeId: null })
  /** All that are chosen, where they are more than one; empty where one alone is. */
  const chosen = shallowRef<ReadonlySet<string>>(NONE)
  let anchorId: string | null = null

  const line = computed(() => evaluation.lineById.get(selection.value.outputId ?? '') ?? null)
  const proof = computed(() => evaluation.proofs.get(selection.value.outputId ?? '') ?? null)
  const place = computed(() => store.job && selection.value.nodeId !== null ? findPlace(store.job, selection.value.nodeId) : null)
  const speaker = computed(() => place.value?.branch.node.kind === 'speaker' ? place.value.branch.node : null)
  /** The control or the transformer that is looked at, with the group behind it. */
  const throughGroup = computed(() => {
    const node = place.value?.branch.node
    return node && isGroup(node) && node.through ? { group: node, through: node.through } : null
  })
  /** What an action is done to, in wiring order; of a control all that hangs behind it. */
  const ids = computed((): readonly string[] => {
    if (chosen.value.size > 0 && store.job) return inOrder(store.job, chosen.value)
    if (throughGroup.value) return speakersOf(throughGroup.value.group).map(s => s.id)
    return selection.value.nodeId === null ? [] : [selection.value.nodeId]
  })
  const isMany = computed(() => chosen.value.size > 1)

  function look(outputId: string | null, nodeId: string | null): void {
    if (selection.value.outputId !== outputId || selection.value.nodeId !== nodeId) selection.value = { outputId, nodeId }
    evaluation.beginWith(outputId)
  }

  function select(outputId: string | null, nodeId: string | null = null): void {
    chosen.value = NONE
    anchorId = nodeId
    look(outputId, nodeId)
  }

  const choice = (): Choice => ({ nodeId: selection.value.nodeId, anchorId, chosen: chosen.value })
  function take(outputId: string, next: Choice): void {
    chosen.value = next.chosen
    anchorId = next.anchorId
    // Of several the one looked at may hang on another rail than the one pressed.
    const found = store.job && next.nodeId !== null ? findPlace(store.job, next.nodeId) : null
    look(found?.output.id ?? outputId, next.nodeId)
  }
  /** From where the choice began up to this one. */
  function chooseTo(outputId: string, nodeId: string): void {
    const order = evaluation.lineById.get(outputId)?.speakers.map(s => s.id) ?? []
    take(outputId, upTo(order, choice(), nodeId))
  }
  /** This one too, or no more. */
  const chooseToo = (outputId: string, nodeId: string) => take(outputId, toggled(choice(), nodeId))
  /** These and no others; the one looked at stays so where it is among them. */
  function chooseAll(nodeIds: readonly string[]): void {
    const first = nodeIds.includes(selection.value.nodeId ?? '') ? selection.value.nodeId! : nodeIds[0]
    const found = first !== undefined && store.job ? findPlace(store.job, first) : null
    if (!found) return
    select(found.output.id, first)
    if (nodeIds.length > 1) chosen.value = new Set(nodeIds)
  }

  /** The line that an address asks for; null where it asks for none, or for one that is not there. */
  function asked(outputId: unknown): string | null {
    return store.job && typeof outputId === 'string' && findOutput(store.job, outputId) ? outputId : null
  }

  // What is selected may be gone: removed here, undone, or taken away in another window.
  watch(() => store.job, (job) => {
    const { outputId, nodeId } = selection.value
    if (!job || outputId === null) return
    const left = stillThere(job, chosen.value)
    const found = nodeId === null ? null : findPlace(job, nodeId)
    if (found) {
      chosen.value = left
      look(found.output.id, nodeId)
    }
    else if (left.size > 0) chooseAll(inOrder(job, left))
    else if (!findOutput(job, outputId)) select(outputsOf(job)[0]?.id ?? null)
    else select(outputId)
  })

  return { selection, chosen, ids, isMany, line, proof, place, speaker, throughGroup, select, chooseTo, chooseToo, chooseAll, asked, reset: () => select(null) }
})
