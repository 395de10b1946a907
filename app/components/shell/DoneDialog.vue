<script setup lang="ts">
import { computed } from 'vue'
import Dialog from 'primevue/dialog'
import type { Undoable } from '#core/job/undo'
import { historyWords } from '#core/job/historyWords'
import { timeOf } from '~/drawing/times'
import { useUnits } from '~/composables/useUnits'
import { useJobStore } from '~/stores/job'

/** What was done in this window, newest first, and back to any of it; what was taken back, and forth again. */
const open = defineModel<boolean>('open', { required: true })
const store = useJobStore()
const { units } = useUnits()

/** `steps`: how many undos lead to before it, or redos to after it. */
const entryOf = ({ original: { id, edit, at } }: Undoable, steps: number) => ({ id, words: historyWords(edit, store.job, units.value), at, steps })
const undone = computed(() => store.stacks.redo.map((entry, k, all) => entryOf(entry, all.length - k)))
const done = computed(() => [...store.stacks.undo].reverse().map((entry, k) => entryOf(entry, k + 1)))

function times(count: number, act: () => void): void {
  for (let k = 0; k < count; k++) act()
}
</script>

<template>
  <Dialog v-model:visible="open" modal header="What was done in this window" :dismissable-mask="true" :style="{ width: 'min(620px, 96vw)' }">
    <p v-if="undone.length + done.length === 0" class="soft">Nothing yet.</p>
    <ol class="list">
      <li v-for="entry in undone" :key="entry.id" class="entry back">
        <span class="figure soft">{{ timeOf(entry.at) }}</span> <span>{{ entry.words }} <span class="soft">taken back</span></span>
        <button class="act" type="button" @click="times(entry.steps, store.redo)">do again up to here</button>
      </li>
      <li v-for="entry in done" :key="entry.id" class="entry">
        <span class="figure soft">{{ timeOf(entry.at) }}</span> <span>{{ entry.words }}</span>
        <button class="act" type="button" @click="times(entry.steps, store.undo)">back to before this</button>
      </li>
    </ol>
  </Dialog>
</template>

<style scoped>
.list { list-style: none; display: grid; }
.entry { display: grid; grid-template-columns: max-content 1fr max-content; gap: 4px 16px; align-items: baseline; padding: 3px 0;
  border-top: 1px solid var(--rule); }
.back { color: var(--ink-soft); }
.act { text-decoration: underline; text-underline-offset: 3px; color: var(--ink); }
@media (max-width: 560px) { .entry { grid-template-columns: max-content 1fr; } .act { grid-column: 2; } }
</style>
