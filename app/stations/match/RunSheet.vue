<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, useTemplateRef, watch } from 'vue'
import { navigateTo, useRoute } from '#imports'
import { firstWrong } from '#core/check/proof'
import type { ReadingKind } from '#core/job/schema'
import { worstLine } from '#core/line/evaluate'
import ActionRow from '~/components/ActionRow.vue'
import KeyCap from '~/components/KeyCap.vue'
import type { ActionTarget } from '~/composables/action'
import AmplifierBox from '~/stations/match/rail/AmplifierBox.vue'
import RailRow from '~/stations/match/rail/RailRow.vue'
import type BeginHereForm from '~/stations/match/begin/BeginHere.vue'
import SheetDialogs from '~/stations/match/dialogs/SheetDialogs.vue'
import { MOUSE_WORDS, sheetActions, type SheetDialog } from '~/stations/match/keys'
import { placesNamed, type FoundPlace } from '~/stations/match/search'
import { match as matchStation } from '~/stations/match/station'
import { space as spaceStation } from '~/stations/space/station'
import { addressOf } from '~/stations/station'
import { useJobKeys } from '~/stations/useJobKeys'
import { catchUp } from '~/composables/useAfterPaint'
import { goInto } from '~/composables/fetchedLater'
import { NARROW, useMedia } from '~/composables/useMedia'
import { useKeys } from '~/composables/useKeys'
import { useFoldStore } from '~/stations/match/rail/foldStore'
import { useClip } from '~/stations/match/useClip'
import { useRailMarks } from '~/stations/match/rail/useRailMarks'
import { useGradualRails } from '~/stations/match/rail/useGradualRails'
import { useSheetActions } from '~/stations/match/useSheetActions'
import { useSplit } from '~/stations/match/useSplit'
import { useSheetPointer } from '~/stations/match/rail/useSheetPointer'
import { useJobStore } from '~/stores/job'
import { useMatchPaneStore, type PaneMode } from '~/stations/match/pane'
import { trace as traceStation } from '~/stations/trace/station'
import { useEvaluationStore } from '~/stores/evaluation'
import { useSelectionStore } from '~/stores/selection'
import { elementOf } from '~/composables/elements'
import FindBox from '~/components/shell/FindBox.vue'
import { KeysDialog } from '~/components/shell/opened'
import { ActionMenu, BeginHere, PasteDialog, PracticeForm, rooms, SheetPane } from '~/stations/match/parts'

const store = useJobStore()
const matchPane = useMatchPaneStore()
const evaluation = useEvaluationStore()
const selected = useSelectionStore()
const actions = useSheetActions()
const route = useRoute()
const { common, keysOpen, findOpen } = useJobKeys()
const readingKind = ref<ReadingKind>('line-impedance')
const rails = useTemplateRef<HTMLElement>('rails')
const dialog = ref<SheetDialog | null>(null)

/** By their list, which an edit of the wiring leaves as it is: a new map with every key drew all rails again (25 ms of each key on 25 rails). */
const kindList = computed(() => store.job?.kinds)
const kinds = computed(() => new Map(kindList.value?.map(k => [k.id, k])))
const zoneList = computed(() => store.job?.zones)
const zones = computed(() => new Map(zoneList.value?.map(z => [z.id, z.name])))
const spaceList = computed(() => store.job?.spaces)
const spaces = computed(() => new Map(spaceList.value?.map(s => [s.id, s.name])))
const spaceOf = computed(() => new Map(spaceList.value?.flatMap(s => s.spots.flatMap(p => p.nodeId === null ? [] : [[p.nodeId, s.id] as const]))))
const amplifiers = computed(() => store.job?.amplifiers ?? [])
const folds = useFoldStore()
const { isDrawn } = useGradualRails()
const { suspects, chosenOf } = useRailMarks()

