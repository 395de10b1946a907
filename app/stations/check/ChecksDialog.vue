<script setup lang="ts">
import { computed } from 'vue'
import Dialog from 'primevue/dialog'
import InputText from 'primevue/inputtext'
import type { Checks } from '#core/job/schema'
import ChoiceRow from '~/components/form/ChoiceRow.vue'
import { useJobStore } from '~/stores/job'
import { useEvaluationStore } from '~/stores/evaluation'

/** Which readings this job wants before it counts as proved, and when somebody comes again. */
const open = defineModel<boolean>('open', { required: true })
const store = useJobStore()
const evaluation = useEvaluationStore()
const checks = computed(() => store.opened.checks)
const total = computed(() => evaluation.states.reduce((sum, line) => sum + line.total, 0))

type Key = Exclude<keyof Checks, 'again'>
const ROWS: { key: Key, label: string, choices: { value: string, says: string }[] }[] = [
  { key: 'polarity', label: 'Which way round', choices: [{ value: 'together', says: 'where two or more are heard together' }, { value: 'every', says: 'every speaker' }, { value: 'none', says: 'none' }] },
  { key: 'coils', label: 'Resistance of the coil', choices: [{ value: 'every', says: 'every speaker' }, { value: 'samples', says: 'the ends and one of each' }, { value: 'none', says: 'none' }] },
  { key: 'sounds', label: 'Does it play', choices: [{ value: 'every', says: 'every speaker' }, { value: 'samples', says: 'the ends and one of each' }, { value: 'none', says: 'none' }] },
  { key: 'pairs', label: 'Bare pairs, before speakers hang', choices: [{ value: 'every', says: 'each run' }, { value: 'none', says: 'none' }] },
]
function set<K extends keyof Checks>(key: K, value: Checks[K] | undefined): void {
  if (value !== undefined && value !== checks.value[key]) store.edit({ kind: 'checks.set', was: { [key]: checks.value[key] }, to: { [key]: value } })
}
function setDay(event: Event): void {
  const { value } = event.target as HTMLInputElement
  set('again', value === '' ? null : value)
}
/** In two weeks: what a unit that was mended wants. */
function inTwoWeeks(): void {
  set('again', new Date(Date.now() + 14 * 86_400_000).toISOString().slice(0, 10))
}
</script>

<template>
  <Dialog v-model:visible="open" modal header="What this job wants read" :dismissable-mask="true" :style="{ width: 'min(620px, 96vw)' }">
    <div class="checks" data-form>
      <div v-for="row in ROWS" :key="row.key" class="row"><h3>{{ row.label }}</h3>
        <ChoiceRow
          :label="row.label" :choices="row.choices"
          :model-value="checks[row.key] as string" @update:model-value="set(row.key, $event as never)" /></div>
      <p class="soft small">{{ total }} readings then. The impedance of each line is always asked for. What is not asked for is not
        proved: it is taken on trust.</p>
      <div class="row"><h3>Check again</h3>
        <span class="day"><label class="soft small" for="again-on">on</label>
          <InputText id="again-on" type="date" size="small" :model-value="checks.again ?? ''" @change="setDay" />
          <button class="act" type="button" @click="inTwoWeeks">in two weeks</button>
          <button v-if="checks.again" class="act" type="button" @click="set('again', null)">no more</button></span></div>
    </div>
  </Dialog>
</template>

<style scoped>
.checks { display: grid; gap: 14px; }
.row { display: grid; gap: 5px; }
.day { display: flex; flex-wrap: wrap; gap: 6px 14px; align-items: center; }
</style>
