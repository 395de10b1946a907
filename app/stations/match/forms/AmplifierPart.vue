<script setup lang="ts">
import { computed } from 'vue'
import { gainOf, type OutputRating } from '#core/amplifier/index'
import { inputOhm } from '#core/gear/amplifier'
import { setting } from '#core/job/edits'
import type { Amplifier, Source } from '#core/job/schema'
import { amplifierFields, sourceOhm } from '#core/job/sections/wiring/schema'
import { nameText } from '#core/quantity/fields'
import { writeNumber } from '#core/quantity/write'
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
const MADE = [{ value: 'amplifier', says: 'an amplifier' }, { value: 'receiver', says: 'a receiver' }, { value: 'vehicle', says: 'a vehicle unit' }, { value: null, says: 'not stated' }] as const

/** A source is there from the first thing that is said of it, and gone with the last. */
function setSource(to: Partial<Source>): void {
  const source = { name: 'Source', volts: null, ohm: null, ...amplifier.source, ...to }
  set({ source })
}
const nameOfSource = (typed: string) => typed.trim() === '' ? '' : textOf(nameText, 'name')(typed)
function nameSource(name: string): void {
  if (name === '') set({ source: null })
  else setSource({ name })
}
const gain = computed(() => amplifier.gainDb === null ? gainOf(rating, amplifier) : null)
const isFed = computed(() => amplifier.source !== null || amplifier.gainDb !== null || amplifier.inputV !== null || amplifier.inputOhm !== null)
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
      <div class="fed">
        <TextEntry
          label="Source" :text="amplifier.source?.name ?? ''" :read="nameOfSource" hint="not stated; one name is one source"
          @commit="nameSource" />
        <TextEntry
          label="It brings" :text="writeOrNot(amplifier.source?.volts ?? null, 'V')" :read="withinOrNot(0.001, 50, 'A source', ' V')" hint="not known"
          @commit="setSource({ volts: $event })" />
        <TextEntry
          label="Its own impedance" :text="writeOrNot(amplifier.source?.ohm ?? null, 'Ω')" :read="quantityOrNot('resistance', sourceOhm)" hint="not known"
          @commit="setSource({ ohm: $event })" />
        <TextEntry
          label="Gain" :text="writeOrNot(amplifier.gainDb, 'dB')" :read="withinOrNot(0, 80, 'A gain', ' dB')"
          :hint="gain === null ? 'not stated' : `${writeNumber(gain)} dB, by its input`" @commit="set({ gainDb: $event })" />
        <TextEntry
          label="Input for full power" :text="writeOrNot(amplifier.inputV, 'V')" :read="withinOrNot(0.001, 20, 'An input', ' V')" hint="not stated"
          @commit="set({ inputV: $event })" />
        <TextEntry
          label="Impedance of an input" :text="writeOrNot(amplifier.inputOhm, 'Ω')" :read="quantityOrNot('resistance', inputOhm)" hint="not stated"
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
