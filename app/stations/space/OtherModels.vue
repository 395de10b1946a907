<script setup lang="ts">
import { computed } from 'vue'
import { otherModelWords } from '#core/advice/spaceWords'
import { findingWords } from '#core/line/words'
import { otherModels, type OtherModel } from '#core/search/otherModels'
import { writeQuantity } from '#core/quantity/write'
import { newId } from '~/api/ids'
import { useAfterPaint } from '~/composables/useAfterPaint'
import { useWholeLibrary } from '~/composables/useWholeLibrary'
import { useEvaluationStore } from '~/stores/evaluation'
import { useJobStore } from '~/stores/job'
import { useSpaceStore } from './spaceStore'

/** Far over on the lowest tap, or short on the highest: what of the library would do, each put in and judged, one press to have it. */
const store = useJobStore()
const at = useSpaceStore()
const evaluation = useEvaluationStore()
const { models, problem } = useWholeLibrary('speaker')

const found = useAfterPaint(() => store.job && at.kept && at.facts && models.value
  ? otherModels(store.job, evaluation.lines, at.kept, at.facts, models.value.map(m => ({ modelId: m.id, version: m.version, model: m.body })), newId)
  : null)
const says = computed(() => at.facts ? otherModelWords(at.facts) : '')
const over = (db: number) => Math.abs(db) < 0.05 ? 'just on the target' : `${Math.abs(db).toFixed(1)} dB ${db > 0 ? 'over' : 'under'}`
const brings = ({ brings: all }: OtherModel) => all.map(b => `${b.label}: ${findingWords(b.finding).what}`).join(' ')
function take({ edit, offered, tapW }: OtherModel): void {
  if (store.edit(edit)) store.say(`${offered.model.name} in ${at.kept?.name}, all on ${writeQuantity(tapW, 'W')}`)
}
</script>

<template>
  <div class="other">
    <p class="soft">{{ says }} <button class="act" type="button" @click="at.mode = 'change'">choose another model</button></p>
    <p v-if="problem" class="soft small">{{ problem }}</p>
    <p v-else-if="found?.length === 0" class="soft small">Of the library none does alone, built as this one is.</p>
    <button v-for="other in found" :key="other.offered.modelId" class="offer" type="button" @click="take(other)">
      {{ other.offered.model.name }}, {{ writeQuantity(other.tapW, 'W') }}
      <span class="then">{{ other.meanDb.toFixed(1) }} dB, {{ over(other.overDb) }}{{ other.brings.length > 0 ? `; brings ${brings(other)}` : '' }}</span>
    </button>
  </div>
</template>

<style scoped>
.other { display: grid; gap: 6px; }
</style>
