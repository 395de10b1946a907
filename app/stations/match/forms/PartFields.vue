<script setup lang="ts">
import { computed } from 'vue'
import type { Group, LinePart } from '#core/job/schema'
import { copperOhm } from '#core/job/sections/wiring/through'
import { replaceThrough, throughLabel, usualPart, type ThroughChange } from '#core/hands/throughs'
import { cornerOf } from '#core/advice/low/corner'
import { nearestPreferred, readCapacitance, readInductance, writeCapacitance, writeInductance } from '#core/quantity/parts'
import { writeQuantity } from '#core/quantity/write'
import { useJobStore } from '~/stores/job'
import TextEntry from '~/components/form/TextEntry.vue'
import { quantityOf, quantityOrNot, writeOrNot } from '~/components/form/readers'
import type { Choice } from '~/components/form/choice'
import ChoiceRow from '~/components/form/ChoiceRow.vue'

/** A capacitor or a coil in the way: its size, where it parts the band, and the part that is sold for a corner that is wanted. */
const { group, part } = defineProps<{ group: Group, part: LinePart }>()
const emit = defineEmits<{ set: [change: ThroughChange] }>()
const store = useJobStore()
function become(kind: LinePart['kind']): void {
  if (kind !== part.kind) store.edit(replaceThrough(store.opened, group.id, usualPart(kind, throughLabel(store.opened, kind))))
}
const corner = computed(() => cornerOf({ ...group, through: part }))

/** The size for a corner on the label behind it, by the textbook, then the nearest that is sold. */
function forCorner(hz: number): void {
  const ohm = corner.value?.loadOhm
  if (ohm === undefined) return
  if (part.kind === 'capacitor') emit('set', { capacitanceF: nearestPreferred(1 / (2 * Math.PI * hz * ohm)) })
  else emit('set', { inductanceH: nearestPreferred(ohm / (2 * Math.PI * hz)) })
}
const preferred = computed(() => nearestPreferred(part.kind === 'capacitor' ? part.capacitanceF : part.inductanceH))
const isPreferred = computed(() => Math.abs(preferred.value / (part.kind === 'capacitor' ? part.capacitanceF : part.inductanceH) - 1) < 1e-6)
const Hz = (hz: number) => writeQuantity(hz, 'Hz')
const KINDS: Choice<'capacitor' | 'inductor'>[] = [{ value: 'capacitor', says: 'a capacitor' }, { value: 'inductor', says: 'a coil' }]
</script>

<template>
  <div class="part">
    <ChoiceRow
      :model-value="part.kind" label="What it is" :choices="KINDS"
      @update:model-value="kind => kind !== undefined && become(kind)" />
    <div class="two">
      <TextEntry
        v-if="part.kind === 'capacitor'" label="Capacitor" :text="writeCapacitance(part.capacitanceF)" :read="readCapacitance"
        @commit="emit('set', { capacitanceF: $event })" />
      <template v-else>
        <TextEntry label="Coil" :text="writeInductance(part.inductanceH)" :read="readInductance" @commit="emit('set', { inductanceH: $event })" />
        <TextEntry
          label="Its copper" :text="writeOrNot(part.resistanceOhm, 'Ω')" :read="quantityOrNot('resistance', copperOhm)" hint="not stated"
          @commit="emit('set', { resistanceOhm: $event })" />
      </template>
      <TextEntry label="For a corner of" text="" :read="quantityOf('frequency')" hint="200 Hz" @commit="forCorner" />
    </div>
    <button
      v-if="!isPreferred" class="act" type="button"
      @click="emit('set', part.kind === 'capacitor' ? { capacitanceF: preferred } : { inductanceH: preferred })">the nearest that is sold:
      {{ part.kind === 'capacitor' ? writeCapacitance(preferred) : writeInductance(preferred) }}</button>
    <template v-if="corner">
      <p class="small">Corner on the label of {{ writeQuantity(corner.loadOhm, 'Ω') }}: <b class="figure">{{ Hz(corner.textbookHz) }}</b>, as a textbook has it.
        On its impedance as far as that is known: <b v-if="corner.realHz !== null" class="figure">{{ Hz(corner.realHz) }}</b><template v-else>nowhere
          in the hearing
          range</template>. {{ part.kind === 'capacitor' ? 'Below' : 'Above' }} it the level falls, 6 dB an octave at most.</p>
      <p class="soft small">{{ part.kind === 'capacitor'
        ? 'Bipolar, rated for the volts of the output. Polarity by battery cannot be proved through it: test behind it.'
        : 'Wound thick enough for the current; away from other coils, at a right angle to them.' }}</p>
    </template>
  </div>
</template>

<style scoped>
.part { display: grid; gap: 8px; }
.two { display: grid; grid-template-columns: repeat(auto-fit, minmax(110px, 1fr)); gap: 10px; align-items: start; }
.act { justify-self: start; }
</style>
