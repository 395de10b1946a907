<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import Button from 'primevue/button'
import { speakerAt } from '#core/hands/spaces'
import { LEFT_WORDS, limitWords, planWords, tapsText } from '#core/search/plan/planWords'
import { reserveSchool } from '#core/schools/reserve'
import GrowthChoice from '~/components/form/GrowthChoice.vue'
import SearchDialog from '~/solver/SearchDialog.vue'
import { useSearch } from '~/solver/useSearch'
import { useJobStore } from '~/stores/job'
import CheckLine from '~/components/form/CheckLine.vue'

/** The taps of all spaces at once: what would be set, what it reaches and draws, and what stops it where it cannot be done. */
const open = defineModel<boolean>('open', { required: true })
const store = useJobStore()
const { answer: plan, problem, isSlow, start, stop } = useSearch('taps')
const growth = ref(0)
const mayDiffer = ref(false)

const again = () => { if (store.job) start(store.job, { growth: growth.value, mayDiffer: mayDiffer.value }) }
onMounted(again)
watch([growth, mayDiffer, () => store.job?.amplifiers, () => store.job?.spaces, () => store.job?.practice], again)

const rows = computed(() => plan.value?.spaces.map((s) => {
  const spots = store.job?.spaces.find(x => x.id === s.spaceId)?.spots ?? []
  const ids = new Set(spots.flatMap(p => (store.job && speakerAt(store.job, p)?.speaker.id) ?? []))
  const taps = plan.value!.taps.filter(t => ids.has(t.nodeId))
  const [now, then] = [tapsText(taps.map(t => t.wasW)), tapsText(taps.map(t => t.tapW))]
  return { ...s, now, then: now === then ? 'as they are' : then, isShort: s.reachedDb < s.targetDb - 0.1 }
}) ?? [])
const lp = computed(() => plan.value ? `data:text/plain;charset=utf-8,${encodeURIComponent(plan.value.lp)}` : '')
function set(): void {
  if (!plan.value?.edit || !store.edit(plan.value.edit)) return
  store.say(`taps of ${plan.value.spaces.length} ${plan.value.spaces.length === 1 ? 'space' : 'spaces'} set`)
  open.value = false
}
</script>

<template>
  <SearchDialog
    v-model:open="open" header="Taps for every space" :width-px="820" :problem="problem" :is-slow="isSlow" doing="Trying taps…"
    :is-answered="plan !== null" @again="again" @stop="stop">
    <template #question><form class="asked" data-form @submit.prevent>
      <p class="soft">The lowest taps that bring every space to its target, within what each line may carry ({{
        reserveSchool(store.opened.practice.reserve).name }}) and each control is rated for.</p>
      <div class="line">
        <GrowthChoice v-model="growth" />
        <CheckLine v-model="mayDiffer">unlike speakers of a space may have different taps</CheckLine>
      </div>
    </form></template>
    <template v-if="plan">
      <p class="verdict" role="status">{{ planWords(plan) }}</p>
      <ul v-if="plan.limits.length > 0" class="limits" aria-label="What stops it">
        <li v-for="limit in plan.limits" :key="`${limit.kind} ${limit.label}`">{{ limitWords(limit) }}</li>
      </ul>
      <div v-if="rows.length > 0" class="wide" tabindex="0" role="group" aria-label="can be scrolled sideways">
        <table>
          <thead><tr><th>space</th><th class="number">wanted</th><th class="number">reached</th><th>taps now</th><th>then</th></tr></thead>
          <tbody>
            <tr v-for="row in rows" :key="row.spaceId">
              <td class="of">{{ row.name }}</td><td class="number figure" data-says="wanted ">{{ row.targetDb.toFixed(1) }} dB</td>
              <td
                class="number figure" data-says="reached "
                :class="{ short: row.isShort }">{{ row.reachedDb.toFixed(1) }} dB{{ row.isShort ? ', short' : '' }}</td>
              <td class="figure small" data-says="now ">{{ row.now }}</td><td class="figure small" data-says="then "><b>{{ row.then }}</b></td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-for="l in plan.left" :key="l.name" class="soft small">{{ l.name }} keeps its taps: {{ LEFT_WORDS[l.why] }}.</p>
      <div class="acts">
        <Button
          autofocus :disabled="!plan.edit"
          :label="plan.edit ? (plan.feasible ? 'Set these taps' : 'Set the nearest') : plan.spaces.length === 0 ? 'Nothing to set' : 'Set already'"
          @click="set" />
        <a class="act" :href="lp" download="taps.lp">the program as a file, to be solved elsewhere</a>
      </div>
    </template>
  </SearchDialog>
</template>

<style scoped>
.asked { display: grid; gap: 8px; padding-bottom: 12px; }
.line { display: flex; flex-wrap: wrap; gap: 6px 14px; align-items: center; }
.verdict { padding-bottom: 8px; font-size: 17px; }
.limits { padding: 0 0 10px 18px; }
.wide { overflow-x: auto; padding-bottom: 8px; }
table { border-collapse: collapse; width: 100%; }
th { text-align: left; font-weight: 400; font-size: 13.5px; color: var(--ink-soft); }
th, td { padding: 4px 12px 4px 0; border-bottom: 1px solid var(--rule); }
.number { text-align: right; white-space: nowrap; }
.short { color: var(--tight); font-weight: 700; }
@media (max-width: 760px) {
  thead { display: none; }
  tr { display: grid; grid-template-columns: 1fr 1fr; border-bottom: 1px solid var(--rule); padding: 4px 0; }
  td { border: 0; padding: 2px 8px 2px 0; }
  .of { grid-column: 1 / -1; font-weight: 700; }
  .number { text-align: left; }
  td[data-says]::before { content: attr(data-says); font-family: var(--sans); color: var(--ink-soft); font-size: 14px; font-weight: 400; }
}
.acts { display: flex; flex-wrap: wrap; gap: 8px 20px; align-items: center; padding-top: 10px; }
</style>
