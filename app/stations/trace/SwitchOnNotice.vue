<script setup lang="ts">
import { computed } from 'vue'
import { useJobStore } from '~/stores/job'
import { useSelectionStore } from '~/stores/selection'
import { placeName } from './placeName'
import { riskSays } from './riskSays'
import { useTraceStore } from './suspects'

/** Why the amplifier must not be switched on to this line, and the act of who does all the same. `canAnswer`: where that would be next. */
const { canAnswer = false } = defineProps<{ canAnswer?: boolean }>()
const store = useJobStore()
const selected = useSelectionStore()
const trace = useTraceStore()

const why = computed(() => trace.risk === null || !selected.line ? '' : riskSays(trace.risk, selected.line.output, id => placeName(store.job, id)))
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
