<script setup lang="ts">
import { computed } from 'vue'
import type { DayDrawing, DayPoint } from '#core/bench/days'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import { useMedia } from '~/composables/useMedia'
import { whenText } from './benchStore'

/** Readings over days: ohms upward, in equal steps for equal factors; open in a row of its own; the band of the label behind. */
const { drawing, label } = defineProps<{ drawing: DayDrawing, label: string }>()
/** On a phone as wide as it is: letters are not scaled down. */
const isNarrow = useMedia('(max-width: 760px)')
const box = computed(() => ({ left: 52, right: 14, top: 34, height: 150, width: isNarrow.value ? 366 : 640 }))
const height = computed(() => box.value.top + box.value.height + 30)
const x = (at: number) => box.value.left + 14 + at * (box.value.width - box.value.left - box.value.right - 28)
const y = (at: number) => box.value.top + box.value.height * (1 - at)
const yOf = (p: DayPoint) => p.y === null ? 16 : y(p.y)
const days = computed(() => [drawing.fromDay, drawing.toDay].map(whenText))
const spoken = computed(() => `${label} over days: ${drawing.points.map(p => `${p.unit === 'this' ? '' : p.unit === 'twin' ? 'its twin ' : 'the new one '}${p.ohm === null ? 'open' : writeQuantity(p.ohm, 'Ω')}`).join(', ')}`)
const others = computed(() => new Set(drawing.points.map(p => p.unit)))
</script>

<template>
  <figure>
    <svg :viewBox="`0 0 ${box.width} ${height}`" role="img" :aria-label="spoken">
      <rect
        v-if="drawing.lowY !== null" :x="box.left" :width="box.width - box.left - box.right" :y="y(drawing.highY!)" :height="y(drawing.lowY)
        - y(drawing.highY!)" class="right" />
      <line :x1="box.left" :x2="box.left" :y1="box.top" :y2="box.top + box.height" class="axis" />
      <line :x1="box.left" :x2="box.width - box.right" :y1="box.top + box.height" :y2="box.top + box.height" class="axis" />
      <line :x1="box.left" :x2="box.width - box.right" y1="16" y2="16" class="open" />
      <text :x="box.left - 7" y="20" class="tick">open</text>
      <g v-for="tick in drawing.ticks" :key="tick.ohm"><line :x1="box.left - 4" :x2="box.left" :y1="y(tick.y)" :y2="y(tick.y)" class="axis" /><text
        :x="box.left - 7" :y="y(tick.y) + 4" class="tick">{{ writeNumber(tick.ohm) }}</text></g>
      <text x="2" :y="box.top + 2" class="unit">Ω</text>
      <template v-for="point in drawing.points" :key="point.id">
        <circle v-if="point.unit === 'this'" :cx="x(point.x)" :cy="yOf(point)" r="5.5" class="this" />
        <rect v-else-if="point.unit === 'twin'" :x="x(point.x) - 5" :y="yOf(point) - 5" width="10" height="10" class="twin" />
        <path v-else :d="`M${x(point.x)} ${yOf(point) - 7} l6 11 h-12 z`" class="new" />
      </template>
      <text :x="box.left" :y="height - 8" class="day">{{ days[0] }}</text>
      <text v-if="days[1] !== days[0]" :x="box.width - box.right" :y="height - 8" class="day end">{{ days[1] }}</text>
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
