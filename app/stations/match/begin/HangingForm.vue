<script setup lang="ts">
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import { USUAL_LINE_V } from '#core/amplifier/index'
import { USUAL_TAPS_W } from '#core/hands/intents'
import type { Hanging } from '#core/hands/begin'
import { readCable, writeCable, type Cable } from '#core/quantity/cable'
import { readQuantity } from '#core/quantity/read'
import { writeLength } from '#core/quantity/units'
import { writeNumber } from '#core/quantity/write'
import TextEntry from '~/components/form/TextEntry.vue'
import { countOf, lengthOrNot, quantityOf } from '~/components/form/readers'
import { useUnits } from '~/composables/useUnits'
import { cableExample } from '../forms/usualCable'
import ChoiceRow from '~/components/form/ChoiceRow.vue'

/** Speakers that hang already: how many, on what each, in which cable. What is left empty stays not known. */
const emit = defineEmits<{ hang: [hanging: Hanging] }>()
const { units } = useUnits()
const LINES = [{ lineV: USUAL_LINE_V, says: '70 V line' }, { lineV: 100, says: '100 V line' }, { lineV: null, says: 'straight on an amplifier' }] as const
const lineV = ref<number | null>(USUAL_LINE_V)
const count = ref(6)
const tapW = ref<number>(USUAL_TAPS_W[2])
const nominalOhm = ref(8)
const lengthM = ref<number | null>(null)
const cable = ref<Cable | null>(null)

const says = computed(() => `Hang ${count.value} of ${lineV.value === null ? `${writeNumber(nominalOhm.value)} Ω` : `${writeNumber(tapW.value)} W`}`)
function hang(): void {
  emit('hang', {
    count: count.value, lineV: lineV.value, each: lineV.value === null ? { nominalOhm: nominalOhm.value } : { tapW: tapW.value },
    lead: lengthM.value === null ? null : { lengthM: lengthM.value, cable: cable.value },
  })
}
/** A bare number is watts. */
const wattsOf = (typed: string) => readQuantity('power', /^[\d.,]+$/.test(typed) ? `${typed} W` : typed)
const cableOrNot = (typed: string) => typed === '' ? null : readCable(typed)
</script>

<template>
  <form class="hanging" @submit.prevent>
    <ChoiceRow v-model="lineV" label="They hang on" :choices="LINES.map(line => ({ value: line.lineV, says: line.says }))" />
    <div class="fields">
      <TextEntry label="How many" :text="String(count)" :read="countOf" @commit="count = $event" />
      <TextEntry
        v-if="lineV !== null" label="Tap of each" :text="`${writeNumber(tapW, 6)} W`"
        :read="wattsOf" @commit="tapW = $event" />
      <TextEntry v-else label="Impedance of each" :text="`${writeNumber(nominalOhm, 6)} Ω`" :read="quantityOf('resistance')" @commit="nominalOhm = $event" />
      <TextEntry
        label="So far apart" :text="lengthM === null ? '' : writeLength(lengthM, units, 6)" hint="not stated"
        :read="lengthOrNot(units)" @commit="lengthM = $event" />
      <TextEntry
        label="Cable" :text="cable === null ? '' : writeCable(cable)" :hint="`such as ${cableExample(units)}`" :read="cableOrNot" @commit="cable = $event" />
    </div>
    <Button :label="says" @click="hang" />
  </form>
</template>

<style scoped>
.hanging { display: grid; gap: 10px; justify-items: start; }
.fields { display: grid; grid-template-columns: repeat(auto-fit, minmax(130px, 1fr)); gap: 10px; width: 100%; align-items: start; }
</style>
