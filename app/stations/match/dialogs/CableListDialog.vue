<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import Dialog from 'primevue/dialog'
import { sizeUnstated } from '#core/hands/intents'
import { cableCost, cableList, cableListTable, USUAL_SLACK } from '#core/advice/cableList'
import { writeCable } from '#core/quantity/cable'
import { writeLength } from '#core/quantity/units'
import { writeNumber } from '#core/quantity/write'
import TextEntry from '~/components/form/TextEntry.vue'
import { within } from '~/components/form/readers'
import { useCablePrices } from '~/composables/useCablePrices'
import { useCopied } from '~/composables/useCopied'
import { useJobStore } from '~/stores/job'
import { useUnits } from '~/composables/useUnits'
import { sizesAtHand } from '../forms/usualCable'

const { units } = useUnits()

/** What cable the whole job takes, by size, with something on top. */
const open = defineModel<boolean>('open', { required: true })
const store = useJobStore()
const KEY = 'plain-match.cable-slack'
const percent = ref(100 * USUAL_SLACK)
onMounted(() => {
  const kept = Number(localStorage.getItem(KEY) ?? NaN)
  if (kept >= 0 && kept <= 100) percent.value = kept
})
function setPercent(value: number): void {
  percent.value = value
  localStorage.setItem(KEY, String(value))
}
const { modelOf, priceOf } = useCablePrices()
const list = computed(() => cableList(store.opened, percent.value / 100))
const total = computed(() => cableCost(list.value.sizes.map(s => ({ cable: s.cable, lengthM: s.withSlackM })), priceOf))
const rows = computed(() => list.value.sizes.map((size) => {
  const model = size.cable && modelOf(size.cable)
  return { ...size, key: writeCable(size.cable), cost: model ? (model.price * size.withSlackM).toFixed(2) : 'not known', model: model?.name ?? 'no price in the library' }
}))
const sizes = computed(() => sizesAtHand(store.opened, units.value))
const copied = useCopied()
const copy = () => copied(cableListTable(list.value, priceOf, units.value), 'list')
</script>

<template>
  <Dialog v-model:visible="open" modal header="Cable of the whole job" :dismissable-mask="true" :style="{ width: 'min(680px, 96vw)' }">
    <p v-if="rows.length === 0" class="soft">No length of cable is stated yet.</p>
    <div v-else class="wide" tabindex="0" role="group" aria-label="can be scrolled sideways">
      <table>
        <thead>
          <tr>
            <th>size</th><th v-for="head in ['pieces', 'measured', 'to buy', 'price']" :key="head" class="number">{{ head }}</th><th>by the library</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.key">
            <td>{{ row.key }}</td><td class="number figure">{{ row.pieces }}</td><td class="number figure">{{ writeLength(row.lengthM, units) }}</td>
            <td class="number figure">{{ writeLength(row.withSlackM, units) }}</td><td class="number figure">{{ row.cost }}</td><td
              class="soft small">{{ row.model }}</td>
          </tr>
        </tbody>
        <tfoot v-if="rows.length > 1 || total !== null"><tr><td colspan="4">all</td><td class="number figure">
          <b>{{ total === null ? 'not known' : total.toFixed(2) }}</b></td><td /></tr></tfoot>
      </table>
    </div>
    <div v-if="list.sizes.some(s => s.cable === null)" class="taps" role="group" aria-label="Size of all lengths of which none is stated">
      <span class="small">All of no stated size are of</span>
      <button v-for="size in sizes" :key="writeCable(size)" type="button" class="tap figure" @click="store.edit(sizeUnstated(store.opened, size))">{{
        writeCable(size) }}</button>
    </div>
    <p v-if="list.missing > 0" class="small">{{ list.missing }} {{ list.missing === 1 ? 'length is' : 'lengths are' }} not stated and in no sum.</p>
    <div class="ask">
      <TextEntry
        label="On top, %" :text="writeNumber(percent, 3)" :read="within(0, 100, 'What is bought on top', ' %')" hint="corners, ends, drops"
        @commit="setPercent" />
      <button v-if="rows.length > 0" class="act" type="button" @click="copy">copy as a table</button>
    </div>
  </Dialog>
</template>

<style scoped>
.wide { overflow-x: auto; }
table { border-collapse: collapse; width: 100%; }
th { text-align: left; font-weight: 400; color: var(--ink-soft); font-size: 14px; }
th, td { padding: 5px 14px 5px 0; border-bottom: 1px solid var(--rule); white-space: nowrap; }
.number { text-align: right; }
.ask { display: grid; grid-template-columns: minmax(0, 160px) auto; gap: 14px; align-items: end; justify-content: start; padding-top: 12px; }
.ask .act { color: var(--ink); text-decoration: underline; text-underline-offset: 3px; height: 34px; }
</style>
