<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { takenWords } from '#core/check/words'
import { factsOf } from '#core/job/sections/readings/kinds'
import type { Reading, ReadingKind } from '#core/job/schema'
import { writeQuantity } from '#core/quantity/write'
import { TONES } from './taken'

/** Who reads, with which meter, what its leads read, at which tone. */
const { kind, taken, frequencyHz, problem } = defineProps<{ kind: ReadingKind, taken: Reading['taken'], frequencyHz: number | null, problem: string }>()
const by = defineModel<string>('by', { required: true })
const meter = defineModel<string>('meter', { required: true })
const leads = defineModel<string>('leads', { required: true })
const tone = defineModel<string>('tone', { required: true })
</script>

<template>
  <details class="with">
    <summary class="soft small">{{ takenWords(taken, frequencyHz) || 'who reads, with which meter' }}</summary>
    <div class="three">
      <InputText v-model="by" size="small" aria-label="Who reads" placeholder="who reads" maxlength="80" />
      <InputText v-model="meter" size="small" aria-label="With which meter" placeholder="with which meter" maxlength="80" />
      <InputText
        v-if="factsOf(kind).isCopper" v-model="leads" size="small" maxlength="12"
        aria-label="Its leads, ohms: 0 when nulled" placeholder="leads: 0 Ω if nulled" />
      <InputText
        v-if="factsOf(kind).isOfTone" v-model="tone" size="small" list="meter-tones" maxlength="12"
        aria-label="Its tone, hertz: 1 kHz unless said" placeholder="its tone: 1 kHz" />
      <datalist id="meter-tones"><option v-for="hz in TONES" :key="hz" :value="writeQuantity(hz, 'Hz')" /></datalist>
    </div>
    <p v-if="problem" class="error-words" role="alert">{{ problem }}</p>
  </details>
</template>

<style scoped>
.three { display: grid; grid-template-columns: repeat(auto-fit, minmax(140px, 1fr)); gap: 8px; padding-top: 6px; }
</style>
