<script setup lang="ts">
import { computed, onBeforeUnmount } from 'vue'
import { useHead, useRoute } from '#imports'
import { BENCH_ID } from '#core/job/bench'
import AppHeader from '~/components/shell/AppHeader.vue'
import CommonActions from '~/components/shell/CommonActions.vue'
import UndoRedo from '~/components/shell/UndoRedo.vue'
import { DoneDialog } from '~/components/shell/opened'
import KeyCap from '~/components/KeyCap.vue'
import { keptWords } from '~/stations/keptWords'
import JobProblem from '~/stations/JobProblem.vue'
import { RefusalNotice, TogetherNotice } from '~/stations/parts'
import { provideOpened } from '~/stations/opened'
import { useJobStore } from '~/stores/job'
import { startsOffline } from '~/composables/offline'

/** The bench: it is opened, kept and taken back as a job is. */
const store = useJobStore()
const { keysOpen, findOpen, doneOpen } = provideOpened()

store.open(BENCH_ID)
// The page that follows may have opened its own by now.
onBeforeUnmount(() => { if (store.id === BENCH_ID) store.close() })
const route = useRoute()
const ticketId = computed(() => typeof route.params.ticket === 'string' ? route.params.ticket : null)
useHead({ title: 'Bench · Plain Match' })
const kept = computed(() => keptWords(store, startsOffline.value))
</script>

<template>
  <div>
    <div class="band">
      <AppHeader title="Bench" :kept="kept" :message="store.message">
        <template v-if="store.status === 'ready'" #first><UndoRedo /></template>
        <template v-if="store.status === 'ready'">
          <button class="act" type="button" @click="doneOpen = true">done <KeyCap of="h" /></button>
          <a class="act" :href="`/api/jobs/${BENCH_ID}/file`" download="bench.plainmatch.json">file out</a>
        </template>
        <CommonActions has-find @find="findOpen = true" @keys="keysOpen = true" />
      </AppHeader>
    </div>
    <RefusalNotice />
    <TogetherNotice v-if="store.status === 'ready'" :ticket-id="ticketId" />
    <p v-if="store.status === 'loading'" class="state soft" role="status">Reading the bench…</p>
    <JobProblem v-else-if="store.status !== 'ready'" />
    <NuxtPage v-else />
    <DoneDialog v-model:open="doneOpen" />
  </div>
</template>

<style scoped>
@media (max-width: 1000px) { .band { position: sticky; top: 0; z-index: 11; background: var(--paper); } }
.state { padding: 60px 22px; }
</style>
