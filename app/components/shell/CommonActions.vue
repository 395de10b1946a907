<script setup lang="ts">
import KeyCap from '~/components/KeyCap.vue'
import { useTheme } from '~/composables/useTheme'

defineProps<{ hasFind?: boolean }>()
const emit = defineEmits<{ keys: [], find: [] }>()
const { night, toggle } = useTheme()
</script>

<template>
  <button v-if="hasFind" class="act" type="button" @click="emit('find')">
    find <KeyCap of="/" />
  </button>
  <button class="act" type="button" :aria-pressed="night" @click="toggle">
    {{ night ? 'day' : 'night' }} <KeyCap of="n" />
  </button>
  <button class="act" type="button" @click="emit('keys')">
    keys <KeyCap of="?" />
  </button>
</template>
