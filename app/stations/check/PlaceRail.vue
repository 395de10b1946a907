<script setup lang="ts">
import { computed, nextTick, useTemplateRef, watch } from 'vue'
import { stateOf, type LineProof } from '#core/check/proof'
import type { LineEvaluation } from '#core/line/evaluate'

/** The line in small, to see where one stands on it and to go to another place. */
const { line, proof, selectedId } = defineProps<{ line: LineEvaluation, proof: LineProof, selectedId: string | null }>()
const emit = defineEmits<{ select: [nodeId: string | null] }>()

/** The rail follows: where one stands is in sight. */
const places = useTemplateRef<HTMLElement>('places')
watch(() => selectedId, async () => {
  await nextTick()
  const here = places.value?.querySelector<HTMLElement>('.on')
  if (here && places.value) places.value.scrollLeft = here.offsetLeft - places.value.clientWidth / 2 + here.offsetWidth / 2
}, { immediate: true })

/** Left as it is counts as settled, and is said. */
const placeState = (id: string | null) => {
  const states = (proof.asksAt.get(id) ?? []).map(ask => stateOf(proof.standing, ask))
  if (states.includes('wrong')) return 'stop'
  const settled = states.filter(s => s === 'good' || s === 'left').length
  if (settled === 0 || states.length === 0) return 'none'
  return settled < states.length ? 'some' : states.includes('left') ? 'left' : 'good'
}
const HEAD_STATE = computed(() => placeState(null))
const WORDS = { good: 'proved', some: 'half proved', none: 'not read', left: 'proved, or left as it is', stop: 'reads wrong' } as const
</script>

<template>
  <div ref="places" class="places" role="group" aria-label="Places on this line">
    <button
      type="button" class="place head" :class="[HEAD_STATE, { on: selectedId === null }]" :aria-pressed="selectedId === null"
      :aria-label="`at the rack, ${WORDS[HEAD_STATE]}`" @click="emit('select', null)">rack</button>
    <button
      v-for="speaker in line.speakers" :key="speaker.id" type="button" class="place" :class="[placeState(speaker.id), { on: selectedId === speaker.id }]"
      :aria-pressed="selectedId === speaker.id"
      :aria-label="`speaker ${speaker.label}, ${WORDS[placeState(speaker.id)]}`" @click="emit('select', speaker.id)"
    >{{ speaker.label }}</button>
  </div>
</template>

<style scoped>
.places { position: relative; display: flex; flex-wrap: wrap; gap: 8px 6px; padding-top: 3px; }
.place { position: relative; border: 0; border-top: 3px solid var(--copper); background: none; padding: 8px 4px 1px; min-width: 34px; cursor: pointer;
  font-size: 13.5px; text-align: center; margin: 0 -3px; }
.place::before { content: ''; position: absolute; left: 50%; top: 0; height: 8px; border-left: 1.5px solid var(--ink); }
.place { color: var(--ink-soft); }
.place.good { color: var(--good); font-weight: 700; }
.place.stop { color: var(--stop); font-weight: 700; text-decoration: underline wavy; }
.place.on { background: var(--ink); color: var(--paper); }
@media (max-width: 760px) { .places { flex-wrap: nowrap; overflow-x: auto; } .place { padding-bottom: 8px; flex: none; } }
</style>
