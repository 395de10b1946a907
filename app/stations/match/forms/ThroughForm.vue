<script setup lang="ts">
import { computed, ref } from 'vue'
import Select from '~/components/form/choiceList'
import type { ControlModel } from '#core/gear/control'
import type { Model, GearKind } from '#core/gear/models'
import type { TransformerModel } from '#core/gear/transformer'
import type { Edit } from '#core/job/edits'
import type { Group, LineThrough, LineTransformer, Origin } from '#core/job/schema'
import { controlSchema, MOST_DOWN_DB } from '#core/job/sections/wiring/through'
import { controlOf, setThrough, stepsOf, takeOut, transformerOf, type ThroughChange } from '#core/hands/throughs'
import { throughsOf } from '#core/job/tree'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import TextEntry from '~/components/form/TextEntry.vue'
import { quantityOf, quantityOrNot, tapsOf, textOf, within, withinOrNot, writeOrNot } from '~/components/form/readers'
import GearPick from '~/components/gear/GearPick.vue'
import { useJobStore } from '~/stores/job'
import { useSelectionStore } from '~/stores/selection'
import LeadPart from './LeadPart.vue'
import NewerPart from './NewerPart.vue'
import PartFields from './PartFields.vue'
import { MEANS_WORDS } from './wiredAs'
import type { Choice } from '~/components/form/choice'
import ChoiceRow from '~/components/form/ChoiceRow.vue'
import { tapChoices } from '~/components/form/tapChoices'

/** What stands before a part of a rail: how it stands, what it carries, which one it is. */
const { group, through } = defineProps<{ group: Group, through: LineThrough }>()
const store = useJobStore()
const selected = useSelectionStore()
const isPicking = ref(false)
/** The library has controls and transformers. */
const gearKind = computed((): GearKind | null => through.kind === 'control' || through.kind === 'transformer' ? through.kind : null)
const does = (edit: Edit | null) => store.edit(edit)
const set = (change: ThroughChange) => does(setThrough(store.opened, group.id, change))

const control = computed(() => selected.line?.throughs.find(t => t.nodeId === group.id) ?? null)
const here = computed(() => ({ lineV: selected.line?.kind === 'constant-voltage' ? selected.line.lineV : null, behindW: control.value?.behindW ?? null }))
const steps = computed(() => stepsOf(through))
const SECONDARIES_OHM = [4, 8, 16] as const

const used = computed(() => throughsOf(store.opened).flatMap(t => t.through.kind === through.kind ? t.through.from?.modelId ?? [] : []))
function asModel(body: Model, from: Origin): Edit | null {
  const lineV = selected.line?.kind === 'constant-voltage' ? selected.line.lineV : null
  const to = through.kind === 'control' ? controlOf(body as ControlModel, from, lineV, through) : transformerOf(body as TransformerModel, from, lineV, through as LineTransformer)
  return setThrough(store.opened, group.id, to)
}
function become(body: Model, from: Origin): void {
  isPicking.value = false
  if (does(asModel(body, from))) store.say(`${through.label} is ${body.name} now`)
}
function out(): void {
  const first = selected.ids[0] ?? null
  const { outputId } = selected.selection
  if (does(takeOut(store.opened, group.id))) selected.select(outputId, first)
}
/** Where a control is turned to. */
const positions = computed((): Choice<number | 'off' | null>[] => [
  ...steps.value.map(db => ({ value: db, says: db === 0 ? 'up' : `−${writeNumber(db)}`, spoken: db === 0 ? 'fully up' : `${writeNumber(db)} dB down`, isFigure: true })),
  { value: 'off', says: 'off' }, { value: null, says: 'not stated' },
])
</script>

