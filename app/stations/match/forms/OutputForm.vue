<script setup lang="ts">
import { same } from '#core/quantity/same'
import { computed, ref } from 'vue'
import type { CableModel } from '#core/gear/cable'
import type { Model } from '#core/gear/models'
import { setting, together } from '#core/job/edits'
import type { Output } from '#core/job/schema'
import { outputFields } from '#core/job/sections/wiring/schema'
import { joinChannels } from '#core/hands/channels'
import { setLineCable } from '#core/hands/intents'
import { branchesOf, findOutput } from '#core/job/tree'
import { type ChannelMode, contradictionsOf, isConstantVoltage, isSolidState, lineVoltsOf, USUAL_LINE_V, valveOf, writeRating } from '#core/amplifier/index'
import { findingWords } from '#core/line/words'
import { parseRating } from '#core/quick/parse'
import { NO_SIZE, writeCable } from '#core/quantity/cable'
import { newId } from '~/api/ids'
import GearPick from '~/components/gear/GearPick.vue'
import TextEntry from '~/components/form/TextEntry.vue'
import { cableOf, textOf } from '~/components/form/readers'
import { useEvaluationStore } from '~/stores/evaluation'
import { useJobStore } from '~/stores/job'
import KeyCap from '~/components/KeyCap.vue'
import AmplifierModel from './AmplifierModel.vue'
import AmplifierPart from './AmplifierPart.vue'
import BandPart from './BandPart.vue'
import CableFinder from '../dialogs/CableFinder.vue'
import ValvePart from './ValvePart.vue'
import type { Choice } from '~/components/form/choice'
import ChoiceRow from '~/components/form/ChoiceRow.vue'

const { output } = defineProps<{ output: Output }>()
const emit = defineEmits<{ cableList: [] }>()
const store = useJobStore()
const evaluation = useEvaluationStore()
const line = computed(() => evaluation.lineById.get(output.id))
const amplifier = computed(() => store.job ? findOutput(store.job, output.id)?.amplifier ?? null : null)
const leads = computed(() => branchesOf(output.wiring).flatMap(b => b.lead ? [b.lead.cable] : []))
const cable = computed(() => {
  const [first, ...others] = new Set(leads.value.map(writeCable))
  return first !== undefined && first !== NO_SIZE && others.length === 0 ? first : ''
})
const netlist = computed(() => `/api/jobs/${store.id}/netlist?output=${encodeURIComponent(output.id)}`)

type Fields = Pick<Output, 'label' | 'name' | 'rating' | 'band' | 'limiterV'>
function setOutput(to: Partial<Fields>): void {
  store.edit({ kind: 'output.set', outputId: output.id, ...setting<Fields, Partial<Fields>>(output, to) })
}
/** Lines and powers that a press sets: what stands on most amplifiers for lines (common practice, no source). Anything else is typed. */
const USUAL_VOLTS = [25, 70, 100] as const
const USUAL_POWERS_W = [60, 120, 240, 360, 480] as const
const voltsOf = (lineV: number) => lineV === 70 ? USUAL_LINE_V : lineV
const isLine = (lineV: number) => lineVoltsOf(output.rating) === voltsOf(lineV)
function setLineVolts(lineV: number): void {
  setOutput({ rating: { kind: 'constant-voltage', lineV: voltsOf(lineV), powerW: isConstantVoltage(output.rating) ? output.rating.powerW : null } })
}
function setLinePower(powerW: number): void {
  if (isConstantVoltage(output.rating)) setOutput({ rating: { ...output.rating, powerW } })
}
/** The other outputs of this amplifier that are rated otherwise, set like this one in one edit. */
const others = computed(() => amplifier.value?.outputs.filter(o => o.id !== output.id && !same(o.rating, output.rating)) ?? [])
function rateAllAlike(): void {
  store.edit(together(others.value.map(o => ({ kind: 'output.set' as const, outputId: o.id, was: { rating: o.rating }, to: { rating: output.rating } }))))
}
/** What a rating says against itself is told where it is entered. */
const remarks = computed(() => contradictionsOf(output.rating)
  .map(facts => findingWords({ code: 'rating-contradicts', grade: 'unknown', facts, outputId: output.id, nodeId: null })))
