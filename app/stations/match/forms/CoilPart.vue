<script setup lang="ts">
import type { SpeakerLoad } from '#core/job/schema'
import { nameText } from '#core/quantity/fields'
import { writeQuantity } from '#core/quantity/write'
import TextEntry from '~/components/form/TextEntry.vue'
import { quantityOf, textOf, within } from '~/components/form/readers'

/** One coil of a unit whose coils have terminals of their own: which unit, and how many coils that has. */
type Coil = Extract<SpeakerLoad, { kind: 'coil' }>
const { load } = defineProps<{ load: Coil }>()
const emit = defineEmits<{ set: [load: Coil] }>()
function countOf(typed: string): number {
  return Math.round(within(2, 16, 'The number of coils')(typed))
}
</script>

<template>
  <div class="coil">
    <div class="three">
      <TextEntry label="A coil of the unit" :text="load.unit" :read="textOf(nameText, 'name')" @commit="emit('set', { ...load, unit: $event })" />
      <TextEntry label="It has coils" :text="String(load.of)" :read="countOf" @commit="emit('set', { ...load, of: $event })" />
      <TextEntry
        label="This one" :text="writeQuantity(load.coil.nominalOhm, 'Ω', 6)" :read="quantityOf('resistance')"
        @commit="emit('set', { ...load, coil: { ...load.coil, nominalOhm: $event } })" />
    </div>
    <p class="soft small">Its other coils hang on other outputs, under the same name of the unit; all of them get the same signal at the same level.</p>
  </div>
</template>

<style scoped>
.coil { display: grid; gap: 4px; }
.three { display: grid; grid-template-columns: minmax(0, 2fr) minmax(0, 1fr) minmax(0, 1fr); gap: 10px; align-items: start; }
</style>
