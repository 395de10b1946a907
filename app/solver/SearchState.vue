<script setup lang="ts">
/** How a search beside the page stands: why it came to no end, or that it is at work and can be called off. */
defineProps<{ problem: string, isSlow: boolean, doing: string }>()
const emit = defineEmits<{ again: [], stop: [] }>()
</script>

<template>
  <p v-if="problem" class="error-words" role="alert">{{ problem }} <button class="act" type="button" @click="emit('again')">try again</button></p>
  <p v-else-if="isSlow" class="soft" role="status">{{ doing }} <button class="act" type="button" @click="emit('stop')">stop</button></p>
</template>
