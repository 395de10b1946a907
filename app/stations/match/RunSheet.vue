<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { navigateTo, useRoute } from '#imports'
import Button from 'primevue/button'
import { firstWrong } from '#core/check/proof'
import type { ReadingKind } from '#core/job/schema'
import { worstLine } from '#core/match/evaluate'
import KeyCap from '~/components/KeyCap.vue'
import RailRow from '~/stations/match/RailRow.vue'
import SheetPane from '~/stations/match/SheetPane.vue'
import PracticeForm from '~/stations/match/PracticeForm.vue'
import SeekBox from '~/stations/match/SeekBox.vue'
import { sheetKeys } from '~/stations/match/keys'
import { findPlace } from '~/stations/match/search'
import KeysDialog from '~/components/shell/KeysDialog.vue'
import { match as matchStation } from '~/stations/match/station'
import { addressOf } from '~/stations/station'
import { useJobKeys } from '~/stations/useJobKeys'
import { useKeys } from '~/composables/useKeys'
import { useGradualRails } from '~/stations/match/useGradualRails'
import { useSheetActions } from '~/stations/match/useSheetActions'
import { useJobStore } from '~/stores/job'
import { useMatchPaneStore, type PaneMode } from '~/stations/match/pane'
import { trace as traceStation } from '~/stations/trace/station'
import { useTraceStore } from '~/stations/trace/suspects'
import { useEvaluationStore } from '~/stores/evaluation'
import { useSelectionStore } from '~/stores/selection'

const store = useJobStore()
const matchPane = useMatchPaneStore()
const trace = useTraceStore()
const evaluation = useEvaluationStore()
const selected = useSelectionStore()
const actions = useSheetActions()
const route = useRoute()
const { common, keysOpen } = useJobKeys()
const readingKind = ref<ReadingKind>('line-impedance')
const railWidth = shallowRef(720)
const rails = useTemplateRef<HTMLElement>('rails')
const paneView = useTemplateRef<InstanceType<typeof SheetPane>>('paneView')
const finding = ref(false)

const amplifiers = computed(() => store.job?.amplifiers ?? [])
const { isDrawn } = useGradualRails()
const suspectsOf = computed(() => {
  if (matchPane.mode !== 'trace') return null
  const places = new Map<string, { rank: number, chosen: boolean, inCable: boolean }>()
  trace.suspects.forEach(({ fault }, k) => {
    if (!fault?.nodeId) return
    const place = places.get(fault.nodeId)
    const chosen = k === trace.chosenSuspect
    if (!place) places.set(fault.nodeId, { rank: k + 1, chosen, inCable: fault.kind === 'break-in-reach' })
    else if (chosen) place.chosen = true
  })
  return places
})

