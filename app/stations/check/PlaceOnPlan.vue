<script setup lang="ts">
import { computed } from 'vue'
import { boxOf } from '#core/room/outline'
import { useJobStore } from '~/stores/job'

/** Where one stands on the floor of the room, and what is next: the walls, the building's own plan under them where there is one. */
const { nodeId, nextId } = defineProps<{ nodeId: string, nextId: string | null }>()
const store = useJobStore()
const space = computed(() => store.job?.spaces.find(s => s.spots.some(spot => spot.nodeId === nodeId)) ?? null)
const box = computed(() => space.value && boxOf(space.value.outline))
const view = computed(() => box.value ? `${box.value.fromXM - 1} ${box.value.fromYM - 1} ${box.value.lengthM + 2} ${box.value.widthM + 2}` : '')
/** Marks keep their size however large the room is. */
const mark = computed(() => box.value ? Math.max(box.value.lengthM, box.value.widthM) / 34 : 1)
const spots = computed(() => space.value?.spots.filter(s => s.nodeId !== null) ?? [])
const isNextHere = computed(() => nextId !== null && nextId !== nodeId && spots.value.some(s => s.nodeId === nextId))
</script>

<template>
  <figure v-if="space && box" class="on-plan">
    <svg :viewBox="view" role="img" :aria-label="`Where it hangs in ${space.name}`">
      <image
        v-if="space.picture" :href="`/api/photos/${space.picture.hash}`" :width="space.picture.widthPx * space.picture.mPerPx"
          :height="space.picture.heightPx * space.picture.mPerPx"
        :x="-space.picture.widthPx * space.picture.mPerPx / 2" :y="-space.picture.heightPx * space.picture.mPerPx / 2" :opacity="space.picture.fade"
          preserveAspectRatio="none"
        :transform="`translate(${space.picture.xM} ${space.picture.yM}) rotate(${space.picture.turnDeg})`" />
      <polygon :points="space.outline.map(p => `${p.xM},${p.yM}`).join(' ')" class="walls" />
      <g v-for="spot in spots" :key="spot.id" :transform="`translate(${spot.xM} ${spot.yM})`">
        <circle :r="spot.nodeId === nodeId ? mark : mark * .55" class="spot" :class="{ here: spot.nodeId === nodeId }" />
        <circle v-if="spot.nodeId === nextId && nextId !== nodeId" :r="mark * 1.1" class="next" />
      </g>
    </svg>
    <figcaption class="soft small">{{ space.name }}: filled is here{{ isNextHere ? ', ringed is next' : '' }}.</figcaption>
  </figure>
</template>

<style scoped>
.on-plan { border-top: 1px solid var(--rule); padding-top: 6px; }
svg { display: block; width: 100%; max-height: 220px; }
.walls { fill: none; stroke: var(--ink); stroke-width: 2; vector-effect: non-scaling-stroke; }
.spot { fill: var(--paper); stroke: var(--ink); stroke-width: 1.4; vector-effect: non-scaling-stroke; }
.spot.here { fill: var(--ink); }
.next { fill: none; stroke: var(--pen); stroke-width: 2.5; vector-effect: non-scaling-stroke; }
</style>
