<script setup lang="ts">
import { computed } from 'vue'
import { ticks } from 'd3-array'
import { temperatureAt } from '#core/bench/thermal'
import type { WarmRun } from '#core/bench/runs'
import { useMedia } from '~/composables/useMedia'
import { writeNumber } from '#core/quantity/write'

/** A run: what was read, the curve through it to where it will end, the interval of the end, and the limit. */
const { of } = defineProps<{ of: WarmRun }>()
const isNarrow = useMedia('(max-width: 760px)')
const box = computed(() => ({ left: 46, right: 16, top: 14, width: isNarrow.value ? 366 : 640, height: 190 }))
const height = computed(() => box.value.top + box.value.height + 42)
const lastMin = computed(() => of.warm.at(-1)?.minute ?? 0)
const mostMin = computed(() => Math.max(20, lastMin.value * 1.25, of.report ? Math.min(2.5 * of.report.tauMin, 3 * Math.max(lastMin.value, 10)) : 0))
const range = computed(() => {
  const all = [...of.warm.map(w => w.celsius), ...(of.baseline ?? []).map(w => w.celsius), of.limitC + 2, ...of.report
    ? [of.report.ambientC,
        Math.min(of.report.endC, of.limitC + 60)]
    : []]
  return [Math.min(...all) - 3, Math.max(...all) + 3] as const
})
const x = (minute: number) => box.value.left + (box.value.width - box.value.left - box.value.right) * minute / mostMin.value
const y = (celsius: number) => box.value.top + box.value.height * (1 - (celsius - range.value[0]) / (range.value[1] - range.value[0]))
const curve = computed(() => of.report ? Array.from({ length: 61 }, (_, k) => k / 60 * mostMin.value).map(m => [m, temperatureAt(of.report!, m)] as const).filter(([, c]) => c <= range.value[1]).map(([m, c]) => `${x(m).toFixed(1)},${y(c).toFixed(1)}`).join(' ') : '')
const ends = computed(() => of.report && of.report.endLowC !== null && of.report.endHighC !== null
  ? { low: Math.max(of.report.endLowC, range.value[0]),
      high: Math.min(of.report.endHighC, range.value[1]) }
  : null)
const spoken = computed(() => `Warm-up: ${of.warm.map(w => `${writeNumber(w.celsius)} °C after ${writeNumber(w.minute)} minutes`).join(', ')}; limit ${writeNumber(of.limitC)} °C`)
</script>

<template>
  <svg :viewBox="`0 0 ${box.width} ${height}`" role="img" :aria-label="spoken">
    <rect v-if="ends" :x="box.width - box.right - 9" width="9" :y="y(ends.high)" :height="Math.max(2, y(ends.low) - y(ends.high))" class="ends" />
    <line :x1="box.left" :x2="box.width - box.right" :y1="y(of.limitC)" :y2="y(of.limitC)" class="limit" />
    <text :x="box.left + 6" :y="y(of.limitC) - 5" class="says">limit {{ writeNumber(of.limitC) }} °C</text>
    <g v-for="tick in ticks(range[0], range[1], 5)" :key="`y${tick}`"><line :x1="box.left - 4" :x2="box.left" :y1="y(tick)" :y2="y(tick)" class="axis"
      /><text :x="box.left - 7" :y="y(tick) + 4" class="tick right">{{ tick }}</text></g>
    <g v-for="tick in ticks(0, mostMin, 6)" :key="`x${tick}`"><line
      :x1="x(tick)" :x2="x(tick)" :y1="box.top + box.height" :y2="box.top + box.height + 4"
      class="axis" /><text :x="x(tick)" :y="box.top + box.height + 17" class="tick mid">{{ tick }}</text></g>
    <line :x1="box.left" :x2="box.left" :y1="box.top" :y2="box.top + box.height" class="axis" />
    <line :x1="box.left" :x2="box.width - box.right" :y1="box.top + box.height" :y2="box.top + box.height" class="axis" />
    <text x="2" :y="box.top + 4" class="tick">°C</text><text :x="box.width - box.right" :y="height - 8" class="tick right">minutes from cold</text>
    <polyline v-if="curve" :points="curve" class="curve" />
    <path v-for="w in of.baseline ?? []" :key="`b${w.minute}`" :d="`M${x(w.minute) - 4} ${y(w.celsius) - 4} l8 8 m0 -8 l-8 8`" class="base" />
    <circle v-for="w in of.warm" :key="w.minute" :cx="x(w.minute)" :cy="y(w.celsius)" r="4.5" class="read" />
  </svg>
</template>

<style scoped>
svg { width: 100%; max-width: 720px; height: auto; display: block; }
.axis { stroke: var(--ink); stroke-width: 1.2; }
.tick, .says { font-size: 13px; fill: var(--ink-soft); }
.right { text-anchor: end; }
.mid { text-anchor: middle; }
.limit { stroke: var(--stop); stroke-width: 1.6; stroke-dasharray: 7 4; }
.says { fill: var(--stop); font-weight: 600; }
.curve { fill: none; stroke: var(--ink); stroke-width: 1.8; }
.read { fill: var(--ink); }
.base { stroke: var(--ink-soft); stroke-width: 1.6; fill: none; }
.ends { fill: var(--unknown); opacity: .5; }
</style>
