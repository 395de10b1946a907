<script setup lang="ts">
import { computed } from 'vue'
import type { LineState } from '#core/line/jobState'

/** A job's rails in small: one line each, a drop a speaker, in the colour of its grade. */
const { lines } = defineProps<{ lines: LineState[] }>()

const WIDTH = 190
const ROW = 15
const MOST_ROWS = 4
const MOST_DROPS = 22

const shown = computed(() => lines.slice(0, MOST_ROWS).map((line, row) => {
  const drops = Math.min(line.speakers, MOST_DROPS)
  const gap = Math.min(14, (WIDTH - 34) / Math.max(1, drops))
  const at = Array.from({ length: drops }, (_, k) => 18 + (k + 0.7) * gap)
  return { line, y: 8 + row * ROW, end: 18 + drops * gap, drops: at, more: line.speakers > MOST_DROPS }
}))
const height = computed(() => 8 + Math.max(1, shown.value.length) * ROW + (lines.length > MOST_ROWS ? 8 : 0))
</script>

<template>
  <svg :width="WIDTH" :height="height" :viewBox="`0 0 ${WIDTH} ${height}`" class="rails" aria-hidden="true">
    <rect x="1" y="1" width="12" :height="height - 2" class="box" />
    <g v-for="{ line, y, end, drops, more } in shown" :key="line.label" :class="line.grade">
      <circle cx="13" :cy="y" r="2.6" class="terminal" />
      <line x1="13" :x2="end" :y1="y" :y2="y" class="rail" />
      <line v-for="x in drops" :key="x" :x1="x" :x2="x" :y1="y" :y2="y + 7" class="drop" />
      <text v-if="more" :x="end + 4" :y="y + 4" class="more">…</text>
    </g>
    <text v-if="lines.length > MOST_ROWS" x="18" :y="height - 2" class="more">and {{ lines.length - MOST_ROWS }} more</text>
  </svg>
</template>

<style scoped>
.box { fill: var(--paper-raised); stroke: var(--ink-soft); }
.rail { stroke: var(--copper); stroke-width: 2; }
.drop { stroke: var(--ink); stroke-width: 1.6; }
.terminal { fill: var(--paper); stroke: var(--ink); stroke-width: 1.2; }
.tight .rail { stroke-dasharray: 9 2; }
.stop .rail { stroke: var(--stop); stroke-dasharray: 3 3; }
.more { font-size: 10.5px; fill: var(--ink-soft); }
</style>
