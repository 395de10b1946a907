<script setup lang="ts">
import Dialog from 'primevue/dialog'
import type { KeyBinding } from '~/composables/keyBinding'
import KeyCap from '~/components/KeyCap.vue'

defineProps<{ bindings: KeyBinding[] }>()
const open = defineModel<boolean>('open', { required: true })

const SHOWN: Record<string, string> = { 'ArrowLeft': '←', 'ArrowRight': '→', 'ArrowUp': '↑', 'ArrowDown': '↓', 'Shift+ArrowLeft': '⇧ ←', 'Shift+ArrowRight': '⇧ →', 'Ctrl+z': 'Ctrl z', 'Ctrl+Z': 'Ctrl ⇧ z', 'Escape': 'Esc', 'Delete': 'Del' }
</script>

<template>
  <Dialog v-model:visible="open" modal header="Keys" :dismissable-mask="true" :style="{ width: 'min(640px, 94vw)' }">
    <dl class="keys">
      <template v-for="binding in bindings" :key="binding.keys.join()">
        <dt>
          <KeyCap v-for="key in binding.shown ? [binding.shown] : binding.keys" :key="key" :of="SHOWN[key] ?? key" />
        </dt>
        <dd>{{ binding.says }}</dd>
      </template>
    </dl>
  </Dialog>
</template>

<style scoped>
.keys { display: grid; grid-template-columns: auto 1fr auto 1fr; gap: 9px 14px; margin: 0; }
dt { display: flex; gap: 4px; justify-content: flex-end; align-items: flex-start; padding-top: 2px; }
dd { margin: 0; }
@media (max-width: 620px) { .keys { grid-template-columns: auto 1fr; } }
</style>
