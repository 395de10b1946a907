<script setup lang="ts">
defineProps<{ of: string }>()
</script>

<template>
  <kbd class="keycap">{{ of }}</kbd>
</template>

<style scoped>
.keycap {
  font: 600 12px/1.5 var(--mono); color: var(--ink); background: var(--paper-raised); border: 1px solid var(--rule); border-radius: 2px;
  padding: 0 5px; min-width: 19px; text-align: center; display: inline-block; white-space: nowrap;
}
</style>
