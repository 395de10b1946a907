<script setup lang="ts">
import { computed } from 'vue'
import type { Amplifier, Input, Source } from '#core/job/schema'
import { inputFields, sourceOhm } from '#core/job/sections/wiring/schema'
import { SOURCE_KINDS, type SourceKind } from '#core/gear/inputs'
import { nameSource, removeInput, setInput, setSource } from '#core/hands/inputs'
import { SOURCE_WORDS } from '#core/line/inputWords'
import { deviceOf, inputName, sourceName } from '#core/line/sources'
import { nameText } from '#core/quantity/fields'
import ChoiceRow from '~/components/form/ChoiceRow.vue'
import TextEntry from '~/components/form/TextEntry.vue'
import { countOf, quantityOrNot, textOf, withinOrNot, writeOrNot } from '~/components/form/readers'
import { useJobStore } from '~/stores/job'

/** One input: what is printed there, what it is made for, what comes in, and what that is. */
const { amplifier, at } = defineProps<{ amplifier: Amplifier, at: number }>()
const store = useJobStore()
const input = computed(() => amplifier.inputs[at]!)
const source = computed(() => input.value.source)
const name = computed(() => inputName(input.value, at))

const set = (to: Partial<Omit<Input, 'source'>>) => store.edit(setInput(store.opened, amplifier.id, at, to))
const setIts = (to: Partial<Omit<Source, 'name'>>) => source.value && store.edit(setSource(store.opened, source.value.name, to))
const come = (named: string, device: string | null = null) => store.edit(nameSource(store.opened, amplifier.id, at, named, device))
const nameOfSource = (typed: string) => typed.trim() === '' ? '' : textOf(nameText, 'name')(typed)
function toggle(kind: SourceKind): void {
  const { takes } = input.value
  set({ takes: SOURCE_KINDS.filter(k => k === kind ? !takes.includes(k) : takes.includes(k)) })
}
const countOrNot = (typed: string) => typed.trim() === '' || /channel/i.test(typed) ? null : countOf(typed)

/** What may come in here by one press: other devices, and sources that are known elsewhere. */
const offered = computed(() => {
  const feeds = store.opened.amplifiers.filter(a => a.id !== amplifier.id && (a.made === 'mixer' || amplifier.made !== 'mixer'))
  const devices = feeds.map(a => ({ says: a.name, device: a.id }))
  const here = source.value && sourceName(store.opened, source.value)
  const sources = store.opened.amplifiers.flatMap(a => a.inputs.flatMap(i => i.source ?? []))
  const others = new Set(sources.filter(s => deviceOf(store.opened, s) === null).map(s => s.name))
  return [...[...others].map(says => ({ says, device: null as string | null })), ...devices].filter(o => o.says !== here).slice(0, 6)
})
const KINDS = [...SOURCE_KINDS.map(value => ({ value, says: SOURCE_WORDS[value] })), { value: null, says: 'not known' }]
const OVER = [{ value: true, says: 'over the others' }, { value: false, says: 'beside them' }, { value: null, says: 'not known' }]
const SIDES = [{ value: true, says: 'two sides' }, { value: false, says: 'one' }, { value: null, says: 'not known' }]
const SUMS: { value: Input['sum'], says: string }[] = [
  { value: 'summed', says: 'summed' }, { value: 'one-side', says: 'one side only' }, { value: 'both', says: 'apart' }, { value: null, says: 'not known' },
]
</script>

<template>
  <div class="input-part" role="group" :aria-label="name">
    <div class="two">
      <TextEntry label="Printed there" :text="input.label" :read="textOf(inputFields.label, 'text')" :hint="name" @commit="label => set({ label })" />
      <TextEntry
        label="What comes in" :text="source ? sourceName(store.opened, source) : ''" :read="nameOfSource" hint="nothing; one name is one source"
        @commit="named => come(named)" />
    </div>
    <p v-if="offered.length > 0" class="taps"><span class="soft small">or</span>
      <button v-for="o in offered" :key="o.says" type="button" class="tap" @click="come(o.says, o.device)">{{ o.says }}</button></p>
    <div class="taps" role="group" aria-label="Made for"><span class="soft small">made for</span>
      <button
        v-for="kind in SOURCE_KINDS" :key="kind" type="button" class="tap" :class="{ on: input.takes.includes(kind) }"
        :aria-pressed="input.takes.includes(kind)" @click="toggle(kind)">{{ SOURCE_WORDS[kind] }}</button></div>
    <ChoiceRow
      :model-value="input.isOver" label="Over the others" before="it goes" :choices="OVER"
      @update:model-value="isOver => isOver !== undefined && set({ isOver })" />
    <template v-if="source">
      <ChoiceRow
        :model-value="source.kind" label="What it brings" before="it is a" :choices="KINDS"
        @update:model-value="kind => kind !== undefined && setIts({ kind })" />
      <ChoiceRow
        :model-value="source.isStereo" label="Sides" before="it has" :choices="SIDES"
        @update:model-value="isStereo => isStereo !== undefined && setIts({ isStereo })" />
      <ChoiceRow
        v-if="source.isStereo" :model-value="input.sum" label="How both sides come in" before="they come in" :choices="SUMS"
        @update:model-value="sum => sum !== undefined && set({ sum })" />
      <div class="fed">
        <TextEntry
          label="It brings" :text="writeOrNot(source.volts, 'V')" :read="withinOrNot(0.001, 50, 'A source', ' V')" hint="not known"
          @commit="volts => setIts({ volts })" />
        <TextEntry
          label="Its own impedance" :text="writeOrNot(source.ohm, 'Ω')" :read="quantityOrNot('resistance', sourceOhm)" hint="not known"
          @commit="ohm => setIts({ ohm })" />
        <TextEntry
          label="On how many inputs" :text="input.count === null ? '' : String(input.count)" :read="countOrNot" hint="one a channel"
          @commit="count => set({ count })" />
      </div>
    </template>
    <p><button class="act" type="button" @click="store.edit(removeInput(store.opened, amplifier.id, at))">take this input away</button></p>
  </div>
</template>

<style scoped>
.input-part { display: grid; gap: 8px; padding: 4px 0 10px; }
.two { display: grid; grid-template-columns: minmax(0, 2fr) minmax(0, 3fr); gap: 10px; align-items: start; }
.fed { display: grid; grid-template-columns: repeat(auto-fit, minmax(110px, 1fr)); gap: 10px; align-items: start; }
.act { padding-left: 0; }
</style>