// The width of the rails is what the window leaves; measured once per change, never per row.
let observer: ResizeObserver | undefined
const isNarrow = useMedia(NARROW)
onMounted(() => {
  const narrow = matchMedia('(max-width: 760px)')
  observer = new ResizeObserver(([entry]) => { folds.railWidth = Math.max(230, Math.floor(entry!.contentRect.width) - (narrow.matches ? 60 : 166)) })
  if (rails.value) observer.observe(rails.value)
  const wanted = selected.asked(route.query.line)
  if (wanted !== null && selected.selection.outputId !== wanted) selected.select(wanted)
  // An address of before, when tracing was a query.
  if (route.query.pane === 'trace') setMode('trace')
  if (document.activeElement === document.body) void actions.focusSelection('where it is')
})
onBeforeUnmount(() => observer?.disconnect())
// With nothing asked for, what is worst is looked at first; which that is shows when all is worked out.
watch(() => evaluation.isWhole, (isWhole) => {
  if (!isWhole) return
  if (selected.selection.outputId === null && selected.asked(route.query.line) === null) selected.select(worstLine(evaluation.lines)?.outputId ?? null)
  if (route.params.pane === 'trace') selectWorst()
  if (document.activeElement === document.body) void actions.focusSelection(isNarrow.value ? 'where it is' : 'brought into view')
}, { immediate: true })
watch(() => route.params.pane, (pane) => {
  if (pane === 'trace') {
    matchPane.mode = 'trace'
    // In a narrow window the station is its sheet: whoever goes there wants what is suspected, not the rails alone.
    matchPane.drawn = 'up'
    selectWorst()
  }
  else if (matchPane.mode === 'trace') {
    matchPane.mode = 'findings'
    matchPane.drawn = 'away'
  }
}, { immediate: true })

/** Tracing begins at the line that reads wrong. */
function selectWorst(): void {
  const current = selected.proof
  if (current && (current.wrong > 0 || current.unproved.length > 0)) return
  const worst = evaluation.lines.find(l => (evaluation.proofs.get(l.outputId)?.wrong ?? 0) > 0)
  if (worst) selected.select(worst.outputId)
}

/** Another pane; tracing is a station of its own, with its own address. */
function setMode(mode: PaneMode): void {
  matchPane.mode = mode
  actions.moving.value = false
  const path = addressOf(String(route.params.id), mode === 'trace' ? traceStation : matchStation)
  if (path !== route.path || route.query.rename || route.query.pane) {
    void navigateTo({ path, query: selected.selection.outputId ? { line: selected.selection.outputId } : {} }, { replace: true })
  }
}

async function enterPane(mode: PaneMode): Promise<void> {
  if (selected.selection.outputId === null) return
  matchPane.drawn = 'up'
  setMode(mode)
  catchUp()
  const first = mode === 'check' ? '.entry input, .entry button' : mode === 'change' ? 'form input' : '[role=radio], .offer, button'
  const within = first.split(', ').map(css => `.sheet > .pane .body ${css}`).join(', ')
  await goInto(within)
}

/** After a repair: read again what was read wrong. */
async function again(): Promise<void> {
  const bad = selected.proof && firstWrong(selected.proof)
  if (bad) {
    readingKind.value = bad.reading.kind
    selected.select(bad.reading.outputId, bad.reading.nodeId)
  }
  else {
    readingKind.value = 'line-impedance'
    selected.select(selected.selection.outputId, null)
  }
  await enterPane('check')
}

function seek({ outputId, nodeId }: FoundPlace): void {
  actions.go(outputId, nodeId)
}

/** In a narrow window the same list has a field to look in: a menu of forty lines is a long way for a thumb. */
function showMore(event: Event): void {
  if (isNarrow.value) findOpen.value = true
  else menu.value?.show(event)
}

const begin = useTemplateRef<InstanceType<typeof BeginHereForm>>('begin')
function begun(outputId: string, nodeIds: string[]): void {
  matchPane.mode = 'change'
  actions.go(outputId, nodeIds[0] ?? null)
}
/** A first room, or with rooms there already the way to them. */
async function beginRoom(): Promise<void> {
  const { firstRoom } = await rooms()
  firstRoom()
  await navigateTo({ path: addressOf(String(route.params.id), spaceStation) })
  await goInto('.space-form input')
}

