<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import InputText from 'primevue/inputtext'
import Button from '~/components/form/laterButton'
import ChoiceRow from '~/components/form/ChoiceRow.vue'
import type { Job, Output, ReadingValue, Speaker } from '#core/job/schema'
import { writeNumber } from '#core/quantity/write'
import { levelTaken, levelTyped, SIGNAL_CHOICES, WEIGHTING_CHOICES } from './levelTaken'

/**
 * A sound level: its figure, how it was weighted, of what it was taken, and the volts at the rack meanwhile. As the last one on this line, until it is said
 * otherwise.
 */
const { job, output, speaker } = defineProps<{ job: Job, output: Output, speaker: Speaker }>()
const emit = defineEmits<{ record: [value: ReadingValue] }>()

const db = ref('')
const volts = ref('')
const problem = ref('')
const how = ref(levelTaken(job, output.id))
watch(() => [output.id, speaker.id], () => {
  db.value = problem.value = ''
  how.value = levelTaken(job, output.id)
  volts.value = how.value.headV === null ? '' : writeNumber(how.value.headV, 4)
}, { immediate: true })

const canRecord = computed(() => db.value.trim() !== '')
function record(): void {
  const read = levelTyped(db.value, volts.value)
  problem.value = typeof read === 'string' ? read : ''
  if (typeof read !== 'string') emit('record', { is: 'level', ...read, weighting: how.value.weighting, signal: how.value.signal })
}
</script>

<template>
  <form class="level" @submit.prevent="record">
    <label class="typed"><InputText v-model="db" inputmode="decimal" maxlength="12" aria-label="Level, dB" placeholder="level" /> dB
      <Button type="submit" label="Record" :disabled="!canRecord" /></label>
    <p v-if="problem" class="error-words" role="alert">{{ problem }}</p>
    <ChoiceRow v-model="how.weighting" label="Weighted" before="weighted" :choices="WEIGHTING_CHOICES" />
    <ChoiceRow v-model="how.signal" label="Of which signal" before="of" :choices="SIGNAL_CHOICES" />
    <label class="typed"><InputText v-model="volts" inputmode="decimal" maxlength="12" aria-label="Volts at the rack" placeholder="not read" />
      <span class="soft small">V at the rack meanwhile</span></label>
  </form>
</template>

<style scoped>
.level { display: grid; gap: 9px; }
.typed { display: flex; gap: 8px; align-items: center; }
.typed :deep(input) { width: 110px; min-height: 42px; }
</style>
