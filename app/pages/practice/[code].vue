<script setup lang="ts">
import PracticePlay from '~/practice/PracticePlay.vue'
</script>

<template>
  <PracticePlay :key="String($route.params.code)" />
</template>
