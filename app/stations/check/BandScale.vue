<script setup lang="ts">
import { computed } from 'vue'
import { ticks as ticksOf } from 'd3-array'
import type { Predicted } from '#core/check/predict'
import type { ReadingValue } from '#core/job/schema'
import { writeNumber, writeQuantity } from '#core/quantity/write'

/** The reading against what was foretold: the band, its middle, and where the reading stands, up to open. */
const { predicted, value, grade } = defineProps<{ predicted: Predicted, value: ReadingValue | null, grade: string | null }>()

const WIDTH = 358
const EDGE = { left: 10, right: 52 }

const band = computed(() => predicted.low !== null && predicted.high !== null && predicted.expected !== null
  ? { low: predicted.low, expected: predicted.expected, high: predicted.high }
  : null)
const read = computed(() => value?.is === 'ohm' ? value.ohm : null)
const most = computed(() => Math.max((band.value?.high ?? 10) * 1.8, Math.min(read.value ?? 0, (band.value?.high ?? 10) * 6) * 1.15))
/** From nothing on: a straight line, without what the library's scales bring along for colours (9 kB). */
const x = computed(() => (ohm: number) => EDGE.left + ohm / most.value * (WIDTH - EDGE.right - EDGE.left))
const openX = WIDTH - 20
const at = computed(() => value?.is === 'open' ? openX : read.value === null ? null : read.value > most.value ? WIDTH - EDGE.right + 8 : x.value(read.value))
/** The band's edges are written outwards, so that a narrow band can still be read. */
const edges = computed(() => band.value ? [{ ohm: band.value.low, anchor: 'end', shift: 5 }, { ohm: band.value.high, anchor: 'start', shift: -5 }] : [])
const ticks = computed(() => {
  const near = (v: number) => edges.value.some(e => Math.abs(x.value(e.ohm) - x.value(v)) < 44)
  return ticksOf(0, most.value, 5).filter(t => !near(t))
})
const spoken = computed(() => band.value
  ? `Right lies between ${writeQuantity(band.value.low, 'Ω')} and ${writeQuantity(band.value.high, 'Ω')}${read.value === null ? '' : `; read ${writeQuantity(read.value, 'Ω')}`}`
  : 'No band: what is right here is not known')
</script>

<template>
  <svg class="band" :viewBox="`0 0 ${WIDTH} 52`" role="img" :aria-label="spoken">
    <rect v-if="band" :x="x(band.low)" y="16" :width="x(band.high) - x(band.low)" height="16" class="right" />
    <line :x1="EDGE.left" :x2="WIDTH - 8" y1="24" y2="24" class="axis" :class="{ dashed: !band }" />
    <line v-if="band" :x1="x(band.expected)" :x2="x(band.expected)" y1="12" y2="36" class="middle" />
    <g v-for="tick in ticks" :key="tick">
      <line :x1="x(tick)" :x2="x(tick)" y1="21" y2="28" class="axis" />
      <text :x="x(tick)" y="47" class="tick">{{ writeNumber(tick) }}</text>
    </g>
    <g v-for="edge in edges" :key="edge.anchor">
      <line :x1="x(edge.ohm)" :x2="x(edge.ohm)" y1="21" y2="28" class="axis" />
      <text :x="x(edge.ohm) + edge.shift" y="47" class="edge" :text-anchor="edge.anchor">{{ writeNumber(edge.ohm) }}</text>
    </g>
    <line :x1="openX" :x2="openX" y1="20" y2="28" class="axis" />
    <text :x="openX" y="47" class="tick">open</text>
    <path v-if="at !== null" :d="`M${at} 22 l-8 -13 h16 z M${at} 20 v14`" class="here" :class="grade" />
  </svg>
</template>

<style scoped>
.band { width: 100%; max-width: 420px; height: auto; display: block; }
.right { fill: var(--good-wash); }
.axis { stroke: var(--ink); stroke-width: 1.2; }
.dashed { stroke-dasharray: 3 3; }
.middle { stroke: var(--good); stroke-width: 2; }
.tick { font-size: 12.5px; text-anchor: middle; fill: var(--ink-soft); }
.edge { font-size: 12.5px; font-weight: 600; }
.here { fill: var(--unknown); stroke: var(--unknown); stroke-width: 2; }
.here.good { fill: var(--good); stroke: var(--good); }
.here.tight { fill: var(--tight); stroke: var(--tight); }
.here.stop { fill: var(--stop); stroke: var(--stop); }
</style>
