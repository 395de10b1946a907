<script setup lang="ts">
import { computed, ref } from 'vue'
import Select from '~/components/form/choiceList'
import { isKnown, writeRating } from '#core/amplifier/index'
import type { HangTo } from '#core/hands/spaces'
import { speakerAt } from '#core/hands/spaces'
import { outputsOf } from '#core/job/tree'
import { evennessWords, LAW_WORDS, lossWords, measuredWords, missingWords, otherModelWords, peaksWords, spaceGrade, spaceRemarks, spacingWords, targetWords, verdictWords } from '#core/advice/spaceWords'
import { writeQuantity } from '#core/quantity/write'
import KeyCap from '~/components/KeyCap.vue'
import { useUnits } from '~/composables/useUnits'
import { useJobStore } from '~/stores/job'
import OtherModels from './OtherModels.vue'
import { useSpaceStore } from './spaceStore'

/** How loud a space is and why, and what can be done about it. */
const emit = defineEmits<{ layOut: [], tap: [tapW: number], hang: [to: HangTo], lengths: [] }>()
const { usual } = defineProps<{ usual: HangTo }>()
const store = useJobStore()
const at = useSpaceStore()
const { units } = useUnits()

const facts = computed(() => at.facts!)
const space = computed(() => at.kept!)
const remarks = computed(() => spaceRemarks(space.value, facts.value))
const measured = computed(() => space.value.measured.map(m => ({ m, says: measuredWords(m.db, at.levelAt(m)) })))
const hangs = computed(() => store.job ? space.value.spots.filter(s => speakerAt(store.opened, s)).length : 0)

/** Where they could hang: lines that are there, an output more, a new line of which only the volts are known. */
const targets = computed((): { value: string, label: string, to: HangTo }[] => {
  const { job } = store
  if (!job) return []
  const lines = outputsOf(job).filter(o => isKnown(o.rating)).map(o => ({ label: `${o.label} ${o.name}`.trim(), to: { outputId: o.id } }))
  const more = job.amplifiers.filter(a => a.outputs.some(o => isKnown(o.rating)))
    .map(a => ({ label: `a new output of ${a.name}, ${writeRating(a.outputs.at(-1)!.rating)}`, to: { amplifierId: a.id } }))
  const fresh = [70.71, 100].map(lineV => ({ label: `a new ${Math.floor(lineV)} V line, amplifier chosen later`, to: { lineV } }))
  return [...lines, ...more, ...fresh].map(t => ({ ...t, value: JSON.stringify(t.to) }))
})
const picked = ref<string | null>(null)
const target = computed(() => picked.value !== null && targets.value.some(t => t.value === picked.value) ? picked.value : JSON.stringify(usual))
const hangWords = computed(() => facts.value.free === space.value.spots.length ? facts.value.free === 1 ? 'Hang its speaker' : `Hang all ${facts.value.free} speakers` : `Hang the ${facts.value.free} missing`)
</script>

<template>
  <div class="says">
    <section class="part">
      <p class="what">{{ verdictWords(facts) }}</p>
      <p v-if="spaceGrade(facts) !== 'unknown'" class="soft">{{ targetWords(space, facts) }}</p>
      <p v-if="facts.level" class="soft">{{ evennessWords(facts) }} {{ peaksWords(space) }}</p>
      <p v-if="facts.level && facts.unknown.length > 0" class="soft">{{ missingWords(facts.unknown) }}</p>
      <p v-if="facts.level && lossWords(facts)" class="soft">{{ lossWords(facts) }}</p>
    </section>

    <section v-if="facts.taps" class="part">
      <h3>Taps, and what the space would be</h3>
      <div role="radiogroup" aria-label="Tap of the whole space" class="steps">
        <button
          v-for="step in facts.taps.steps" :key="step.tapW" type="button" role="radio" class="step" :class="{ on: facts.taps.nowW === step.tapW }"
          :aria-checked="facts.taps.nowW === step.tapW" @click="emit('tap', step.tapW)">
          <b class="figure">{{ writeQuantity(step.tapW, 'W') }}</b> <span class="figure">{{ step.meanDb.toFixed(1) }} dB</span>
          <span v-if="step.tapW === facts.taps.lowestW" class="soft">lowest that reaches</span>
        </button>
      </div>
      <p v-if="facts.taps.nowW === null" class="soft">They hang on different taps: tap − and tap + move each to its next.</p>
      <OtherModels v-else-if="otherModelWords(facts)" />
    </section>

    <section class="part">
      <p class="soft">{{ spacingWords(space, facts, units) }}</p>
      <button class="offer" type="button" @click="emit('layOut')">
        {{ space.spots.length === 0 ? 'Lay the places out' : 'Lay the places out anew' }}
        <span class="then">{{ hangs > 0 ? 'each moves to the nearest new one, its speaker too' : 'on a grid that fits the floor' }}</span>
        <KeyCap of="g" />
      </button>
      <template v-if="facts.free > 0 && facts.kind">
        <button class="offer" type="button" @click="emit('hang', targets.find(t => t.value === target)?.to ?? usual)">
          {{ hangWords }} on {{ targets.find(t => t.value === target)?.label ?? 'a new line' }}
          <span class="then">in walking order, lengths along the walls with {{ Math.round(100 * space.slack) }} % slack</span>
          <KeyCap of="H" />
        </button>
        <Select
          v-model="picked" aria-label="the line that they hang on" :options="targets" option-label="label" option-value="value" size="small"
          :placeholder="targets.find(t => t.value === target)?.label" />
      </template>
      <button v-if="hangs > 0" class="act" type="button" @click="emit('lengths')">lengths from the plan again</button>
    </section>

    <section v-if="measured.length > 0" class="part">
      <h3>Measured here</h3>
      <ul class="measured">
        <li v-for="{ m, says } in measured" :key="m.id">
          {{ says }} <span v-if="m.note" class="soft">{{ m.note }}</span>
          <button
            class="act small" type="button" :aria-label="`take back ${m.db} dB`"
            @click="store.edit({ kind: 'measured.remove', spaceId: space.id, measuredId: m.id, was: m })">take back</button>
        </li>
      </ul>
    </section>

    <section v-if="remarks.length > 0" class="part">
      <h3>To mind</h3>
      <p v-for="remark in remarks" :key="remark.says" class="remark" :class="remark.grade">{{ remark.says }}</p>
    </section>
    <p class="soft small">{{ LAW_WORDS }}</p>
  </div>
</template>

<style scoped>
.says { display: grid; grid-template-columns: minmax(0, 1fr); gap: 18px; }
.part { display: grid; gap: 7px; }
.what { line-height: 1.5; }
.steps { display: grid; gap: 0; }
.step { display: grid; grid-template-columns: 74px 84px 1fr; gap: 8px; text-align: left; border: 0; border-bottom: 1px solid var(--rule); background: none;
  padding: 5px 6px; cursor: pointer; align-items: baseline; }
.step:hover { background: var(--wash); }
.step.on { background: var(--ink); color: var(--paper); }
.step.on .soft { color: inherit; }
.measured { list-style: none; display: grid; gap: 4px; }
.remark { border-left: 3px solid var(--rule-strong); padding-left: 10px; font-size: 15px; }
.remark.caution { border-left-color: var(--tight); }
@media (forced-colors: active) {
  .step.on, .step.on * { forced-color-adjust: none; background: Highlight; color: HighlightText; }
}
@media (pointer: coarse), (max-width: 760px) { .step { align-items: center; } }
</style>
