<script setup lang="ts">
/** On every screen of practice. */
</script>

<template>
  <p class="world"><b>Practice.</b> A world of its own: nothing here touches a job, and no unit is harmed.</p>
</template>

<style scoped>
.world { border: 1.5px dashed var(--ink-soft); padding: 5px 12px; font-size: 14.5px; }
</style>
