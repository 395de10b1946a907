<script setup lang="ts">
import Checkbox from 'primevue/checkbox'

/** Yes or no, with its words beside it; pressed as one. */
const value = defineModel<boolean>({ required: true })
</script>

<template>
  <label class="check-line small"><Checkbox v-model="value" binary size="small" /> <span><slot /></span></label>
</template>

<style scoped>
.check-line { display: inline-flex; gap: 8px; align-items: center; cursor: pointer; }
</style>
