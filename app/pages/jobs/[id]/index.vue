<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from '#imports'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { POWER_SCHOOLS } from '#core/practice/power'
import { RESERVE_SCHOOLS } from '#core/practice/reserve'
import { firstWrong } from '#core/check/proof'
import { setting } from '#core/job/edits'
import type { Practice, ReadingKind } from '#core/job/schema'
import KeyCap from '~/components/KeyCap.vue'
import RailRow from '~/components/sheet/RailRow.vue'
import SheetPane from '~/components/sheet/SheetPane.vue'
import KeysDialog from '~/components/shell/KeysDialog.vue'
import { useJobKeys } from '~/composables/useJobKeys'
import { useKeys, type KeyBinding } from '~/composables/useKeys'
import { useGradualRails } from '~/composables/useGradualRails'
import { useSheetActions } from '~/composables/useSheetActions'
import { useJobStore } from '~/stores/job'
import { useSheetStore, type PaneMode } from '~/stores/sheet'

const store = useJobStore()
const sheet = useSheetStore()
const actions = useSheetActions()
const route = useRoute()
const router = useRouter()
const { common, keysOpen } = useJobKeys()
const readingKind = ref<ReadingKind>('line-impedance')
const railWidth = shallowRef(720)
const rails = useTemplateRef<HTMLElement>('rails')
const paneView = useTemplateRef<InstanceType<typeof SheetPane>>('paneView')
const finding = ref(false)
const sought = ref('')
const seekBox = useTemplateRef<HTMLElement>('seekBox')

const amplifiers = computed(() => store.job?.amplifiers ?? [])
const { isDrawn } = useGradualRails()
const suspectsOf = computed(() => {
  if (sheet.mode !== 'trace') return null
  const places = new Map<string, { rank: number, chosen: boolean, inCable: boolean }>()
  sheet.suspects.forEach((s, k) => {
    if (s.fault && !places.has(s.fault.nodeId)) places.set(s.fault.nodeId, { rank: k + 1, chosen: k === sheet.chosenSuspect, inCable: s.fault.kind === 'break-in-reach' })
    else if (s.fault && k === sheet.chosenSuspect) places.get(s.fault.nodeId)!.chosen = true
  })
  return places
})

// The width of the rails is what the window leaves; measured once per change, never per row.
let observer: ResizeObserver | undefined
onMounted(() => {
  observer = new ResizeObserver(([entry]) => { railWidth.value = Math.max(290, Math.floor(entry!.contentRect.width) - 146) })
  if (rails.value) observer.observe(rails.value)
  const wanted = typeof route.query.line === 'string' && sheet.lineById.has(route.query.line) ? route.query.line : null
  if (wanted !== null && sheet.selection.outputId !== wanted) sheet.select(wanted)
  else if (sheet.selection.outputId === null) sheet.select((sheet.lines.find(l => l.grade === 'stop') ?? sheet.lines.find(l => l.grade === 'tight') ?? sheet.lines[0])?.outputId ?? null)
  setMode(route.query.pane === 'trace' ? 'trace' : sheet.mode === 'trace' ? 'findings' : sheet.mode)
  if (document.activeElement === document.body) void actions.focusSelection()
})
onBeforeUnmount(() => observer?.disconnect())
watch(() => route.query.pane, (pane) => {
  if (pane === 'trace') {
    sheet.mode = 'trace'
    selectWorst()
  }
  else if (sheet.mode === 'trace') sheet.mode = 'findings'
}, { immediate: true })

/** Tracing begins at the line that reads wrong. */
function selectWorst(): void {
  const current = sheet.proof
  if (current && (current.wrong > 0 || current.unproved.length > 0)) return
  const worst = sheet.lines.find(l => (sheet.proofs.get(l.outputId)?.wrong ?? 0) > 0)
  if (worst) sheet.select(worst.outputId)
}

