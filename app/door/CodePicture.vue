<script setup lang="ts">
import { computed } from 'vue'
import { encode } from 'uqr'

/** A text as a picture that a camera reads. Dark on light also at night: many cameras read no other. */
const { text } = defineProps<{ text: string, label: string }>()
/** Cells of quiet around it, as the standard wants (ISO/IEC 18004). */
const QUIET = 4
const picture = computed(() => {
  const { data, size } = encode(text, { ecc: 'M', border: QUIET })
  const path = data.flatMap((row, y) => row.flatMap((isDark, x) => isDark ? [`M${x} ${y}h1v1h-1z`] : [])).join('')
  return { path, size }
})
</script>

<template>
  <svg class="picture" :viewBox="`0 0 ${picture.size} ${picture.size}`" role="img" :aria-label="label" shape-rendering="crispEdges">
    <rect width="100%" height="100%" fill="#fff" /><path :d="picture.path" fill="#000" />
  </svg>
</template>

<style scoped>
.picture { width: min(210px, 100%); height: auto; display: block; }
@media (forced-colors: active) { .picture { forced-color-adjust: none; } }
</style>
