<script setup lang="ts">
import { computed } from 'vue'
import type { Predicted } from '#core/check/predict'
import { shortPlaces } from '#core/check/shortPlace'
import { shortWords } from '#core/check/shortWords'
import { verdictWords } from '#core/check/signs'
import { isWrong, type Verdict } from '#core/check/verdict'
import type { Output, ReadingKind, ReadingValue } from '#core/job/schema'
import { useUnits } from '~/composables/useUnits'

/** What a reading says, in a sentence or two: the band, what it usually means, and of a shorted pair where along the line. */
const { kind, verdict, predicted, output, value } = defineProps<{
  kind: ReadingKind
  verdict: Verdict
  predicted: Predicted | null
  output: Output
  value: ReadingValue | null
}>()
const { units } = useUnits()
const along = computed(() => {
  if (kind !== 'pair-apart' || value?.is !== 'ohm' || !isWrong(verdict)) return ''
  const [first, ...others] = shortPlaces(output, value.ohm)
  return first ? shortWords([first, ...others], units.value) : 'How far along, nobody can say: the cable from the rack on is not stated, or it is no short.'
})
</script>

<template>
  <p role="status">{{ [verdictWords(kind, verdict.code, predicted), along].filter(Boolean).join(' ') }}</p>
</template>
