<script setup lang="ts">
import { computed, ref } from 'vue'

/** Something kept on this device that cannot be read: saved as a file, or thrown away by a second press. */
const { text, file } = defineProps<{ text: string, file: string }>()
const emit = defineEmits<{ throwAway: [] }>()
const isDoubted = ref(false)
/** As a file, so that it can be kept and shown to somebody who knows. */
const address = computed(() => `data:application/json;charset=utf-8,${encodeURIComponent(text)}`)

function press(): void {
  if (isDoubted.value) emit('throwAway')
  isDoubted.value = true
}
</script>

<template>
  <p role="alert">
    <b>Something kept on this device cannot be read.</b> <span class="soft">It is set aside, not sent: {{ text.slice(0, 80) }}</span>
    <a class="act" :href="address" :download="file">save it as a file</a>
    <button class="act" type="button" @click="press">{{ isDoubted ? 'really throw it away' : 'throw it away' }}</button>
  </p>
</template>
