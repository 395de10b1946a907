<script setup lang="ts">
import BenchPage from '~/bench/BenchPage.vue'
</script>

<template>
  <BenchPage />
</template>
