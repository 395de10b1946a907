<script setup lang="ts">
import WireStation from '~/stations/wire/WireStation.vue'
</script>

<template>
  <WireStation />
</template>
