<script setup lang="ts">
import { ref } from 'vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import type { ReadingValue } from '#core/job/schema'
import { typedProblem, typedValue } from '../check/taken'

/** What a meter shows, typed: ohms, or open. */
const { isHeld } = defineProps<{ isHeld: boolean }>()
const emit = defineEmits<{ record: [value: ReadingValue] }>()
const typed = ref('')
const problem = ref('')

function record(): void {
  const value = typedValue(typed.value, null)
  problem.value = typedProblem(typed.value)
  if (value) emit('record', value)
}
</script>

<template>
  <div data-form class="typed">
    <InputText
      v-model="typed" size="small" inputmode="decimal" aria-label="What the meter shows, in ohms" placeholder="31.4, or open" maxlength="40"
      @keydown.enter="record" />
    <Button size="small" label="Record" :disabled="typed.trim() === '' || isHeld" @click="record" />
  </div>
  <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
</template>

<style scoped>
.typed { display: flex; gap: 8px; align-items: center; }
.typed input { max-width: 170px; }
.problem { color: var(--stop); margin: 0; }
</style>
