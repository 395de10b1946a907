<script setup lang="ts">
import { computed } from 'vue'
import type { LineEvaluation } from '#core/line/evaluate'
import { fetchedLater } from '~/composables/fetchedLater'
import type { SheetDialog } from '../keys'

/** What opens over the run sheet, one at a time; each is fetched when it is first asked for. */
const opened = defineModel<SheetDialog | null>({ required: true })
const { line } = defineProps<{ line: LineEvaluation | undefined }>()

const OF_JOB = {
  'taps': fetchedLater(() => import('~/stations/space/TapPlanDialog.vue')), 'amplifiers': fetchedLater(() => import('./AmplifierDialog.vue')),
  'what-if': fetchedLater(() => import('./WhatIfDialog.vue')), 'cable-list': fetchedLater(() => import('./CableListDialog.vue')),
}
const OF_LINE = {
  wirings: fetchedLater(() => import('./WiringsDialog.vue')), clip: fetchedLater(() => import('./ClipDialog.vue')),
  impedance: fetchedLater(() => import('./ImpedanceDialog.vue')), match: fetchedLater(() => import('./MatchDialog.vue')),
  bands: fetchedLater(() => import('./BandsDialog.vue')), replace: fetchedLater(() => import('./ReplaceDialog.vue')),
}
const ofJob = computed(() => opened.value !== null && opened.value in OF_JOB ? OF_JOB[opened.value as keyof typeof OF_JOB] : null)
const ofLine = computed(() => opened.value !== null && opened.value in OF_LINE ? OF_LINE[opened.value as keyof typeof OF_LINE] : null)
const isOpen = computed({ get: () => opened.value !== null, set: (open) => { if (!open) opened.value = null } })
</script>

<template>
  <component :is="ofJob" v-if="ofJob" v-model:open="isOpen" />
  <component :is="ofLine" v-else-if="ofLine && line" :key="line.outputId" v-model:open="isOpen" :line="line" />
</template>
