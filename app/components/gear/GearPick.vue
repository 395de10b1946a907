<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import InputText from 'primevue/inputtext'
import type { GearKind, Model } from '#core/gear/models'
import { LIST_KEYS, type GearRow } from '#core/gear/protocol'
import { ApiError } from '~/api/client'
import { fittingFirst, type Here } from '~/gear/fits'
import { cellText, listColumns, offered } from '~/gear/list'
import { recentModels, rememberModel } from '~/gear/recent'
import { useGearStore } from '~/stores/gear'
import ChoiceRow from '~/components/form/ChoiceRow.vue'

/** A model of the library by a few words: type, Enter takes the first, an arrow goes on to the others. */
const { kind, used, here = {}, chosen = '' } = defineProps<{
  kind: GearKind
  used: readonly string[]
  /** What is known of the place that it is chosen for: what fits there comes first. */
  here?: Here
  /** What stands there now. */
  chosen?: string
}>()
const emit = defineEmits<{ pick: [picked: { modelId: string, version: number, body: Model }], close: [] }>()
const store = useGearStore()
const search = ref('')
const problem = shallowRef('')
const recent = shallowRef<readonly string[]>([])
const list = ref<HTMLElement>()
const root = ref<HTMLElement>()

onMounted(() => {
  root.value?.querySelector('input')?.focus()
  recent.value = recentModels(kind)
  void store.load(kind)
})
const columns = listColumns(kind)
const MOST = 8
/** Of a kind that is built in several ways: which, where the library has several of what was typed. */
const choiceAt = LIST_KEYS[kind].indexOf('build')
const build = shallowRef<string | null>(null)
const found = computed(() => store.kind === kind ? offered(kind, store.rows, search.value, { used, recent: recent.value }, Infinity) : [])
const builds = computed(() => choiceAt === -1 ? [] : [...new Set(found.value.map(row => row.values[choiceAt]).filter(v => typeof v === 'string'))].sort() as string[])
const rows = computed(() => fittingFirst(kind, found.value.filter(row => build.value === null || row.values[choiceAt] === build.value), here).slice(0, MOST))
const count = computed(() => found.value.length)
/** What tells models apart when one is chosen, the price last: figures of the list, but those of an amplifier's whole sheet. */
const byWeight = [...columns.slice(1)].sort((a, b) => Number(b.column.cell === 'scales') - Number(a.column.cell === 'scales'))
const figures = (row: GearRow) => byWeight.flatMap((c) => {
  const text = cellText(c, row.values[c.at])
  if (text === '' || c.column.key === 'price' || c.column.key === 'purpose') return []
  return [c.column.cell === 'scales' ? `taps ${text}` : `${text}${c.column.unit ? ` ${c.column.unit}` : ''}`]
}).slice(0, 5).join(', ')
const textAt = (row: GearRow, key: string) => {
  const column = columns.find(c => c.column.key === key)
  return column ? cellText(column, row.values[column.at]) : ''
}

async function pick(row: GearRow | undefined): Promise<void> {
  if (!row) return
  problem.value = ''
  try {
    const { version, body } = (await store.whole(row.id)).versions[0]!
    rememberModel(kind, row.id)
    emit('pick', { modelId: row.id, version, body })
  }
  catch (failure) {
    if (!(failure instanceof ApiError)) throw failure
    problem.value = failure.message
  }
}
/** Enter while the library is still being read takes the first when it is there. */
const takesFirst = shallowRef(false)
function enter(): void {
  if (rows.value[0]) void pick(rows.value[0].row)
  else takesFirst.value = store.status === 'loading'
}
watch(search, () => { takesFirst.value = false })
watch(rows, ([first]) => {
  if (!takesFirst.value || !first) return
  takesFirst.value = false
  void pick(first.row)
})
function along(event: KeyboardEvent, by: 1 | -1): void {
  const buttons = [...list.value?.querySelectorAll('button') ?? []]
  const next = buttons[buttons.indexOf(event.target as HTMLButtonElement) + by]
  if (next) next.focus()
}
</script>

<template>
  <div ref="root" class="pick" @keydown.esc.stop="emit('close')">
    <p v-if="chosen" class="small">Now: <b>{{ chosen }}</b></p>
    <InputText
      v-model="search" size="small" :aria-label="`a ${kind} of the library, by any words`" placeholder="a few words: ceiling 165" maxlength="80"
      @keydown.enter.prevent="enter" @keydown.down.prevent="along($event, 1)" />
    <p v-if="problem || store.problem" class="error-words" role="alert">{{ problem || store.problem }}</p>
    <p v-else-if="store.status === 'loading'" class="soft small" role="status">Reading the library…</p>
    <p v-else-if="rows.length === 0" class="soft small">The library has none like that. <NuxtLink
      class="act" :to="`/gear?kind=${kind}`">to the library</NuxtLink></p>
    <ChoiceRow
      v-if="builds.length > 1" v-model="build" label="Built as"
      :choices="[null, ...builds].map(b => ({ value: b, says: b === null ? 'all' : b.replace('-', ' ') }))" />
    <ul ref="list" class="offers">
      <li v-for="{ row, fit } in rows" :key="row.id">
        <button class="model" type="button" @click="pick(row)" @keydown.down.prevent="along($event, 1)" @keydown.up.prevent="along($event, -1)">
          <span class="first"><b>{{ row.values[0] }}</b><span v-if="fit.fits === 'yes'" class="fits">fits here</span><span
            v-if="textAt(row, 'price')" class="figure price">{{ textAt(row, 'price') }}</span></span>
          <span v-if="fit.why" class="small" :class="fit.fits === 'no' ? 'not' : 'soft'">{{ fit.fits === 'no' ? 'not here: ' : '' }}{{ fit.why }}</span>
          <span class="soft small">{{ [figures(row), textAt(row, 'purpose'), used.includes(row.id) ? 'in this job' : ''].filter(Boolean).join(' · ')
          }}</span></button>
      </li>
    </ul>
    <p v-if="count > rows.length" class="soft small">{{ count - rows.length }} more: a word more finds them.</p>
  </div>
</template>

<style scoped>
.pick { display: grid; gap: 4px; border-left: 3px solid var(--pen); padding-left: 10px; }
.offers { list-style: none; padding: 0; }
.model { width: 100%; border: 0; border-bottom: 1px solid var(--rule); background: none; text-align: left; padding: 6px 2px; cursor: pointer;
  display: grid; min-width: 0; }
.model:hover, .model:focus-visible { background: var(--wash); }
.model span { overflow-wrap: anywhere; }
.first { display: flex; flex-wrap: wrap; gap: 0 10px; align-items: baseline; }
.fits { color: var(--good); font-weight: 600; font-size: 14px; }
.not { color: var(--stop); }
.price { margin-left: auto; font-size: 14px; }
</style>
