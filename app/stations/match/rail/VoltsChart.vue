<script setup lang="ts">
import { computed } from 'vue'
import { scaleLinear } from 'd3-scale'
import { line as d3line } from 'd3-shape'
import { LOSS_LIMIT_DB } from '#core/schools/lossLimits'
import type { LineEvaluation } from '#core/line/evaluate'
import { lengthIn, LENGTH_UNIT } from '#core/quantity/units'
import { writeDb, writeNumber } from '#core/quantity/write'
import { useUnits } from '~/composables/useUnits'

const { units } = useUnits()

/** Volts along the rail against the length of cable, with the limit they are read against. Only the drops that hang from the rail itself. */
const { line, selectedId } = defineProps<{ line: LineEvaluation, selectedId: string | null }>()

const WIDTH = 326
const HEIGHT = 150
const EDGE = { left: 38, right: 8, top: 12, bottom: 26 }

const points = computed(() => {
  const head = line.drive?.volts ?? line.lineV
  if (head === null) return []
  const drops = new Map(line.drops.map(d => [d.nodeId, d]))
  let metres = 0
  const along = line.output.wiring.children.flatMap(({ lead, node }) => {
    metres += lengthIn(lead?.lengthM ?? 0, units.value)
    const drop = drops.get(node.id)
    return drop && drop.volts !== null && drop.ohm !== null ? [{ id: node.id, metres, volts: drop.volts }] : []
  })
  return metres === 0 ? [] : [{ id: '', metres: 0, volts: head }, ...along]
})
const limitDb = computed(() => -LOSS_LIMIT_DB[line.kind])
const limitV = computed(() => (points.value[0]?.volts ?? 0) * 10 ** (limitDb.value / 20))
const x = computed(() => scaleLinear().domain([0, points.value.at(-1)?.metres ?? 1]).nice(4).range([EDGE.left, WIDTH - EDGE.right]))
const lowestV = computed(() => Math.min(limitV.value, ...points.value.map(p => p.volts)) * 0.985)
const y = computed(() => scaleLinear().domain([lowestV.value, points.value[0]?.volts ?? 1]).nice(4).range([HEIGHT - EDGE.bottom, EDGE.top]))
const path = computed(() => d3line<{ metres: number, volts: number }>(p => x.value(p.metres), p => y.value(p.volts))(points.value) ?? '')
const limitY = computed(() => y.value(limitV.value))
</script>

<template>
  <figure v-if="points.length > 1" class="volts">
    <figcaption><h3>Volts along the line</h3></figcaption>
    <svg
      :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" role="img"
      :aria-label="`From ${writeNumber(points[0]!.volts)} V at the head to ${writeNumber(points.at(-1)!.volts)} V
      after ${writeNumber(points.at(-1)!.metres)} ${LENGTH_UNIT[units]}; limit ${writeDb(limitDb)}`">
      <g v-for="tick in y.ticks(4)" :key="tick">
        <line :x1="EDGE.left" :x2="WIDTH - EDGE.right" :y1="y(tick)" :y2="y(tick)" class="grid" />
        <text :x="EDGE.left - 5" :y="y(tick) + 4" class="tick end">{{ writeNumber(tick) }} V</text>
      </g>
      <text
        v-for="tick in x.ticks(3)" :key="`x${tick}`" :x="Math.min(x(tick), WIDTH - 18)" :y="HEIGHT - 8"
        class="tick">{{ tick }} {{ LENGTH_UNIT[units] }}</text>
      <line :x1="EDGE.left" :x2="WIDTH - EDGE.right" :y1="limitY" :y2="limitY" class="limit" />
      <text :x="EDGE.left + 4" :y="limitY - 4" class="limit-text">limit {{ writeDb(limitDb) }}</text>
      <path :d="path" class="curve" />
      <circle
        v-for="point in points" :key="point.id" :cx="x(point.metres)" :cy="y(point.volts)" :r="point.id === selectedId ? 4.5 : 2.4"
        :class="point.id === selectedId && point.id !== '' ? 'here' : 'dot'" />
    </svg>
  </figure>
</template>

<style scoped>
svg { width: 100%; height: auto; display: block; margin-top: 4px; }
.grid { stroke: var(--rule); stroke-width: 1; }
.tick { font-size: 12.5px; fill: var(--ink-soft); text-anchor: middle; }
.end { text-anchor: end; }
.limit { stroke: var(--ink); stroke-width: 1.3; stroke-dasharray: 4 3; }
.limit-text { fill: var(--ink); font-size: 12.5px; paint-order: stroke; stroke: var(--paper-raised); stroke-width: 4px; }
.curve { fill: none; stroke: var(--ink); stroke-width: 1.8; }
.dot { fill: var(--ink); }
.here { fill: var(--pen); }
</style>
