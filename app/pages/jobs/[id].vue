<script setup lang="ts">
import { startsOffline } from '~/composables/offline'
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { navigateTo, useHead, useRoute } from '#imports'
import { BENCH_ID } from '#core/job/bench'
import KeyCap from '~/components/KeyCap.vue'
import AppHeader from '~/components/shell/AppHeader.vue'
import CommonActions from '~/components/shell/CommonActions.vue'
import UndoRedo from '~/components/shell/UndoRedo.vue'
import StationWire from '~/stations/StationWire.vue'
import { STATIONS } from '~/stations'
import { addressOf } from '~/stations/station'
import { provideOpened } from '~/stations/opened'
import { useJobStore } from '~/stores/job'
import { tooQuietWords } from '#core/advice/tooQuietWords'
import { useEvaluationStore } from '~/stores/evaluation'
import { useRoomsStore } from '~/stores/rooms'
import { useSelectionStore } from '~/stores/selection'
import { goInto } from '~/composables/fetchedLater'
import { DoneDialog } from '~/components/shell/opened'
import { keptWords } from '~/stations/keptWords'
import { practiceAddress } from '~/practice/ownExercise'
import JobProblem from '~/stations/JobProblem.vue'
import { JobName, RefusalNotice, TogetherNotice } from '~/stations/parts'

const route = useRoute()
const store = useJobStore()
const selected = useSelectionStore()
const evaluation = useEvaluationStore()
const rooms = useRoomsStore()
const { keysOpen, findOpen, doneOpen } = provideOpened()

const jobId = computed(() => String(route.params.id))
watch(jobId, (id) => {
  // What waits on a device leads to a job by its id: of the bench there is a page of its own.
  if (id === BENCH_ID) return void navigateTo('/bench', { replace: true })
  selected.reset()
  store.open(id)
}, { immediate: true })
// The page that follows may have opened its own by now.
onBeforeUnmount(() => { if (store.id !== BENCH_ID) store.close() })
useHead({ title: computed(() => store.job ? `${store.job.name} · Plain Match` : 'Plain Match') })

// With the server away its words need the room; how the job stands is at the stations too.
const says = computed(() => store.status === 'ready' && store.connection !== 'away' ? [evaluation.sentence.replace(/\.$/, ''), tooQuietWords(rooms.tooQuiet)].filter(Boolean).join('; ') : '')
const kept = computed(() => keptWords(store, startsOffline.value))

const stations = computed(() => STATIONS.map((station) => {
  const path = addressOf(jobId.value, station)
  const query = selected.selection.outputId ? { line: selected.selection.outputId } : undefined
  const { states, isWhole } = evaluation
  const job = store.job ?? { spaces: [], splices: [] }
  return { name: station.name, to: { path, query }, says: isWhole ? station.state(states, job, rooms.tooQuiet) : '…', here: route.path === path, done: isWhole && station.isDone(states, job) }
}))

// A new job asks for its name first; later a press on the name renames it.
const renaming = ref(false)
function rename(): void {
  renaming.value = true
  void goInto('.rename input')
}
onMounted(() => {
  const stop = watch(() => store.status, (status) => {
    if (status !== 'ready') return
    if (route.query.rename) rename()
    queueMicrotask(() => stop())
  }, { immediate: true })
})
</script>

<template>
  <div>
    <div class="band">
    <AppHeader :title="store.job?.name ?? ''" :says="says" :kept="kept" :message="store.message">
      <template v-if="store.status === 'ready'" #first><UndoRedo /></template>
      <template v-if="store.status === 'ready'">
        <button class="act find" type="button" @click="findOpen = true">find <KeyCap of="/" /></button>
        <button class="act" type="button" @click="doneOpen = true">done <KeyCap of="h" /></button>
        <button class="act" type="button" @click="rename">rename</button>
        <NuxtLink class="act find" :to="`/jobs/${jobId}/paper`">paper <KeyCap of="I" /></NuxtLink>
        <NuxtLink class="act practice" :to="practiceAddress(jobId, store.job, selected.selection.outputId)">practice <KeyCap of="N" /></NuxtLink>
        <a class="act" :href="`/api/jobs/${jobId}/file`" download>file out</a>
        <a v-if="(store.job?.photos.size ?? 0) > 0" class="act" :href="`/api/jobs/${jobId}/archive`" download>with photos</a>
      </template>
      <CommonActions @keys="keysOpen = true" />
    </AppHeader>
    <StationWire v-if="store.status === 'ready'" :stations="stations" />
    </div>
    <RefusalNotice />
    <TogetherNotice v-if="store.status === 'ready'" :key="jobId" />
    <JobName v-if="renaming" @done="renaming = false" />

    <p v-if="store.status === 'loading'" class="state soft" role="status">Reading the job…</p>
    <JobProblem v-else-if="store.status !== 'ready'" />
    <template v-else>
      <NuxtPage />
    </template>
    <DoneDialog v-model:open="doneOpen" />
  </div>
</template>

<style scoped>
/* Undo and the stations stay at hand while a phone is scrolled; sideways they are one row. */
@media (max-width: 1000px) { .band { position: sticky; top: 0; z-index: 11; background: var(--paper); } }
@media (max-height: 560px) and (min-width: 561px) and (max-width: 1000px) {
  .band { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1fr); }
}
.state { padding: 60px 22px; }
/* Between, the name of the job needs the room: there it stands at the foot of the station. */
@media (min-width: 761px) and (max-width: 1599px) {
  .find, .practice :deep(.keycap) { display: none; }
  .band :deep(.actions), .band :deep(.actions .items) { gap: 12px; }
}
</style>

<style>
/* What is scrolled to, by key or script, stands under the band that stays. */
@media (max-width: 1000px) { html:has(.band) { scroll-padding-top: 100px; } }
@media (max-height: 560px) and (min-width: 561px) and (max-width: 1000px) { html:has(.band) { scroll-padding-top: 56px; } }
</style>
