import { shallowRef } from 'vue'
import { USUAL_LINE_V } from '#core/amplifier/index'
import { USUAL_TAPS_W, addAfter, addAmplifier, addFirst, addOutput, joinWithNext, shift, ungroup } from '#core/hands/intents'
import { copyEach, joinEach, moveEach, moveToNew, removeEach, retapEach, type LeadThere, type MoveTo } from '#core/hands/many/many'
import { equalsOf, kindOf, makeKind as makeKindOf } from '#core/hands/kinds'
import { reachesOf } from '#core/hands/reach'
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
import { useSheetFocus } from './useSheetFocus'
import { useSelectionStore } from '~/stores/selection'

/** What keys, words and the menu do on the run sheet. */
export function useSheetActions() {
  const store = useJobStore()
  const selected = useSelectionStore()
  const matchPane = useMatchPaneStore()
  const folds = useFoldStore()
  const onChosen = useOnChosen()
  /** What becomes of the cable of what is moved by the list of lines; one that is drawn to its place by hand takes it along. */
  const leadThere = shallowRef<LeadThere>('along')
  const about = useSheetFocus()
  const { moving, putting, focusSelection, go, chooseAll } = about

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
    if (last !== null) store.say('added, like the one before it: name, tap, ratings and cable')
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
        store.say(`${through.label} is out; what hung behind it hangs on the rail`)
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
    let renumbered: { from: string, to: string }[] = []
    const isDone = onChosen((job, chosen) => {
      const moved = moveEach(job, chosen, to, moving.value ? leadThere.value : 'along')
      renumbered = moved.renumbered
      return moved
    })
    if (isDone) {
      if (renumbered.length > 0) store.say(`${renumbered.map(r => `${r.from} is ${r.to}`).join(', ')} now: that number stood there already`)
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

  /** Before one speaker it is asked how far it reaches: in the middle of a rail it is seldom meant for that one alone. */
  function put(kind: LineThrough['kind']): void {
    const [one] = selected.ids
    const reaches = store.job && one !== undefined && !selected.isMany && !selected.throughGroup ? reachesOf(store.job, one) : []
    if (reaches.length < 2) return putBeforeThese(kind, selected.ids)
    matchPane.drawn = 'up'
    putting.value = { kind, reaches }
  }

  /** A control or a transformer before some: like the last one of the job, else one of which nothing is known yet. */
  function putBeforeThese(kind: LineThrough['kind'], ids: readonly string[]): void {
    putting.value = null
    const { job } = store
    const { line } = selected
    if (!job || !line || selected.throughGroup) return
    const label = throughLabel(job, kind)
    const like = throughsOf(job).map(t => t.through).filter(t => t.kind === kind).at(-1)
    const lineV = line.kind === 'constant-voltage' ? line.lineV : null
    const fresh = kind === 'control' ? { ...unknownControl(label), lineV } : kind === 'transformer' ? usualTransformer(label, lineV ?? USUAL_LINE_V, USUAL_TAPS_W) : usualPart(kind, label)
    const made = putBefore(job, ids, like ? { ...like, label, ...(like.kind === 'control' ? { setDb: null } : {}) } : fresh, newId)
    if (made === 'not-beside') store.sayNot('They do not hang side by side on one rail.')
    else if (made === 'has-one') store.sayNot('One stands before them already.')
    else if (made && store.edit(made.edit)) {
      store.say(like ? `${label} is before them, like ${like.label}` : `${label} is before them; choose which one it is`)
      matchPane.mode = 'change'
      matchPane.drawn = 'up'
      go(line.outputId, made.nodeId)
    }
  }

  function tap(step: 1 | -1): void {
    const { throughGroup } = selected
    if (!throughGroup) onChosen((job, ids) => retapEach(job, ids, step))
    else if (store.job && !store.edit(stepThrough(store.job, throughGroup.group.id, step))) store.sayNot(`${throughGroup.through.label}: no further`)
  }

  /** Opens the group that the selected speaker is in. */
  function apart(): void {
    const place = selected.place
    const { job } = store
    if (!place || !job || !findPlace(job, place.parent.id)) return
    const through = findGroup(job, place.parent.id)?.group.through
    if (store.edit(through ? takeOut(job, place.parent.id) : ungroup(job, place.parent.id)) && through) store.say(`${through.label} is out; what hung behind it hangs on the rail`)
    void focusSelection()
  }

  /** One kind of what is chosen; with one alone, of all that are as it is. */
  function makeKind(): void {
    const { job } = store
    if (!job || selected.ids.length === 0) return
    const ids = selected.isMany ? selected.ids : equalsOf(job, selected.ids[0]!)
    const first = findSpeaker(job, selected.ids[0]!)?.speaker
    const made = first && makeKindOf(job, ids, kindName(first), newId)
    if (made && store.edit(made.edit)) store.say(`${ids.length} of one kind now: change it once, and all follow`)
    else if (first) store.sayNot(`${first.label} is of the kind “${kindOf(job, first)?.model.name ?? '?'}” already`)
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
    ...about, leadThere, add, copyBehind, remove, move, moveToNewOutput, newOutputFor, reorder, join, apart,
    newOutput, outputOn, newAmplifier,
    chooseRail: () => chooseAll(selected.line?.speakers.map(s => s.id) ?? []),
    chooseAlike: () => { if (store.job && selected.speaker) chooseAll(allAlike(store.job, selected.speaker, 'all', selected.selection.outputId)) },
    makeKind, put, putBeforeThese, tap,
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
