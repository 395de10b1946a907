<script setup lang="ts">
import { computed } from 'vue'
import { gainOf, type OutputRating } from '#core/amplifier/index'
import { inputOhm } from '#core/gear/amplifier'
import { setting } from '#core/job/edits'
import type { Amplifier } from '#core/job/schema'
import { amplifierFields } from '#core/job/sections/wiring/schema'
import { writeNumber } from '#core/quantity/write'
import InputsForm from '~/components/rack/InputsForm.vue'
import TextEntry from '~/components/form/TextEntry.vue'
import { highPassOf, quantityOrNot, textOf, withinOrNot, writeOrNot } from '~/components/form/readers'
import { useJobStore } from '~/stores/job'
import ChoiceRow from '~/components/form/ChoiceRow.vue'

/** The amplifier that an output is of: its name and place, as what it is made, what feeds it. */
const { amplifier, rating } = defineProps<{ amplifier: Amplifier, rating: OutputRating }>()
const store = useJobStore()

type Own = Omit<Amplifier, 'id' | 'outputs'>
function set(to: Partial<Own>): void {
  store.edit({ kind: 'amplifier.set', amplifierId: amplifier.id, ...setting<Own, typeof to>(amplifier, to) })
}
const MADE = [{ value: 'amplifier', says: 'an amplifier' }, { value: 'receiver', says: 'a receiver' }, { value: 'vehicle', says: 'a vehicle unit' }, { value: 'mixer', says: 'a mixer' }, { value: null, says: 'not stated' }] as const

const gain = computed(() => amplifier.gainDb === null ? gainOf(rating, amplifier) : null)
const isFed = computed(() => amplifier.inputs.length > 0 || amplifier.gainDb !== null || amplifier.inputV !== null || amplifier.inputOhm !== null)
</script>

<template>
  <fieldset class="amplifier">
    <legend class="soft small">The amplifier</legend>
    <div class="two">
      <TextEntry label="Name" :text="amplifier.name" :read="textOf(amplifierFields.name, 'name')" @commit="set({ name: $event })" />
      <TextEntry
        label="Where" :text="amplifier.place" :read="textOf(amplifierFields.place, 'place')" hint="not stated"
        @commit="set({ place: $event })" />
    </div>
    <ChoiceRow
      :model-value="amplifier.made" label="Made as" before="made as" :choices="MADE"
      @update:model-value="made => made !== undefined && set({ made })" />
    <p v-if="amplifier.made === 'receiver' || amplifier.made === 'vehicle'" class="soft small">Only loads that its maker states count: “stable at 2 Ω” is
      its floor, watts are those that are stated, two bridged have a floor of their own.</p>
    <TextEntry
      label="High-pass" :text="amplifier.highPassHz === null ? '' : amplifier.highPassHz === 'none' ? 'none' : `${writeNumber(amplifier.highPassHz, 4)} Hz`"
      :read="highPassOf" hint="not stated; 70 Hz, or none" @commit="set({ highPassHz: $event })" />
    <TextEntry
      label="Its protection, as its maker says" :text="amplifier.protection" :read="textOf(amplifierFields.protection, 'protection')" hint="not stated"
      @commit="set({ protection: $event })" />
    <details :open="isFed">
      <summary>What feeds it</summary>
      <InputsForm :key="amplifier.id" :amplifier="amplifier" />
      <div class="fed">
        <TextEntry
          label="Gain" :text="writeOrNot(amplifier.gainDb, 'dB')" :read="withinOrNot(0, 80, 'A gain', ' dB')"
          :hint="gain === null ? 'not stated' : `${writeNumber(gain)} dB, by its input`" @commit="set({ gainDb: $event })" />
        <TextEntry
          label="Input for full power" :text="writeOrNot(amplifier.inputV, 'V')" :read="withinOrNot(0.001, 20, 'An input', ' V')" hint="not stated"
          @commit="set({ inputV: $event })" />
        <TextEntry
          label="Impedance of a line input" :text="writeOrNot(amplifier.inputOhm, 'Ω')" :read="quantityOrNot('resistance', inputOhm)" hint="not stated"
          @commit="set({ inputOhm: $event })" />
      </div>
    </details>
  </fieldset>
</template>

<style scoped>
.amplifier { border: 0; border-top: 1px solid var(--rule); margin: 0; padding: 8px 0 0; display: grid; gap: 10px; justify-items: stretch; min-width: 0; }
.two { display: grid; grid-template-columns: minmax(0, 2fr) minmax(0, 3fr); gap: 10px; align-items: start; }
summary { cursor: pointer; }
.fed { display: grid; grid-template-columns: repeat(auto-fit, minmax(130px, 1fr)); gap: 10px; align-items: start; padding-top: 6px; }
</style>
