<script setup lang="ts">
import PaperPage from '~/paper/PaperPage.vue'
</script>

<template>
  <PaperPage />
</template>