function setMode(mode: PaneMode): void {
  sheet.mode = mode
  actions.moving.value = false
  const query = { ...route.query, rename: undefined, pane: mode === 'trace' ? 'trace' : undefined }
  void router.replace({ query })
}

async function enterPane(mode: PaneMode): Promise<void> {
  if (sheet.selection.outputId === null) return
  setMode(mode)
  await nextTick()
  const first = mode === 'check' ? '.entry input, .entry button' : mode === 'change' ? 'form input' : '[role=radio], .offer, button'
  paneView.value?.pane?.querySelector<HTMLElement>(first)?.focus()
}

/** After a repair: read again what was read wrong. */
async function again(): Promise<void> {
  const bad = sheet.proof && firstWrong(sheet.proof)
  if (bad) {
    readingKind.value = bad.reading.kind
    sheet.select(bad.reading.outputId, bad.reading.nodeId)
  }
  else {
    readingKind.value = 'line-impedance'
    sheet.select(sheet.selection.outputId, null)
  }
  await enterPane('check')
}

async function seek(): Promise<void> {
  finding.value = true
  await nextTick()
  seekBox.value?.querySelector('input')?.focus()
}
function found(): void {
  const words = sought.value.trim().toLowerCase()
  finding.value = false
  sought.value = ''
  if (words === '') return void actions.focusSelection()
  for (const line of sheet.lines) {
    const lineText = `${line.output.label} ${line.output.name}`.toLowerCase()
    const rest = words.replace(line.output.label.toLowerCase(), '').trim()
    const speaker = line.speakers.find(s => (words.startsWith(line.output.label.toLowerCase()) ? rest !== '' && s.label.toLowerCase().includes(rest) : `${s.label} ${s.name}`.toLowerCase().includes(words)))
    if (speaker) return actions.go(line.outputId, speaker.id)
    if (lineText.includes(words)) return actions.go(line.outputId, null)
  }
  store.said = `nothing called “${words}” here`
  void actions.focusSelection()
}

const digit = (event: KeyboardEvent) => {
  const number = Number(event.key)
  if (!actions.moving.value) return actions.remedy(number)
  const target = sheet.lines.filter(l => l.outputId !== sheet.selection.outputId)[number - 1]
  if (target) actions.move(target.outputId)
}

const bindings = computed((): KeyBinding[] => [
  { keys: ['ArrowLeft', 'ArrowRight'], says: 'along the rail', run: e => actions.along(e.key === 'ArrowRight' ? 1 : -1) },
  { keys: ['ArrowUp', 'ArrowDown'], says: 'between rails', run: e => actions.between(e.key === 'ArrowDown' ? 1 : -1) },
  { keys: ['Home', 'End'], says: 'head or end of the rail', run: e => e.key === 'End' ? actions.end() : actions.go(sheet.selection.outputId, null) },
  { keys: ['-', '='], says: 'tap down, up', run: e => actions.tap(e.key === '=' ? 1 : -1) },
  { keys: ['+'], shown: '+', says: 'tap up', run: () => actions.tap(1) },
  { keys: ['a'], says: 'add a speaker after this one', run: () => actions.add() },
  { keys: ['x', 'Delete'], says: 'take this speaker off', run: () => actions.remove() },
  { keys: ['m'], says: 'move to another rail', run: () => { actions.moving.value = sheet.selection.nodeId !== null } },
  { keys: ['Shift+ArrowLeft', 'Shift+ArrowRight'], says: 'change places along the rail', run: e => actions.reorder(e.key === 'ArrowRight' ? 1 : -1) },
  { keys: ['s'], says: 'in series with the next', run: () => actions.join('series') },
  { keys: ['S'], says: 'from one point with the next', run: () => actions.join('star') },
  { keys: ['d'], says: 'open this group', run: () => actions.apart() },
  { keys: ['f'], says: 'findings', run: () => setMode('findings') },
  { keys: ['1', '2', '3', '4', '5', '6', '7', '8', '9'], shown: '1…9', says: 'do what is offered', run: digit },
  { keys: ['e', 'Enter'], says: 'change: tap, cable, length, names', run: () => void enterPane('change') },
  { keys: ['r'], says: 'record a reading', run: () => void enterPane('check') },
  { keys: ['t'], says: 'trace a fault', run: () => void enterPane('trace') },
  { keys: ['o'], says: 'add an output', run: () => actions.newOutput() },
  { keys: ['A'], says: 'add an amplifier', run: () => actions.newAmplifier() },
  { keys: ['/'], says: 'find a speaker or line', run: () => void seek() },
  { keys: ['Escape'], says: 'back to the sheet', run: () => { actions.moving.value = false; void actions.focusSelection() } },
  ...common,
])
useKeys(() => bindings.value)