/** A number chooses among what is offered: what to begin with, remedies, or rails to move to. */
function choose(number: number): void {
  if (begin.value) return begin.value.choose(number)
  const { value: putting } = actions.putting
  if (putting) return putting.reaches[number - 1] ? actions.putBeforeThese(putting.kind, putting.reaches[number - 1]!.nodeIds) : undefined
  if (!actions.moving.value) return actions.remedy(number)
  if (number === 0) return actions.moveToNewOutput()
  const target = evaluation.lines.filter(l => l.outputId !== selected.selection.outputId)[number - 1]
  if (target) actions.move({ outputId: target.outputId })
}

const splitLine = useSplit()
const { clip, unread, hangHere } = useClip(actions.chooseAll)
const isUnread = computed({ get: () => unread.value !== null, set: (open) => { if (!open) unread.value = null } })
const menu = useTemplateRef<{ show: (event: Event) => void }>('menu')
const target = computed((): ActionTarget => selected.isMany ? 'many' : selected.throughGroup ? 'control' : selected.selection.nodeId === null ? 'rail' : 'speaker')
const bindings = [...sheetActions({
  along: actions.along, between: actions.between, toEnd: actions.end, toHead: () => actions.go(selected.selection.outputId, null),
  chooseAlong: actions.chooseAlong, chooseRail: actions.chooseRail, chooseAlike: actions.chooseAlike, makeKind: actions.makeKind, fold: actions.fold, clip,
  tap: actions.tap, add: actions.add, copyBehind: actions.copyBehind, remove: actions.remove,
  beginMove: () => {
    actions.moving.value = selected.ids.length > 0
    if (actions.moving.value) matchPane.drawn = 'up'
  },
  reorder: actions.reorder, join: actions.join, put: actions.put, apart: actions.apart,
  show: setMode, enter: mode => void enterPane(mode), choose, newOutput: actions.newOutput,
  toTest: () => {
    void enterPane('trace').then(() => goInto('.next .walk button, .next input, .next .answer'))
  },
  newAmplifier: actions.newAmplifier,
  splitLine,
  open: (name) => {
    const isOfLoads = name === 'clip' || name === 'match'
    if (isOfLoads && selected.line?.kind !== 'low-impedance') store.sayNot('That is asked of an output into loads; this is a transformer line.')
    else dialog.value = name
  },
  leave: () => {
    actions.leaveQuestion()
    matchPane.drawn = 'away'
    if (selected.isMany) selected.select(selected.selection.outputId, selected.selection.nodeId)
    void actions.focusSelection()
  },
}), ...common]
useKeys(() => bindings, () => target.value)

function press(outputId: string, nodeId: string | null, how: 'alone' | 'to' | 'too'): void {
  actions.leaveQuestion()
  if (matchPane.drawn === 'away') matchPane.drawn = 'head'
  const fold = nodeId === null ? null : folds.foldAt(outputId, nodeId)
  if (nodeId === null) selected.select(outputId)
  else if (fold && how === 'too') selected.chooseAll(selected.chosen.has(nodeId) ? selected.ids.filter(id => !fold.includes(id)) : [...selected.ids, ...fold])
  else if (fold && how === 'alone') selected.chooseAll(fold)
  else if (how === 'alone') selected.select(outputId, nodeId)
  else if (how === 'to') selected.chooseTo(outputId, fold?.at(-1) ?? nodeId)
  else selected.chooseToo(outputId, nodeId)
  void actions.focusSelection()
}

