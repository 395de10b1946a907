<script setup lang="ts">
import { computed } from 'vue'
import type { DayDrawing, DayPoint } from '#core/bench/days'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import { whenText } from './benchStore'

/** Readings over days: ohms upward, in equal steps for equal factors; open in a row of its own; the band of the label behind. */
const { drawing, label } = defineProps<{ drawing: DayDrawing, label: string }>()
const BOX = { left: 52, right: 14, top: 34, height: 150, width: 640 }
const HEIGHT = BOX.top + BOX.height + 30
const x = (at: number) => BOX.left + 14 + at * (BOX.width - BOX.left - BOX.right - 28)
const y = (at: number) => BOX.top + BOX.height * (1 - at)
const yOf = (p: DayPoint) => p.y === null ? 16 : y(p.y)
const days = computed(() => [drawing.fromDay, drawing.toDay].map(whenText))
const spoken = computed(() => `${label} over days: ${drawing.points.map(p => `${p.unit === 'this' ? '' : p.unit === 'twin' ? 'its twin ' : 'the new one '}${p.ohm === null ? 'open' : writeQuantity(p.ohm, 'Ω')}`).join(', ')}`)
const others = computed(() => new Set(drawing.points.map(p => p.unit)))
</script>

<template>
  <figure>
    <svg :viewBox="`0 0 ${BOX.width} ${HEIGHT}`" role="img" :aria-label="spoken">
      <rect
v-if="drawing.lowY !== null" :x="BOX.left" :width="BOX.width - BOX.left - BOX.right" :y="y(drawing.highY!)" :height="y(drawing.lowY)
        - y(drawing.highY!)" class="right" />
      <line :x1="BOX.left" :x2="BOX.left" :y1="BOX.top" :y2="BOX.top + BOX.height" class="axis" />
      <line :x1="BOX.left" :x2="BOX.width - BOX.right" :y1="BOX.top + BOX.height" :y2="BOX.top + BOX.height" class="axis" />
      <line :x1="BOX.left" :x2="BOX.width - BOX.right" y1="16" y2="16" class="open" />
      <text :x="BOX.left - 7" y="20" class="tick">open</text>
      <g v-for="tick in drawing.ticks" :key="tick.ohm"><line :x1="BOX.left - 4" :x2="BOX.left" :y1="y(tick.y)" :y2="y(tick.y)" class="axis" /><text
        :x="BOX.left - 7" :y="y(tick.y) + 4" class="tick">{{ writeNumber(tick.ohm) }}</text></g>
      <text x="2" :y="BOX.top + 2" class="unit">Ω</text>
      <template v-for="point in drawing.points" :key="point.id">
        <circle v-if="point.unit === 'this'" :cx="x(point.x)" :cy="yOf(point)" r="5.5" class="this" />
        <rect v-else-if="point.unit === 'twin'" :x="x(point.x) - 5" :y="yOf(point) - 5" width="10" height="10" class="twin" />
        <path v-else :d="`M${x(point.x)} ${yOf(point) - 7} l6 11 h-12 z`" class="new" />
      </template>
      <text :x="BOX.left" :y="HEIGHT - 8" class="day">{{ days[0] }}</text>
      <text v-if="days[1] !== days[0]" :x="BOX.width - BOX.right" :y="HEIGHT - 8" class="day end">{{ days[1] }}</text>
    </svg>
    <figcaption class="soft small">● this one<template v-if="others.has('twin')"> · □ its sound twin</template><template v-if="others.has('new')"> · △ the
      new one</template><template
      v-if="drawing.lowY !== null"> · shaded: what its label reads when it is right</template></figcaption>
  </figure>
</template>

<style scoped>
svg { width: 100%; max-width: 720px; height: auto; display: block; }
.right { fill: var(--good-wash); }
.axis { stroke: var(--ink); stroke-width: 1.2; }
.open { stroke: var(--rule-strong); stroke-dasharray: 3 4; }
.tick { font-size: 13px; text-anchor: end; fill: var(--ink-soft); }
.unit, .day { font-size: 13px; fill: var(--ink-soft); }
.end { text-anchor: end; }
.this { fill: var(--ink); }
.twin, .new { fill: var(--paper); stroke: var(--ink); stroke-width: 1.6; }
</style>
