import { nextTick, ref } from 'vue'
import { USUAL_LINE_V } from '#core/amplifier/index'
import { USUAL_TAPS_W, addAfter, addAmplifier, addFirst, addOutput, joinWithNext, shift, ungroup } from '#core/hands/intents'
import { copyEach, joinEach, moveEach, moveToNew, removeEach, retapEach, type MoveTo } from '#core/hands/many/many'
import { equalsOf, kindOf, makeKind as makeKindOf } from '#core/hands/kinds'
import type { LineThrough } from '#core/job/schema'
import { putBefore, stepThrough, takeOut, throughLabel, unknownControl, usualPart, usualTransformer } from '#core/hands/throughs'
import { findGroup, findOutput, findPlace, findSpeaker, throughsOf } from '#core/job/tree'
import { kindName } from '~/drawing/speakerText'
import { newId } from '~/api/ids'
import { useJobStore } from '~/stores/job'
import { useMatchPaneStore } from '~/stations/match/pane'
import { allAlike } from '~/stores/choice'
import { useFoldStore } from './rail/foldStore'
import { useOnChosen } from './useOnChosen'
import { useEvaluationStore } from '~/stores/evaluation'
import { useSelectionStore } from '~/stores/selection'

/** What keys, words and the menu do on the run sheet. */
export function useSheetActions() {
  const store = useJobStore()
  const selected = useSelectionStore()
  const evaluation = useEvaluationStore()
  const matchPane = useMatchPaneStore()
  const folds = useFoldStore()
  const moving = ref(false)
  const onChosen = useOnChosen()

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

  /** Looks at a rail, a speaker, or equals that are drawn as one. */
  function go(outputId: string | null, nodeId: string | null, all: readonly string[] = []): void {
    moving.value = false
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
    store.said = nodeIds.length === 1 ? 'one chosen' : `${nodeIds.length} chosen`
    void focusSelection()
  }

  function add(): void {
    const { job } = store
    const { outputId, nodeId } = selected.selection
    if (!job || outputId === null) return
    // Behind all that are chosen: of equals drawn as one the first is looked at, and the next one hangs behind the last.
    const last = (selected.isMany || selected.throughGroup ? selected.ids.at(-1) : nodeId) ?? selected.line?.speakers.at(-1)?.id ?? null
    const added = last === null ? addFirst(job, outputId, newId) : addAfter(job, last, newId)
    if (!added || !store.edit(added.edit)) return
    go(outputId, added.nodeId)
    // What is taken over is said: it may not be meant.
    if (last !== null) store.said = 'added, like the one before it: name, tap, ratings and cable'
  }

  function copyBehind(): void {
    if (!store.job) return
    const { edit, nodeIds } = copyEach(store.job, selected.ids, newId)
    if (store.edit(edit)) chooseAll(nodeIds)
  }

  function remove(): void {
    const { outputId } = selected.selection
    if (selected.throughGroup) {
      const { group, through } = selected.throughGroup
      const first = selected.ids[0] ?? null
      if (store.job && store.edit(takeOut(store.job, group.id))) {
        store.said = `${through.label} is out; what hung behind it hangs on the rail`
        go(outputId, first)
      }
      return
    }
    const gone = new Set(selected.ids)
    const ids = selected.line?.speakers.map(s => s.id) ?? []
    const after = ids.slice(ids.findLastIndex(id => gone.has(id)) + 1)
    const before = ids.slice(0, ids.findIndex(id => gone.has(id)))
    if (onChosen(removeEach)) go(outputId, after.find(id => !gone.has(id)) ?? before.at(-1) ?? null)
  }

  function move(to: MoveTo): void {
    const ids = selected.throughGroup ? [selected.throughGroup.group.id] : selected.ids
    if (onChosen((job, chosen) => moveEach(job, chosen, to))) {
      selected.chooseAll(ids)
      void focusSelection()
    }
    moving.value = false
  }

  function moveToNewOutput(): void {
    newOutputFor(selected.ids)
    moving.value = false
  }

  /** An output more, with these on it. */
  function newOutputFor(ids: readonly string[]): void {
    const made = store.job && moveToNew(store.job, ids, newId)
    if (made && store.edit(made.edit)) chooseAll(ids)
  }

  function reorder(step: 1 | -1): void {
    const { nodeId } = selected.selection
    if (nodeId !== null && store.job && store.edit(shift(store.job, nodeId, step))) void focusSelection()
  }

  function join(kind: 'series' | 'star'): void {
    const { nodeId } = selected.selection
    const isDone = selected.isMany
      ? onChosen((job, ids) => joinEach(job, ids, kind, newId))
      : nodeId !== null && store.job !== null && store.edit(joinWithNext(store.job, nodeId, kind, newId))
    if (isDone) void focusSelection()
  }

  /** A control or a transformer before what is chosen: like the last one of the job, else one of which nothing is known yet. */
  function put(kind: LineThrough['kind']): void {
    const { job } = store
    const { line } = selected
    if (!job || !line || selected.throughGroup) return
    const label = throughLabel(job, kind)
    const like = throughsOf(job).map(t => t.through).filter(t => t.kind === kind).at(-1)
    const lineV = line.kind === 'constant-voltage' ? line.lineV : null
    const fresh = kind === 'control' ? { ...unknownControl(label), lineV } : kind === 'transformer' ? usualTransformer(label, lineV ?? USUAL_LINE_V, USUAL_TAPS_W) : usualPart(kind, label)
    const made = putBefore(job, selected.ids, like ? { ...like, label, ...(like.kind === 'control' ? { setDb: null } : {}) } : fresh, newId)
    if (made === 'not-beside') store.said = 'Nothing done: they do not hang side by side on one rail.'
    else if (made === 'has-one') store.said = 'Nothing done: one stands before them already.'
    else if (made && store.edit(made.edit)) {
      store.said = like ? `${label} is before them, like ${like.label}` : `${label} is before them; choose which one it is`
      matchPane.mode = 'change'
      matchPane.drawn = 'up'
      go(line.outputId, made.nodeId)
    }
  }

  function tap(step: 1 | -1): void {
    const { throughGroup } = selected
    if (!throughGroup) onChosen((job, ids) => retapEach(job, ids, step))
    else if (store.job && !store.edit(stepThrough(store.job, throughGroup.group.id, step))) store.said = `${throughGroup.through.label}: no further`
  }

  /** Opens the group that the selected speaker is in. */
  function apart(): void {
    const place = selected.place
    const { job } = store
    if (!place || !job || !findPlace(job, place.parent.id)) return
    const through = findGroup(job, place.parent.id)?.group.through
    if (store.edit(through ? takeOut(job, place.parent.id) : ungroup(job, place.parent.id)) && through) store.said = `${through.label} is out; what hung behind it hangs on the rail`
    void focusSelection()
  }

  /** One kind of what is chosen; with one alone, of all that are as it is. */
  function makeKind(): void {
    const { job } = store
    if (!job || selected.ids.length === 0) return
    const ids = selected.isMany ? selected.ids : equalsOf(job, selected.ids[0]!)
    const first = findSpeaker(job, selected.ids[0]!)?.speaker
    const made = first && makeKindOf(job, ids, kindName(first), newId)
    if (made && store.edit(made.edit)) store.said = `${ids.length} of one kind now: change it once, and all follow`
    else if (first) store.said = `${first.label} is of the kind “${kindOf(job, first)?.model.name ?? '?'}” already`
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
      matchPane.drawn = 'up'
      go(made.outputId, null)
    }
  }

  return {
    moving, focusSelection, go, along, end, between, chooseAlong, chooseAll, add, copyBehind, remove, move, moveToNewOutput, newOutputFor, reorder, join, apart,
    newOutput, outputOn, newAmplifier,
    chooseRail: () => chooseAll(selected.line?.speakers.map(s => s.id) ?? []),
    chooseAlike: () => { if (store.job && selected.speaker) chooseAll(allAlike(store.job, selected.speaker, 'all', selected.selection.outputId)) },
    makeKind, put, tap,
    fold: () => {
      if (!selected.line) return
      folds.toggle(selected.line)
      void focusSelection()
    },
    remedy: (number: number) => {
      const remedy = matchPane.remedies[number - 1]
      if (remedy) store.edit(remedy.edit)
    },
  }
}
