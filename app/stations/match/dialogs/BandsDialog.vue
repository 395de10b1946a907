<script setup lang="ts">
import { computed, watch } from 'vue'
import Dialog from 'primevue/dialog'
import { bandWords } from '#core/line/playedBand'
import type { LineEvaluation } from '#core/line/evaluate'
import { isSetRight, levelsSentence, levelsSet, protectedAt, protectionSentence, systemLevels } from '#core/advice/low/bandLevels'
import { writeQuantity } from '#core/quantity/write'
import { useEvaluationStore } from '~/stores/evaluation'
import { useJobStore } from '~/stores/job'
import SearchState from '~/solver/SearchState.vue'
import { useSearch } from '~/solver/useSearch'

/** The outputs that share the range between them: what each plays, how loud it is, what it is set down by, and what that protects. */
const open = defineModel<boolean>('open', { required: true })
const { line } = defineProps<{ line: LineEvaluation }>()
const store = useJobStore()
const evaluation = useEvaluationStore()
const { answer: clipped, problem, isSlow, start, stop } = useSearch('clip')

const levels = computed(() => store.job ? systemLevels(store.job, line.outputId, evaluation.lines) : null)
const at = computed(() => levels.value && protectedAt(levels.value))
const OVER_DB = 6
const again = () => {
  if (store.job && at.value) start(store.job, { ratedW: at.value.powerW, crossoverHz: at.value.crossoverHz, material: 'open', overdrivesDb: [OVER_DB] })
}
watch(at, again, { immediate: true })

const W = (w: number | null) => w === null ? 'not known' : writeQuantity(w, 'W')
const dB = (db: number | null, unit = 'dB') => db === null ? 'not known' : `${db.toFixed(1)} ${unit}`
const toSet = computed(() => store.job && levels.value && levelsSet(store.job, levels.value))
function setAll(): void {
  if (store.edit(toSet.value)) store.say(`${levels.value!.system}: levels of its bands noted as set`)
}
</script>

<template>
  <Dialog
    v-model:visible="open" modal :header="levels ? `${levels.system}: its bands` : `${line.output.label}: bands`" :dismissable-mask="true"
    :style="{ width: 'min(900px, 96vw)' }">
    <p v-if="!levels">{{ line.output.label }} plays everything. Say in its form (<kbd>e</kbd>) that it plays a part of the range, and which; outputs
      that name one
      system belong together.</p>
    <template v-else>
      <p class="verdict" role="status">{{ levelsSentence(levels) }}</p>
      <div class="wide" tabindex="0" role="group" aria-label="can be scrolled sideways">
        <table>
          <thead>
            <tr>
              <th>output</th><th>plays</th><th class="number">gives</th><th class="number">then, at 1 m</th><th class="number">gain</th>
              <th class="number">set down by</th><th class="number">is set</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in levels.rows" :key="row.outputId" :class="{ own: row.outputId === line.outputId }">
              <td><b>{{ row.label }}</b> {{ row.name }}</td>
              <td class="figure">{{ bandWords(row.band) }}<span v-if="row.band.slopeDb !== null" class="soft">, {{ row.band.slopeDb }} dB/oct</span></td>
              <td class="number figure" data-of="gives">{{ W(row.fullW) }}</td>
              <td class="number figure" data-of="at 1 m">{{ dB(row.fullDb) }}</td>
              <td class="number figure" data-of="gain">{{ row.gainDb === null ? 'not stated' : dB(row.gainDb) }}</td>
              <td class="number figure" data-of="set down by"><b>{{ dB(row.downDb) }}</b></td>
              <td class="number figure" :class="{ off: isSetRight(row) === false }" data-of="is set">
                {{ row.band.setDb === null ? 'not yet' : dB(row.band.setDb) }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-if="toSet"><button class="act" type="button" @click="setAll">note these levels as set, to half a decibel</button></p>
      <h3>What it protects</h3>
      <SearchState :problem="problem" :is-slow="isSlow" doing="Clipping it…" @again="again" @stop="stop" />
      <p v-if="at">{{ protectionSentence(at, clipped?.[0] ?? null, OVER_DB) }}</p>
      <p v-else class="soft">Which bands meet, and what the lower one gives, is not known yet.</p>
      <p class="soft small">Levels are by sensitivity, watts and gain, on axis at one metre; the room, the distance and the ear decide in the end: set them by
        measurement, and listen. A crossover set wrong can break a unit at the first loud note: quietly first, and mind your hearing.</p>
    </template>
  </Dialog>
</template>

<style scoped>
.verdict { padding-bottom: 8px; font-size: 17px; }
.wide { overflow-x: auto; padding-bottom: 6px; }
table { border-collapse: collapse; width: 100%; }
th { text-align: left; font-weight: 400; font-size: 13.5px; color: var(--ink-soft); }
th, td { padding: 6px 12px 6px 0; border-bottom: 1px solid var(--rule); }
td.figure { white-space: nowrap; }
.number { text-align: right; }
.own { background: var(--paper-raised); }
.off { color: var(--tight); font-weight: 700; }
h3 { padding-top: 10px; }
h3 ~ .small { padding-top: 8px; }
@media (max-width: 760px) {
  thead { display: none; }
  table, tbody { display: block; }
  tr { display: grid; grid-template-columns: 1fr 1fr; border-bottom: 1px solid var(--rule); padding: 6px 0; }
  td, td.number { border: 0; padding: 2px 8px 2px 0; text-align: left; }
  td:nth-child(-n+2) { grid-column: 1 / -1; }
  td[data-of]::before { content: attr(data-of) " "; color: var(--ink-soft); font-family: var(--sans); font-size: 13.5px; }
}
</style>
