<script setup lang="ts">
import { computed, ref, useTemplateRef } from 'vue'
import InputText from 'primevue/inputtext'
import Select from '~/components/form/choiceList'
import { JOB_PLACES, type ListQuery, type StateId } from '#core/job/protocol'
import { STATE_NAMES } from '#core/line/jobState'
import KeyCap from '~/components/KeyCap.vue'
import { useJobsStore } from '~/stores/jobs'
import TabRow from '~/components/form/TabRow.vue'

/** Which jobs are shown, and in which order. */
const store = useJobsStore()
const box = useTemplateRef<HTMLElement>('box')
const search = ref(store.query.search)

const PLACES: Record<(typeof JOB_PLACES)[number], string> = { active: 'in hand', archived: 'archived', deleted: 'deleted' }
const SORTS: { id: ListQuery['sort'], says: string }[] = [{ id: 'changed', says: 'last changed first' }, { id: 'state', says: 'most pressing first' }, { id: 'name', says: 'by name' }]
const STATES: { id: StateId | null, says: string }[] = [{ id: null, says: 'whatever state' }, ...(Object.keys(STATE_NAMES) as StateId[]).map(id => ({ id, says: STATE_NAMES[id] }))]
/** Deleted jobs are offered only where there are any. */
const places = computed(() => JOB_PLACES.filter(p => p !== 'deleted' || store.list.counts.deleted > 0 || store.query.place === p).map(value => ({ value, says: PLACES[value] })))

let typing: ReturnType<typeof setTimeout> | undefined
function typed(): void {
  clearTimeout(typing)
  typing = setTimeout(() => void store.ask({ search: search.value }), 150)
}
function empty(): void {
  search.value = ''
  void store.ask({ search: '' })
}
defineExpose({ focus: () => box.value?.querySelector('input')?.focus(), empty })
</script>

<template>
  <div ref="box" class="choice" role="search" aria-label="Which jobs">
    <TabRow class="places" label="Jobs" :tabs="places" :value="store.query.place" @choose="place => store.ask({ place })">
      <template #default="{ tab }">{{ tab.says }} <span class="figure soft">{{ store.list.counts[tab.value] }}</span></template>
    </TabRow>
    <span class="find">
      <InputText
        v-model="search" size="small" aria-label="Find a job by its name" placeholder="find by name" maxlength="120" @update:model-value="typed"
        @keydown.esc="empty" />
      <KeyCap of="f" />
    </span>
    <Select
      aria-label="State" :model-value="store.query.state" :options="STATES" option-label="says" option-value="id" size="small"
      placeholder="whatever state" @update:model-value="store.ask({ state: $event })" />
    <Select
      aria-label="Order" :model-value="store.query.sort" :options="SORTS" option-label="says" option-value="id" size="small"
      @update:model-value="store.ask({ sort: $event })" />
  </div>
</template>

<style scoped>
.choice { display: flex; flex-wrap: wrap; gap: 8px 14px; align-items: center; padding-bottom: 8px; }
.places { margin-right: auto; }
.places :deep(.tabs) { border-bottom: 0; }
.places :deep(.tab) { font-weight: 600; }
.find { display: inline-flex; align-items: center; gap: 6px; }
.find :deep(input) { width: 170px; font-size: 15px; }
.choice :deep(.p-select) { font-size: 15px; }
@media (max-width: 760px) { .places, .find { flex: 1 1 100%; } .find :deep(input) { width: 100%; } .choice :deep(.keycap) { display: none; } }
</style>
