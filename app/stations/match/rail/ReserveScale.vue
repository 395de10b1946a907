<script setup lang="ts">
import { computed, ref, useId } from 'vue'
import type { HeadFigures } from '#core/line/headFigures'

/** What one output gives, against what it can give (a line) or against its floor (low impedance). Red is what is not allowed. */
const { figures } = defineProps<{ figures: HeadFigures }>()

const WIDTH = 168
const isOpen = ref(false)
const id = useId()

const end = computed(() => Math.max(figures.room ?? 0, figures.used + figures.lost) || 1)
const x = (value: number) => Math.min(WIDTH, value / end.value * WIDTH)
const spoken = computed(() => [figures.says, figures.parts].filter(Boolean).join(', '))
</script>

<template>
  <span class="scale">
    <button
      class="bar" type="button" :aria-expanded="isOpen" :aria-controls="id" :aria-label="`${spoken}. What the marks are`" @click.stop="isOpen = true"
      @focus="isOpen = true" @blur="isOpen = false" @keydown.esc.stop="isOpen = false" @mouseenter="isOpen = true"
      @mouseleave="isOpen = false"><svg :width="WIDTH + 2" height="20" :viewBox="`-1 0 ${WIDTH + 2} 20`" aria-hidden="true">
      <defs>
        <pattern id="lost-hatch" width="4" height="4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)"><line
          x1="0" x2="0" y1="0" y2="4"
          class="hatch" /></pattern>
      </defs>
      <rect x="0" y="5" :width="x(figures.room ?? end)" height="11" class="room" :class="{ unknown: figures.room === null }" />
      <rect x="0" y="5" :width="x(figures.used)" height="11" class="used" :class="{ over: figures.isOver }" />
      <rect
        :x="x(figures.used)" y="5" :width="Math.max(0, x(figures.used + figures.lost) - x(figures.used))" height="11" class="lost"
        fill="url(#lost-hatch)" />
      <line
        v-for="(mark, k) in figures.marks" :key="k" :x1="x(mark.at)" :x2="x(mark.at)" :y1="mark.chosen ? 0 : 3" :y2="mark.chosen ? 20 : 18" class="mark"
        :class="{ chosen: mark.chosen }" />
    </svg></button>
    <span v-if="isOpen" :id="id" class="marks small" role="note">
      <span>{{ spoken }}</span>
      <span v-for="mark in figures.marks" :key="mark.says" :class="{ chosen: mark.chosen }">{{ mark.says }}</span>
    </span>
    <span class="figure text" :class="{ over: figures.isOver }">{{ figures.says }}</span>
  </span>
</template>

<style scoped>
.scale { display: inline-flex; align-items: center; gap: 12px; }
.scale { position: relative; }
.bar { border: 0; background: none; padding: 2px 0; margin-block: -2px; display: inline-flex; cursor: help; }
.marks { position: absolute; z-index: 6; left: 0; top: 26px; width: max-content; max-width: min(340px, 86vw); display: grid; gap: 2px; padding: 8px 12px;
  background: var(--paper-raised); border: 1.5px solid var(--ink); }
.marks .chosen { font-weight: 600; }
.room { fill: var(--paper-raised); stroke: var(--ink); stroke-width: 1; }
.room.unknown { stroke-dasharray: 3 3; }
.used { fill: var(--ink); }
.used.over { fill: var(--stop); }
.lost { stroke: var(--ink); stroke-width: .8; }
.hatch { stroke: var(--ink); stroke-width: 1.6; }
.mark { stroke: var(--ink-soft); stroke-width: 1.4; }
.mark.chosen { stroke: var(--pen); stroke-width: 3.4; }
.text { font-size: 14px; white-space: nowrap; }
.text.over { color: var(--stop); }
@media (pointer: coarse), (max-width: 760px) { .bar { margin-block: -12px; align-items: center; } }
@media (max-width: 420px) { .scale { flex-wrap: wrap; gap: 0 10px; } }
</style>
