<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { navigateTo, useHead, useRoute, useRouter } from '#imports'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Popover from 'primevue/popover'
import Select from '~/components/form/choiceList'
import { choicesOf } from '#core/gear/cells'
import { GEAR_KINDS, GEAR_WORDS, unstatedModel, type GearKind, type Model } from '#core/gear/models'
import type { GearRow } from '#core/gear/protocol'
import ActionRow from '~/components/ActionRow.vue'
import CompareGear from '~/components/gear/CompareGear.vue'
import WaitingGear from '~/components/gear/WaitingGear.vue'
import GearTable from '~/components/gear/GearTable.vue'
import TabRow from '~/components/form/TabRow.vue'
import KeyCap from '~/components/KeyCap.vue'
import AppHeader from '~/components/shell/AppHeader.vue'
import CommonActions from '~/components/shell/CommonActions.vue'
import { useAttempt } from '~/composables/useAttempt'
import { useKeys } from '~/composables/useKeys'
import { useTheme } from '~/composables/useTheme'
import { gearKeys } from '~/gear/keys'
import { useWidth } from '~/composables/useWidth'
import { keepColumns, keptColumns } from '~/gear/columns'
import { listColumns, shownColumns, shownRows, USUAL_ASK, wordsInSteps, type Asked } from '~/gear/list'
import { useGearKept } from '~/gear/useGearKept'
import { useGearStore } from '~/stores/gear'
import { useGearChangesStore } from '~/stores/gearChanges'
import { focused } from '~/composables/elements'
import FindBox from '~/components/shell/FindBox.vue'
import { KeysDialog } from '~/components/shell/opened'
import CheckLine from '~/components/form/CheckLine.vue'

const store = useGearStore()
const changes = useGearChangesStore()
const kept = useGearKept()
const route = useRoute()
const router = useRouter()
const keysOpen = ref(false)
const findOpen = ref(false)
const asked = shallowRef<Asked>(USUAL_ASK)
const at = shallowRef<string | null>(null)
const editing = shallowRef<string | null>(null)
const marked = shallowRef<ReadonlySet<string>>(new Set())
const comparing = shallowRef<{ id: string, body: Model }[]>([])
const { problem, attempt } = useAttempt()
const box = useTemplateRef<HTMLElement>('box')
const table = useTemplateRef<InstanceType<typeof GearTable>>('table')
const chooser = useTemplateRef<{ toggle: (event: Event) => void }>('chooser')

useHead({ title: 'Gear · Plain Match' })
const KINDS = GEAR_KINDS.map(value => ({ value, says: GEAR_WORDS[value].many }))
const kindOf = (value: unknown): GearKind => GEAR_KINDS.find(k => k === value) ?? 'speaker'
onMounted(() => store.load(kindOf(route.query.kind)))
watch(() => route.query.kind, (kind) => {
  asked.value = USUAL_ASK
  at.value = editing.value = null
  marked.value = new Set()
  comparing.value = []
  void store.load(kindOf(kind))
})

let warming: ReturnType<typeof setTimeout> | undefined
watch(() => store.rows, (all) => {
  clearTimeout(warming)
  const steps = wordsInSteps(store.kind, all)
  const slice = () => { if (!steps.next().done) warming = setTimeout(slice) }
  warming = setTimeout(slice, 200)
})
onBeforeUnmount(() => clearTimeout(warming))

const columns = computed(() => listColumns(store.kind))
/** Columns that a person chose, kept on this device; null: as many as fit. */
const chosenColumns = shallowRef<readonly string[] | null>(null)
watch(() => store.kind, (kind) => { chosenColumns.value = keptColumns(kind) }, { immediate: true })
const width = useWidth(useTemplateRef<HTMLElement>('page'))
const shown = computed(() => shownColumns(columns.value, width.value, chosenColumns.value))
const isShown = (key: string) => shown.value.some(c => c.column.key === key)
function chooseColumn(key: string): void {
  const keys = shown.value.map(c => c.column.key)
  takeColumns(keys.includes(key) ? keys.filter(k => k !== key) : [...keys, key])
}
function takeColumns(keys: readonly string[] | null): void {
  chosenColumns.value = keys
  keepColumns(store.kind, keys)
}
const rows = computed(() => shownRows(store.kind, store.rows, asked.value))
const current = computed((): GearRow | null => rows.value.find(r => r.id === at.value) ?? null)
const retired = computed(() => store.rows.filter(r => r.isRetired).length)
/** What can be chosen by: the second column where it is a choice. */
const choices = computed(() => columns.value[1]?.column.cell === 'choice' ? [{ id: null, says: 'built any way' }, ...choicesOf(columns.value[1].column.schema).map(id => ({ id, says: id.replace('-', ' ') }))] : [])
const ask = (to: Partial<Asked>) => { asked.value = { ...asked.value, ...to } }
const nameOf = (row: GearRow) => String(row.values[0])

