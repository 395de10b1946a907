<script setup lang="ts">
import KeyCap from '~/components/KeyCap.vue'
import { useTheme } from '~/composables/useTheme'

const emit = defineEmits<{ keys: [] }>()
const { night, toggle } = useTheme()
</script>

<template>
  <button class="act" type="button" :aria-pressed="night" @click="toggle">
    {{ night ? 'day' : 'night' }} <KeyCap of="n" />
  </button>
  <button class="act" type="button" @click="emit('keys')">
    keys <KeyCap of="?" />
  </button>
</template>
