<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import InputText from 'primevue/inputtext'
import type { GearKind, Model } from '#core/gear/models'
import type { GearRow } from '#core/gear/protocol'
import { ApiError } from '~/api/client'
import { cellText, listColumns, offered } from '~/gear/list'
import { recentModels, rememberModel } from '~/gear/recent'
import { useGearStore } from '~/stores/gear'

/** A model of the library by a few words: type, Enter takes the first, an arrow goes on to the others. */
const { kind, used } = defineProps<{ kind: GearKind, used: readonly string[] }>()
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
const rows = computed(() => store.kind === kind ? offered(kind, store.rows, search.value, { used, recent: recent.value }) : [])
const figures = (row: GearRow) => columns.slice(1, -1).flatMap(c => cellText(c, row.values[c.at]) === '' ? [] : [`${cellText(c, row.values[c.at])}${c.column.unit ? ` ${c.column.unit}` : ''}`]).slice(0, 4).join(', ')

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
  if (rows.value[0]) void pick(rows.value[0])
  else takesFirst.value = store.status === 'loading'
}
watch(search, () => { takesFirst.value = false })
watch(rows, ([first]) => {
  if (!takesFirst.value || !first) return
  takesFirst.value = false
  void pick(first)
})
function along(event: KeyboardEvent, by: 1 | -1): void {
  const buttons = [...list.value?.querySelectorAll('button') ?? []]
  const next = buttons[buttons.indexOf(event.target as HTMLButtonElement) + by]
  if (next) next.focus()
}
</script>

<template>
  <div ref="root" class="pick" @keydown.esc.stop="emit('close')">
    <InputText
      v-model="search" size="small" :aria-label="`a ${kind} of the library, by any words`" placeholder="a few words: ceiling 165" maxlength="80"
      @keydown.enter.prevent="enter" @keydown.down.prevent="along($event, 1)" />
    <p v-if="problem || store.problem" class="error-words" role="alert">{{ problem || store.problem }}</p>
    <p v-else-if="store.status === 'loading'" class="soft small" role="status">Reading the library…</p>
    <p v-else-if="rows.length === 0" class="soft small">The library has none like that. <NuxtLink
      class="act" :to="`/gear?kind=${kind}`">to the library</NuxtLink></p>
    <ul ref="list" class="offers">
      <li v-for="row in rows" :key="row.id">
        <button class="model" type="button" @click="pick(row)" @keydown.down.prevent="along($event, 1)" @keydown.up.prevent="along($event, -1)">
          <b>{{ row.values[0] }}</b> <span class="soft small">{{ figures(row) }}{{ used.includes(row.id) ? ' · in this job' : '' }}</span></button>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.pick { display: grid; gap: 4px; border-left: 3px solid var(--pen); padding-left: 10px; }
.offers { list-style: none; padding: 0; }
.model { width: 100%; border: 0; border-bottom: 1px solid var(--rule); background: none; text-align: left; padding: 6px 2px; cursor: pointer;
  display: grid; min-width: 0; }
.model:hover, .model:focus-visible { background: var(--wash); }
.model span { overflow-wrap: anywhere; }
</style>
