<script setup lang="ts">
import { speakerModelFields, type SpeakerModel } from '#core/gear/speaker'
import { changeKind, removeKind } from '#core/hands/kinds'
import type { Kind } from '#core/job/schema'
import { writeNumber } from '#core/quantity/write'
import TextEntry from '~/components/form/TextEntry.vue'
import { quantityOrNot, tapsOf, textOf, within, writeOrNot } from '~/components/form/readers'
import { useJobStore } from '~/stores/job'

/** What a kind of the job is. Whatever is changed here, its speakers follow, but for what they have by hand. */
const { kind, count } = defineProps<{ kind: Kind, count: number }>()
const emit = defineEmits<{ close: [] }>()
const store = useJobStore()

function set(change: Partial<SpeakerModel>): void {
  if (!store.edit(changeKind(store.opened, kind.id, change))) return
  store.say(`${kind.model.name}: changed for all ${count} of it`)
}
const scaleWith = (k: number, to: Partial<SpeakerModel['scales'][number]>) => kind.model.scales.map((scale, i) => i === k ? { ...scale, ...to } : scale)
/** A scale more: of the voltages in use the first that its dial has not yet. Common practice, no source. */
function addScale(): void {
  const lineV = [70.71, 100, 25, 50].find(v => kind.model.scales.every(s => Math.abs(s.lineV - v) > 1)) ?? 200
  set({ scales: [...kind.model.scales, { lineV, tapsW: kind.model.scales[0]?.tapsW ?? [10] }] })
}
</script>

<template>
  <div class="kind-form">
    <TextEntry label="What they are" :text="kind.model.name" :read="textOf(speakerModelFields.name, 'name')" @commit="set({ name: $event })" />
    <div class="three">
      <TextEntry
        label="Impedance" :text="writeOrNot(kind.model.nominalOhm, 'Ω')" :read="quantityOrNot('resistance')" hint="not stated"
        @commit="set({ nominalOhm: $event })" />
      <TextEntry
        label="Rating stated" :text="writeOrNot(kind.model.continuousW, 'W')" :read="quantityOrNot('power')" hint="not stated"
        @commit="set({ continuousW: $event })" />
      <TextEntry
        label="I believe" :text="writeOrNot(kind.model.believedW, 'W')" :read="quantityOrNot('power')" hint="as stated" @commit="set({ believedW: $event })" />
    </div>
    <div v-for="(scale, k) in kind.model.scales" :key="k" class="scale">
      <TextEntry
        label="Dial, V" :text="writeNumber(scale.lineV, 5)" :read="within(1, 1000, 'A line voltage', ' V')"
        @commit="set({ scales: scaleWith(k, { lineV: $event }) })" />
      <TextEntry label="Its taps, W" :text="scale.tapsW.join(', ')" :read="tapsOf" @commit="set({ scales: scaleWith(k, { tapsW: $event }) })" />
      <button
        class="act" type="button" :aria-label="`take the scale for ${writeNumber(scale.lineV, 4)} V off`"
        @click="set({ scales: kind.model.scales.filter((_, i) => i !== k) })">✕</button>
    </div>
    <p class="acts">
      <button class="act" type="button" @click="addScale">+ scale of its dial</button>
      <button class="act" type="button" @click="store.edit(removeKind(store.opened, kind.id))">give the kind up</button>
      <button class="act" type="button" @click="emit('close')">done</button>
    </p>
  </div>
</template>

<style scoped>
.kind-form { display: grid; gap: 8px; border-left: 3px solid var(--pen); padding-left: 10px; }
.three { display: grid; grid-template-columns: repeat(3, minmax(0, 1fr)); gap: 10px; align-items: start; }
.scale { display: grid; grid-template-columns: 74px minmax(0, 1fr) auto; gap: 10px; align-items: end; }
.acts { display: flex; flex-wrap: wrap; gap: 2px 16px; }
</style>
