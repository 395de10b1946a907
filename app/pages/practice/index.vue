<script setup lang="ts">
import PracticeList from '~/practice/PracticeList.vue'
</script>

<template>
  <PracticeList />
</template>