const isHeld = (nodeIds: readonly string[]) => nodeIds.every(id => selected.chosen.has(id))
const { frame, held } = useSheetPointer(rails, {
  hold: (nodeIds) => { if (!isHeld(nodeIds)) selected.chooseAll(nodeIds) },
  drop: to => actions.move(to),
  frame: (nodeIds) => { if (nodeIds.length > 0) actions.chooseAll(nodeIds) },
  menu: (event, { outputId, nodeIds }) => {
    if (nodeIds.length === 0) selected.select(outputId)
    else if (!isHeld(nodeIds)) selected.chooseAll(nodeIds)
    menu.value?.show(event)
  },
})
/** Of the tag that a speaker is drawn in. */
const tagId = (nodeId: string) => `tag-${evaluation.lines.map(l => folds.foldAt(l.outputId, nodeId)).find(fold => fold)?.[0] ?? nodeId}`
/** The edge of the tag, or the rail, at which what is held would be put down. */
const dropMark = computed(() => {
  const place = held.value?.place
  if (!place) return null
  const element = 'outputId' in place
    ? document.getElementById(`rail-${place.outputId}`)?.closest('.rail-row')
    : document.getElementById(tagId('afterId' in place ? place.afterId : place.beforeId))
  const box = element?.getBoundingClientRect()
  if (!box) return null
  return 'outputId' in place
    ? { left: `${box.left + 54}px`, top: `${box.bottom - 4}px`, width: `${box.width - 54}px`, height: '3px' }
    : { left: `${'afterId' in place ? box.right + 2 : box.left - 5}px`, top: `${box.top}px`, width: '3px', height: `${box.height}px` }
})

/** Escape leaves a field of the pane for the sheet. */
function leavePane(event: KeyboardEvent): void {
  if (event.key !== 'Escape' || elementOf(event)?.closest('[role=dialog],[role=listbox]')) return
  void actions.focusSelection()
}

/** A closed list keeps Escape to itself: it is heard before. */
function leaveList(event: KeyboardEvent): void {
  if (elementOf(event)?.matches('[role=combobox][aria-expanded=false]')) leavePane(event)
}
</script>

<template>
  <div>
    <div class="sheet" :class="{ alone: amplifiers.length === 0 }">
      <main ref="rails" class="rails" aria-label="Run sheet">
        <BeginHere
          v-if="amplifiers.length === 0" ref="begin" class="empty" @room="beginRoom" @amplifier="actions.newAmplifier()" @begun="begun" />
        <section v-for="amplifier in amplifiers" :key="amplifier.id" class="amplifier" :aria-label="amplifier.name">
          <AmplifierBox :amplifier="amplifier" @output="actions.outputOn(amplifier.id)" />
          <div class="rows">
            <template v-for="output in amplifier.outputs" :key="output.id">
              <RailRow
                v-if="isDrawn(output.id) && evaluation.lineById.has(output.id)"
                :line="evaluation.lineById.get(output.id)!" :proof="evaluation.proofs.get(output.id)!" :width="folds.railWidth"
                :practice="store.opened.practice" :kinds="kinds" :zones="zones" :space-of="spaceOf" :spaces="spaces"
                :selected-id="selected.selection.outputId === output.id ? selected.selection.nodeId ?? '' : null"
                :suspects="selected.selection.outputId === output.id ? suspects : null"
                :chosen="chosenOf(output.id)"
                :folds="folds.foldsOf(output.id)" :fold-state="folds.state(evaluation.lineById.get(output.id)!)"
                @select="(nodeId, how) => press(output.id, nodeId, how)" @fold="folds.toggle(evaluation.lineById.get(output.id)!)"
              />
            </template>
            <p v-if="amplifier.outputs.length === 0" class="soft none">No output on it. <button
              class="act" type="button"
              @click="actions.outputOn(amplifier.id)">add one</button></p>
          </div>
        </section>
        <button v-if="amplifiers.length > 0" class="act more" type="button" @click="actions.newAmplifier()">+ amplifier <KeyCap of="A" /></button>
      </main>
      <SheetPane
        v-if="amplifiers.length > 0" v-model:kind="readingKind" v-model:lead-there="actions.leadThere.value"
        :moving="actions.moving.value" :putting="actions.putting.value"
        :actions="bindings" :target="target" @mode="setMode" @move="actions.move"
        @move-to-new="actions.moveToNewOutput"
        @leave="actions.leaveQuestion" @put="actions.putBeforeThese" @again="again" @keydown="leavePane" @keydown.capture="leaveList"
        @more="showMore" @choose="actions.chooseAll" @make-kind="actions.makeKind"
        @new-output="actions.newOutputFor" @cable-list="dialog = 'cable-list'" />
    </div>
    <footer class="foot" :class="`is-${matchPane.drawn}`">
      <ActionRow v-if="selected.selection.outputId !== null" class="row" :actions="bindings" :target="target" @more="showMore" />
      <button class="act find" type="button" @click="findOpen = true">find <KeyCap of="/" /></button>
      <PracticeForm />
    </footer>
    <div
      v-if="frame" class="frame"
      :style="{ left: `${frame.left}px`, top: `${frame.top}px`, width: `${frame.width}px`, height: `${frame.height}px` }" />
    <template v-if="held">
      <p class="held" :style="{ left: `${held.x + 12}px`, top: `${held.y + 12}px` }">
        {{ selected.throughGroup ? selected.throughGroup.through.label : selected.isMany ? `${selected.ids.length} speakers` : selected.speaker?.label }}</p>
      <div v-if="dropMark" class="drop" :style="dropMark" />
    </template>
    <ActionMenu ref="menu" :actions="bindings" :target="target" />
    <SheetDialogs v-model="dialog" :line="selected.line ?? undefined" />
    <PasteDialog v-if="unread" v-model:open="isUnread" :text="unread.text" :usual="unread.usual" @hang="hangHere" />
    <FindBox v-model:open="findOpen" :actions="bindings" :target="target" :places="words => placesNamed(evaluation.lines, words)" @place="seek" />
    <KeysDialog v-model:open="keysOpen" :bindings="bindings" :mouse="MOUSE_WORDS" />
  </div>