const JOINS: Choice<ChannelMode>[] = [{ value: 'single', says: 'one channel' }, { value: 'bridged', says: 'two, bridged' }, { value: 'parallel', says: 'two, side by side' }]
function join(mode: ChannelMode): void {
  const joined = joinChannels(store.opened, output.id, mode, newId)
  if (typeof joined === 'string') store.sayNot(joined)
  else store.edit(joined)
}
const isPickingCable = ref(false)
function layModel(body: Model): void {
  isPickingCable.value = false
  const { size, name } = body as CableModel
  if (store.edit(setLineCable(store.opened, output.id, size))) store.say(`${output.label}: ${name} all along`)
}
</script>

<template>
  <form class="form" @submit.prevent>
    <AmplifierModel v-if="amplifier" :amplifier="amplifier" />
    <div class="two">
      <TextEntry label="Output" :text="output.label" :read="textOf(outputFields.label, 'label')" @commit="setOutput({ label: $event })" />
      <TextEntry label="Line" :text="output.name" :read="textOf(outputFields.name, 'name')" hint="where it plays" @commit="setOutput({ name: $event })" />
    </div>
    <div>
      <TextEntry
        label="What this output gives" :text="writeRating(output.rating)" :read="parseRating" hint="not known"
        @commit="setOutput({ rating: $event })" />
      <div class="taps usual">
        <button
          v-for="lineV in USUAL_VOLTS" :key="lineV" type="button" class="tap figure" :class="{ on: isLine(lineV) }" :aria-pressed="isLine(lineV)"
          @click="setLineVolts(lineV)">{{ lineV }} V</button>
        <template v-if="isConstantVoltage(output.rating)">
          <button
            v-for="powerW in USUAL_POWERS_W" :key="powerW" type="button" class="tap figure" :class="{ on: output.rating.powerW === powerW }"
            :aria-pressed="output.rating.powerW === powerW" @click="setLinePower(powerW)">{{ powerW }} W</button>
        </template>
      </div>
      <ChoiceRow
        v-if="isSolidState(output.rating)" :model-value="output.rating.mode" label="Channels of this output" class="usual" :choices="JOINS"
        @update:model-value="mode => mode !== undefined && join(mode)" />
      <ValvePart
        v-if="valveOf(output.rating) && amplifier" :output="output" :amplifier="amplifier" :rating="valveOf(output.rating)!" :line="line"
        @set="setOutput({ rating: $event })" />
      <p class="soft small note"><span class="figure">70 V 240 W</span> for a line, <span class="figure">300 W at 4, 180 W at 8, from 2</span> for low
        impedance, <span class="figure">valve 50 W at 4/8/16</span>; empty for not known.</p>
      <p v-for="remark in remarks" :key="remark.what" class="small note remark" role="status">{{ remark.what }} {{ remark.why }} {{ remark.todo }}</p>
      <button v-if="others.length > 0" class="act" type="button" @click="rateAllAlike">rate {{ others.map(o => o.label).join(', ') }} like this too</button>
    </div>
    <BandPart :output="output" @set="setOutput" />
    <TextEntry
      v-if="leads.length > 0" label="Cable of the whole line" :text="cable" :read="cableOf" hint="several kinds"
      @commit="store.edit(setLineCable(store.opened, output.id, $event))" />
    <GearPick
      v-if="isPickingCable" kind="cable" :used="[]" @pick="({ body }) => layModel(body)"
      @close="isPickingCable = false" />
    <button v-else-if="leads.length > 0" class="act" type="button" @click="isPickingCable = true">a cable of the library for all of it</button>
    <CableFinder v-if="leads.length > 0 && line" :output="output" :line="line" />
    <AmplifierPart v-if="amplifier" :amplifier="amplifier" :rating="output.rating" />
    <div class="acts">
      <button class="act" type="button" @click="emit('cableList')">cable of the whole job, by size <KeyCap of="b" /></button>
      <a class="act" :href="netlist" download>netlist for a circuit simulator</a>
      <button class="act" type="button" @click="store.edit({ kind: 'output.remove', outputId: output.id, was: output })">
        remove this output and its line</button>
      <button
        v-if="amplifier" class="act" type="button"
        @click="store.edit({ kind: 'amplifier.remove', amplifierId: amplifier.id, was: amplifier })">remove {{ amplifier.name }} and all its lines</button>
    </div>
  </form>
</template>

<style scoped>
.form { display: grid; gap: 14px; }
.two { display: grid; grid-template-columns: minmax(0, 2fr) minmax(0, 3fr); gap: 10px; align-items: start; }
.note { padding-top: 4px; }
.usual { padding-top: 6px; }
.remark { color: var(--tight); }
.acts { display: grid; justify-items: start; border-top: 1px solid var(--rule); padding-top: 8px; }
.acts .act { white-space: normal; }
</style>
