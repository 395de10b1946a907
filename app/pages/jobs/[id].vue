<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, onMounted, provide, ref, useTemplateRef, watch } from 'vue'
import { navigateTo, useHead, useRoute } from '#imports'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import KeyCap from '~/components/KeyCap.vue'
import AppHeader from '~/components/shell/AppHeader.vue'
import CommonActions from '~/components/shell/CommonActions.vue'
import RefusalNotice from '~/components/shell/RefusalNotice.vue'
import StationWire from '~/stations/StationWire.vue'
import { STATIONS } from '~/stations'
import { addressOf } from '~/stations/station'
import DoneDialog from '~/components/shell/DoneDialog.vue'
import { OPEN_DONE, OPEN_FIND, OPEN_KEYS } from '~/stations/useJobKeys'
import { useJobStore } from '~/stores/job'
import { tooQuietWords } from '#core/advice/spaceWords'
import { useEvaluationStore } from '~/stores/evaluation'
import { useRoomsStore } from '~/stores/rooms'
import { useSelectionStore } from '~/stores/selection'

const route = useRoute()
const store = useJobStore()
const selected = useSelectionStore()
const evaluation = useEvaluationStore()
const rooms = useRoomsStore()
const keysOpen = ref(false)
provide(OPEN_KEYS, keysOpen)
const findOpen = ref(false)
provide(OPEN_FIND, findOpen)
const doneOpen = ref(false)
provide(OPEN_DONE, doneOpen)

const jobId = computed(() => String(route.params.id))
watch(jobId, (id) => {
  selected.reset()
  store.open(id)
}, { immediate: true })
onBeforeUnmount(() => store.close())
useHead({ title: computed(() => store.job ? `${store.job.name} · Plain Match` : 'Plain Match') })

const SAVED = { saved: 'saved', saving: 'saving…', away: '' } as const
// With the server away its words need the room; how the job stands is at the stations too.
const says = computed(() => store.status === 'ready' && store.connection !== 'away' ? [evaluation.sentence.replace(/\.$/, ''), tooQuietWords(rooms.tooQuiet)].filter(Boolean).join('; ') : '')
const kept = computed(() => {
  if (store.status !== 'ready') return ''
  const full = store.isStorageFull ? '; this device cannot keep edits (its storage is full or closed): they live only until this page is left' : ''
  if (store.connection !== 'away') return `${SAVED[store.connection]}${full}`
  return `server away: ${store.waiting === 0 ? 'nothing to send' : `${store.waiting} kept here to send`}; leave this page open${full}`
})

const stations = computed(() => STATIONS.map((station) => {
  const path = addressOf(jobId.value, station)
  const query = selected.selection.outputId ? { line: selected.selection.outputId } : undefined
  const { states, isWhole } = evaluation
  const job = store.job ?? { spaces: [] }
  return { name: station.name, to: { path, query }, says: isWhole ? station.state(states, job, rooms.tooQuiet) : '…', here: route.path === path, done: isWhole && station.isDone(states, job) }
}))

// A new job asks for its name first; later a press on the name renames it.
const renaming = ref(false)
const name = ref('')
const nameBox = useTemplateRef<HTMLElement>('nameBox')
async function rename(): Promise<void> {
  name.value = store.job?.name ?? ''
  renaming.value = true
  await nextTick()
  nameBox.value?.querySelector('input')?.select()
}
function finishRename(keep: boolean): void {
  if (!renaming.value || !store.job) return
  renaming.value = false
  const to = name.value.trim()
  if (keep && to !== '' && to !== store.job.name) store.edit({ kind: 'job.set', was: { name: store.job.name }, to: { name: to } })
}
onMounted(() => {
  const stop = watch(() => store.status, (status) => {
    if (status !== 'ready') return
    if (route.query.rename) void rename()
    queueMicrotask(() => stop())
  }, { immediate: true })
})
</script>

<template>
  <div>
    <div class="band">
    <AppHeader :title="store.job?.name ?? ''" :says="says" :kept="kept" :message="store.message">
      <template v-if="store.status === 'ready'" #first>
        <button
          class="act" type="button" :disabled="!store.canUndo" :title="store.undoName && `take back: ${store.undoName}`"
          @click="store.undo()">undo <KeyCap of="u" /></button>
        <button
          class="act" type="button" :disabled="!store.canRedo" :title="store.redoName && `do again: ${store.redoName}`"
          @click="store.redo()">redo <KeyCap of="U" /></button>
      </template>
      <template v-if="store.status === 'ready'">
        <button class="act find" type="button" @click="findOpen = true">find <KeyCap of="/" /></button>
        <button class="act" type="button" @click="doneOpen = true">done <KeyCap of="h" /></button>
        <button class="act" type="button" @click="rename">rename</button>
        <a class="act" :href="`/api/jobs/${jobId}/file`" download>file out</a>
      </template>
      <CommonActions @keys="keysOpen = true" />
    </AppHeader>
    <StationWire v-if="store.status === 'ready'" :stations="stations" />
    </div>
    <RefusalNotice />
    <div v-if="renaming" ref="nameBox" class="rename">
      <InputText
        v-model="name" aria-label="Name of the job" maxlength="120" @keydown.enter="finishRename(true)" @keydown.esc="finishRename(false)"
        @blur="finishRename(true)" />
    </div>

    <p v-if="store.status === 'loading'" class="state soft" role="status">Reading the job…</p>
    <section v-else-if="store.status !== 'ready'" class="state" role="alert">
      <h2>{{ store.status === 'missing' ? 'This job is not here.' : 'The job cannot be read just now.' }}</h2>
      <p>{{ store.problem }}</p>
      <div class="choices">
        <Button v-if="store.status === 'failed'" label="Try again" @click="store.tryAgain()" />
        <Button variant="outlined" label="All jobs" @click="navigateTo('/')" />
      </div>
    </section>
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
.state { padding: 60px 22px; display: grid; gap: 14px; justify-items: start; max-width: 640px; }
.choices { display: flex; gap: 12px; }
/* Between, the name of the job needs the room: there it stands at the foot of the station. */
@media (min-width: 761px) and (max-width: 1599px) { .find { display: none; } }
/* Over the page, not in it: a page that jumps as this closes takes the press away that closed it. */
.rename { position: absolute; z-index: 6; left: 0; right: 0; padding: 8px 22px; background: var(--paper); border-bottom: 1px solid var(--rule); }
.rename :deep(input) { width: min(520px, 100%); }
</style>

<style>
/* What is scrolled to, by key or script, stands under the band that stays. */
@media (max-width: 1000px) { html:has(.band) { scroll-padding-top: 100px; } }
@media (max-height: 560px) and (min-width: 561px) and (max-width: 1000px) { html:has(.band) { scroll-padding-top: 56px; } }
</style>
