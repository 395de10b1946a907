<script setup lang="ts">
import { nextTick, useTemplateRef, watch } from 'vue'
import Dialog from 'primevue/dialog'
import SearchState from './SearchState.vue'

/**
 * The frame of a search: its question, how it stands (at work and can be stopped, came to no end and can be tried again), its answers. Enter does the
 * first answer, the one with `autofocus`, without looking for its button.
 */
const { isAnswered, away = '' } = defineProps<{
  header: string
  widthPx: number
  problem: string
  isSlow: boolean
  doing: string
  isAnswered: boolean
  /** Why what is searched among could not be read; empty where it could. */
  away?: string
}>()
const emit = defineEmits<{ again: [], stop: [], read: [] }>()
const open = defineModel<boolean>('open', { required: true })
const inside = useTemplateRef<HTMLElement>('inside')

/** Once: later answers must not take the focus from a hand. */
let isFirst = true
function focusFirst(): void {
  if (isFirst && isAnswered) inside.value?.querySelector<HTMLElement>('[autofocus]:not([autofocus=false])')?.focus()
}
/**
 * For a moment the focus is not ours alone: this dialog puts it on its closing button as it opens, and one that is just closing (Escape, the next
 * key) gives it back to the page. What is outside of a dialog that is open is no place for it.
 */
function holdFocus(checks = 14): void {
  const dialog = inside.value?.closest('[role=dialog]')
  const has = document.activeElement
  if (dialog && (!dialog.contains(has) || has?.closest('.p-dialog-header'))) focusFirst()
  if (checks > 0 && open.value) setTimeout(() => holdFocus(checks - 1), 50)
  else isFirst = false
}
watch(() => isAnswered, async (now) => {
  if (!now) return
  await nextTick()
  focusFirst()
  holdFocus()
}, { immediate: true })
</script>

<template>
  <Dialog v-model:visible="open" modal :header="header" :dismissable-mask="true" :style="{ width: `min(${widthPx}px, 96vw)` }" @show="focusFirst">
    <div ref="inside">
      <slot name="question" />
      <p v-if="away" class="error-words" role="alert">{{ away }} <button class="act" type="button" @click="emit('read')">try again</button></p>
      <template v-else>
        <SearchState :problem="problem" :is-slow="isSlow" :doing="doing" @again="emit('again')" @stop="emit('stop')" />
        <slot />
      </template>
    </div>
  </Dialog>
</template>