/** Escape leaves a field of the pane for the sheet. */
function leavePane(event: KeyboardEvent): void {
  if (event.key !== 'Escape' || (event.target as HTMLElement).closest('[role=dialog],[role=listbox]')) return
  void actions.focusSelection()
}

function setPractice(to: Partial<Practice>): void {
  const { job } = store
  if (job) store.edit({ kind: 'practice.set', ...setting<Practice, Partial<Practice>>(job.practice, to) })
}
const hasPlain = computed(() => sheet.lines.some(l => l.kind === 'low-impedance'))
const hasLine = computed(() => sheet.lines.some(l => l.kind === 'constant-voltage') || !hasPlain.value)
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
                v-if="isDrawn(output.id)" :line="sheet.lineById.get(output.id)!" :proof="sheet.proofs.get(output.id)!" :width="railWidth"
                :selected-id="sheet.selection.outputId === output.id ? sheet.selection.nodeId ?? '' : null"
                :suspects="sheet.selection.outputId === output.id ? suspectsOf : null"
                @select="nodeId => sheet.select(output.id, nodeId)"
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
      <button class="act hint" type="button" @click="seek"><KeyCap of="/" /> find</button>
      <span class="practice">
        <template v-if="hasLine">
          <label for="reserve" class="soft small">reserve</label>
          <Select
            input-id="reserve" aria-label="reserve rule" :model-value="store.job!.practice.reserve" :options="[...RESERVE_SCHOOLS]" option-label="name"
            option-value="id" size="small" @update:model-value="setPractice({ reserve: $event })">
            <template #option="{ option }"><span class="school"><b>{{ option.name }}</b><span
              class="soft small">{{ option.says }}. {{ option.suits }}</span></span></template>
          </Select>
        </template>
        <template v-if="hasPlain">
          <label for="power" class="soft small">power</label>
          <Select
            input-id="power" aria-label="power rule" :model-value="store.job!.practice.power" :options="[...POWER_SCHOOLS]" option-label="name"
            option-value="id" size="small" @update:model-value="setPractice({ power: $event })">
            <template #option="{ option }"><span class="school"><b>{{ option.name }}</b><span class="soft small">{{ option.risks }}</span></span></template>
          </Select>
        </template>
      </span>
    </footer>
    <div v-if="finding" ref="seekBox" class="seek" role="search">
      <InputText
        v-model="sought" aria-label="Find a speaker or a line" placeholder="A2 07, roof walk, horn…" maxlength="80" @keydown.enter="found"
        @keydown.esc="finding = false; actions.focusSelection()" @blur="finding = false" />
    </div>
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
.practice { margin-left: auto; display: flex; gap: 8px; align-items: center; flex: none; }
.practice :deep(.p-select) { font-size: 14px; }
.practice :deep(.p-select-label) { padding: 2px 6px; font-size: 14px; }
.school { display: grid; max-width: 420px; white-space: normal; }
.seek { position: fixed; top: 96px; left: 50%; translate: -50%; z-index: 10; background: var(--paper); border: 1.5px solid var(--ink); padding: 10px; }
.seek :deep(input) { width: 340px; }
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
  .practice { margin-left: 0; flex-wrap: wrap; }
}
</style>
