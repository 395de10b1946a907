<script setup lang="ts">
import { computed, shallowRef, watch } from 'vue'
import type { Band, Output } from '#core/job/schema'
import { likelyBand } from '#core/hands/systemBands'
import { bandSchema } from '#core/job/sections/wiring/schema'
import { InputError } from '#core/quantity/inputError'
import { writeQuantity } from '#core/quantity/write'
import TextEntry from '~/components/form/TextEntry.vue'
import { quantityOrNot, textOf, withinOrNot, writeOrNot } from '~/components/form/readers'
import { nameText } from '#core/quantity/fields'
import { useJobStore } from '~/stores/job'
import { bandOf, type Ends } from './bandDraft'
import ChoiceRow from '~/components/form/ChoiceRow.vue'

/** Whether an output plays everything or a part of the range, and what holds it: crossover, level of the band, limiter. */
const { output } = defineProps<{ output: Output }>()
const emit = defineEmits<{ set: [to: Partial<Pick<Output, 'band' | 'limiterV'>>] }>()
const store = useJobStore()
const band = computed(() => output.band)
const SLOPES_DB = [6, 12, 18, 24, 48, null] as const

/** Ends that are typed and no band yet. */
const draft = shallowRef<Ends | null>(null)
watch(() => [output.id, output.band?.fromHz, output.band?.toHz], () => { draft.value = null })
const ends = computed(() => draft.value ?? output.band)
const problem = computed(() => draft.value && output.band ? bandOf(output.band, draft.value).says : '')
const endOf = (end: keyof Ends) => (typed: string): number | null => {
  const hz = quantityOrNot('frequency')(typed)
  const checked = bandSchema.shape[end].safeParse(hz)
  if (!checked.success) throw new InputError(`This end ${checked.error.issues[0]!.message}.`, 0, [])
  return hz
}
const set = (to: Partial<Band>) => emit('set', { band: { ...band.value!, ...to } })
function setEnd(end: keyof Ends, hz: number | null): void {
  if (!output.band) return
  const { fromHz, toHz } = draft.value ?? output.band
  draft.value = { fromHz, toHz, [end]: hz }
  const next = bandOf(output.band, draft.value).band
  if (next) emit('set', { band: next })
}
</script>

<template>
  <div class="band">
    <ChoiceRow
      :model-value="band !== null" label="This output plays" before="plays"
      :choices="[{ value: false, says: 'everything' }, { value: true, says: 'a part of the range' }]"
      @update:model-value="isPart => emit('set', { band: isPart ? likelyBand(store.opened, output.id) : null })" />
    <template v-if="band">
      <div class="fields">
        <TextEntry label="Of the system" :text="band.system" :read="textOf(nameText, 'name')" @commit="set({ system: $event })" />
        <TextEntry
          label="From" :text="ends?.fromHz == null ? '' : writeQuantity(ends.fromHz, 'Hz', 5)" :read="endOf('fromHz')" hint="the lowest"
          @commit="setEnd('fromHz', $event)" />
        <TextEntry
          label="Up to" :text="ends?.toHz == null ? '' : writeQuantity(ends.toHz, 'Hz', 5)" :read="endOf('toHz')" hint="the highest"
          @commit="setEnd('toHz', $event)" />
        <TextEntry
          label="Set down by" :text="writeOrNot(band.setDb, 'dB')" :read="withinOrNot(0, 60, 'It', ' dB')" hint="not set yet"
          @commit="set({ setDb: $event })" />
      </div>
      <p v-if="problem" class="error-words small" role="alert">{{ problem }}</p>
      <ChoiceRow
        :model-value="band.slopeDb" label="Slope of the crossover" before="slope, dB an octave"
        :choices="SLOPES_DB.map(slope => ({ value: slope, says: slope === null ? 'not stated' : String(slope), isFigure: slope !== null }))"
        @update:model-value="slopeDb => slopeDb !== undefined && set({ slopeDb })" />
    </template>
    <TextEntry
      label="A limiter holds it at" :text="writeOrNot(output.limiterV, 'V')" :read="withinOrNot(0.1, 1000, 'A limiter', ' V')"
      hint="none, or not stated" @commit="emit('set', { limiterV: $event })" />
  </div>
</template>

<style scoped>
.band { display: grid; gap: 8px; min-width: 0; }
.fields { display: grid; grid-template-columns: repeat(auto-fit, minmax(110px, 1fr)); gap: 10px; align-items: start; }
</style>
