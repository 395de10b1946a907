import { nextTick, ref, shallowRef } from 'vue'
import type { Reach } from '#core/hands/reach'
import type { LineThrough } from '#core/job/schema'
import { useEvaluationStore } from '~/stores/evaluation'
import { useJobStore } from '~/stores/job'
import { useSelectionStore } from '~/stores/selection'
import { useFoldStore } from './rail/foldStore'

/** Getting about on the run sheet: what is looked at, what is chosen, and the focus with it. */
export function useSheetFocus() {
  const store = useJobStore()
  const selected = useSelectionStore()
  const evaluation = useEvaluationStore()
  const folds = useFoldStore()
  /** Whether a place to move to is being chosen; to look elsewhere ends it. */
  const moving = ref(false)
  /** What is to be put before the speaker that is looked at, and how far it may reach; to look elsewhere ends it. */
  const putting = shallowRef<{ kind: LineThrough['kind'], reaches: Reach[] } | null>(null)

  /** Puts the focus where the selection is, so that a screen reader follows; a page that is only opened does not scroll away from its top. */
  async function focusSelection(how: 'brought into view' | 'where it is' = 'brought into view'): Promise<void> {
    await nextTick()
    const { outputId, nodeId } = selected.selection
    const element = document.getElementById(nodeId === null ? `rail-${outputId}` : `tag-${(outputId === null ? null : folds.foldAt(outputId, nodeId)?.[0]) ?? nodeId}`)
    element?.focus({ preventScroll: true })
    if (how === 'where it is') return
    const show = () => {
      element?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
      // In a narrow window the sheet about it lies over the foot of the page: what is looked at stands above it.
      const sheet = document.querySelector('.pane')
      if (!element || !sheet || getComputedStyle(sheet).position !== 'fixed') return
      const hidden = element.getBoundingClientRect().bottom + 24 - sheet.getBoundingClientRect().top
      if (hidden > 0) window.scrollBy(0, hidden)
    }
    show()
    // A rail far away had only a guessed height until it came into view: once more when it has its own.
    requestAnimationFrame(() => requestAnimationFrame(show))
  }

  /** Where to, or how far: not now. */
  function leaveQuestion(): void {
    moving.value = false
    putting.value = null
  }

  /** Looks at a rail, a speaker, or equals that are drawn as one. */
  function go(outputId: string | null, nodeId: string | null, all: readonly string[] = []): void {
    leaveQuestion()
    if (all.length > 1) selected.chooseAll(all)
    else selected.select(outputId, nodeId)
    void focusSelection()
  }

  /** The speaker, or the equals drawn as one, a step along the rail; none for its head. */
  function beside(step: number): readonly string[] {
    const { nodeId } = selected.selection
    const stops = selected.line ? folds.stops(selected.line) : []
    const at = nodeId === null ? -1 : stops.findIndex(stop => stop.includes(nodeId))
    return stops[Math.max(-1, Math.min(stops.length - 1, at + step))] ?? []
  }

  function along(step: 1 | -1): void {
    const next = beside(step)
    if (selected.line) go(selected.line.outputId, next[0] ?? null, next)
    else go(evaluation.lines[0]?.outputId ?? null, null)
  }

  function chooseAlong(step: 1 | -1): void {
    const { line } = selected
    const isSpeaker = (id: string | undefined) => line?.speakers.some(s => s.id === id)
    // A control on the way is no speaker: what is chosen goes on behind it.
    const next = [1, 2, 3].map(k => beside(k * step)).find(stop => isSpeaker(stop[0])) ?? []
    if (!selected.line || next.length === 0) return
    selected.chooseTo(selected.line.outputId, step > 0 ? next.at(-1)! : next[0]!)
    void focusSelection()
  }

  function end(): void {
    const last = selected.line ? folds.stops(selected.line).at(-1) ?? [] : []
    if (selected.line) go(selected.line.outputId, last[0] ?? null, last)
  }

  function between(step: 1 | -1): void {
    const at = evaluation.lines.findIndex(l => l.outputId === selected.selection.outputId)
    const next = evaluation.lines[at === -1 ? 0 : Math.max(0, Math.min(evaluation.lines.length - 1, at + step))]
    if (!next) return
    const column = selected.line?.speakers.findIndex(s => s.id === selected.selection.nodeId) ?? -1
    const id = column < 0 ? null : next.speakers[Math.min(column, next.speakers.length - 1)]?.id ?? null
    const fold = id === null ? null : folds.foldAt(next.outputId, id)
    go(next.outputId, fold?.[0] ?? id, fold ?? [])
  }

  /** Chooses and says how many, for who cannot see it. */
  function chooseAll(nodeIds: readonly string[]): void {
    selected.chooseAll(nodeIds)
    store.say(nodeIds.length === 1 ? 'one chosen' : `${nodeIds.length} chosen`)
    void focusSelection()
  }

  return { moving, putting, leaveQuestion, focusSelection, go, along, end, between, chooseAlong, chooseAll }
}
