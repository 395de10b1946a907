<script setup lang="ts">
import { isSolidState } from '#core/amplifier/index'
import { computed, ref, watch } from 'vue'
import type { LineEvaluation } from '#core/line/evaluate'
import { NOT_WIRED_WORDS, type Wiring } from '#core/search/wirings/finder'
import { sharesOf } from '#core/search/wirings/network'
import { hasCoils, NOT_ASKED_WORDS, rewire, unitsOf, weighted } from '#core/search/wirings/rewire'
import { overRated, powerText, refusedWords, wiringsWords } from '#core/search/wirings/words'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import { newId } from '~/api/ids'
import TextEntry from '~/components/form/TextEntry.vue'
import { within } from '~/components/form/readers'
import { BOX, drawNetwork } from '~/drawing/network'
import SearchDialog from '~/solver/SearchDialog.vue'
import { useSearch } from '~/solver/useSearch'
import { powerSchool } from '#core/schools/power'
import { useJobStore } from '~/stores/job'
import ChoiceRow from '~/components/form/ChoiceRow.vue'
import CheckLine from '~/components/form/CheckLine.vue'

/** Every way to wire the speakers of a line: drawn small, with its load and what each gets; one press wires the line so. */
const open = defineModel<boolean>('open', { required: true })
const { line } = defineProps<{ line: LineEvaluation }>()
const store = useJobStore()
const { answer: found, problem, isSlow, start, stop } = useSearch('wirings')

const coilsAlone = ref(false)
const plain = computed(() => unitsOf(line, coilsAlone.value))
/** What each is to get: whatever comes, all the same, as they are rated, or as it is said here. */
type Shares = 'any' | 'same' | 'ratings' | 'said'
const shares = ref<Shares>(typeof plain.value !== 'string' && plain.value.length === 1 ? 'same' : 'any')
const said = ref<number[]>([])
const units = computed(() => typeof plain.value === 'string'
  ? plain.value
  : weighted(plain.value, shares.value === 'ratings' ? 'ratings' : shares.value === 'said' ? said.value : 'same') ?? plain.value)
const plainWeights = (k: number, value: number) => typeof plain.value === 'string' ? [] : plain.value.map((_, i) => i === k ? value : said.value[i] ?? 1)
const isRated = computed(() => typeof plain.value !== 'string' && plain.value.every(u => u.ratingW !== null))
const SHARES = computed((): [Shares, string][] => {
  const isMixed = typeof plain.value !== 'string' && plain.value.length > 1
  return [['any', 'whatever comes'], ['same', 'all the same'], ...(isMixed && isRated.value ? [['ratings', 'as they are rated'] as [Shares, string]] : []), ...(isMixed ? [['said', 'as I say'] as [Shares, string]] : [])]
})
watch(SHARES, (now) => { if (!now.some(([id]) => id === shares.value)) shares.value = 'same' })
const school = computed(() => powerSchool(store.opened.practice.power))
const channels = ref<1 | 2 | 4>(1)
const CHANNELS = [1, 2, 4] as const
/** Two channels driven as one, where the output is not that already. */
const isBridged = ref(false)
const canBridge = computed(() => isSolidState(line.output.rating) && line.output.rating.mode === 'single')
const isFair = computed(() => shares.value !== 'any')
const again = () => {
  found.value = null
  if (!store.job || typeof units.value === 'string') return
  start(store.job, {
    units: units.value.map(({ ohm, count, weight, ratingW }) => ({ ohm, count, weight, ratingW })),
    rating: line.output.rating, isFair: isFair.value, channels: channels.value, isBridged: isBridged.value && canBridge.value,
  })
}
watch([units, isFair, channels, isBridged], again, { immediate: true })

/** Why a press did nothing. */
const refusal = ref('')
watch([channels, isBridged], () => { refusal.value = '' })

/** So many are drawn at once; more on demand. */
const STEP = 24
const shown = ref(STEP)
watch(found, () => { shown.value = STEP })
const result = computed(() => found.value === null || typeof found.value === 'string' ? null : found.value)
const cards = computed(() => {
  const asked = units.value
  if (!result.value || typeof asked === 'string') return []
  return result.value.wirings.slice(0, shown.value).map((wiring) => {
    const leaves = sharesOf(wiring.network, asked)
    const over = overRated(wiring, leaves.map(l => asked[l.unit]!.ratingW), school.value)
    return { wiring, drawing: drawNetwork(wiring.network), power: powerText(wiring), over, ohms: asked.map(u => writeNumber(u.ohm, 3)) }
  })
})
function put(wiring: Wiring): void {
  const asked = units.value
  if (!store.job || typeof asked === 'string') return
  const wired = rewire(store.job, line.outputId, asked, wiring.network, { channels: channels.value, isBridged: isBridged.value && canBridge.value }, newId)
  if (typeof wired === 'string') return void (refusal.value = wired)
  const { edit, outputIds } = wired
  if (!store.edit(edit)) return
  store.say(`${line.output.label}${outputIds.length > 1 ? ` and ${outputIds.length - 1} more` : ''} wired: ${writeQuantity(wiring.loadOhm, 'Ω')}, ${powerText(wiring)}`)
  open.value = false
}
/** Its name holds all that is seen on it. */
function spoken(wiring: Wiring, power: string, over: number): string {
  const more = over === 0 ? '' : `; ${over} ${over === 1 ? 'gets' : 'get'} more than “${school.value.name}” lets`
  return `${wiring.text}: ${writeQuantity(wiring.loadOhm, 'Ω')}, ${power}, ${wiring.connections} joints${more}. Wire it so`
}
</script>

