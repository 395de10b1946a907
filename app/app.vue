<script setup lang="ts">
import { onMounted } from 'vue'
import { useTheme } from '~/composables/useTheme'
import { useOutboxStore } from '~/stores/outbox'

useTheme().begin()
onMounted(() => useOutboxStore().begin())
</script>

<template>
  <NuxtPage />
</template>
