<script setup lang="ts">
import { computed } from 'vue'
import type { Reach } from '#core/hands/reach'
import type { LineThrough } from '#core/job/schema'
import { countOf } from '#core/quantity/write'
import KeyCap from '~/components/KeyCap.vue'
import { THROUGH_NAMES } from '~/drawing/speakerText'
import { useJobStore } from '~/stores/job'
import { useSelectionStore } from '~/stores/selection'

/** What a control, a transformer or a part is to stand before: one speaker, all behind it, the rail, the zone. */
const { kind, reaches } = defineProps<{ kind: LineThrough['kind'], reaches: readonly Reach[] }>()
const emit = defineEmits<{ put: [nodeIds: readonly string[]], close: [] }>()
const store = useJobStore()
const selected = useSelectionStore()
const label = computed(() => selected.speaker?.label ?? '')
const zone = computed(() => store.job?.zones.find(z => z.id === selected.speaker?.zoneId)?.name ?? '')
const words = computed(() => reaches.map(({ of, nodeIds }) => ({
  of, nodeIds,
  says: { 'this': `${label.value} alone`, 'behind': `${label.value} and all behind it`, 'rail': 'the whole rail', 'zone': `the zone ${zone.value}` }[of],
  then: of === 'this' ? '' : countOf(nodeIds.length, 'speaker'),
})))
</script>

<template>
  <section class="picker" aria-label="What it is to stand before">
    <h3>A {{ THROUGH_NAMES[kind] }} before</h3>
    <button v-for="(w, k) in words" :key="w.of" class="offer" type="button" @click="emit('put', w.nodeIds)">
      {{ w.says }}<span v-if="w.then" class="then">{{ w.then }}</span><KeyCap :of="String(k + 1)" />
    </button>
    <button class="act" type="button" @click="emit('close')">none <KeyCap of="Esc" /></button>
  </section>
</template>

<style scoped>
.picker { display: grid; gap: 8px; }
</style>
