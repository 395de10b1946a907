<script setup lang="ts">
import { computed, ref, toRaw, watch } from 'vue'
import Button from 'primevue/button'
import { SOURCE_KINDS } from '#core/gear/inputs'
import { sourceCounts } from '#core/hands/inputs'
import { SOURCE_WORDS } from '#core/line/inputWords'
import type { AmplifierSet } from '#core/search/plan/amplifierFinder'
import { applySet, type OfferedAmplifier } from '#core/search/plan/amplifiersEdit'
import { appliedWords, finderWords, leadsWords, modelsText, outputText, spareText } from '#core/search/plan/amplifierWords'
import type { Wanted } from '#core/search/plan/wanted'
import { reserveSchool } from '#core/schools/reserve'
import { newId } from '~/api/ids'
import GrowthChoice from '~/components/form/GrowthChoice.vue'
import { useWholeLibrary } from '~/composables/useWholeLibrary'
import SearchDialog from '~/solver/SearchDialog.vue'
import { useSearch } from '~/solver/useSearch'
import { useJobStore } from '~/stores/job'

/** Which amplifiers of the library feed every line of the job: what leads in money, in units, in spare power; why others do not; one press puts a set in. */
const open = defineModel<boolean>('open', { required: true })
const store = useJobStore()
const { models, problem: away, load } = useWholeLibrary('amplifier')
const { answer: found, problem, isSlow, start, stop } = useSearch('amplifiers')
const growth = ref(0)
/** Inputs for what comes in on this job, as far as its kind is known; zones where somebody asks for them. */
const wanted = ref<Wanted>({ inputs: sourceCounts(store.opened), zones: 0 })
const COUNTED = [...SOURCE_KINDS.map(kind => ({ key: kind, says: SOURCE_WORDS[kind] })), { key: 'zones' as const, says: 'zones' }]
const countOf = (key: typeof COUNTED[number]['key']) => key === 'zones' ? wanted.value.zones : wanted.value.inputs[key]
function count(key: typeof COUNTED[number]['key'], by: 1 | -1): void {
  const to = Math.max(0, Math.min(99, countOf(key) + by))
  wanted.value = key === 'zones' ? { ...wanted.value, zones: to } : { ...wanted.value, inputs: { ...wanted.value.inputs, [key]: to } }
}

const offered = computed(() => models.value?.map(({ id, version, body }): OfferedAmplifier => {
  return { model: body, from: { modelId: id, version, passed: null } }
}) ?? null)
const again = () => {
  // What was found is of the lines as they were.
  found.value = null
  if (store.job && offered.value) start(store.job, { models: offered.value.map(o => o.model), growth: growth.value, wanted: toRaw(wanted.value) })
}
watch([offered, growth, wanted, () => store.job?.amplifiers, () => store.job?.practice], again, { immediate: true })

const sets = computed(() => found.value?.sets.map((set) => {
  const applied = store.job && offered.value ? applySet(store.job, set, offered.value, newId) : null
  const units = set.models.reduce((n, m) => n + m.count, 0)
  const countOf = (at: number) => set.models.find(m => m.at === at)!.count
  const rows = set.assignment.map(a => ({ ...a, of: outputText(offered.value![a.at]!.model, countOf(a.at), a.output, a.isBridged) }))
  return { set, applied, units, rows }
}) ?? [])
const says = computed(() => found.value && offered.value ? finderWords(found.value, offered.value.length) : '')
function put(set: AmplifierSet): void {
  if (!store.job || !offered.value) return
  const applied = applySet(store.job, set, offered.value, newId)
  if (!store.edit(applied.edit)) return
  store.say(appliedWords(applied))
  open.value = false
}
</script>

