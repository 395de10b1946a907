<script setup lang="ts">
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import { cableSearchInSteps, layCable, type CablePlan, type CableSearch } from '#core/search/cableSearch'
import type { LineEvaluation } from '#core/line/evaluate'
import { cableCost } from '#core/advice/cableList'
import { LOSS_LIMIT_DB } from '#core/schools/lossLimits'
import type { Output } from '#core/job/schema'
import { CLASS5_OHM_PER_KM, USUAL_AWG, writeCable, type Cable } from '#core/quantity/cable'
import { writeLength } from '#core/quantity/units'
import { writeDb, writeNumber } from '#core/quantity/write'
import TextEntry from '~/components/form/TextEntry.vue'
import { within } from '~/components/form/readers'
import { useCablePrices } from '~/composables/useCablePrices'
import { useJobStore } from '~/stores/job'
import { useUnits } from '~/composables/useUnits'

const { units } = useUnits()

/** The thinnest cable that keeps the far end of a line within a limit; laid by one press. */
const { output, line } = defineProps<{ output: Output, line: LineEvaluation }>()
const store = useJobStore()
const limitDb = ref(Math.round(100 * LOSS_LIMIT_DB[line.kind]) / 100)
const isAsked = ref(false)
const isSearching = ref(false)
const found = shallowRef<CableSearch | null>(null)
let timer: ReturnType<typeof setTimeout> | undefined

/** The sizes of the run, and where none is stated those of the person's own units. */
const isMetric = computed(() => {
  const stated = output.wiring.children.flatMap(b => b.lead?.cable ?? [])
  return stated.length === 0 ? units.value === 'metric' : stated.some(cable => 'areaMm2' in cable)
})
const sizes = computed((): Cable[] => isMetric.value ? [...CLASS5_OHM_PER_KM.keys()].map(areaMm2 => ({ areaMm2 })) : USUAL_AWG.map(awg => ({ awg })))

/** In slices of a frame: a long run is searched for seconds, and the page stays in the hand. */
function search(): void {
  clearTimeout(timer)
  isAsked.value = isSearching.value = true
  found.value = null
  const steps = cableSearchInSteps(output, limitDb.value, sizes.value)
  const slice = () => {
    const until = performance.now() + 12
    for (;;) {
      const step = steps.next()
      if (step.done) {
        found.value = step.value
        isSearching.value = false
        return
      }
      if (performance.now() > until) break
    }
    timer = setTimeout(slice)
  }
  slice()
}
watch(() => output, () => { if (isAsked.value) search() })
onBeforeUnmount(() => clearTimeout(timer))

/** "14 AWG 38 m, then 16 AWG 24 m" */
function says({ leads }: CablePlan): string {
  const parts: { cable: string, metres: number }[] = []
  for (const { cable, lengthM } of leads) {
    const last = parts.at(-1)
    if (last?.cable === writeCable(cable)) last.metres += lengthM
    else parts.push({ cable: writeCable(cable), metres: lengthM })
  }
  return parts.map(p => `${writeLength(p.metres, units.value)} of ${p.cable}`).join(', then ')
}
const plans = computed(() => {
  const { single, falling } = found.value ?? { single: null, falling: null }
  const saved = single && falling ? 1 - falling.copperMm2M / single.copperMm2M : 0
  return [
    ...single ? [{ key: 'single', head: 'One size', plan: single, more: '' }] : [],
    ...falling && (!single || saved > 1e-6) ? [{ key: 'falling', head: 'Thick at the head, thinner along', plan: falling, more: single ? `${writeNumber(100 * saved, 2)} % less copper` : '' }] : [],
  ]
})
const { priceOf } = useCablePrices()
function cost({ leads }: CablePlan): string {
  const sum = cableCost(leads, priceOf)
  return sum === null ? '' : ` ${sum.toFixed(2)} by the library.`
}
function lay(plan: CablePlan): void {
  if (store.edit(layCable(output, plan))) store.say(`${output.label}: ${says(plan)}`)
}
</script>

<template>
  <fieldset class="finder">
    <legend class="soft small">The thinnest cable for this line</legend>
    <div class="ask">
      <TextEntry
        label="At most so much lost, dB" :text="writeNumber(limitDb, 4)" :read="within(0.01, 12, 'A loss', ' dB')" @commit="v => { limitDb = v; search() }" />
      <button class="act" type="button" @click="search">find it</button>
    </div>
    <p v-if="isSearching" class="soft small" role="status">Trying every size along the run…</p>
    <template v-else-if="isAsked">
      <p v-if="!found" class="soft small">No length of this run is stated.</p>
      <p v-else-if="plans.length === 0" class="small">No usual size keeps the far end within {{ writeDb(-limitDb) }}:
        shorten the run, split the line, or allow more.</p>
      <button v-for="{ key, head, plan, more } in plans" :key="key" class="offer" type="button" @click="lay(plan)">
        <b>{{ head }}:</b> {{ says(plan) }}
        <span class="then">Far end then {{ writeDb(plan.worstDb) }}.{{ more ? ` ${more}.` : '' }}{{ cost(plan) }}</span></button>
      <p v-if="found && plans.length > 0" class="soft small">
        {{ found.proven ? 'Every other choice of these sizes needs more copper.' : 'The best that was found; not every choice was tried.' }}
        Listings for walls and air-handling spaces: the local code decides.</p>
    </template>
  </fieldset>
</template>

<style scoped>
.finder { border: 0; border-top: 1px solid var(--rule); margin: 0; padding: 8px 0 0; display: grid; gap: 6px; }
.ask { display: grid; grid-template-columns: minmax(0, 180px) auto; gap: 12px; align-items: end; justify-content: start; }
.ask .act { color: var(--ink); text-decoration: underline; text-underline-offset: 3px; height: 34px; }
</style>
