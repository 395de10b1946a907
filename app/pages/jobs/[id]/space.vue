<script setup lang="ts">
import SpaceStation from '~/stations/space/SpaceStation.vue'
</script>

<template>
  <SpaceStation />
</template>