/** What has changed on the server is read anew, several changes at once. */
let reading: ReturnType<typeof setTimeout> | undefined
watch(() => changes.news, () => {
  clearTimeout(reading)
  reading = setTimeout(() => void store.load(), 60)
})
onBeforeUnmount(() => clearTimeout(reading))

function look(id: string | undefined): void {
  if (id === undefined) return
  at.value = id
  void nextTick(() => table.value?.show(id))
}
function step(by: number): void {
  const k = rows.value.findIndex(r => r.id === at.value)
  look(rows.value[Math.max(0, Math.min(rows.value.length - 1, k === -1 ? 0 : k + by))]?.id)
}
const onCurrent = (run: (row: GearRow) => void) => () => { if (current.value) run(current.value) }
const open = (id: string) => navigateTo(`/gear/${id}`)

function add(): void {
  const id = store.add({ kind: store.kind, body: unstatedModel(store.kind, `New ${GEAR_WORDS[store.kind].one}`) })
  void navigateTo(`/gear/${id}?rename=1`)
}
const duplicate = (row: GearRow) => attempt(async () => {
  const { body } = (await store.whole(row.id)).versions[0]!
  look(store.add({ kind: store.kind, body: { ...body, name: `${body.name.slice(0, 110)} (copy)` } }))
})
const retire = (row: GearRow) => store.retire(row.id, nameOf(row), !row.isRetired)
/** A cell of the table: what it was is what the row says. */
function set(row: GearRow, key: string, value: unknown): void {
  store.set(row.id, nameOf(row), { [key]: row.values[columns.value.find(c => c.column.key === key)!.at] }, { [key]: value })
}
function mark(row: GearRow): void {
  const next = new Set(marked.value)
  if (!next.delete(row.id)) next.add(row.id)
  marked.value = new Set([...next].slice(-3))
  comparing.value = []
}
const compare = () => attempt(async () => {
  if (marked.value.size < 2) {
    problem.value = 'Mark two or three models first: Space, or the box before their names.'
    return
  }
  const found = await Promise.all([...marked.value].map(id => store.whole(id)))
  comparing.value = found.map(({ id, versions }) => ({ id, body: versions[0]!.body }))
})
function leave(): void {
  editing.value = null
  comparing.value = []
  problem.value = ''
  if (current.value) look(current.value.id)
}

/** Escape clears what is looked for; once more, it goes from the field to the table. */
function escape(): void {
  if (asked.value.search !== '') return ask({ search: '' })
  if (rows.value.length > 0) step(0)
  else focused()?.blur()
}

const bindings = gearKeys({
  toSearch: () => box.value?.querySelector('input')?.focus(), find: () => { findOpen.value = true }, step, toEnd: end => look(end === 'first' ? rows.value[0]?.id : rows.value.at(-1)?.id),
  open: onCurrent(row => void open(row.id)), edit: onCurrent((row) => {
    editing.value = row.id
    void nextTick(() => table.value?.enter())
  }), mark: onCurrent(mark), compare: () => void compare(),
  add, duplicate: onCurrent(row => void duplicate(row)), retire: onCurrent(row => void retire(row)), fileIn: () => void navigateTo(`/gear/in?kind=${store.kind}`),
  otherKind: (by) => {
    const k = GEAR_KINDS.indexOf(store.kind)
    void router.replace({ query: { kind: GEAR_KINDS[Math.max(0, Math.min(GEAR_KINDS.length - 1, k + by))] } })
  },
  takeBack: store.takeBack, leave, toJobs: () => void navigateTo('/'), toggleNight: () => useTheme().toggle(), showKeys: () => { keysOpen.value = true },
})
useKeys(() => bindings, () => current.value ? 'model' : null)
</script>

