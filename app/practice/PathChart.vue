<script setup lang="ts">
import { computed, ref } from 'vue'
import { ticks } from 'd3-array'
import type { PathStep } from '#core/practice/path'
import { useWidth } from '~/composables/useWidth'

/** The way that was gone: how likely what was hidden was after each act, over the minutes; where the lead was lost is marked. */
const { path, lost } = defineProps<{ path: readonly PathStep[], lost: number | null }>()
const frame = ref<HTMLElement | null>(null)
const width = useWidth(frame)
const box = computed(() => ({ left: 44, right: 14, top: 16, width: width.value, height: 150 }))
const most = computed(() => Math.max(5, path.at(-1)?.atMin ?? 0))
const x = (minute: number) => box.value.left + (box.value.width - box.value.left - box.value.right) * minute / most.value
const y = (chance: number) => box.value.top + box.value.height * (1 - chance)
/** As it stood until the next act was done: steps, not slopes. */
const line = computed(() => path.reduce((d, p, k) => `${d} H${x(p.atMin).toFixed(1)} V${y(p.truth).toFixed(1)}${k === path.length - 1 ? ` H${x(most.value).toFixed(1)}` : ''}`, `M${x(0)} ${y(0)}`))
const spoken = computed(() => `How likely what was hidden was, after each act: ${path.map((p, k) => `${k + 1}: ${Math.round(100 * p.truth)} in 100`).join('; ')}${lost === null ? '' : `; the lead was lost at ${lost + 1}`}`)
</script>

<template>
  <div ref="frame" class="frame">
    <svg :width="box.width" :height="box.top + box.height + 40" role="img" :aria-label="spoken">
      <g v-for="share in [0, 0.5, 1]" :key="share"><line :x1="box.left - 4" :x2="box.width - box.right" :y1="y(share)" :y2="y(share)" class="grid" /><text
        :x="box.left - 8" :y="y(share) + 4" class="tick right">{{ share === 1 ? 'sure' : share === 0 ? '0' : 'half' }}</text></g>
      <g v-for="tick in ticks(0, most, 6)" :key="tick"><text :x="x(tick)" :y="box.top + box.height + 17" class="tick mid">{{ tick }}</text></g>
      <text :x="box.width - box.right" :y="box.top + box.height + 36" class="tick right">minutes</text>
      <path :d="line" class="way" />
      <g v-for="(p, k) in path" :key="k">
        <circle :cx="x(p.atMin)" :cy="y(p.truth)" :r="k === lost ? 9 : 4.5" class="act-dot" :class="{ lost: k === lost }" />
        <text v-if="k === lost" :x="Math.min(x(p.atMin), box.width - 90)" :y="y(p.truth) > 40 ? y(p.truth) - 14 : y(p.truth) + 24" class="says">lost here</text>
      </g>
    </svg>
  </div>
</template>

<style scoped>
.frame { max-width: 720px; min-width: 0; }
svg { display: block; }
.grid { stroke: var(--rule); stroke-width: 1; }
.tick { font-size: 13px; fill: var(--ink-soft); }
.right { text-anchor: end; }
.mid { text-anchor: middle; }
.way { fill: none; stroke: var(--ink); stroke-width: 1.8; }
.act-dot { fill: var(--ink); }
.act-dot.lost { fill: none; stroke: var(--stop); stroke-width: 2.5; }
.says { fill: var(--stop); font-size: 14px; font-weight: 700; text-anchor: middle; }
</style>
