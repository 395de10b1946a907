<script setup lang="ts">
import { computed } from 'vue'
import { branchesOf } from '#core/job/tree'
import type { LineEvaluation } from '#core/match/evaluate'
import { headFigures } from '#core/match/headFigures'
import { writeQuantity } from '#core/quantity/write'

/** Asked, lost, reserve and spare of one output, against what it can give. */
const { line } = defineProps<{ line: LineEvaluation }>()

const WIDTH = 194

const figures = computed(() => headFigures(line))
const end = computed(() => Math.max(figures.value.ratedW ?? 0, figures.value.askedW + figures.value.lostW) || 1)
const x = (w: number) => Math.min(WIDTH, w / end.value * WIDTH)

const text = computed(() => {
  const { askedW, lostW, ratedW } = figures.value
  const round = (w: number) => w >= 10 || w === 0 ? w.toFixed(0) : w.toFixed(1)
  if (line.speakers.length === 0) return ratedW === null ? 'not rated yet' : `0 / ${round(ratedW)} W`
  if (line.kind === 'low-impedance' && line.amplifierW === null) return 'power not known'
  const lost = branchesOf(line.output.wiring).every(b => b.lead === null) ? 'loss not known' : `+ ${round(lostW)} lost`
  return `${round(askedW)} ${lost} / ${ratedW === null ? 'not known' : `${round(ratedW)} W`}`
})
const spoken = computed(() => {
  const { askedW, lostW, ratedW, spareW } = figures.value
  const what = line.kind === 'constant-voltage' ? 'asked' : 'given to speakers'
  return `${writeQuantity(askedW, 'W')} ${what}, ${writeQuantity(lostW, 'W')} lost, of ${ratedW === null ? 'a power not known' : writeQuantity(ratedW, 'W')}`
    + (spareW === null ? '' : spareW >= 0 ? `, ${writeQuantity(spareW, 'W')} spare` : `, ${writeQuantity(-spareW, 'W')} over`)
})
</script>

<template>
  <span class="scale">
    <svg :width="WIDTH + 2" height="20" :viewBox="`-1 0 ${WIDTH + 2} 20`" role="img" :aria-label="spoken">
      <title>{{ spoken }}</title>
      <defs>
        <pattern id="lost-hatch" width="4" height="4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)"><line
          x1="0" x2="0" y1="0" y2="4"
          class="hatch" /></pattern>
      </defs>
      <rect x="0" y="5" :width="x(figures.ratedW ?? end)" height="11" class="room" :class="{ unknown: figures.ratedW === null }" />
      <rect x="0" y="5" :width="x(figures.askedW)" height="11" class="asked" :class="{ over: figures.ratedW !== null && figures.askedW > figures.ratedW }" />
      <rect
        :x="x(figures.askedW)" y="5" :width="Math.max(0, x(figures.askedW + figures.lostW) - x(figures.askedW))" height="11" class="lost"
        fill="url(#lost-hatch)" />
      <line
        v-for="(mark, k) in figures.marks" :key="k" :x1="x(mark.w)" :x2="x(mark.w)" :y1="mark.chosen ? 0 : 3" :y2="mark.chosen ? 20 : 18" class="mark"
        :class="{ chosen: mark.chosen }" />
    </svg>
    <span class="figure text">{{ text }}</span>
  </span>
</template>

<style scoped>
.scale { display: inline-flex; align-items: center; gap: 12px; }
.room { fill: var(--paper-raised); stroke: var(--ink); stroke-width: 1; }
.room.unknown { stroke-dasharray: 3 3; }
.asked { fill: var(--ink); }
.asked.over { fill: var(--stop); }
.lost { stroke: var(--ink); stroke-width: .8; }
.hatch { stroke: var(--ink); stroke-width: 1.6; }
.mark { stroke: var(--copper); stroke-width: 1.4; }
.mark.chosen { stroke-width: 3.2; }
.text { font-size: 14px; white-space: nowrap; text-align: right; min-width: 196px; }
@media (max-width: 760px) { .scale { flex-wrap: wrap; gap: 0 10px; } .text { text-align: left; min-width: 0; } }
</style>
