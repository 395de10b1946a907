<script setup lang="ts">
import ChoiceRow from './ChoiceRow.vue'

/** How much is kept free for growth: a tenth is 0.1. */
const growth = defineModel<number>({ required: true })
const GROWTHS = [0, 0.1, 0.2, 0.3].map(part => ({ value: part, says: part === 0 ? 'none' : `${100 * part} %`, isFigure: true }))
</script>

<template>
  <ChoiceRow v-model="growth" label="kept free for growth" before="Kept free for growth" :choices="GROWTHS" />
</template>
