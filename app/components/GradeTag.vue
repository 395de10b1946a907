<script setup lang="ts">
import type { Grade } from '#core/check/verdict'
import { GRADE_WORDS } from '#core/check/gradeWords'

const { grade, words = '', large = false } = defineProps<{ grade: Grade, words?: string, large?: boolean }>()
</script>

<template>
  <span class="tag" :class="[grade, { large }]">{{ words || GRADE_WORDS[grade] }}</span>
</template>

<style scoped>
.tag {
  display: inline-block; border: 1.5px solid currentcolor; border-radius: 2px; padding: 0 8px; font-weight: 700; font-size: 14px; line-height: 21px;
    white-space: nowrap;
}
.large { font-size: 18px; line-height: 29px; padding: 0 9px; }
.good { color: var(--good); }
.tight { color: var(--tight); }
.stop { color: var(--stop); }
.unknown { color: var(--unknown); border-style: dashed; }
</style>
