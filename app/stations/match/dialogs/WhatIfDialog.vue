<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import Button from 'primevue/button'
import type { Variant } from '#core/job/schema'
import { same } from '#core/quantity/same'
import { MOST_VARIANTS, variantFields } from '#core/job/sections/variants/schema'
import { keepVariant, takeVariant } from '#core/hands/variants'
import { compareRows, differsWords } from '#core/advice/compareWords'
import { newId } from '~/api/ids'
import { cablePrices, modelPrices } from '~/gear/prices'
import TextEntry from '~/components/form/TextEntry.vue'
import { textOf } from '~/components/form/readers'
import { useLibraryRows } from '~/composables/useLibraryRows'
import SearchDialog from '~/solver/SearchDialog.vue'
import { useSearch } from '~/solver/useSearch'
import { nextInstant } from '~/stores/instant'
import { useJobStore } from '~/stores/job'

/** The job beside two or three other ways to wire it: what differs in a table, any of them gone over to in one press. */
const open = defineModel<boolean>('open', { required: true })
const store = useJobStore()
const [amplifiers, controls, transformers, cables] = [useLibraryRows('amplifier'), useLibraryRows('control'), useLibraryRows('transformer'), useLibraryRows('cable')]
const prices = computed(() => ({
  models: { ...modelPrices('amplifier', amplifiers.value), ...modelPrices('control', controls.value), ...modelPrices('transformer', transformers.value) },
  cable: Object.fromEntries([...cablePrices(cables.value)].map(([size, { price }]) => [size, price])),
}))
const { answer: compared, problem, isSlow, start, stop } = useSearch('compare')
const again = () => { if (store.job) start(store.job, prices.value) }
watch([prices, () => store.job?.amplifiers, () => store.job?.variants, () => store.job?.spaces, () => store.job?.practice], again, { immediate: true })

const variants = computed(() => store.job?.variants ?? [])
const rows = computed(() => compared.value ? compareRows(compared.value) : [])
const heads = computed(() => compared.value ?? [])
const keptAs = computed(() => variants.value.find(v => same(v.amplifiers, store.opened.amplifiers)) ?? null)
const nextName = computed(() => {
  const names = new Set(variants.value.map(v => v.name))
  return ['Variant 1', 'Variant 2', 'Variant 3', 'Variant 4'].find(n => !names.has(n))!
})
const name = ref<string | null>(null)

function keep(): void {
  const called = name.value ?? nextName.value
  if (store.job && store.edit(keepVariant(store.job, called, new Date(nextInstant()).toISOString(), newId))) store.say(`This wiring is kept as “${called}”: change what you like, and compare`)
  name.value = null
}
function goOver(id: string, called: string): void {
  if (store.job && store.edit(takeVariant(store.job, id))) store.say(`Wired as “${called}”; undo brings the other back`)
}
function rename(variant: Variant, to: string): void {
  store.edit({ kind: 'variant.set', variantId: variant.id, was: { name: variant.name }, to: { name: to } })
}
const variantOf = (id: string | null) => variants.value.find(v => v.id === id) ?? null
const letGo = (id: string) => store.edit({ kind: 'variant.remove', variantId: id, was: variantOf(id) })
</script>

<template>
  <SearchDialog
    v-model:open="open" header="What if" :width-px="980" :problem="problem" :is-slow="isSlow" doing="Working them out…"
    :is-answered="false" @again="again" @stop="stop">
    <template #question><form class="keep" data-form @submit.prevent>
      <p class="soft">Keep the wiring as it is now, with its taps, amplifiers and cable, then change what you like: here both stand side by side.</p>
      <p v-if="keptAs" class="small">This wiring is kept as <b>{{ keptAs.name }}</b>.</p>
      <p v-else-if="variants.length >= MOST_VARIANTS" class="small">{{ MOST_VARIANTS }} are kept: let one go to keep another.</p>
      <div v-else class="line">
        <TextEntry class="called" label="Kept as" :text="name ?? nextName" :read="textOf(variantFields.name, 'name')" @commit="name = $event" />
        <Button label="Keep this wiring" :disabled="store.opened.amplifiers.length === 0" @click="keep" />
      </div>
    </form></template>
    <div v-if="variants.length > 0 && rows.length > 0" class="wide" tabindex="0" role="group" aria-label="can be scrolled sideways">
      <table>
        <thead>
          <tr>
            <td />
            <th v-for="h in heads" :key="h.id ?? ''" scope="col" :class="{ now: h.id === null }">{{ h.name }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.says">
            <th scope="row">{{ row.says }}<span v-if="row.note" class="soft small note">{{ row.note }}</span></th>
            <td
              v-for="(cell, k) in row.cells" :key="k" class="figure" :data-of="heads[k]?.name"
              :class="{ better: row.better.includes(k) }"><span>{{ cell }}<span
              v-if="row.better.includes(k)" class="mark" aria-label="the better"> ◂</span></span></td>
          </tr>
          <tr>
            <th scope="row">what differs</th>
            <td v-for="h in heads" :key="h.id ?? ''" :data-of="h.name" class="small">{{ h.differs ? differsWords(h.differs) : '' }}</td>
          </tr>
          <tr class="last">
            <td class="corner" />
            <td v-for="h in heads" :key="h.id ?? ''" :data-of="h.name">
              <template v-if="h.id !== null && variantOf(h.id)">
                <button class="act" type="button" :disabled="keptAs?.id === h.id" @click="goOver(h.id, h.name)">go over to it</button>
                <button class="act" type="button" @click="letGo(h.id)">let go</button>
                <TextEntry
                  label="Its name" :text="h.name" :read="textOf(variantFields.name, 'name')" @commit="rename(variantOf(h.id)!, $event)" />
              </template>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </SearchDialog>
</template>

<style scoped>
.keep { display: grid; gap: 8px; padding-bottom: 14px; }
.line { display: flex; flex-wrap: wrap; gap: 8px 14px; align-items: end; }
.called { width: 220px; }
.wide { overflow-x: auto; }
table { border-collapse: collapse; width: 100%; table-layout: fixed; }
thead th { font-size: 16px; text-align: left; padding: 4px 14px 6px 0; border-bottom: 1.5px solid var(--ink); vertical-align: bottom; overflow-wrap: anywhere; }
thead td { width: 190px; border-bottom: 1.5px solid var(--ink); }
tbody th { text-align: left; font-weight: 400; padding: 6px 14px 6px 0; vertical-align: top; }
.note { display: block; font-weight: 400; }
tbody td { padding: 6px 14px 6px 0; vertical-align: top; font-size: 15px; overflow-wrap: anywhere; }
tbody tr { border-bottom: 1px solid var(--rule); }
.better { font-weight: 700; }
.mark { color: var(--good); }
.last { border: 0; }
.last .act { margin-right: 14px; }
@media (max-width: 760px) {
  thead { display: none; }
  table, tbody, tr, th, td { display: block; }
  tbody tr { padding: 6px 0; }
  tbody th { padding: 2px 0; font-weight: 700; }
  tbody td { display: grid; grid-template-columns: minmax(0, 110px) minmax(0, 1fr); gap: 8px; padding: 2px 0; align-items: baseline; }
  tbody td::before { content: attr(data-of); font-family: var(--sans); font-size: 14px; font-weight: 400; color: var(--ink-soft); }
  td.corner { display: none; }
  .last td { display: flex; flex-wrap: wrap; }
  .last td:empty, .last td:nth-child(2) { display: none; }
  .last .act { min-height: 44px; }
}
</style>
