import { nextTick, ref } from 'vue'
import { addAfter, addAmplifier, addFirst, addOutput, joinWithNext, moveToOutput, removeNode, retap, shift, ungroup } from '#core/job/intents'
import type { Edit } from '#core/job/edits'
import { findOutput, findPlace } from '#core/job/tree'
import { newId } from '~/api/ids'
import { useJobStore } from '~/stores/job'
import { useMatchPaneStore } from '~/stations/match/pane'
import { useEvaluationStore } from '~/stores/evaluation'
import { useSelectionStore } from '~/stores/selection'

/** What keys and buttons do on the run sheet. */
export function useSheetActions() {
  const store = useJobStore()
  const selected = useSelectionStore()
  const evaluation = useEvaluationStore()
  const matchPane = useMatchPaneStore()
  const moving = ref(false)

  /** Puts the focus where the selection is, so that a screen reader follows. */
  async function focusSelection(): Promise<void> {
    await nextTick()
    const { outputId, nodeId } = selected.selection
    const element = document.getElementById(nodeId === null ? `rail-${outputId}` : `tag-${nodeId}`)
    element?.focus({ preventScroll: true })
    const show = () => element?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
    show()
    // A rail far away had only a guessed height until it came into view: once more when it has its own.
    requestAnimationFrame(() => requestAnimationFrame(show))
  }

  function go(outputId: string | null, nodeId: string | null): void {
    moving.value = false
    selected.select(outputId, nodeId)
    void focusSelection()
  }

  function along(step: 1 | -1): void {
    const { line } = selected
    if (!line) return go(evaluation.lines[0]?.outputId ?? null, null)
    const ids = line.speakers.map(s => s.id)
    const at = selected.selection.nodeId === null ? -1 : ids.indexOf(selected.selection.nodeId)
    const next = Math.max(-1, Math.min(ids.length - 1, at + step))
    go(line.outputId, next === -1 ? null : ids[next]!)
  }

  function end(): void {
    if (selected.line) go(selected.line.outputId, selected.line.speakers.at(-1)?.id ?? null)
  }

  function between(step: 1 | -1): void {
    const at = evaluation.lines.findIndex(l => l.outputId === selected.selection.outputId)
    const next = evaluation.lines[at === -1 ? 0 : Math.max(0, Math.min(evaluation.lines.length - 1, at + step))]
    if (!next) return
    const column = selected.line?.speakers.findIndex(s => s.id === selected.selection.nodeId) ?? -1
    go(next.outputId, column < 0 ? null : next.speakers[Math.min(column, next.speakers.length - 1)]?.id ?? null)
  }

  /** Does an edit about the selected speaker. */
  function onSpeaker(make: (nodeId: string) => Edit | null): boolean {
    const { nodeId } = selected.selection
    return nodeId !== null && store.edit(make(nodeId))
  }

  function add(): void {
    const { job } = store
    const { outputId, nodeId } = selected.selection
    if (!job || outputId === null) return
    const last = nodeId ?? selected.line?.speakers.at(-1)?.id ?? null
    const added = last === null ? addFirst(job, outputId, newId) : addAfter(job, last, newId)
    if (added && store.edit(added.edit)) go(outputId, added.nodeId)
  }

  function remove(): void {
    const { outputId, nodeId } = selected.selection
    if (nodeId === null) return
    const ids = selected.line?.speakers.map(s => s.id) ?? []
    const at = ids.indexOf(nodeId)
    if (onSpeaker(id => removeNode(store.job!, id))) go(outputId, ids[at + 1] ?? ids[at - 1] ?? null)
  }

  function move(outputId: string): void {
    const { nodeId } = selected.selection
    if (onSpeaker(id => moveToOutput(store.job!, id, outputId))) go(outputId, nodeId)
    moving.value = false
  }

  function reorder(step: 1 | -1): void {
    if (onSpeaker(id => shift(store.job!, id, step))) void focusSelection()
  }

  /** Opens the group that the selected speaker is in. */
  function apart(): void {
    const place = selected.place
    if (place && store.job && findPlace(store.job, place.parent.id)) {
      store.edit(ungroup(store.job, place.parent.id))
      void focusSelection()
    }
  }

  function newOutput(): void {
    const { job } = store
    if (!job) return
    const found = selected.selection.outputId === null ? null : findOutput(job, selected.selection.outputId)
    const amplifierId = found?.amplifier.id ?? job.amplifiers.at(-1)?.id
    const made = amplifierId === undefined ? addAmplifier(job, newId) : addOutput(job, amplifierId, newId)
    if (made && store.edit(made.edit)) go(made.outputId, null)
  }

  function outputOn(amplifierId: string): void {
    const made = store.job && addOutput(store.job, amplifierId, newId)
    if (made && store.edit(made.edit)) go(made.outputId, null)
  }

  function newAmplifier(): void {
    if (!store.job) return
    const made = addAmplifier(store.job, newId)
    if (store.edit(made.edit)) {
      matchPane.mode = 'change'
      go(made.outputId, null)
    }
  }

  return {
    moving, go, along, end, between, add, remove, move, reorder, apart, newOutput, outputOn, newAmplifier, focusSelection,
    tap: (step: 1 | -1) => onSpeaker(id => retap(store.job!, id, step)),
    join: (kind: 'series' | 'star') => {
      if (onSpeaker(id => joinWithNext(store.job!, id, kind, newId))) void focusSelection()
    },
    remedy: (number: number) => {
      const remedy = matchPane.remedies[number - 1]
      if (remedy) store.edit(remedy.edit)
    },
  }
}
