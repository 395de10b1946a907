<script setup lang="ts">
import { computed } from 'vue'
import { FAULT_WORDS } from '#core/check/faultWords'
import { KIND_NAMES } from '#core/check/gradeWords'
import { valueWords } from '#core/check/words'
import { writeQuantity } from '#core/quantity/write'
import { useJobStore } from '~/stores/job'
import { useSelectionStore } from '~/stores/selection'
import { placeName } from './placeName'
import { shareText } from './shown'
import { useTraceStore } from './suspects'

/** Why the amplifier must not be switched on to this line, and the act of who does all the same. `canAnswer`: where that would be next. */
const { canAnswer = false } = defineProps<{ canAnswer?: boolean }>()
const store = useJobStore()
const selected = useSelectionStore()
const trace = useTraceStore()

const why = computed(() => {
  const { risk } = trace
  if (risk === null) return ''
  if (risk.why === 'suspects') {
    const { faults } = risk.likeliest
    const first = faults.length > 0 ? faults.map(f => FAULT_WORDS[f.kind].at(placeName(store.job, f.nodeId))).join(' and ') : 'the line as drawn'
    return `${shareText(risk.share)} of what may be here would overload this output; likeliest of that: ${first}.`
  }
  const { reading, predicted, verdict } = risk.judged
  const place = reading.nodeId === null ? selected.line?.output.label : selected.line?.speakers.find(s => s.id === reading.nodeId)?.label
  const stands = predicted?.overloadOhm ?? null
  const limit = verdict.code === 'far-low' && stands === null
    ? ': less than half of what it should, and what this output stands is not known'
    : reading.value.is === 'ohm' && stands !== null ? `: this output stands ${writeQuantity(stands, 'Ω')} and more` : ''
  return `${place} ${KIND_NAMES[reading.kind]} reads ${valueWords(reading.value)}${limit}.`
})
</script>

<template>
  <section v-if="trace.risk" class="risk" role="alert">
    <p><b>{{ trace.mayBeOn ? 'On by your word.' : 'Do not switch on.' }}</b> {{ why }}
      <template v-if="!trace.mayBeOn">First everything that is read with the amplifier off; what reads right then clears it.</template></p>
    <button v-if="canAnswer && !trace.mayBeOn" class="act" type="button" @click="trace.answer()">I switch on all the same, and answer for it</button>
  </section>
</template>

<style scoped>
.risk { border-left: 5px solid var(--stop); padding: 4px 0 4px 10px; display: grid; gap: 6px; justify-items: start; }
.act { text-decoration: underline; text-underline-offset: 3px; color: var(--ink); min-height: 32px; }
</style>