<template>
  <SearchDialog
    v-model:open="open" :header="`Ways to wire ${line.output.label}`" :width-px="920" :problem="problem" :is-slow="isSlow" doing="Going through them…"
    :is-answered="false" @again="again" @stop="stop">
    <template #question>
      <p v-if="typeof units === 'string'" class="verdict" role="status">{{ NOT_ASKED_WORDS[units] }}</p>
      <form v-else class="asked" data-form @submit.prevent>
        <span class="line"><span class="soft small">Power for each</span>
          <ChoiceRow v-model="shares" label="power for each" :choices="SHARES.map(([id, says]) => ({ value: id, says }))" /></span>
        <span v-if="shares === 'said' && typeof plain !== 'string'" class="parts">
          <TextEntry
            v-for="(unit, k) in plain" :key="k" :label="`${unit.count} x ${writeNumber(unit.ohm, 3)} Ω: parts each`" :text="writeNumber(said[k] ?? 1)"
            :read="within(0.01, 1000, 'A part')" @commit="value => said = plainWeights(k, value)" />
        </span>
        <span class="line"><span class="soft small">Over so many outputs of the amplifier</span>
          <ChoiceRow v-model="channels" label="over so many outputs" :choices="CHANNELS.map(c => ({ value: c, says: String(c), isFigure: true }))" /></span>
        <CheckLine v-if="canBridge" v-model="isBridged">two channels bridged for each</CheckLine>
        <CheckLine v-if="hasCoils(line)" v-model="coilsAlone">coils, or drivers of a box, one by one: their terminals brought out</CheckLine>
      </form>
    </template>
    <template v-if="typeof units !== 'string'">
      <p v-if="refusal" class="error-words" role="alert">{{ refusal }}</p>
      <p v-if="typeof found === 'string'" class="verdict" role="status">{{ NOT_WIRED_WORDS[found] }}</p>
      <template v-else-if="result">
        <p class="verdict" role="status">{{ wiringsWords(result) }}</p>
        <ul class="cards">
          <li v-for="{ wiring, drawing, power, over, ohms } in cards" :key="wiring.text">
            <button class="card" type="button" :aria-label="spoken(wiring, power, over)" @click="put(wiring)">
              <span class="picture">
                <svg
                  :viewBox="`-9 -2 ${drawing.width + 18} ${drawing.height + 4}`" :style="{ maxWidth: `${drawing.width + 18}px`, maxHeight: '128px' }"
                  aria-hidden="true">
                  <path :d="`${drawing.wires}M-9 ${drawing.height / 2}H0M${drawing.width} ${drawing.height / 2}H${drawing.width + 9}`" class="wire" />
                  <g v-for="(box, k) in drawing.boxes" :key="k" :transform="`translate(${box.x} ${box.y})`">
                    <rect :width="BOX.width" :height="BOX.height" class="box" /><text :x="BOX.width / 2" y="14.5">{{ ohms[box.unit] }}</text>
                  </g>
                </svg>
              </span>
              <span class="says"><b class="figure">{{ writeQuantity(wiring.loadOhm, 'Ω') }}</b> <span>{{ power }}</span></span>
              <span class="soft small">{{ wiring.connections }} joints<template v-if="over > 0">; <b class="over">{{ over }} {{
                over === 1 ? 'gets' : 'get' }} more than “{{ school.name }}” lets</b></template></span>
            </button>
          </li>
        </ul>
        <button v-if="result.wirings.length > shown" class="act" type="button" @click="shown += 2 * STEP">{{ result.wirings.length - shown }} more</button>
        <details v-if="result.refused.length > 0" class="refused">
          <summary>{{ refusedWords(result.refused) }}</summary>
          <ul><li v-for="r in result.refused" :key="r.text"><span class="figure small">{{ r.text }}</span>: <span class="soft">{{ r.why }}</span></li></ul>
        </details>
      </template>
    </template>
  </SearchDialog>
</template>

<style scoped>
.asked { display: flex; flex-wrap: wrap; gap: 6px 26px; align-items: center; padding-bottom: 12px; }
.line { display: flex; flex-wrap: wrap; gap: 6px 12px; align-items: center; }
.parts { display: flex; flex-wrap: wrap; gap: 8px; }
.parts > * { width: 150px; }
.verdict { padding-bottom: 10px; }
.cards { list-style: none; margin: 0; padding: 0 0 10px; display: grid; grid-template-columns: repeat(auto-fill, minmax(200px, 1fr)); gap: 10px; }
.card { width: 100%; height: 100%; border: 1px solid var(--rule-strong); background: var(--paper-raised); padding: 10px 12px; cursor: pointer; display: grid;
  grid-template-rows: 1fr auto auto; gap: 4px; text-align: left; }
.card:hover { border-color: var(--ink); }
.picture { display: grid; place-items: center; min-height: 70px; padding-bottom: 4px; }
svg { width: 100%; }
.wire { stroke: var(--copper); stroke-width: 2; fill: none; }
.box { fill: var(--paper); stroke: var(--ink); stroke-width: 1.3; }
text { font-size: 12px; text-anchor: middle; font-family: var(--mono); fill: var(--ink); }
.says { display: flex; flex-wrap: wrap; gap: 0 10px; align-items: baseline; }
.over { color: var(--tight); }
.refused { border-top: 1px solid var(--rule); padding-top: 10px; margin-top: 8px; }
.refused summary { cursor: pointer; }
.refused ul { padding: 6px 0 0 18px; margin: 0; }
.refused li { overflow-wrap: anywhere; }
</style>
