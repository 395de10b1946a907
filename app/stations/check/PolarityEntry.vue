<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import Button from '~/components/form/laterButton'
import ChoiceRow from '~/components/form/ChoiceRow.vue'
import { batteriesFor } from '#core/check/battery'
import { HOW_WORDS, seenWords } from '#core/check/turnedWords'
import type { Output, PolarityHow, ReadingValue, Speaker, Turned } from '#core/job/schema'
import { howFacts, howsOf, TURNED } from '#core/job/sections/readings/hows'
import { writeNumber } from '#core/quantity/write'
import { neighboursOf, usualHow, useHow } from './polarityTaken'

/** Which way round a speaker is: by which way it is found out, what to do, and what was seen or heard, one press each. */
const { kind, output, speaker, thumb, isRecorded, isWrong } = defineProps<{
  kind: 'polarity' | 'polarity-heard'
  output: Output
  speaker: Speaker
  thumb: boolean
  /** Something stands here already; and it is wrong. */
  isRecorded: boolean
  isWrong: boolean
}>()
const emit = defineEmits<{ record: [value: ReadingValue], next: [], trace: [] }>()

const { kept, keep } = useHow()
const hows = computed(() => howsOf(kind))
const neighbours = computed(() => neighboursOf(output, speaker.id))
const how = computed((): PolarityHow => usualHow(kept.value[kind], kind, { output, speaker, hasNeighbour: neighbours.value.length > 0 }))
const choices = computed(() => hows.value.map(value => ({ value, says: HOW_WORDS[value].says })))
const words = computed(() => HOW_WORDS[how.value])

/** Beside which other one it is heard. */
const isBeside = computed(() => howFacts(how.value).proves === 'agreement')
const against = ref<string | null>(null)
watch(() => [speaker.id, isBeside.value], () => { against.value = neighbours.value[0]?.id ?? null }, { immediate: true })

const isBattery = computed(() => how.value === 'battery-run' || how.value === 'battery-driver')
const batteries = computed(() => batteriesFor(speaker).map(({ volts, powerW, is }) =>
  `${writeNumber(volts)} V: ${powerW === null ? 'power not known' : `up to ${writeNumber(Number(powerW.toPrecision(2)))} W in its coil`}${is === 'too-much' ? ', too much here' : ''}`))

function record(turned: Turned): void {
  emit('record', { is: turned, how: how.value, against: isBeside.value ? against.value : null })
}
</script>

<template>
  <div class="polarity">
    <ChoiceRow
      class="hows" label="How it is found out" :choices="choices" :model-value="how"
      @update:model-value="$event && keep(kind, $event as PolarityHow)" />
    <ol class="steps"><li v-for="step in words.steps" :key="step">{{ step }}</li></ol>
    <p v-if="isBattery" class="soft small">{{ batteries.join(' · ') }}. A tap, not a hold.</p>
    <p v-if="words.caution" class="warn small"><b>Take care.</b> {{ words.caution }}</p>
    <label v-if="isBeside && neighbours.length > 0" class="beside">beside
      <select v-model="against" aria-label="Beside which speaker">
        <option v-for="other in neighbours" :key="other.id" :value="other.id">{{ other.label }}</option>
      </select>
    </label>
    <p v-if="isBeside && neighbours.length === 0" class="soft">Nothing else hangs on this line: choose another way.</p>
    <div v-else class="answers" :class="{ pad: thumb }" role="group" aria-label="What it shows">
      <Button v-for="turned in TURNED" :key="turned" variant="outlined" :label="seenWords(how, turned)" @click="record(turned)" />
      <template v-if="thumb && isRecorded">
        <Button v-if="isWrong" variant="outlined" label="Trace it" @click="emit('trace')" />
        <Button class="next" label="Next place" @click="emit('next')" />
      </template>
    </div>
  </div>
</template>

<style scoped>
.polarity { display: grid; gap: 8px; flex-basis: 100%; min-width: 0; }
.steps { padding-left: 22px; font-size: 15px; }
.warn { border-left: 4px solid var(--tight); padding-left: 10px; }
.beside { display: flex; gap: 8px; align-items: baseline; }
.beside select { font: inherit; color: inherit; background: var(--paper-raised); border: 1px solid var(--ink); padding: 6px 8px; min-height: 40px; }
.answers { display: flex; flex-wrap: wrap; gap: 8px; }
.answers :deep(button) { min-height: 44px; min-width: 110px; }
.answers.pad { position: fixed; z-index: 4; left: 0; right: 0; bottom: 0; display: grid; grid-template-columns: repeat(3, 1fr);
  padding: 8px 16px; border-top: 1px solid var(--rule);
  background: var(--paper); }
.answers.pad .next { grid-column: 2 / -1; }
@media (max-height: 560px) and (min-width: 561px) { .answers.pad { left: auto; width: min(42vw, 420px); } }
.answers.pad :deep(button) { min-height: 56px; font-size: 17px; min-width: 0; }
</style>
