<script setup lang="ts">
/** How much is kept free for growth: a tenth is 0.1. */
const growth = defineModel<number>({ required: true })
const GROWTHS = [0, 0.1, 0.2, 0.3]
</script>

<template>
  <span class="soft small">Kept free for growth</span>
  <span role="radiogroup" aria-label="kept free for growth" class="taps">
    <button
      v-for="g in GROWTHS" :key="g" type="button" role="radio" class="tap figure" :class="{ on: growth === g }" :aria-checked="growth === g"
      @click="growth = g">{{ g === 0 ? 'none' : `${100 * g} %` }}</button>
  </span>
</template>
