<script setup lang="ts">
import { computed } from 'vue'
import { leadOhm } from '#core/network/cable'
import { findPlace } from '#core/job/tree'
import { writeCable, type Cable } from '#core/quantity/cable'
import { writeLength } from '#core/quantity/units'
import { writeQuantity } from '#core/quantity/write'
import TextEntry from '~/components/form/TextEntry.vue'
import { cableOf, lengthExample, lengthOf } from '~/components/form/readers'
import { useUnits } from '~/composables/useUnits'
import { useJobStore } from '~/stores/job'
import { cableExample, sizesAtHand, usualCableOf } from './usualCable'

/** The cable that a place hangs by: its length and its size. `says`: which one of its cables that is. */
const { nodeId, says } = defineProps<{ nodeId: string, says: string }>()
const store = useJobStore()
const { units } = useUnits()
const lead = computed(() => store.job ? findPlace(store.job, nodeId)?.branch.lead ?? null : null)
/** Of those that the job has, else the usual ones. */
const sizes = computed(() => sizesAtHand(store.opened, units.value))
const usual = computed(() => usualCableOf(store.opened, [nodeId]))

function set(change: { cable?: Cable, lengthM?: number }): void {
  const was = lead.value
  store.edit({ kind: 'lead.set', nodeId, was, to: { cable: change.cable ?? was?.cable ?? usual.value, lengthM: change.lengthM ?? was?.lengthM ?? 0 } })
}
</script>

<template>
  <fieldset class="lead">
    <legend class="soft small">Cable {{ says }}</legend>
    <div class="two">
      <TextEntry
        label="Length" :text="lead ? writeLength(lead.lengthM, units, 6) : ''" :read="lengthOf(units)" :hint="lengthExample(units)"
        @commit="set({ lengthM: $event })" />
      <TextEntry label="Size" :text="lead?.cable ? writeCable(lead.cable) : ''" :read="cableOf" :hint="cableExample(units)" @commit="set({ cable: $event })" />
    </div>
    <div v-if="lead && !lead.cable" class="taps" role="group" aria-label="Size of this cable">
      <span class="soft small">of which size?</span>
      <button v-for="size in sizes" :key="writeCable(size)" type="button" class="tap figure" @click="set({ cable: size })">{{ writeCable(size) }}</button>
    </div>
    <p class="soft small">
      <template v-if="lead">{{ lead.cable ? `${writeQuantity(leadOhm(lead), 'Ω')} out and back at 20 °C.` : 'Of no stated size: it counts as none.' }} <button
        class="act" type="button"
        @click="store.edit({ kind: 'lead.set', nodeId, was: lead, to: null })">not stated</button></template>
      <template v-else>Not stated: counted as none.</template>
    </p>
  </fieldset>
</template>

<style scoped>
.lead { border: 0; border-top: 1px solid var(--rule); margin: 0; padding: 8px 0 0; display: grid; gap: 4px; }
.two { display: grid; grid-template-columns: minmax(0, 2fr) minmax(0, 3fr); gap: 10px; align-items: start; }
</style>
