<script setup lang="ts">
import { nextTick, onMounted, ref, useTemplateRef } from 'vue'
import InputText from 'primevue/inputtext'

/** Where a speaker or a line is looked for by its words. */
const emit = defineEmits<{ found: [words: string], close: [] }>()
const words = ref('')
const box = useTemplateRef<HTMLElement>('box')

onMounted(async () => {
  await nextTick()
  box.value?.querySelector('input')?.focus()
})
</script>

<template>
  <div ref="box" class="seek" role="search">
    <InputText
      v-model="words" aria-label="Find a speaker or a line" placeholder="A2 07, roof walk, horn…" maxlength="80"
      @keydown.enter="emit('found', words)" @keydown.esc="emit('found', '')" @blur="emit('close')"
    />
  </div>
</template>

<style scoped>
.seek { position: fixed; top: 96px; left: 50%; translate: -50%; z-index: 10; background: var(--paper); border: 1.5px solid var(--ink); padding: 10px; }
.seek :deep(input) { width: min(340px, 80vw); }
</style>
