<script setup lang="ts">
import { computed, onBeforeUnmount, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { navigateTo, useHead, useRoute } from '#imports'
import Button from 'primevue/button'
import Select from '~/components/form/choiceList'
import Textarea from 'primevue/textarea'
import { choicesOf, writeCell } from '#core/gear/cells'
import { readGearInSteps, readTable, writeBadRows, type readGear, type Mapping, type Table } from '#core/gear/csv'
import { columnsOf, GEAR_KINDS, GEAR_WORDS, type Model } from '#core/gear/models'
import { MOST_MODELS } from '#core/gear/protocol'
import { InputError } from '#core/quantity/inputError'
import KeyCap from '~/components/KeyCap.vue'
import AppHeader from '~/components/shell/AppHeader.vue'
import CommonActions from '~/components/shell/CommonActions.vue'
import type { Action } from '~/composables/action'
import { counted, inSlices } from '~/composables/inSlices'
import { useKeys } from '~/composables/useKeys'
import { useTheme } from '~/composables/useTheme'
import { complaintsOf, mappingChoices, mappingFor, remapped, remember, rowsText, type Remembered } from '~/gear/intake'
import { sampleTable } from '~/gear/sample'
import { useGearStore } from '~/stores/gear'
import { fieldOf } from '~/composables/elements'
import { KeysDialog } from '~/components/shell/opened'
import ProgressBar from 'primevue/progressbar'

/** A table of a spreadsheet into the library: which column is which, what would come in, what would not and why. */
const store = useGearStore()
const route = useRoute()
const kind = GEAR_KINDS.find(k => k === route.query.kind) ?? 'speaker'
const file = useTemplateRef<HTMLInputElement>('file')
const pasted = ref('')
const table = shallowRef<Table | null>(null)
const mapping = shallowRef<Mapping>([])
const problem = shallowRef('')
const keysOpen = ref(false)
const KEY = `plain-match.columns.${kind}`
useHead({ title: 'A table in · Plain Match' })

function remembered(): Remembered {
  try {
    const stored: unknown = JSON.parse(localStorage.getItem(KEY) ?? '{}')
    return stored !== null && typeof stored === 'object' ? Object.fromEntries(Object.entries(stored).map(([head, key]) => [head, String(key)])) : {}
  }
  catch {
    return {}
  }
}
function take(text: string): void {
  problem.value = ''
  try {
    const read = readTable(text)
    if (read.rows.length > MOST_MODELS) throw new InputError(`${read.rows.length} rows: ${MOST_MODELS} can come in at once.`, 0, [])
    table.value = read
    mapping.value = mappingFor(kind, read.heads, remembered())
  }
  catch (error) {
    if (!(error instanceof InputError)) throw error
    table.value = null
    problem.value = error.message
  }
}
/** More than this is not written into the field: to lay ten thousand lines out held the page for a quarter of a second. */
const MOST_SHOWN = 20_000
function takeLarge(event: ClipboardEvent): void {
  const text = event.clipboardData?.getData('text') ?? ''
  if (text.length < MOST_SHOWN) return
  event.preventDefault()
  pasted.value = ''
  take(text)
}
async function takeFile(event: Event): Promise<void> {
  const input = fieldOf(event)
  if (!input) return
  const chosen = input.files?.[0]
  if (chosen) take(await chosen.text())
  input.value = ''
}
function map(at: number, key: string): void {
  mapping.value = remapped(mapping.value, at, key === '' ? null : key)
  try {
    localStorage.setItem(KEY, JSON.stringify({ ...remembered(), ...remember(table.value!.heads, mapping.value) }))
  }
  catch { /* It is then asked again the next time. */ }
}

/** What was read; null while it is being read. */
const read = shallowRef<ReturnType<typeof readGear> | null>(null)
/** How far the reading has come, 0 to 1. */
const readPart = shallowRef(0)
let reading = 0
watch([table, mapping], async ([wanted, by]) => {
  const mine = ++reading
  read.value = null
  readPart.value = 0
  if (!wanted) return
  let rows = 0
  const steps = counted(readGearInSteps(kind, wanted, by), () => rows++)
  const found = await inSlices(steps, () => {
    readPart.value = rows / wanted.rows.length
    return mine === reading
  })
  if (found) read.value = found
})
onBeforeUnmount(() => { reading++ })
const badRows = computed(() => new Set(read.value?.bad.map(b => b.row)).size)
const choices = mappingChoices(kind)
/** The columns that the rows fill, for the preview. */
const filled = computed(() => columnsOf(kind).filter(c => mapping.value.includes(c.key)))
const preview = computed(() => read.value?.good.slice(0, 8) ?? [])
const MOST_COMPLAINTS = 20
const complaints = computed(() => complaintsOf(read.value?.bad ?? []))

/** All of them are one act: kept on this device from here on, and sent as one. */
async function send(): Promise<void> {
  if (!read.value || read.value.good.length === 0) return
  await store.addMany(read.value.good.map(({ model }) => ({ kind, body: model as Model })))
  void navigateTo(`/gear?kind=${kind}`)
}
function saveText(text: string, name: string): void {
  const url = URL.createObjectURL(new Blob([text], { type: 'text/csv' }))
  Object.assign(document.createElement('a'), { href: url, download: name }).click()
  URL.revokeObjectURL(url)
}
/** The bad rows as a file, each with its reason, to be mended and taken in again. */
function saveBad(): void {
  saveText(writeBadRows(table.value!, read.value!.bad), `${kind}s-to-mend.csv`)
}

const back = () => void navigateTo(`/gear?kind=${kind}`)
const bindings: Action[] = [
  { keys: ['i'], says: 'choose a file', group: 'build', run: () => file.value?.click() },
  { keys: ['Escape', 'g'], says: 'to the table of models', group: 'about', run: back },
  { keys: ['n'], says: 'night or day', group: 'job', run: () => useTheme().toggle() },
  { keys: ['?'], says: 'these keys', group: 'job', run: () => { keysOpen.value = true } },
]
useKeys(() => bindings)
</script>

<template>
  <div>
    <AppHeader :title="`${GEAR_WORDS[kind].many} out of a table`">
      <template #first><button class="act" type="button" @click="back">to the library <KeyCap of="g" /></button></template>
      <CommonActions @keys="keysOpen = true" />
    </AppHeader>
    <main class="in">
      <input ref="file" class="hidden-label" type="file" accept=".csv,.tsv,.txt,text/csv" tabindex="-1" aria-label="Table to read in" @change="takeFile">
      <section class="source">
        <Button :variant="table ? 'outlined' : undefined" size="small" label="Choose a file" @click="file?.click()" />
        <label for="pasted" class="soft small">or paste rows out of a spreadsheet, its column names first</label>
        <Textarea
          id="pasted" v-model="pasted" rows="3" auto-resize spellcheck="false" @paste="takeLarge"
          @update:model-value="pasted.trim() === '' ? undefined : take(pasted)" />
        <p class="small"><button class="act sample" type="button" @click="saveText(sampleTable(kind), `${kind}s-sample.csv`)">a sample to fill in</button></p>
        <details class="known">
          <summary class="small">Columns that it knows</summary>
          <ul><li v-for="column in columnsOf(kind)" :key="column.key"><b>{{ column.label }}</b><span
            v-if="column.unit" class="soft"> in {{ column.unit }}</span><span
            v-if="choicesOf(column.schema).length > 0" class="soft">: {{ choicesOf(column.schema).map(c => c.replace('-', ' ')).join(', ') }}</span><span
            v-else-if="column.cell === 'scales'" class="soft">: 70.71 V: 5 10 20; or a column “Taps 70 V” with 5 10 20</span></li></ul>
        </details>
      </section>
      <p v-if="problem" class="error-words" role="alert">{{ problem }}</p>
      <div v-if="table && !read" role="status" class="reading">Reading {{ table.rows.length }} rows… <ProgressBar
        class="bar" aria-label="Rows read" :value="100 * readPart" :show-value="false" /></div>
      <template v-if="table && read">
        <section aria-label="Which column is which">
          <h2>Which column is which</h2>
          <p class="soft small">Guessed by their names; what you choose is remembered for the next table with these names.</p>
          <ul class="columns">
            <li v-for="(head, k) in table.heads" :key="k">
              <b class="head" :title="head">{{ head || '(no name)' }}</b> <span class="soft small example">{{ table.rows[0]?.cells[k] }}</span>
              <Select
                :aria-label="`${head} is`" :model-value="mapping[k] ?? ''" :options="choices" option-label="label" option-value="value" size="small"
                placeholder="left out" @update:model-value="map(k, $event)" />
            </li>
          </ul>
        </section>
        <section aria-label="What comes in">
          <h2>{{ read.good.length }} of {{ table.rows.length }} rows can come in{{ badRows > 0 ? `, ${badRows} cannot` : '' }}</h2>
          <p class="acts">
            <Button
              size="small" :disabled="read.good.length === 0"
              :label="badRows > 0 ? `Take the ${read.good.length} good ones` : `Take all ${read.good.length}`" @click="send" />
            <Button v-if="badRows > 0" size="small" variant="outlined" :label="`Save the ${badRows} others, to mend`" @click="saveBad" />
            <span v-if="badRows > 0" class="soft small">Or mend the table first, and all come in together.</span>
          </p>
          <ul v-if="complaints.length > 0" class="bad">
            <li v-for="bad in complaints.slice(0, MOST_COMPLAINTS)" :key="`${bad.column} ${bad.message}`"><b v-if="bad.rows.length > 1">{{
              bad.rows.length }} rows</b> <b>{{ bad.column }}</b>: {{ bad.message }} <span class="figure soft">{{ rowsText(bad.rows) }}</span></li>
            <li v-if="complaints.length > MOST_COMPLAINTS" class="soft">and {{ complaints.length - MOST_COMPLAINTS }} other complaints</li>
          </ul>
          <div v-if="preview.length > 0" class="preview">
            <table>
              <thead><tr><th v-for="column in filled" :key="column.key" scope="col">{{ column.label }}</th></tr></thead>
              <tbody><tr v-for="row in preview" :key="row.row"><td v-for="column in filled" :key="column.key">{{
                writeCell(column, (row.model as unknown as Record<string, unknown>)[column.key]) }}</td></tr></tbody>
            </table>
            <p v-if="read.good.length > preview.length" class="soft small">and {{ read.good.length - preview.length }} more like these</p>
          </div>
        </section>
      </template>
    </main>
    <KeysDialog v-model:open="keysOpen" :bindings="bindings" />
  </div>
</template>

<style scoped>
.in { max-width: 1120px; margin: 0 auto; padding: 20px 22px 60px; display: grid; gap: 20px; }
.bar { width: 160px; display: inline-block; vertical-align: middle; }
.source { display: grid; gap: 8px; justify-items: start; }
.source :deep(textarea) { width: 100%; font-family: var(--mono); font-size: 14px; }
h2 { font-size: 17px; }
.sample { color: var(--ink); text-decoration: underline; text-underline-offset: 3px; }
.known ul { list-style: none; columns: 2 320px; column-gap: 30px; padding-top: 6px; font-size: 14.5px; }
.known summary { cursor: pointer; }
.columns { list-style: none; padding: 8px 0 0; display: grid; grid-template-columns: repeat(auto-fill, minmax(230px, 1fr)); gap: 10px 20px; }
.columns li { display: grid; min-width: 0; }
.head, .example { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.acts { display: flex; flex-wrap: wrap; gap: 8px 16px; align-items: center; padding: 8px 0; }
.bad { list-style: none; padding: 0 0 10px; display: grid; gap: 2px; color: var(--stop); }
.preview { overflow-x: auto; }
table { border-collapse: collapse; }
th, td { text-align: left; padding: 3px 18px 3px 0; border-bottom: 1px solid var(--rule); white-space: nowrap; font-size: 14.5px;
  max-width: 320px; overflow: hidden; text-overflow: ellipsis; }
th { font-weight: 400; color: var(--ink-soft); }
@media (max-width: 760px) { .in { padding: 12px 14px 60px; } }
</style>
