<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import InputText from 'primevue/inputtext'
import Button from '~/components/form/laterButton'
import ChoiceRow from '~/components/form/ChoiceRow.vue'
import type { Output, ReadingKind, ReadingValue, Speaker } from '#core/job/schema'
import { SEEN_WORDS, SWAPPED_WORDS } from '#core/check/lookedWords'
import { FAULTS } from '#core/faults/index'
import { LOUDNESS, SWAPPED } from '#core/job/sections/readings/schema'
import { InputError } from '#core/quantity/inputError'
import { readQuantity } from '#core/quantity/read'
import { writeNumber } from '#core/quantity/write'
import { speakersOf } from '#core/job/tree'
import { neighboursOf } from './polarityTaken'

/** A tap or a dial as it was found, volts with amperes, how loud beside another, what was seen, what went with a unit. */
const { kind, output, speaker } = defineProps<{ kind: ReadingKind, output: Output, speaker: Speaker | null }>()
const emit = defineEmits<{ record: [value: ReadingValue] }>()

const problem = ref('')
const volts = ref('')
const amps = ref('')
const watts = ref('')
const taps = computed(() => speaker?.load.kind === 'tap' ? [0, ...new Set([...speaker.load.tapsW, ...speaker.load.tapW > 0 ? [speaker.load.tapW] : []])].sort((a, b) => a - b) : [])
/** Scales that dials carry; the one of the line first. */
const scales = computed(() => {
  const own = speaker?.load.kind === 'tap' ? speaker.load.ratedV : 70.71
  return [own, ...[25, 70.71, 100].filter(v => Math.abs(v / own - 1) > 0.02)]
})
const scale = ref(70.71)
/** What could be seen here, of what this line could have. */
const seen = computed(() => {
  const [speakers, nodeId] = [speakersOf(output.wiring), speaker?.id ?? null]
  return FAULTS.filter(f => f.looks !== undefined && f.candidates(output, speakers).some(c => c.nodeId === nodeId)).map(f => f.kind)
})
const neighbours = computed(() => speaker ? neighboursOf(output, speaker.id) : [])
const beside = ref('')
/** Empty: a unit that is known to be good. */
const exchanged = ref('')
watch(() => [kind, speaker?.id], () => {
  problem.value = volts.value = amps.value = watts.value = ''
  scale.value = scales.value[0]!
  beside.value = neighbours.value[0]?.id ?? ''
  exchanged.value = ''
}, { immediate: true })

function recordTap(tapW: number): void {
  emit('record', { is: 'tap', tapW, ratedV: scale.value })
}
/** Read as they are typed; what cannot be read stays, with the reason. */
function reading<T>(read: () => T): T | null {
  try {
    problem.value = ''
    return read()
  }
  catch (error) {
    if (!(error instanceof InputError)) throw error
    problem.value = error.message
    return null
  }
}
function typedTap(): void {
  const tapW = reading(() => readQuantity('power', watts.value))
  if (tapW !== null) recordTap(tapW)
}
function voltsAmps(): void {
  const value = reading((): ReadingValue => ({ is: 'volts-amps', volts: readQuantity('voltage', volts.value), amps: readQuantity('current', amps.value) }))
  if (value) emit('record', value)
}
</script>

<template>
  <form class="other" @submit.prevent="kind === 'tap-found' ? typedTap() : voltsAmps()">
    <template v-if="kind === 'tap-found'">
      <ChoiceRow
        v-model="scale" label="Scale that it stands on" before="on the scale of"
        :choices="scales.map(value => ({ value, says: `${writeNumber(Math.floor(value))} V` }))" />
      <div class="answers" role="group" aria-label="Watts that it stands at">
        <button v-for="tapW in taps" :key="tapW" type="button" class="tap" @click="recordTap(tapW)">{{ tapW === 0 ? 'off' : `${writeNumber(tapW)} W` }}</button>
      </div>
      <label class="typed"><InputText v-model="watts" size="small" inputmode="decimal" maxlength="12" aria-label="Other watts" placeholder="other watts" />
        <Button type="submit" label="Record" :disabled="watts.trim() === ''" /></label>
    </template>
    <template v-else-if="kind === 'head-volts-amps'">
      <label class="typed"><InputText v-model="volts" inputmode="decimal" maxlength="12" aria-label="Volts" placeholder="volts" /> V</label>
      <label class="typed"><InputText v-model="amps" inputmode="decimal" maxlength="12" aria-label="Amperes" placeholder="amps" /> A</label>
      <Button type="submit" label="Record" :disabled="volts.trim() === '' || amps.trim() === ''" />
    </template>
    <div v-else-if="kind === 'looked'" class="answers" role="group" aria-label="What is seen">
      <button type="button" class="tap" @click="emit('record', { is: 'as-it-should' })">nothing amiss</button>
      <button
        v-for="fault in seen" :key="fault" type="button" class="tap"
        @click="emit('record', { is: 'seen', fault })">{{ SEEN_WORDS[fault] ?? fault }}</button>
    </div>
    <template v-else-if="kind === 'swapped'">
      <label class="typed">by <select v-model="exchanged" aria-label="Which unit was put here"><option value="">a known-good unit</option>
        <option v-for="n in neighbours" :key="n.id" :value="n.id">{{ n.label }}, in exchange</option></select></label>
      <div class="answers" role="group" aria-label="And then">
        <Button
          v-for="is in SWAPPED" :key="is" type="button" variant="outlined" :label="SWAPPED_WORDS[is]"
          @click="emit('record', { is, withId: exchanged || null })" />
      </div>
    </template>
    <template v-else>
      <p v-if="neighbours.length === 0" class="soft">Nothing else hangs on this line to hear it beside.</p>
      <template v-else>
        <label class="typed">beside
          <select v-model="beside" aria-label="Beside which speaker"><option
            v-for="other in neighbours" :key="other.id"
            :value="other.id">{{ other.label }}</option></select></label>
        <div class="answers" role="group" aria-label="How loud it is">
          <Button v-for="is in LOUDNESS" :key="is" type="button" variant="outlined" :label="is" @click="emit('record', { is, besideId: beside })" />
        </div>
      </template>
    </template>
    <p v-if="problem" class="error-words" role="alert">{{ problem }}</p>
  </form>
</template>

<style scoped>
.other { display: grid; gap: 9px; flex-basis: 100%; }
.answers { display: flex; flex-wrap: wrap; gap: 7px; }
.answers .tap { min-height: 46px; min-width: 58px; }
.answers :deep(button) { min-height: 46px; }
.typed { display: flex; gap: 8px; align-items: center; }
select { font: inherit; color: inherit; background: var(--paper-raised); border: 1px solid var(--ink); padding: 6px 8px; min-height: 40px; }
</style>
