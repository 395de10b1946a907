<script setup lang="ts">
import CheckWalk from '~/stations/check/CheckWalk.vue'
</script>

<template>
  <CheckWalk />
</template>
