<script setup lang="ts">
import { valveOf } from '#core/amplifier/index'
import { computed } from 'vue'
import Select from '~/components/form/choiceList'
import { POWER_SCHOOLS } from '#core/schools/power'
import { RESERVE_SCHOOLS } from '#core/schools/reserve'
import { VALVE_SCHOOLS } from '#core/schools/valve'
import { setting } from '#core/job/edits'
import type { Practice } from '#core/job/schema'
import { useEvaluationStore } from '~/stores/evaluation'
import { useJobStore } from '~/stores/job'

/** The schools that the job is judged by: those that its kinds of line ask for. */
const store = useJobStore()
const evaluation = useEvaluationStore()

// Made once: with fresh lists the two were worked out anew with every key pressed (5 ms of it).
const [RESERVE, POWER, VALVE] = [[...RESERVE_SCHOOLS], [...POWER_SCHOOLS], [...VALVE_SCHOOLS]]
const reserve = computed(() => store.job?.practice.reserve)
const power = computed(() => store.job?.practice.power)
const valve = computed(() => store.job?.practice.valve)
const hasValve = computed(() => evaluation.lines.some(l => valveOf(l.output.rating) !== null))
const hasPlain = computed(() => evaluation.lines.some(l => l.kind === 'low-impedance'))
const hasLine = computed(() => evaluation.lines.some(l => l.kind === 'constant-voltage') || !hasPlain.value)
function set(to: Partial<Practice>): void {
  const { job } = store
  if (job) store.edit({ kind: 'practice.set', ...setting<Practice, Partial<Practice>>(job.practice, to) })
}
</script>

<template>
  <span v-if="reserve" class="practice">
    <template v-if="hasLine">
      <label for="reserve" class="soft small">reserve</label>
      <Select
        input-id="reserve" aria-label="reserve rule" :model-value="reserve" :options="RESERVE" option-label="name"
        option-value="id" size="small" @update:model-value="set({ reserve: $event })"
      >
        <template #option="{ option }">
          <span class="school"><b>{{ option.name }}</b><span class="soft small">{{ option.says }}. {{ option.suits }}</span></span>
        </template>
      </Select>
    </template>
    <template v-if="hasPlain">
      <label for="power" class="soft small">power</label>
      <Select
        input-id="power" aria-label="power rule" :model-value="power" :options="POWER" option-label="name"
        option-value="id" size="small" @update:model-value="set({ power: $event })"
      >
        <template #option="{ option }"><span class="school"><b>{{ option.name }}</b><span class="soft small">{{ option.risks }}</span></span></template>
      </Select>
    </template>
    <template v-if="hasValve">
      <label for="valve" class="soft small">valve</label>
      <Select
        input-id="valve" aria-label="rule for valve outputs" :model-value="valve" :options="VALVE" option-label="name"
        option-value="id" size="small" @update:model-value="set({ valve: $event })"
      >
        <template #option="{ option }"><span class="school"><b>{{ option.name }}</b><span
          class="soft small">{{ option.says }}. {{ option.suits }}</span></span></template>
      </Select>
    </template>
  </span>
</template>

<style scoped>
.practice { margin-left: auto; display: flex; gap: 8px; align-items: center; flex: none; }
.practice :deep(.p-select) { font-size: 14px; }
.practice :deep(.p-select-label) { padding: 2px 6px; font-size: 14px; }
.school { display: grid; max-width: 420px; white-space: normal; }
@media (max-width: 1000px) { .practice { margin-left: 0; flex: 1 1 100%; flex-wrap: wrap; min-width: 0; } }
</style>
