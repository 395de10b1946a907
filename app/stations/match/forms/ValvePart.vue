<script setup lang="ts">
import { computed } from 'vue'
import { tapFit, type ValveRating } from '#core/amplifier/index'
import type { Amplifier, Output } from '#core/job/schema'
import { plugEdit, plugSteps, plugWays, VALVE_CAUTION, type Plugged } from '#core/advice/low/valvePlug'
import type { LineEvaluation } from '#core/line/evaluate'
import { speakersOf } from '#core/job/tree'
import { writeQuantity } from '#core/quantity/write'
import { useJobStore } from '~/stores/job'
import ChoiceRow from '~/components/form/ChoiceRow.vue'

/** A valve output: the tap, how it is chosen, every way to plug the cabinets, and the steps for the one that is drawn. */
const { output, amplifier, rating, line } = defineProps<{ output: Output, amplifier: Amplifier, rating: ValveRating, line: LineEvaluation | undefined }>()
const emit = defineEmits<{ set: [rating: ValveRating] }>()
const store = useJobStore()

const fit = computed(() => line?.upOhm && rating.tapOhm !== null ? tapFit(line.upOhm, rating.tapOhm) : null)
const ways = computed(() => speakersOf(output.wiring).some(s => s.load.kind === 'cabinet') ? plugWays(output).slice(0, 6) : [])
const steps = computed(() => plugSteps(amplifier, output, fit.value))
const isNow = (way: Plugged) => plugEdit(output, way) === null
const FITS: Record<Plugged['fit'], string> = { 'matched': 'matched', 'a-little-low': 'a little low: quietly', 'too-low': 'too low', 'a-little-high': 'a little high: less power', 'far-too-high': 'far too high' }
function positionsOf(way: Plugged): string {
  return way.positions.map(({ nodeId, label, at }) => {
    const load = speakersOf(output.wiring).find(s => s.id === nodeId)!.load
    const position = load.kind === 'cabinet' ? load.positions[at]! : null
    return `${label} at ${position?.jack || 'its jack'}${position?.switchTo ? ` (${position.switchTo})` : ''}`
  }).join(', ')
}
const CHOSEN_BY = [{ value: 'selector', says: 'by a selector' }, { value: 'sockets', says: 'by sockets' }, { value: null, says: 'not stated' }] as const
</script>

<template>
  <div class="valve">
    <ChoiceRow
      :model-value="rating.tapOhm" label="The line is on the tap" before="on the tap"
      :choices="[...rating.tapsOhm.map(tap => ({ value: tap, says: writeQuantity(tap, 'Ω'), isFigure: true })), { value: null, says: 'not stated' }]"
      @update:model-value="tapOhm => tapOhm !== undefined && emit('set', { ...rating, tapOhm })" />
    <ChoiceRow
      :model-value="rating.chosenBy" label="The tap is chosen" before="chosen" :choices="CHOSEN_BY"
      @update:model-value="chosenBy => chosenBy !== undefined && emit('set', { ...rating, chosenBy })" />
    <template v-if="ways.length > 0">
      <p class="soft small">Ways to plug these cabinets, all of their drivers playing</p>
      <ul class="ways">
        <li v-for="(way, k) in ways" :key="k">
          <button class="act" type="button" :disabled="isNow(way)" @click="store.edit(plugEdit(output, way))"><b
            class="figure">{{ writeQuantity(way.loadOhm, 'Ω') }} on
            {{ writeQuantity(way.tapOhm, 'Ω') }}</b>, {{ FITS[way.fit] }}: {{ positionsOf(way) }}{{ isNow(way) ? ': as it is' : '' }}</button>
        </li>
      </ul>
    </template>
    <section v-if="steps.length > 0" aria-label="How to plug it">
      <h3>How to plug it</h3>
      <ol class="steps"><li v-for="step in steps" :key="step">{{ step }}</li></ol>
    </section>
    <p
      v-else-if="rating.tapOhm !== null && line && line.speakers.length > 0"
      class="small">No steps: {{ fit === 'too-low' ? 'this load is not allowed on this tap.'
      : 'they are for cabinets side by side, each with a cable of its own.' }}</p>
    <p class="small caution">{{ VALVE_CAUTION }}</p>
  </div>
</template>

<style scoped>
.valve { display: grid; gap: 8px; padding-top: 8px; }
.ways { list-style: none; padding: 0; margin: 0; }
.ways .act { display: block; white-space: normal; text-align: left; padding: 3px 0; }
.steps { padding-left: 22px; display: grid; gap: 3px; }
.caution { border-left: 3px solid var(--stop); padding-left: 8px; }
</style>
