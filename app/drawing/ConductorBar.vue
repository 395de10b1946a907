<script setup lang="ts">
import { computed } from 'vue'
import type { Conductor } from '#core/gear/conductor'
import { colourOf } from './conductorColours'

/** A piece of a conductor: its insulation, and its stripe as slanted bands. Its name stands beside it, by whoever draws it. Null: not known. */
const { wire, width = 60 } = defineProps<{ wire: Conductor | null, width?: number }>()
const HEIGHT = 10
const base = computed(() => wire === null ? null : colourOf(wire.base))
const isOdd = computed(() => wire !== null && base.value === null)
const bands = computed(() => Array.from({ length: Math.ceil(width / 13) }, (_, k) => `M${k * 13 + 5} ${0.5} h6 l-5 ${HEIGHT - 1} h-6 z`).join(' '))
const hatch = computed(() => Array.from({ length: Math.ceil(width / 6) }, (_, k) => `M${k * 6} ${HEIGHT} l6 ${-HEIGHT}`).join(' '))
</script>

<template>
  <svg :width="width" :height="HEIGHT" :viewBox="`0 0 ${width} ${HEIGHT}`" aria-hidden="true">
    <rect x="0.5" y="0.5" :width="width - 1" :height="HEIGHT - 1" :fill="base ?? 'none'" class="wire" :class="{ unknown: wire === null }" />
    <path v-if="isOdd" :d="hatch" class="odd" />
    <path v-if="wire && wire.stripe !== ''" :d="bands" :fill="colourOf(wire.stripe) ?? 'var(--ink)'" />
  </svg>
</template>

<style scoped>
svg { flex: none; overflow: hidden; }
.wire { stroke: var(--ink); stroke-width: .8; }
.wire.unknown { stroke-dasharray: 4 3; stroke: var(--ink-soft); }
.odd { stroke: var(--ink-soft); stroke-width: 1; fill: none; }
</style>