<template>
  <SearchDialog
    v-model:open="open" header="Amplifiers for every line" :width-px="880" :problem="problem" :is-slow="isSlow" doing="Trying amplifiers…"
    :is-answered="sets.length > 0" :away="away" @read="load()" @again="again" @stop="stop">
    <template #question><form class="asked" data-form @submit.prevent>
      <p class="soft">Each line on an output of the library that gives what the chosen schools ask for it
        (“{{ reserveSchool(store.opened.practice.reserve).name }}” on transformer lines). Lines keep their names and all that was read on them.</p>
      <div class="line"><GrowthChoice v-model="growth" /></div>
      <div class="line" role="group" aria-label="Inputs and zones">
        <span class="soft small">inputs for a</span>
        <span v-for="{ key, says: named } in COUNTED" :key="key" class="counted">
          <button type="button" class="tap" :aria-label="`fewer ${named}`" :disabled="countOf(key) === 0" @click="count(key, -1)">−</button>
          <b class="figure" role="status" :aria-label="`${countOf(key)} ${named}`">{{ countOf(key) }}</b>
          <button type="button" class="tap" :aria-label="`more ${named}`" @click="count(key, 1)">+</button> {{ named }}</span>
      </div>
    </form></template>
    <template v-if="found">
      <p class="verdict" role="status">{{ says }}</p>
      <section v-for="({ set, applied, units, rows }, k) in sets" :key="modelsText(set.models)" class="set" :aria-label="leadsWords(set)">
        <div class="head">
          <p class="leads">{{ leadsWords(set) }}</p>
          <p class="models">{{ modelsText(set.models) }}</p>
          <p class="figures">
            <span class="figure">{{ set.price.toFixed(2) }}</span><span class="soft"> in all, </span>
            <span class="figure">{{ units }}</span><span class="soft">{{ units === 1 ? ' unit, ' : ' units, ' }}</span>
            <span class="figure">{{ spareText(set) }}</span><span class="soft"> to spare</span>
          </p>
          <Button
            class="put" :autofocus="k === 0"
            :label="applied?.edit ? 'Put these in' : 'They are in already'" :disabled="!applied?.edit" size="small"
            @click="put(set)" />
        </div>
        <ul class="rows" aria-label="Which line hangs where">
          <li v-for="row in rows" :key="row.outputId"><b>{{ row.line }}</b> <span class="soft">on</span> {{ row.of }}</li>
        </ul>
      </section>
      <p v-for="l in found.left" :key="l.line" class="left small"><b>{{ l.line }}</b>: {{ l.why }}.<template v-if="l.isUnfed">
        A larger one, or the line split onto several outputs.</template></p>
      <details v-if="found.refused.length > 0" class="refused" :open="sets.length === 0">
        <summary>{{ found.refused.length === 1 ? '1 model feeds' : `${found.refused.length} models feed` }} none of them</summary>
        <ul><li v-for="(r, k) in found.refused" :key="k"><b>{{ r.model }}</b>: <span class="soft">{{ r.why }}</span></li></ul>
      </details>
    </template>
  </SearchDialog>
</template>

<style scoped>
.asked { display: grid; gap: 8px; padding-bottom: 12px; }
.line { display: flex; flex-wrap: wrap; gap: 6px 14px; align-items: center; }
.counted { display: inline-flex; gap: 5px; align-items: center; font-size: 15px; margin-right: 8px; }
.counted .tap { min-width: 30px; }
.verdict { padding-bottom: 10px; font-size: 17px; }
.set { border-top: 1.5px solid var(--ink); padding: 10px 0 14px; display: grid; gap: 8px; }
.head { display: grid; grid-template-columns: minmax(0, 1fr) auto; gap: 2px 16px; align-items: baseline; }
.leads { grid-column: 1 / -1; color: var(--ink-soft); font-size: 14px; }
.models { font-weight: 700; font-size: 17px; }
.figures { grid-column: 1; }
.put { grid-column: 2; grid-row: 2 / 4; align-self: center; }
.rows { list-style: none; margin: 0; padding: 0; columns: 2; column-gap: 28px; font-size: 15px; }
.rows li { padding: 1px 0; break-inside: avoid; }
.left { padding: 2px 0; }
.refused { border-top: 1px solid var(--rule); padding-top: 10px; margin-top: 6px; }
.refused summary { cursor: pointer; }
.refused ul { padding: 6px 0 0 18px; margin: 0; columns: 2; column-gap: 28px; font-size: 14.5px; }
.refused li { break-inside: avoid; padding: 1px 0; }
@media (max-width: 760px) {
  .rows, .refused ul { columns: 1; }
  .head { grid-template-columns: minmax(0, 1fr); }
  .put { grid-column: 1; grid-row: auto; justify-self: start; min-height: 44px; margin-top: 6px; }
  .refused summary { min-height: 44px; display: flex; align-items: center; }
}
</style>
