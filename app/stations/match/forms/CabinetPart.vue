<script setup lang="ts">
import { computed } from 'vue'
import type { SpeakerLoad } from '#core/job/schema'
import { MOST_POSITIONS } from '#core/gear/load'
import { readCell, writeCell } from '#core/gear/cells'
import { columnsOf } from '#core/gear/models'
import { nominalOhmOf } from '#core/network/tree'
import { writeQuantity } from '#core/quantity/write'
import TextEntry from '~/components/form/TextEntry.vue'
import ChoiceRow from '~/components/form/ChoiceRow.vue'

/** A cabinet's jacks and the positions of its switch: which one it is plugged at, and what each leads to. */
type Cabinet = Extract<SpeakerLoad, { kind: 'cabinet' }>
const { load } = defineProps<{ load: Cabinet }>()
const emit = defineEmits<{ set: [load: Cabinet] }>()

const column = columnsOf('speaker').find(c => c.key === 'positions')!
const textOf = (k: number) => writeCell(column, [load.positions[k]])
const readOne = (typed: string) => (readCell(column, typed) as Cabinet['positions'])[0]!
const says = ({ jack, switchTo }: Cabinet['positions'][number]) => [jack || 'its jack', switchTo].filter(Boolean).join(', ')
function setOne(k: number, to: Cabinet['positions'][number]): void {
  emit('set', { ...load, positions: load.positions.map((p, i) => i === k ? to : p) })
}
function addOne(): void {
  emit('set', { ...load, positions: [...load.positions, { jack: `jack ${load.positions.length + 1}`, switchTo: '', plays: 'all', load: { kind: 'nominal', nominalOhm: 8 } }] })
}
function dropOne(): void {
  const positions = load.positions.filter((_, k) => k !== load.at)
  emit('set', { ...load, at: 0, positions })
}
const positions = computed(() => load.positions.map((position, k) => ({
  value: k, says: `${says(position)} ${writeQuantity(nominalOhmOf(position.load), 'Ω')}${position.plays === 'half' ? ', half' : ''}`,
})))
</script>

<template>
  <div class="cabinet">
    <ChoiceRow
      :model-value="load.at" label="Plugged at" :choices="positions"
      @update:model-value="k => k !== undefined && emit('set', { ...load, at: k })" />
    <TextEntry label="What that leads to" :text="textOf(load.at)" :read="readOne" @commit="setOne(load.at, $event)" />
    <p class="soft small">The jack, [its switch], all or half of the drivers, and their ohms: <span
      class="figure">16 Ω [mono] all = 16</span>, or drivers one by one:
      <span class="figure">left [stereo] half = 16 || 16</span></p>
    <div class="acts">
      <button v-if="load.positions.length < MOST_POSITIONS" class="act" type="button" @click="addOne">one more jack or position</button>
      <button v-if="load.positions.length > 1" class="act" type="button" @click="dropOne">take out “{{ says(load.positions[load.at]!) }}”</button>
    </div>
  </div>
</template>

<style scoped>
.cabinet { display: grid; gap: 6px; }
.acts { display: flex; flex-wrap: wrap; gap: 2px 16px; }
</style>