// The width of the rails is what the window leaves; measured once per change, never per row.
let observer: ResizeObserver | undefined
onMounted(() => {
  observer = new ResizeObserver(([entry]) => { railWidth.value = Math.max(290, Math.floor(entry!.contentRect.width) - 146) })
  if (rails.value) observer.observe(rails.value)
  const wanted = selected.asked(route.query.line)
  if (wanted !== null && selected.selection.outputId !== wanted) selected.select(wanted)
  // An address of before, when tracing was a query.
  if (route.query.pane === 'trace') setMode('trace')
  if (document.activeElement === document.body) void actions.focusSelection()
})
onBeforeUnmount(() => observer?.disconnect())
// With nothing asked for, what is worst is looked at first; which that is shows when all is worked out.
watch(() => evaluation.isWhole, (isWhole) => {
  if (!isWhole) return
  if (selected.selection.outputId === null && selected.asked(route.query.line) === null) selected.select(worstLine(evaluation.lines)?.outputId ?? null)
  if (route.params.pane === 'trace') selectWorst()
  if (document.activeElement === document.body) void actions.focusSelection()
}, { immediate: true })
watch(() => route.params.pane, (pane) => {
  if (pane === 'trace') {
    matchPane.mode = 'trace'
    selectWorst()
  }
  else if (matchPane.mode === 'trace') matchPane.mode = 'findings'
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
  setMode(mode)
  await nextTick()
  const first = mode === 'check' ? '.entry input, .entry button' : mode === 'change' ? 'form input' : '[role=radio], .offer, button'
  paneView.value?.pane?.querySelector<HTMLElement>(first)?.focus()
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

function seek(words: string): void {
  finding.value = false
  const found = findPlace(evaluation.lines, words)
  if (found) return actions.go(found.outputId, found.nodeId)
  if (words.trim() !== '') store.said = `nothing called “${words.trim()}” here`
  void actions.focusSelection()
}

/** A number chooses among what is offered: remedies, or rails to move to. */
function choose(number: number): void {
  if (!actions.moving.value) return actions.remedy(number)
  const target = evaluation.lines.filter(l => l.outputId !== selected.selection.outputId)[number - 1]
  if (target) actions.move(target.outputId)
}

const bindings = [...sheetKeys({
  along: actions.along, between: actions.between, toEnd: actions.end, toHead: () => actions.go(selected.selection.outputId, null),
  tap: actions.tap, add: actions.add,
  remove: actions.remove, beginMove: () => { actions.moving.value = selected.selection.nodeId !== null }, reorder: actions.reorder,
  join: actions.join, apart: actions.apart,
  show: setMode, enter: mode => void enterPane(mode), choose, newOutput: actions.newOutput,
  newAmplifier: actions.newAmplifier, find: () => { finding.value = true },
  leave: () => {
    actions.moving.value = false
    void actions.focusSelection()
  },
}), ...common]
useKeys(() => bindings)

/** Escape leaves a field of the pane for the sheet. */
function leavePane(event: KeyboardEvent): void {
  if (event.key !== 'Escape' || (event.target as HTMLElement).closest('[role=dialog],[role=listbox]')) return
  void actions.focusSelection()
}

const ratingText = (amplifierId: string) => {
  const outputs = amplifiers.value.find(a => a.id === amplifierId)?.outputs ?? []
  return `${outputs.length} ${outputs.length === 1 ? 'output' : 'outputs'}`
}
</script>

<template>
  <div>
    <div class="sheet">
      <main ref="rails" class="rails" aria-label="Run sheet">
        <section v-if="amplifiers.length === 0" class="empty">
          <p>Nothing drawn yet. Begin with the amplifier: its outputs become the rails, and the speakers hang on them.</p>
          <Button label="Add an amplifier" @click="actions.newAmplifier()" />
          <p class="soft">Or type the whole line at <NuxtLink to="/quick">quick match</NuxtLink> and keep it as a job.</p>
        </section>
        <section v-for="amplifier in amplifiers" :key="amplifier.id" class="amplifier" :aria-label="amplifier.name">
          <div class="box">
            <p class="amp-name">{{ amplifier.name }}</p>
            <p class="soft small">{{ amplifier.place }}</p>
            <p class="soft small">{{ ratingText(amplifier.id) }}</p>
            <button
              class="act small add" type="button" :aria-label="`add an output to ${amplifier.name}`"
              @click="actions.outputOn(amplifier.id)">+ output</button>
          </div>
          <div class="rows">
            <template v-for="output in amplifier.outputs" :key="output.id">
              <RailRow
                v-if="isDrawn(output.id) && evaluation.lineById.has(output.id)"
                :line="evaluation.lineById.get(output.id)!" :proof="evaluation.proofs.get(output.id)!" :width="railWidth"
                :selected-id="selected.selection.outputId === output.id ? selected.selection.nodeId ?? '' : null"
                :suspects="selected.selection.outputId === output.id ? suspectsOf : null"
                @select="nodeId => selected.select(output.id, nodeId)"
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
        ref="paneView" v-model:kind="readingKind" :moving="actions.moving.value" @mode="setMode" @move="actions.move"
        @leave="actions.moving.value = false" @again="again" @keydown="leavePane" />
    </div>
    <footer class="foot">
      <span class="hint"><KeyCap of="← →" /> along the rail</span>
      <span class="hint"><KeyCap of="↑ ↓" /> between rails</span>
      <span class="hint"><KeyCap of="- =" /> tap down, up</span>
      <span class="hint"><KeyCap of="m" /> move</span>
      <button class="act hint" type="button" @click="actions.add()"><KeyCap of="a" /> add after</button>
      <button class="act hint" type="button" @click="enterPane('check')"><KeyCap of="r" /> record a reading</button>
      <button class="act hint" type="button" @click="finding = true"><KeyCap of="/" /> find</button>
      <PracticeForm />
    </footer>
    <SeekBox v-if="finding" @found="seek" @close="finding = false" />
    <KeysDialog v-model:open="keysOpen" :bindings="bindings" />
  </div>
</template>

<style scoped>
.sheet { display: grid; grid-template-columns: minmax(0, 1fr) 366px; height: calc(100vh - 50px - 51px - 40px); }
.rails { overflow-y: auto; overflow-x: hidden; padding: 12px 0 20px 18px; }
.amplifier { display: grid; grid-template-columns: 118px minmax(0, 1fr); margin-bottom: 10px; }
.box { border: 1.5px solid var(--ink); background: var(--paper-raised); padding: 11px 10px 8px 11px; position: relative; display: flex;
  flex-direction: column; gap: 2px; }
.amp-name { font-weight: 700; line-height: 1.25; }
.add { margin-top: auto; }
.rows { min-width: 0; }
.none { padding: 14px 24px; }
.more { margin-left: 2px; }
.empty { padding: 50px 30px; display: grid; gap: 14px; justify-items: start; max-width: 560px; }
.foot { display: flex; align-items: center; gap: 4px 20px; height: 40px; border-top: 1px solid var(--rule); padding: 0 22px; font-size: 14px;
  color: var(--ink-soft); overflow: hidden; }
.hint { white-space: nowrap; display: inline-flex; gap: 7px; align-items: center; font-size: 14px; }
@media (max-width: 1000px) {
  .sheet { grid-template-columns: minmax(0, 1fr); height: auto; }
  .foot { height: auto; flex-wrap: wrap; padding: 8px 14px; }
  .rails { overflow: visible; padding-left: 8px; }
  .sheet :deep(.pane) { border-left: 0; border-top: 1px solid var(--rule); }
}
@media (max-width: 760px) {
  .amplifier { grid-template-columns: 84px minmax(0, 1fr); }
  .box { padding: 8px 6px; }
  .amp-name { font-size: 13.5px; }
  .hint { display: none; }
  }
</style>
