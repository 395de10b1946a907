<script setup lang="ts">
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import { REPLACING_CAUTION, replacementsFor, type Replacement } from '#core/search/replacement'
import type { LineEvaluation } from '#core/line/evaluate'
import { writeQuantity } from '#core/quantity/write'
import { newId } from '~/api/ids'
import GradeTag from '~/components/GradeTag.vue'
import { useWholeLibrary } from '~/composables/useWholeLibrary'
import { wiringText } from '~/drawing/speakerText'
import { useJobStore } from '~/stores/job'
import { useSelectionStore } from '~/stores/selection'

/** What of the library could take the place of a speaker: before and after side by side, and why others do not. */
const open = defineModel<boolean>('open', { required: true })
const { line } = defineProps<{ line: LineEvaluation }>()
const store = useJobStore()
const selected = useSelectionStore()
const { models, problem: away, load } = useWholeLibrary('speaker')

const speaker = computed(() => selected.speaker)
const found = computed(() => store.job && speaker.value && models.value
  ? replacementsFor(store.job, speaker.value.id, models.value.map(m => ({ modelId: m.id, version: m.version, model: m.body })), newId)
  : null)
const shown = ref(STEP)
const drop = (of: LineEvaluation) => of.drops.find(d => d.nodeId === speaker.value?.id)
const W = (watts: number | null | undefined) => watts === null || watts === undefined ? 'not known' : writeQuantity(watts, 'W')
const Ohm = (ohm: number | null) => ohm === null ? 'not known' : writeQuantity(ohm, 'Ω')
const level = (db: number | null) => db === null ? 'not known' : `${db < -0.05 ? '−' : db > 0.05 ? '+' : '±'}${Math.abs(db).toFixed(1)} dB`
function put(row: Replacement): void {
  if (!store.edit(row.edit)) return
  store.say(`${speaker.value!.label} is ${row.offered.model.name} now`)
  open.value = false
}
</script>

<script lang="ts">
const STEP = 12
</script>

<template>
  <Dialog v-model:visible="open" modal :header="`What replaces ${speaker?.label ?? ''}`" :dismissable-mask="true" :style="{ width: 'min(920px, 96vw)' }">
    <p v-if="away" class="error-words" role="alert">{{ away }} <button class="act" type="button" @click="load">try again</button></p>
    <p v-else-if="!models" class="soft" role="status">Reading the library…</p>
    <template v-else-if="found && speaker">
      <p class="verdict" role="status">{{ found.fit.length === 0 ? 'No speaker of the library can take its place.'
        : `${found.fit.length} of ${found.fit.length + found.refused.length} of the library could take its place.` }}</p>
      <div v-if="found.fit.length > 0" class="wide" tabindex="0" role="group" aria-label="can be scrolled sideways">
        <table>
          <thead>
            <tr><th>speaker</th><th>wired</th><th class="number">gets</th><th class="number">level</th><th class="number">line</th><th>then</th><th /></tr>
          </thead>
          <tbody>
            <tr class="was">
              <td><b>{{ speaker.name || 'as it is' }}</b>, there
                now</td><td class="figure" data-of="wired">{{ wiringText(speaker) }}</td>
              <td class="number figure" data-of="gets">{{ W(drop(found.before)?.powerW) }}</td><td />
              <td class="number figure" data-of="line">{{ Ohm(found.before.loadOhm) }}</td><td><GradeTag :grade="found.before.grade" /></td><td />
            </tr>
            <tr v-for="row in found.fit.slice(0, shown)" :key="row.offered.modelId">
              <td><b>{{ row.offered.model.name }}</b><span v-for="says in row.minds" :key="says" class="small soft mind">{{ says }}</span></td>
              <td class="figure" data-of="wired">{{ wiringText(row.speaker) }}</td>
              <td class="number figure" data-of="gets">{{ W(drop(row.line)?.powerW) }}</td>
              <td class="number figure" data-of="level">{{ level(row.levelDb) }}</td>
              <td class="number figure" data-of="line">{{ Ohm(row.line.loadOhm) }}</td><td><GradeTag
                :grade="row.line.grade" /></td>
              <td><Button label="Put it in" size="small" :aria-label="`Put it in: ${row.offered.model.name}`" @click="put(row)" /></td>
            </tr>
          </tbody>
        </table>
      </div>
      <button v-if="found.fit.length > shown" class="act" type="button" @click="shown += STEP">show more</button>
      <p class="small caution">{{ REPLACING_CAUTION }}</p>
      <details v-if="found.refused.length > 0">
        <summary class="act">why {{ found.refused.length }} others do not</summary>
        <ul class="refused"><li v-for="r in found.refused" :key="r.name" class="small"><b>{{ r.name }}</b>: {{ r.why }}</li></ul>
      </details>
    </template>
    <p v-else>Choose a speaker on {{ line.output.label }} first.</p>
  </Dialog>
</template>

<style scoped>
.verdict { padding-bottom: 8px; }
.wide { overflow-x: auto; }
table { border-collapse: collapse; width: 100%; }
th { text-align: left; font-weight: 400; font-size: 13.5px; color: var(--ink-soft); }
th, td { padding: 6px 12px 6px 0; border-bottom: 1px solid var(--rule); vertical-align: top; }
th.number, td.number { text-align: right; white-space: nowrap; }
.was td { background: color-mix(in srgb, var(--ink) 5%, transparent); }
.mind { display: block; }
.caution { border-left: 3px solid var(--stop); padding-left: 8px; margin: 10px 0; }
.refused { padding-left: 18px; }
/* A speaker a block: beside each other the columns left its name a letter a line. */
@media (max-width: 760px) {
  thead { display: none; }
  tr { display: grid; grid-template-columns: repeat(2, minmax(0, 1fr)); align-items: center; gap: 2px 16px; padding: 8px 0;
    border-bottom: 1px solid var(--rule); }
  .was { background: color-mix(in srgb, var(--ink) 5%, transparent); }
  .was td { background: none; }
  td, td.number { border: 0; padding: 2px 0; text-align: left; }
  td:first-child, td:last-child { grid-column: 1 / -1; }
  td:empty { display: none; }
  td[data-of]::before { content: attr(data-of) " "; color: var(--ink-soft); font-family: var(--sans); font-size: 13.5px; }
}
</style>
