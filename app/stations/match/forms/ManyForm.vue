<script setup lang="ts">
import { cableEach, lengthsEach, relabelEach, setEach, tapEach } from '#core/hands/many/many'
import type { Speaker } from '#core/job/schema'
import { speakerFields } from '#core/job/sections/wiring/schema'
import { writeQuantity } from '#core/quantity/write'
import TextEntry from '~/components/form/TextEntry.vue'
import { cableOf, lengthsOf, quantityOrNot, textOf, writeOrNot } from '~/components/form/readers'
import { useAfterPaint } from '~/composables/useAfterPaint'
import { wiringText } from '~/drawing/speakerText'
import { useEvaluationStore } from '~/stores/evaluation'
import { useSelectionStore } from '~/stores/selection'
import KindPart from './KindPart.vue'
import ZonePart from './ZonePart.vue'
import { useOnChosen } from '../useOnChosen'
import { cableExample, usualCableOf } from './usualCable'
import { useUnits } from '~/composables/useUnits'
import ChoiceRow from '~/components/form/ChoiceRow.vue'
import { tapChoices } from '~/components/form/tapChoices'

const { units } = useUnits()

/** Changes all that are chosen in one edit; what cannot be done to some is said. */
const emit = defineEmits<{ makeKind: [], choose: [nodeIds: string[]], newOutput: [nodeIds: string[]] }>()
const selected = useSelectionStore()
const evaluation = useEvaluationStore()

/** How many there are of each tap or impedance: "12 × 5 W, 2 × 20 W". */
function countsOf(speakers: readonly Speaker[]): string {
  const byText = new Map<string, number>()
  for (const s of speakers) byText.set(wiringText(s), (byText.get(wiringText(s)) ?? 0) + 1)
  return [...byText].map(([text, count]) => `${count} × ${text}`).join(', ')
}
/** What is said of the chosen ones, a frame after them: two hundred tags follow the key at once. */
const about = useAfterPaint(() => {
  const lines = evaluation.lines.filter(l => l.speakers.some(s => selected.chosen.has(s.id)))
  const speakers = lines.flatMap(l => l.speakers.filter(s => selected.chosen.has(s.id)))
  const watts = lines.flatMap(l => l.drops).filter(d => selected.chosen.has(d.nodeId)).map(d => d.powerW)
  return {
    speakers, counts: countsOf(speakers), onLines: lines.map(l => l.output.label).join(', '),
    /** Watts that they get; said only where every one of them is known. */
    getW: watts.length < speakers.length || watts.includes(null) ? null : watts.reduce<number>((sum, w) => sum + w!, 0),
    taps: [...new Set(speakers.flatMap(s => s.load.kind === 'tap' ? s.load.tapsW : []))].sort((a, b) => a - b),
  }
})
const isOn = (tapW: number) => about.value.speakers.every(s => s.load.kind === 'tap' && s.load.tapW === tapW)
/** What they have in common; empty where they differ. */
const common = (of: (speaker: Speaker) => string) => {
  const [first, ...rest] = new Set(about.value.speakers.map(of))
  return rest.length === 0 ? first ?? '' : ''
}
const hintOf = (of: (speaker: Speaker) => string, none: string) => new Set(about.value.speakers.map(of)).size > 1 ? 'they differ' : none
const act = useOnChosen()
</script>

<template>
  <form class="form" @submit.prevent>
    <p class="soft">{{ about.counts }} on {{ about.onLines }}<template v-if="about.getW !== null">; they get <span
      class="figure">{{ writeQuantity(about.getW, 'W') }}</span></template>. What is changed here is changed for all of them at once.</p>
    <ChoiceRow
      v-if="about.taps.length > 0" :model-value="[...about.taps, 0].find(isOn)" label="Tap of all" after="W" :choices="tapChoices(about.taps)"
      @update:model-value="tapW => tapW !== undefined && act((job, ids) => tapEach(job, ids, tapW))" />
    <div class="two">
      <TextEntry
        label="Lengths, in order" text="" :read="lengthsOf(units)" hint="20, then 6"
        @commit="v => act((job, ids) => lengthsEach(job, ids, v, usualCableOf(job, ids)))" />
      <TextEntry label="Cable" text="" :read="cableOf" :hint="cableExample(units)" @commit="v => act((job, ids) => cableEach(job, ids, v))" />
    </div>
    <div class="two">
      <TextEntry
        label="Labels, from" text="" :read="textOf(speakerFields.label, 'label')" hint="C01"
        @commit="v => act((job, ids) => relabelEach(job, ids, v))" />
      <TextEntry
        label="What they are" :text="common(s => s.name)" :read="textOf(speakerFields.name, 'name')" :hint="hintOf(s => s.name, 'not stated')"
        @commit="v => act((job, ids) => setEach(job, ids, { name: v }))" />
    </div>
    <div class="two">
      <TextEntry
        label="Continuous rating" :text="common(s => writeOrNot(s.continuousW, 'W'))" :read="quantityOrNot('power')"
        :hint="hintOf(s => String(s.continuousW), 'not known')" @commit="v => act((job, ids) => setEach(job, ids, { continuousW: v }))" />
      <TextEntry
        v-if="about.taps.length > 0" label="Driver behind it" :text="common(s => writeOrNot(s.driverOhm, 'Ω'))" :read="quantityOrNot('resistance')"
        :hint="hintOf(s => String(s.driverOhm), 'not known')" @commit="v => act((job, ids) => setEach(job, ids, { driverOhm: v }))" />
    </div>
    <ZonePart :speakers="about.speakers" @choose="emit('choose', $event)" @new-output="emit('newOutput', $event)" />
    <KindPart :speakers="about.speakers" @make="emit('makeKind')" />
  </form>
</template>

<style scoped>
.form { display: grid; gap: 12px; }
.two { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1fr); gap: 10px; align-items: start; }
</style>