<template>
  <form class="form" @submit.prevent>
    <p v-if="control && control.behindW !== null" class="small">Behind it hang <b class="figure">{{ writeQuantity(control.behindW, 'W') }}</b>, every
      control fully up<template v-if="control.inW !== null && control.outW !== null">; as it stands it takes {{ writeQuantity(control.inW, 'W') }} and gives
        on {{ writeQuantity(control.outW, 'W') }}</template>.</p>
    <template v-if="gearKind">
      <p v-if="!isPicking" class="model"><b>{{ through.name || `${through.kind} of which nothing is stated` }}</b> <button
        class="act library" type="button" @click="isPicking = true">{{ through.from ? 'another model of the library' : 'a model of the library' }}</button></p>
      <NewerPart :kind="gearKind" :from="through.from" marks :as-model="asModel" @keep="from => set({ from })" />
      <GearPick
        v-if="isPicking" :kind="gearKind" :used="used" :here="here" :chosen="through.name"
        @pick="({ modelId, version, body }) => become(body, { modelId, version, passed: null })" @close="isPicking = false" />
    </template>
    <div class="two">
      <TextEntry label="Label" :text="through.label" :read="textOf(controlSchema.shape.label, 'label')" @commit="set({ label: $event })" />
      <TextEntry label="What it is" :text="through.name" :read="textOf(controlSchema.shape.name, 'name')" hint="not stated" @commit="set({ name: $event })" />
    </div>
    <template v-if="through.kind === 'control'">
      <p class="soft small levels">Turned down by, dB</p>
      <ChoiceRow
        :model-value="through.setDb" label="Turned down by, dB" :choices="positions" @update:model-value="setDb => setDb !== undefined && set({ setDb })" />
      <div class="two">
        <TextEntry
          label="or typed, dB" :text="typeof through.setDb === 'number' ? writeNumber(through.setDb, 4) : ''"
          :read="withinOrNot(0, MOST_DOWN_DB, 'How far it is turned down', ' dB')" :hint="through.setDb === 'off' ? 'off' : 'not stated'"
          @commit="set({ setDb: $event })" />
        <TextEntry
          label="Rated for" :text="writeOrNot(through.ratingW, 'W')" :read="quantityOrNot('power')" hint="not known"
          @commit="set({ ratingW: $event })" />
      </div>
      <div class="two">
        <TextEntry
          label="On a line of, V" :text="through.lineV === null ? '' : writeNumber(through.lineV, 5)" :read="withinOrNot(1, 1000, 'A line voltage', ' V')"
          hint="not stated" @commit="set({ lineV: $event })" />
        <TextEntry
          label="Its loss fully up, dB" :text="through.insertionDb === null ? '' : writeNumber(through.insertionDb, 4)"
          :read="withinOrNot(0, 12, 'A loss', ' dB')" hint="not stated" @commit="set({ insertionDb: $event })" />
      </div>
    </template>
    <template v-else-if="through.kind === 'transformer'">
      <ChoiceRow
        :model-value="through.tapW" label="Tap" :after="`W at ${writeNumber(through.ratedV, 4)} V`" :choices="tapChoices(through.tapsW)"
        @update:model-value="tapW => tapW !== undefined && set({ tapW })" />
      <ChoiceRow
        :model-value="through.secondaryOhm" label="Made for speakers of, Ω" after="for what hangs behind it"
        :choices="SECONDARIES_OHM.map(ohm => ({ value: ohm, says: `${ohm} Ω`, isFigure: true }))"
        @update:model-value="secondaryOhm => secondaryOhm !== undefined && set({ secondaryOhm })" />
      <div class="two">
        <TextEntry
          label="For speakers of" :text="writeQuantity(through.secondaryOhm, 'Ω')" :read="quantityOf('resistance')"
          @commit="set({ secondaryOhm: $event })" />
        <TextEntry
          label="Rated for" :text="writeOrNot(through.ratingW, 'W')" :read="quantityOrNot('power')" hint="not known"
          @commit="set({ ratingW: $event })" />
      </div>
      <div class="two">
        <TextEntry
          label="Printed for, V" :text="writeNumber(through.ratedV, 5)" :read="within(1, 1000, 'A line voltage', ' V')"
          @commit="set({ ratedV: $event })" />
        <TextEntry label="Its taps" :text="through.tapsW.join(', ')" :read="tapsOf" @commit="set({ tapsW: $event })" />
      </div>
      <div class="two">
        <TextEntry
          label="Its loss, dB" :text="through.insertionDb === null ? '' : writeNumber(through.insertionDb, 4)" :read="withinOrNot(0, 12, 'A loss', ' dB')"
          hint="not stated" @commit="set({ insertionDb: $event })" />
        <div class="field">
          <label for="through-means" class="soft small">Its watts are</label>
          <Select
            input-id="through-means" :model-value="through.tapMeans ?? 'not-stated'" :options="MEANS_WORDS" option-label="says" option-value="value"
            size="small" @update:model-value="set({ tapMeans: $event === 'not-stated' ? null : $event })" />
        </div>
      </div>
    </template>
    <PartFields v-else :group="group" :part="through" @set="set" />
    <LeadPart :node-id="group.id" says="to here" />
    <button class="act" type="button" @click="out">take {{ through.label }} out: the speakers behind it stay</button>
  </form>
</template>

<style scoped>
.form { display: grid; gap: 12px; }
.two { display: grid; grid-template-columns: minmax(0, 2fr) minmax(0, 3fr); gap: 10px; align-items: start; }
.field { display: grid; gap: 2px; }
.model { display: flex; flex-wrap: wrap; gap: 2px 14px; align-items: baseline; }
.library { color: var(--ink); text-decoration: underline; text-underline-offset: 3px; }
.levels { margin-bottom: -10px; }
.act { justify-self: start; }
</style>
