<script setup lang="ts">
import { computed } from 'vue'
import { judge } from '#core/check/verdict'
import type { Predicted } from '#core/check/predict'
import { takenWords, VERDICT_TAGS, valueWords } from '#core/check/words'
import type { Reading } from '#core/job/schema'
import { whoHere } from '~/door/me'
import { useDoorStore } from '~/stores/door'
import { supersededIn } from '#core/job/sections/readings/superseded'

/** Every reading at a place, newest first. None is ever changed: a wrong one is superseded, a withdrawn one stays in view. */
const { readings, standingId, foretold } = defineProps<{
  readings: Reading[]
  standingId: string | null
  foretold: (reading: Reading) => Predicted | null
}>()
const emit = defineEmits<{ correct: [reading: Reading] }>()

const superseded = computed(() => supersededIn(readings))
const when = (at: string) => new Date(at).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })
/** Where several people read, whose each is. */
const isOfSeveral = computed(() => readings.some(r => r.who !== whoHere()))
const whose = ({ who }: Reading) => isOfSeveral.value ? `by ${useDoorStore().nameOf(who)}` : ''
const saidOf = (reading: Reading) => [whose(reading), reading.note, takenWords(reading.taken, reading.frequencyHz)].filter(Boolean).join(' · ')
const stateOf = (reading: Reading) => reading.withdrawn ? 'taken back' : superseded.value.has(reading.id) ? 'was wrong' : reading.id === standingId ? 'stands' : ''
</script>

<template>
  <section v-if="readings.length > 0" class="history">
    <h3>Read here</h3>
    <ul>
      <li v-for="reading in readings" :key="reading.id" :class="{ gone: reading.withdrawn || superseded.has(reading.id) }">
        <span class="soft when">{{ when(reading.at) }}</span>
        <span class="figure">{{ valueWords(reading.value) }}</span>
        <span class="soft">{{ VERDICT_TAGS[judge(reading.value, foretold(reading)).code] }}{{ stateOf(reading) ? `, ${stateOf(reading)}` : '' }}</span>
        <button v-if="!reading.withdrawn && !superseded.has(reading.id)" class="act small" type="button" @click="emit('correct', reading)">was wrong</button>
        <span v-if="saidOf(reading)" class="note soft">{{ saidOf(reading) }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul { list-style: none; font-size: 14.5px; }
li { display: grid; grid-template-columns: auto auto 1fr auto; gap: 0 10px; align-items: baseline; border-bottom: 1px solid var(--rule); padding: 4px 0; }
.when { white-space: nowrap; }
.gone .figure { text-decoration: line-through; }
.note { grid-column: 1 / -1; }
</style>
