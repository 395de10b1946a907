<script setup lang="ts">
import { computed, defineAsyncComponent } from 'vue'
import type { LineEvaluation } from '#core/match/evaluate'
import type { SheetDialog } from './keys'

/** What opens over the run sheet, one at a time; each is fetched when it is first asked for. */
const opened = defineModel<SheetDialog | null>({ required: true })
const { line } = defineProps<{ line: LineEvaluation | undefined }>()

const OF_JOB = {
  'taps': defineAsyncComponent(() => import('~/stations/space/TapPlanDialog.vue')), 'amplifiers': defineAsyncComponent(() => import('./AmplifierDialog.vue')),
  'what-if': defineAsyncComponent(() => import('./WhatIfDialog.vue')), 'cable-list': defineAsyncComponent(() => import('./CableListDialog.vue')),
}
const OF_LINE = {
  wirings: defineAsyncComponent(() => import('./WiringsDialog.vue')), clip: defineAsyncComponent(() => import('./ClipDialog.vue')),
  impedance: defineAsyncComponent(() => import('./ImpedanceDialog.vue')), match: defineAsyncComponent(() => import('./MatchDialog.vue')),
  bands: defineAsyncComponent(() => import('./BandsDialog.vue')), replace: defineAsyncComponent(() => import('./ReplaceDialog.vue')),
}
const ofJob = computed(() => opened.value !== null && opened.value in OF_JOB ? OF_JOB[opened.value as keyof typeof OF_JOB] : null)
const ofLine = computed(() => opened.value !== null && opened.value in OF_LINE ? OF_LINE[opened.value as keyof typeof OF_LINE] : null)
const isOpen = computed({ get: () => opened.value !== null, set: (open) => { if (!open) opened.value = null } })
</script>

<template>
  <component :is="ofJob" v-if="ofJob" v-model:open="isOpen" />
  <component :is="ofLine" v-else-if="ofLine && line" :key="line.outputId" v-model:open="isOpen" :line="line" />
</template>
