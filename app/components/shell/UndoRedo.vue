<script setup lang="ts">
import KeyCap from '~/components/KeyCap.vue'
import { useJobStore } from '~/stores/job'

/** What was done last taken back, and done again: by a press, with its name. */
const store = useJobStore()
</script>

<template>
  <button
    class="act" type="button" :disabled="!store.canUndo" :title="store.undoName && `take back: ${store.undoName}`"
    @click="store.undo()">undo <KeyCap of="u" /></button>
  <button
    class="act" type="button" :disabled="!store.canRedo" :title="store.redoName && `do again: ${store.redoName}`"
    @click="store.redo()">redo <KeyCap of="U" /></button>
</template>
