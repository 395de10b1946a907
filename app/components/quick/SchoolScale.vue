<script setup lang="ts">
import { computed } from 'vue'
import { scaleLog } from 'd3-scale'
import { ratedW } from '#core/amplifier/index'
import type { LineEvaluation } from '#core/line/evaluate'
import { writeQuantity } from '#core/quantity/write'

/** What every school of the trade asks of the amplifier, on one axis, and where this amplifier stands. */
const { line } = defineProps<{ line: LineEvaluation }>()

const WIDTH = 516
const LEFT = 148
const ROW = 27

const rows = computed(() => line.required.flatMap(r => r.powerW === null ? [] : [{ ...r, from: r.powerW, to: r.toW ?? r.powerW }]))
const rated = computed(() => {
  return line.kind === 'constant-voltage' ? ratedW(line.output.rating) : line.amplifierW
})
const scale = computed(() => {
  const values = [...rows.value.flatMap(r => [r.from, r.to]), rated.value ?? 0].filter(v => v > 0)
  const [least, most] = [Math.min(...values), Math.max(...values)]
  return scaleLog().domain([least / 1.6, most * 1.3]).range([LEFT, WIDTH - 14])
})
const bottom = computed(() => 8 + rows.value.length * ROW)
const TICK_ROOM = 64
const hasRoom = (kept: number[], tick: number) => kept.length === 0 || scale.value(tick) - scale.value(kept.at(-1)!) >= TICK_ROOM
const ends = computed(() => scale.value.ticks().reduce<number[]>((kept, tick) => hasRoom(kept, tick) ? [...kept, tick] : kept, []))
const start = (value: number) => value <= 0 ? LEFT : scale.value(value)
const spoken = computed(() => rows.value.map(r => `${r.name} ${r.toW === null ? writeQuantity(r.from, 'W') : `${writeQuantity(r.from, 'W')} to ${writeQuantity(r.to, 'W')}`}`).join(', '))
</script>

<template>
  <figure v-if="rows.length > 0">
    <figcaption><h3>How much amplifier for these</h3></figcaption>
    <svg :viewBox="`0 0 ${WIDTH} ${bottom + 42}`" class="schools" role="img" :aria-label="`Asked by rule: ${spoken}`">
      <!-- Under the rows: their figures stay whole where it crosses them. -->
      <line v-if="rated" :x1="scale(rated)" :x2="scale(rated)" y1="0" :y2="bottom + 6" class="mine" />
      <g v-for="(row, k) in rows" :key="row.practice" :transform="`translate(0 ${8 + k * ROW})`">
        <title>{{ row.says }}</title>
        <text y="14" class="name" :class="{ chosen: row.chosen }">{{ row.name }}</text>
        <rect
          :x="start(row.from) - (row.toW === null || row.to === row.from ? 3 : 0)" y="3" :width="Math.max(6, start(row.to) - start(row.from))" height="14"
          class="bar" :class="{ chosen: row.chosen }" />
        <text v-if="row.toW === null" :x="start(row.from) + 10" y="15" class="figure value">{{ writeQuantity(row.from, 'W') }}</text>
      </g>
      <line :x1="LEFT" :x2="WIDTH - 10" :y1="bottom" :y2="bottom" class="axis" />
      <text x="0" :y="bottom + 36" class="kind-of-axis">watts, on a log scale</text>
      <g v-for="tick in ends" :key="tick">
        <line :x1="scale(tick)" :x2="scale(tick)" :y1="bottom" :y2="bottom + 4" class="axis" />
        <text :x="scale(tick)" :y="bottom + 36" class="figure tick">{{ writeQuantity(tick, 'W') }}</text>
      </g>
      <g v-if="rated">
        <text
          :x="scale(rated) + (scale(rated) > WIDTH - 130 ? -4 : 4)" :y="bottom + 18" class="mine-text"
          :text-anchor="scale(rated) > WIDTH - 130 ? 'end' : 'start'">this one, {{ writeQuantity(rated, 'W') }}</text>
      </g>
    </svg>
  </figure>
  <p v-else-if="line.kind === 'low-impedance'" class="soft">
    How much amplifier these want is not known: write their continuous rating behind the impedance, as <span class="figure">8 ohm 100 W</span>.
  </p>
</template>

<style scoped>
.schools { width: 100%; height: auto; margin-top: 6px; }
.name { font-size: 14px; }
.name.chosen { font-weight: 700; }
.bar { fill: var(--wash); stroke: var(--ink); stroke-width: 1.1; }
.bar.chosen { fill: var(--ink); }
.axis { stroke: var(--ink); stroke-width: 1; }
.value, .tick { font-size: 12.5px; fill: var(--ink-soft); }
.kind-of-axis { font-size: 12.5px; fill: var(--ink-soft); }
.tick { text-anchor: middle; }
.value { paint-order: stroke; stroke: var(--paper); stroke-width: 4px; }
.mine { stroke: var(--ink); stroke-width: 1.8; stroke-dasharray: 4 3; }
.mine-text { fill: var(--ink); font-weight: 600; font-size: 13.5px; }
</style>