</template>

<style scoped>
.sheet { display: grid; grid-template-columns: minmax(0, 1fr) 366px; height: calc(100vh - 50px - 51px - 40px); }
.sheet.alone { grid-template-columns: minmax(0, 1fr); }
.rails { overflow-y: auto; overflow-x: hidden; padding: 12px 0 20px 18px; }
.amplifier { display: grid; grid-template-columns: 138px minmax(0, 1fr); margin-bottom: 10px; }
.rows { min-width: 0; }
.none { padding: 14px 24px; }
.more { margin-left: 2px; }
.foot { display: flex; align-items: center; gap: 4px 22px; height: 40px; border-top: 1px solid var(--rule); padding: 0 22px; font-size: 14px;
  color: var(--ink-soft); }
.row { flex: 1; }
.find { font-size: 14px; margin-left: auto; }
.frame { position: fixed; z-index: 8; border: 1.5px dashed var(--ink); background: color-mix(in srgb, var(--ink) 7%, transparent); pointer-events: none; }
.held { position: fixed; z-index: 9; padding: 3px 8px; background: var(--ink); color: var(--paper); font-weight: 600; pointer-events: none; }
.drop { position: fixed; z-index: 8; background: var(--ink); pointer-events: none; }
@media (min-width: 1600px) { .sheet { grid-template-columns: minmax(0, 1fr) 440px; } }
@media (max-width: 1000px) {
  .sheet { grid-template-columns: minmax(0, 1fr); height: auto; }
  /* Room to scroll the last tags above the sheet that lies over the foot of the page. */
  .foot { height: auto; flex-wrap: wrap; padding: 8px 14px 20px; }
  .foot.is-head { padding-bottom: 300px; }
  .foot.is-up { padding-bottom: 66vh; }
  .row { display: none; }
  .rails { overflow: visible; padding-left: 8px; }
}
@media (max-width: 760px) {
  /* The amplifier above its rails: beside them it took a fifth of the width. */
  .amplifier { grid-template-columns: minmax(0, 1fr); }
  .rows { margin-left: 54px; border-left: 1.5px solid var(--ink); }
}
</style>
