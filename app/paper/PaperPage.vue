<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { useHead } from '#imports'
import Button from 'primevue/button'
import KeyCap from '~/components/KeyCap.vue'
import ChoiceRow from '~/components/form/ChoiceRow.vue'
import TabRow from '~/components/form/TabRow.vue'
import FindBox from '~/components/shell/FindBox.vue'
import { KeysDialog } from '~/components/shell/opened'
import { useKeys } from '~/composables/useKeys'
import { useUnits } from '~/composables/useUnits'
import { useWalkOrder } from '~/stations/check/walkOrder'
import { useJobKeys } from '~/stations/useJobKeys'
import { useDoorStore } from '~/stores/door'
import { useEvaluationStore } from '~/stores/evaluation'
import { useJobStore } from '~/stores/job'
import { paperKeys } from './keys'
import { numberedStops } from './numbered'
import { PAPER_SIZES, pageRules, type PaperSize } from './pageRules'
import PaperSheet from './PaperSheet.vue'
import { SHEETS } from './sheets'
import { SHEET_IDS, type PaperData, type Sheet, type SheetId } from './sheet'
import TypedIn from './TypedIn.vue'

/** Sheets of a job to be printed, and what came back on them. The same data as on the screen, black on white. */
const store = useJobStore()
const evaluation = useEvaluationStore()
const door = useDoorStore()
const { units } = useUnits()
const { order, setOrder } = useWalkOrder()
const { common, keysOpen, findOpen } = useJobKeys()

const KEY = 'plain-match.paper'
const tab = ref<'print' | 'back'>('print')
const size = ref<PaperSize>('A4')
const chosen = ref<SheetId[]>(['run', 'walk'])
onMounted(() => {
  const [keptSize, ...ids] = (localStorage.getItem(KEY) ?? '').split(' ')
  if (PAPER_SIZES.some(s => s.value === keptSize)) size.value = keptSize as PaperSize
  const known = SHEET_IDS.filter(id => ids.includes(id))
  if (known.length > 0) chosen.value = known
})
watch([size, chosen], () => localStorage.setItem(KEY, [size.value, ...chosen.value].join(' ')))
const toggle = (id: SheetId) => { chosen.value = SHEET_IDS.filter(s => s === id ? !chosen.value.includes(id) : chosen.value.includes(s)) }

const date = new Date().toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })
const hasRooms = computed(() => store.opened.spaces.some(s => s.spots.some(spot => spot.nodeId !== null)))
const data = computed((): PaperData => ({
  job: store.opened, lines: evaluation.lines, proofs: evaluation.proofs, units: units.value, order: hasRooms.value ? order.value : 'line', nameOf: door.nameOf,
}))
const stops = computed(() => numberedStops(data.value))

/** A sheet a frame: the walk of two thousand speakers is eight thousand rows. */
const sheets = shallowRef<readonly Sheet[]>([])
const isWhole = ref(false)
let newest = 0
watch([data, chosen, () => evaluation.isWhole], () => {
  const mine = ++newest
  isWhole.value = false
  const made: Sheet[] = []
  const left = SHEETS.filter(s => chosen.value.includes(s.id))
  const next = () => {
    if (mine !== newest) return
    const maker = left.shift()
    if (maker) {
      made.push({ id: maker.id, title: maker.title, ...maker.make(data.value) })
      sheets.value = [...made]
    }
    else if (made.length === 0) sheets.value = []
    if (left.length > 0) requestAnimationFrame(() => setTimeout(next))
    else isWhole.value = evaluation.isWhole
  }
  setTimeout(next)
}, { immediate: true })

useHead({ title: computed(() => `Paper · ${store.job?.name ?? ''} · Plain Match`), style: [{ innerHTML: computed(() => pageRules(size.value, store.job?.name ?? '', date)) }] })
function print(): void {
  if (sheets.value.length === 0) return store.sayNot('No sheet is chosen.')
  tab.value = 'print'
  setTimeout(() => globalThis.print())
}
const bindings = [...paperKeys({ print, toBack: () => { tab.value = tab.value === 'back' ? 'print' : 'back' }, toggle, otherOrder: () => setOrder(order.value === 'room' ? 'line' : 'room') }), ...common]
useKeys(() => bindings)
const TABS = [{ value: 'print', says: 'to print' }, { value: 'back', says: 'what came back' }] as const
</script>

<template>
  <main class="paper-page">
    <div class="paper-choose">
      <TabRow label="Paper" :tabs="TABS" :value="tab" @choose="tab = $event" />
      <fieldset v-if="tab === 'print'" class="which">
        <legend class="hidden-label">Which sheets</legend>
        <label v-for="(sheet, k) in SHEETS" :key="sheet.id"><input type="checkbox" :checked="chosen.includes(sheet.id)" @change="toggle(sheet.id)">
          <span><b>{{ sheet.title }}</b> <KeyCap class="key" :of="String(k + 1)" /><br><span class="soft small">{{ sheet.says }}</span></span></label>
      </fieldset>
      <ChoiceRow
        v-if="tab === 'print'" :model-value="size" label="Paper" before="On" :choices="PAPER_SIZES" @update:model-value="to => to && (size = to)" />
      <p v-if="hasRooms" class="small"><button class="act" type="button" @click="setOrder(order === 'room' ? 'line' : 'room')">
        {{ order === 'room' ? 'the walk goes by rooms: by lines' : 'the walk goes by lines: by rooms' }} <KeyCap of="o" /></button></p>
      <Button v-if="tab === 'print'" :label="isWhole ? 'Print' : 'Being laid out…'" :disabled="!isWhole || sheets.length === 0" @click="print" />
    </div>
    <TypedIn v-if="tab === 'back'" :stops="stops" />
    <div v-else class="papers">
      <p v-if="sheets.length === 0 && isWhole" class="soft">No sheet is chosen.</p>
      <PaperSheet v-for="sheet in sheets" :key="sheet.id" :sheet="sheet" :job-name="store.job?.name ?? ''" :date="date" />
    </div>
    <FindBox v-model:open="findOpen" :actions="bindings" />
    <KeysDialog v-model:open="keysOpen" :bindings="bindings" />
  </main>
</template>

<style scoped>
.paper-page { display: grid; grid-template-columns: 270px minmax(0, 1fr); gap: 18px 34px; padding: 18px 22px 60px; align-items: start; }
.paper-choose { display: grid; gap: 14px; justify-items: start; position: sticky; top: 12px; }
.which { border: 0; padding: 0; margin: 0; display: grid; gap: 6px; }
.which label { display: flex; gap: 10px; align-items: start; cursor: pointer; min-height: 44px; }
.which input { accent-color: var(--pen); width: 20px; height: 20px; margin: 2px 0 0; flex: none; }
.papers { display: grid; gap: 22px; max-width: 210mm; min-width: 0; }
.papers > article { box-shadow: 0 0 0 1px var(--rule-strong); min-width: 0; }
@media (max-width: 900px) {
  .paper-page { grid-template-columns: minmax(0, 1fr); padding: 12px 14px 60px; }
  .paper-choose { position: static; }
  .key { display: none; }
}
@media print {
  .paper-page { display: block; padding: 0; }
  .paper-choose { display: none; }
  .papers { display: block; max-width: none; }
  .papers > article { box-shadow: none; }
}
</style>

<style>
/* Nothing of the screen goes onto paper. */
@media print {
  html:has(.paper-page), html:has(.paper-page) body { background: #fff; min-height: 0; }
  html:has(.paper-page) :is(.band, .notices, .together, .door-notice, .page-newer, .page-missing, .typed-in) { display: none !important; }
}
</style>
