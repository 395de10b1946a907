<script setup lang="ts">
import { byId } from '#core/quantity/known'
import { computed, ref, watch } from 'vue'
import Dialog from 'primevue/dialog'
import type { LineEvaluation } from '#core/line/evaluate'
import { MATERIAL_IDS, MATERIALS, type MaterialId } from '#core/programme/material'
import { clipRow, clipVerdict, OVERDRIVES_DB } from '#core/programme/words'
import { writeQuantity } from '#core/quantity/write'
import TextEntry from '~/components/form/TextEntry.vue'
import { quantityOf, quantityOrNot } from '~/components/form/readers'
import LimitsPart from '../forms/LimitsPart.vue'
import SearchState from '~/solver/SearchState.vue'
import { useSearch } from '~/solver/useSearch'
import { useJobStore } from '~/stores/job'
import ChoiceRow from '~/components/form/ChoiceRow.vue'

/** What an amplifier gives that is driven into clipping, and what of it reaches the high-frequency unit of a box. */
const open = defineModel<boolean>('open', { required: true })
const { line } = defineProps<{ line: LineEvaluation }>()
const store = useJobStore()
const { answer: found, problem, isSlow, start, stop } = useSearch('clip')

const ratedW = ref(line.amplifierW ?? 100)
const crossoverHz = ref(2500)
const highRatedW = ref<number | null>(null)
const material = ref<MaterialId>('open')
const again = () => {
  if (store.job) start(store.job, { ratedW: ratedW.value, crossoverHz: crossoverHz.value, material: material.value, overdrivesDb: OVERDRIVES_DB })
}
watch([ratedW, crossoverHz, material], again, { immediate: true })
const rows = computed(() => found.value?.map((report, k) => ({
  ...clipRow(OVERDRIVES_DB[k]!, report, highRatedW.value, share.value), bar: report.highW * share.value,
})) ?? [])
/** All units play the same: the one that takes most of the power is held against its rating. */
const share = computed(() => Math.max(0, ...line.drops.map(d => d.share)) || 1)
const isShared = computed(() => share.value < 0.999)
const most = computed(() => Math.max(highRatedW.value ?? 0, ...rows.value.map(r => r.bar)) || 1)
const of = computed(() => byId(MATERIALS, material.value))
const ofName = computed(() => of.value.name.charAt(0).toUpperCase() + of.value.name.slice(1))
const NAMES = Object.fromEntries(MATERIALS.map(m => [m.id, m.name])) as Record<MaterialId, string>
</script>

<template>
  <Dialog v-model:visible="open" modal :header="`${line.output.label} driven into clipping`" :dismissable-mask="true" :style="{ width: 'min(760px, 96vw)' }">
    <form class="asked" data-form @submit.prevent>
      <div class="fields">
        <TextEntry label="The amplifier gives" :text="writeQuantity(ratedW, 'W')" :read="quantityOf('power')" @commit="ratedW = $event" />
        <TextEntry label="Crossover" :text="writeQuantity(crossoverHz, 'Hz')" :read="quantityOf('frequency')" @commit="crossoverHz = $event" />
        <TextEntry
          :label="isShared ? 'The high unit of one stands' : 'The high unit stands'"
          :text="highRatedW === null ? '' : writeQuantity(highRatedW, 'W')" :read="quantityOrNot('power')" hint="not stated"
          @commit="highRatedW = $event" />
      </div>
      <ChoiceRow v-model="material" label="what is played" :choices="MATERIAL_IDS.map(id => ({ value: id, says: NAMES[id] }))" />
      <p class="soft small"><b>{{ ofName }}</b>, {{ of.says }}: {{ of.crestDb.toFixed(0) }} dB from average to peak. A synthetic signal is clipped; the
        crossover is taken as a sharp one.</p>
    </form>
    <SearchState :problem="problem" :is-slow="isSlow" doing="Clipping it…" @again="again" @stop="stop" />
    <template v-if="rows.length > 0">
      <p class="verdict" role="status">{{ clipVerdict(rows, highRatedW) }}</p>
      <div class="wide" tabindex="0" role="group" aria-label="can be scrolled sideways">
        <table>
          <thead>
            <tr>
              <th>overdriven</th><th class="number">in all</th><th class="number">above the crossover</th>
              <th v-if="isShared" class="number">at the one that gets most</th><td /><th class="number">not in the signal</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in rows" :key="row.overdriveDb">
              <td>{{ row.says }}</td><td class="number figure">{{ row.totalW }}</td>
              <td class="number figure" :class="{ over: !isShared && (row.ofRated ?? 0) > 1 }">{{ row.highW }}</td>
              <td v-if="isShared" class="number figure" :class="{ over: (row.ofRated ?? 0) > 1 }">{{ row.eachW }}</td>
              <td class="bars" aria-hidden="true">
                <span class="track"><span class="bar" :style="{ width: `${100 * row.bar / most}%` }" /><span
                  v-if="highRatedW !== null" class="limit" :style="{ left: `${100 * highRatedW / most}%` }" /></span>
                <span class="times soft small">{{ row.times }}</span>
              </td>
              <td class="number figure">{{ row.strange }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="soft small">A small amplifier does not break anything by itself; pushed into clipping it sends more to the high-frequency unit than a clean
        signal does. Averages: a coil that is hot already stands less. Loud test signals: mind your hearing.</p>
    </template>
    <LimitsPart :line="line" />
  </Dialog>
</template>

<style scoped>
.asked { display: grid; gap: 10px; padding-bottom: 12px; }
.fields { display: grid; grid-template-columns: repeat(3, minmax(0, 1fr)); gap: 10px; align-items: start; }
.verdict { padding-bottom: 8px; font-size: 17px; }
.wide { overflow-x: auto; padding-bottom: 8px; }
table { border-collapse: collapse; width: 100%; }
th { text-align: left; font-weight: 400; font-size: 13.5px; color: var(--ink-soft); }
th, td { padding: 5px 12px 5px 0; border-bottom: 1px solid var(--rule); white-space: nowrap; }
.number { text-align: right; }
.over { color: var(--stop); font-weight: 700; }
.bars { width: 34%; min-width: 150px; position: relative; }
.track { display: inline-block; position: relative; width: calc(100% - 84px); height: 14px; vertical-align: middle; }
.bar { display: block; height: 14px; background: var(--copper); }
.limit { position: absolute; top: -4px; bottom: -4px; border-left: 2px solid var(--stop); }
.times { padding-left: 8px; }
@media (max-width: 760px) {
  .fields { grid-template-columns: minmax(0, 1fr); }
  .bars, thead td { display: none; }
  th, td { white-space: normal; }
}
</style>
