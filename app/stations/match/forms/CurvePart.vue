<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import { keptCurve, labelAgainst, readCurve, writeCurve, type CurveReport } from '#core/format/curve'
import type { SpeakerLoad } from '#core/job/schema'
import { impedanceOver } from '#core/advice/low/impedance'
import { InputError } from '#core/quantity/inputError'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import ImpedanceChart from '~/components/ImpedanceChart.vue'
import TextEntry from '~/components/form/TextEntry.vue'
import { quantityOrNot, writeOrNot } from '~/components/form/readers'
import { saveText } from '~/drawing/saveSvg'
import { fieldOf } from '~/composables/elements'

/** A measured curve of a speaker: a file comes in, is looked at, and is taken; out again as text. */
type Curve = Extract<SpeakerLoad, { kind: 'curve' }>
const { load, label, name } = defineProps<{ load: Curve, label: string, name: string }>()
const emit = defineEmits<{ set: [load: Curve] }>()

const field = useTemplateRef<HTMLTextAreaElement>('field')
const text = ref('')
const looked = ref<{ report: CurveReport, file: string } | null>(null)
const problem = ref<{ says: string, at: number } | null>(null)

function look(typed: string, file: string): void {
  problem.value = null
  looked.value = null
  text.value = typed
  if (typed.trim() === '') return
  try {
    looked.value = { report: readCurve(typed), file }
  }
  catch (error) {
    if (!(error instanceof InputError)) throw error
    problem.value = { says: error.message, at: error.position }
    void nextTick(() => pointAt(error.position))
  }
}
/** The line at fault, marked where it is typed. */
function pointAt(position: number): void {
  const end = text.value.indexOf('\n', position)
  field.value?.focus()
  field.value?.setSelectionRange(position, end < 0 ? text.value.length : end)
}
async function choose(event: Event): Promise<void> {
  const input = fieldOf(event)
  if (!input) return
  const [file] = input.files ?? []
  if (file) look(await file.text(), file.name)
  input.value = ''
}
const kept = computed(() => looked.value && keptCurve(looked.value.report))
const preview = computed(() => kept.value && drawn({ ...load, points: kept.value.points }))
const now = computed(() => drawn(load))
const against = computed(() => looked.value ? labelAgainst(looked.value.report, load.nominalOhm) : '')
function drawn(of: Curve) {
  return impedanceOver({ lead: null, node: { kind: 'speaker', id: 's', load: of } })!
}
function take(nominalOhm: number): void {
  if (kept.value) emit('set', { ...load, nominalOhm, points: kept.value.points })
  look('', '')
}
const span = computed(() => `${load.points.length} points, ${writeQuantity(load.points[0]![0], 'Hz')} to ${writeQuantity(load.points.at(-1)![0], 'Hz')}`)
</script>

<template>
  <fieldset class="curve">
    <legend class="soft small">Measured curve: {{ span }}</legend>
    <TextEntry
      label="Its DC resistance" :text="writeOrNot(load.reOhm, 'Ω')" :read="quantityOrNot('resistance')" hint="not measured"
      @commit="emit('set', { ...load, reOhm: $event })" />
    <ImpedanceChart v-if="!looked" :curve="now" :what="`curve of ${label}`" />
    <label class="file"><span class="act">take a file</span><input
      type="file" accept=".txt,.csv,.zma,.dat,.tsv,text/*"
      aria-label="a file with the measured curve" @change="choose"></label>
    <label class="soft small" for="curve-text">or paste it: frequency, ohms, phase a line</label>
    <textarea
      id="curve-text" ref="field" :value="text" rows="4" spellcheck="false" placeholder="20  6.8  12.5"
      @change="look(($event.target as HTMLTextAreaElement).value, '')" />
    <p v-if="problem" class="error-words" role="alert">{{ problem.says }} Mend it above, or take another file.</p>
    <template v-if="looked && kept && preview">
      <ImpedanceChart :curve="preview" :lowest="{ ohm: looked.report.minimumOhm, frequencyHz: looked.report.minimumHz }" what="curve to be taken" />
      <p class="small" role="status">{{ looked.file === '' ? 'Pasted' : looked.file }}: {{ kept.of }} points{{ kept.points.length < kept.of
        ? `, of which ${kept.points.length} are kept: the others lie between them within ${writeNumber(100 * kept.off)} %` : '' }}, lowest
        {{ writeQuantity(looked.report.minimumOhm, 'Ω') }} at {{ writeQuantity(looked.report.minimumHz, 'Hz') }}.</p>
      <p v-for="says in looked.report.problems" :key="says" class="small remark">{{ says }}</p>
      <p v-if="against" class="small remark">{{ against }}</p>
      <div class="acts">
        <button class="act strong" type="button" @click="take(load.nominalOhm)">take it, label {{ writeQuantity(load.nominalOhm, 'Ω') }}</button>
        <button
          v-if="looked.report.nominalOhm !== null && looked.report.nominalOhm !== load.nominalOhm" class="act" type="button"
          @click="take(looked.report.nominalOhm)">take it, label {{ writeQuantity(looked.report.nominalOhm, 'Ω') }}</button>
        <button class="act" type="button" @click="look('', '')">leave it</button>
      </div>
    </template>
    <button
      v-else class="act" type="button"
      @click="saveText(writeCurve(load.points, name || label), `${label} curve.txt`, 'text/plain')">out again as text</button>
  </fieldset>
</template>

<style scoped>
.curve { border: 0; border-top: 1px solid var(--rule); margin: 0; padding: 8px 0 0; display: grid; gap: 6px; min-width: 0; }
.file { justify-self: start; cursor: pointer; }
.file input { position: absolute; width: 1px; height: 1px; opacity: 0; }
.file:focus-within .act { outline: 2px solid var(--pen); outline-offset: 2px; }
textarea { width: 100%; font: inherit; font-size: 14px; padding: 5px 8px; border: 1px solid var(--rule); background: var(--paper); color: var(--ink);
  resize: vertical; }
.remark { color: var(--tight); }
.acts { display: flex; flex-wrap: wrap; gap: 2px 16px; }
.strong { color: var(--ink); text-decoration: underline; text-underline-offset: 3px; }
.act { justify-self: start; }
</style>
