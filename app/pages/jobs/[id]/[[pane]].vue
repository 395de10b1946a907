<script setup lang="ts">
import { definePageMeta } from '#imports'
import RunSheet from '~/stations/match/RunSheet.vue'

// Match and Trace are one sheet with another pane beside it: going from one to the other draws no rail again.
definePageMeta({ key: route => `sheet ${String(route.params.id)}`, validate: route => ['', 'trace'].includes(String(route.params.pane ?? '')) })
</script>

<template>
  <RunSheet />
</template>
