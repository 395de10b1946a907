<script setup lang="ts">
import { computed, ref, useTemplateRef } from 'vue'
import Dialog from 'primevue/dialog'
import { lineImpedance, speakerImpedance, wattsOver } from '#core/advice/low/impedance'
import type { LineEvaluation } from '#core/line/evaluate'
import { writeQuantity } from '#core/quantity/write'
import ImpedanceChart from '~/components/ImpedanceChart.vue'
import ChoiceRow from '~/components/form/ChoiceRow.vue'

/** A line's impedance over frequency as its output sees it, each speaker on demand, and what the output gives into that curve. */
const open = defineModel<boolean>('open', { required: true })
const { line } = defineProps<{ line: LineEvaluation }>()

const said = computed(() => lineImpedance(line.output))
const shown = ref<readonly string[]>([])
const members = computed(() => line.speakers.flatMap((s) => {
  const curve = shown.value.includes(s.id) ? speakerImpedance(s) : null
  return curve ? [{ label: s.label, curve }] : []
}))
const isWatts = ref(false)
const watts = computed(() => isWatts.value && said.value ? wattsOver(line.output, said.value.curve) : null)
/** Where it is not drawn over all that is heard. */
const drawnOver = computed(() => {
  const [first = 20, last = 20_000] = said.value ? [said.value.curve.hz[0], said.value.curve.hz.at(-1)] : []
  return first > 21 || last < 19_000 ? `from ${writeQuantity(first, 'Hz')} to ${writeQuantity(last, 'Hz')}` : ''
})
/** How much of it is known, and where. */
const knownWords = computed(() => {
  if (!said.value) return ''
  const { known, labelled } = said.value
  const labels = labelled === 0
    ? ''
    : known === 0
      ? 'No curve is known here: labels are drawn as resistances.'
      : `${labelled} of ${known + labelled} are known by their label alone, drawn as resistances.`
  return [drawnOver.value && `Drawn ${drawnOver.value}: beyond that no curve is known.`, labels].filter(Boolean).join(' ')
})
const isRated = computed(() => line.drive !== null)
const span = computed(() => {
  const known = watts.value?.filter(w => w !== null) ?? []
  return known.length === 0 ? null : { least: Math.min(...known), most: Math.max(...known) }
})
function toggle(id: string): void {
  shown.value = shown.value.includes(id) ? shown.value.filter(s => s !== id) : [...shown.value, id].slice(-MOST)
}
/** More lines than these cannot be told apart. */
const MOST = 6
const chart = useTemplateRef<InstanceType<typeof ImpedanceChart>>('chart')
</script>

<template>
  <Dialog v-model:visible="open" modal :header="`${line.output.label}: impedance`" :dismissable-mask="true" :style="{ width: 'min(820px, 96vw)' }">
    <p v-if="!said">As it is wired nothing has an impedance here: it is open, joined, nothing hangs on it, or its curves have no frequency in
      common.</p>
    <template v-else>
      <div class="top">
        <ChoiceRow
          v-model="isWatts" label="what is drawn"
          :choices="[{ value: false, says: 'ohms' }, { value: true, says: 'watts that it gives into them', isOff: !isRated }]" />
        <button class="act" type="button" @click="chart?.save(`${line.output.label} impedance.svg`)">save as a picture</button>
      </div>
      <ImpedanceChart
        ref="chart" :curve="said.curve" :watts="watts" :members="members" :floor-ohm="said.floorOhm" :permitted-ohm="said.permittedOhm" :lowest="said.lowest"
        :dcr="said.dcr" :meter="said.meter" :what="`impedance of ${line.output.label}`" />
      <p
        v-if="isWatts && span"
        class="small">At full swing it gives {{ writeQuantity(span.least, 'W') }} to {{ writeQuantity(span.most, 'W') }} into this curve, real power,
        by its ratings; by the label {{ line.amplifierW === null ? 'it is not known' : writeQuantity(line.amplifierW, 'W') }}.</p>
      <p v-else class="small">Lowest {{ writeQuantity(said.lowest.ohm, 'Ω') }} at {{ writeQuantity(said.lowest.frequencyHz, 'Hz') }}; an impedance
        meter at 1 kHz (ring) reads
        {{ writeQuantity(said.meter.ohm, 'Ω') }}. The dotted line is the phase, read at the right. {{ knownWords }}</p>
      <div v-if="!isWatts && line.speakers.length > 1" class="taps" aria-label="speakers by themselves">
        <button
          v-for="s in line.speakers" :key="s.id" type="button" class="tap" :class="{ on: shown.includes(s.id) }" :aria-pressed="shown.includes(s.id)"
          @click="toggle(s.id)">{{ s.label }}</button>
        <span class="soft small">by themselves, up to {{ MOST }}</span>
      </div>
    </template>
  </Dialog>
</template>

<style scoped>
.top { display: flex; flex-wrap: wrap; justify-content: space-between; gap: 4px 16px; padding-bottom: 8px; }
.taps { padding-top: 8px; }
.top .taps { padding-top: 0; }
p { padding-top: 6px; }
</style>