<template>
  <div>
    <AppHeader title="Gear" :kept="kept">
      <template #first><button class="act" type="button" @click="add">new {{ GEAR_WORDS[store.kind].one }} <KeyCap of="a" /></button></template>
      <button class="act" type="button" @click="navigateTo(`/gear/in?kind=${store.kind}`)">table in <KeyCap of="i" /></button>
      <a class="act" :href="`/api/gear/file?kind=${store.kind}`" download>table out</a>
      <button class="act" type="button" @click="navigateTo('/')">jobs <KeyCap of="j" /></button>
      <CommonActions has-find @find="findOpen = true" @keys="keysOpen = true" />
    </AppHeader>
    <main ref="page" class="gear">
      <div ref="box" class="choice" role="search" aria-label="Which models">
        <TabRow class="kinds" label="Kind of gear" :tabs="KINDS" :value="store.kind" @choose="kind => router.replace({ query: { kind } })" />
        <span class="find">
          <InputText
            :model-value="asked.search" size="small" aria-label="Find by any words" placeholder="find: 8 Ω ceiling 30" maxlength="120"
            @update:model-value="ask({ search: $event ?? '' })" @keydown.esc="escape" @keydown.enter="step(0)" />
          <KeyCap of="f" />
        </span>
        <Select
          v-if="choices.length > 0" aria-label="Built as" :model-value="asked.choice" :options="choices" option-label="says" option-value="id" size="small"
          :placeholder="choices[0]!.says" @update:model-value="ask({ choice: $event })" />
        <CheckLine v-if="retired > 0" :model-value="asked.withRetired" @update:model-value="ask({ withRetired: $event })">{{ retired }} retired too</CheckLine>
        <button class="act columns" type="button" aria-haspopup="dialog" @click="chooser?.toggle($event)">columns <span
          class="soft">{{ shown.length }} of {{ columns.length }}</span></button>
        <Popover ref="chooser" :pt="{ root: { 'aria-label': 'Columns' } }">
          <div class="chooser">
            <CheckLine
              v-for="c in columns.slice(1)" :key="c.column.key" :model-value="isShown(c.column.key)"
              @update:model-value="chooseColumn(c.column.key)">{{ c.head }}</CheckLine>
            <button class="act" type="button" :disabled="chosenColumns === null" @click="takeColumns(null)">as many as fit</button>
          </div>
        </Popover>
        <span class="soft small count">{{ rows.length }} of {{ store.rows.length }}</span>
      </div>
      <p v-if="problem" class="error-words note" role="alert">{{ problem }} <button class="act" type="button" @click="problem = ''">all right</button></p>
      <WaitingGear />
      <p v-if="store.done" class="note" role="status">{{ store.done.says }}. <button class="act" type="button" @click="store.takeBack">take
        it back <KeyCap of="u" /></button></p>
      <p v-if="store.status === 'loading'" class="soft state" role="status">Reading the library…</p>
      <section v-else-if="store.status === 'failed'" class="state" role="alert">
        <p>{{ store.problem }}</p><Button variant="outlined" label="Try now" @click="store.load()" />
      </section>
      <section v-else-if="rows.length === 0" class="state">
        <template v-if="store.rows.length > 0"><p>Nothing here is like that.</p>
          <Button variant="outlined" label="Show all" @click="asked = USUAL_ASK" /></template>
        <template v-else>
          <p>No {{ GEAR_WORDS[store.kind].one }} in the library yet.</p>
          <Button variant="outlined" :label="`New ${GEAR_WORDS[store.kind].one}`" @click="add" />
          <Button variant="outlined" label="Take a table in" @click="navigateTo(`/gear/in?kind=${store.kind}`)" />
        </template>
      </section>
      <template v-else>
        <CompareGear v-if="comparing.length > 0" :kind="store.kind" :models="comparing" @close="leave" />
        <GearTable
          ref="table" :columns="shown" :rows="rows" :waits="store.waits" :at="at" :editing="editing" :marked="marked"
          :sort="asked.sort" :is-down="asked.isDown"
          @look="look" @open="open" @mark="mark" @leave="leave"
          @sort="key => ask({ sort: key, isDown: asked.sort === key && !asked.isDown })"
          @change="set" />
        <ActionRow v-if="current" class="row" :actions="bindings" target="model" :has-menu="false" />
        <p v-else class="soft small row">Press a model, or go down with the arrow keys; Enter opens it.</p>
      </template>
    </main>
    <FindBox v-model:open="findOpen" :actions="bindings" :target="current ? 'model' : null" />
    <KeysDialog v-model:open="keysOpen" :bindings="bindings" />
  </div>
</template>

<style scoped>
.gear { padding: 12px 22px 0; display: flex; flex-direction: column; gap: 8px; height: calc(100vh - 52px); min-height: 420px; }
.choice { display: flex; flex-wrap: wrap; gap: 6px 18px; align-items: center; border-bottom: 1px solid var(--rule); }
.kinds :deep(.tabs) { border-bottom: 0; }
.kinds :deep(.tab) { padding: 6px 0; }
.find { display: inline-flex; gap: 6px; align-items: center; }
.chooser { display: grid; gap: 4px; justify-items: start; max-width: 86vw; max-height: 70vh; overflow-y: auto; }
.count { margin-left: auto; }
.note { padding-top: 2px; }
.state { padding: 40px 0; display: grid; gap: 14px; justify-items: start; }
.row { min-height: 40px; display: flex; align-items: center; }
@media (max-width: 760px) {
  .gear { padding: 6px 14px 0; }
}
</style>
