<script setup lang="ts">
import Dialog from 'primevue/dialog'
import type { Branch } from '#core/job/schema'
import type { Cable } from '#core/quantity/cable'
import TablePaste from '../begin/TablePaste.vue'

/** A pasted table of which rows cannot be read: all that is wrong at once, to be mended here. */
const open = defineModel<boolean>('open', { required: true })
const { text, usual } = defineProps<{ text: string, usual: { lineV: number, cable: Cable | null } }>()
const emit = defineEmits<{ hang: [branches: Branch[]] }>()

function hang(branches: Branch[]): void {
  open.value = false
  emit('hang', branches)
}
</script>

<template>
  <Dialog v-model:visible="open" modal header="This table cannot be hung as it is" :style="{ width: 'min(760px, 96vw)' }">
    <TablePaste :text="text" :usual="usual" @hang="hang" />
  </Dialog>
</template>
