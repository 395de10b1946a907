<script setup lang="ts">
import OwnLine from '~/practice/OwnLine.vue'
</script>

<template>
  <OwnLine />
</template>
