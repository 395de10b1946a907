<script setup lang="ts">
import { computed } from 'vue'
import { writeRating } from '#core/amplifier/index'
import type { Amplifier } from '#core/job/schema'

/** An amplifier beside its rails: its name, where it stands, what it gives. */
const { amplifier } = defineProps<{ amplifier: Amplifier }>()
/** Another output is wanted on it. */
const emit = defineEmits<{ output: [] }>()

/** What its outputs give, equals counted: "4 × 70 V 240 W". */
const ratings = computed(() => {
  const counts = new Map<string, number>()
  for (const { rating } of amplifier.outputs) counts.set(writeRating(rating), (counts.get(writeRating(rating)) ?? 0) + 1)
  return [...counts].map(([says, count]) => `${count > 1 || says === '' ? `${count} × ` : ''}${says === '' ? 'not rated' : says}`.replace(/(\d) (?=[VWΩ]|×)/g, '$1\u00A0'))
})
</script>

<template>
  <div class="box">
    <p class="amp-name">{{ amplifier.name }}</p>
    <p v-if="amplifier.place" class="soft small">{{ amplifier.place }}</p>
    <p v-for="says in ratings" :key="says" class="small">{{ says }}</p>
    <button class="act small add" type="button" :aria-label="`add an output to ${amplifier.name}`" @click="emit('output')">+ output</button>
  </div>
</template>

<style scoped>
.box { border: 1.5px solid var(--ink); background: var(--paper-raised); padding: 11px 38px 8px 11px; position: relative; display: flex;
  flex-direction: column; gap: 2px; }
.amp-name { font-weight: 700; line-height: 1.25; }
.add { margin-top: auto; }
@media (max-width: 760px) {
  .box { flex-direction: row; flex-wrap: wrap; gap: 0 12px; align-items: baseline; padding: 6px 10px; margin-right: 8px; }
  .add { margin: 0 0 0 auto; }
}
</style>
