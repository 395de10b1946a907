<script setup lang="ts">
import { ref } from 'vue'
import InputText from 'primevue/inputtext'
import { useJobStore } from '~/stores/job'

/** The name of the job in a field, to be typed over. Enter and leaving it keep what stands there; Escape keeps the name of before. */
const emit = defineEmits<{ done: [] }>()
const store = useJobStore()
const name = ref(store.job?.name ?? '')
let isDone = false

function finish(keep: boolean): void {
  if (isDone || !store.job) return
  isDone = true
  emit('done')
  const to = name.value.trim()
  if (keep && to !== '' && to !== store.job.name) store.edit({ kind: 'job.set', was: { name: store.job.name }, to: { name: to } })
}
</script>

<template>
  <div class="rename">
    <InputText
      v-model="name" aria-label="Name of the job" maxlength="120" @keydown.enter="finish(true)" @keydown.esc="finish(false)" @blur="finish(true)" />
  </div>
</template>

<style scoped>
/* Over the page, not in it: a page that jumps as this closes takes the press away that closed it. */
.rename { position: absolute; z-index: 6; left: 0; right: 0; padding: 8px 22px; background: var(--paper); border-bottom: 1px solid var(--rule); }
.rename :deep(input) { width: min(520px, 100%); }
</style>
