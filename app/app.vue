<script setup lang="ts">
import { useTheme } from '~/composables/useTheme'

useTheme().begin()
</script>

<template>
  <NuxtPage />
</template>
