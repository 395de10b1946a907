<script setup lang="ts" generic="T">
import { ref, useId, useTemplateRef, watch } from 'vue'
import InputText from 'primevue/inputtext'
import { InputError } from '#core/quantity/inputError'
import { focused } from '~/composables/elements'

/**
 * A field for one value that is typed as text: read when it is left or Enter is pressed. What cannot be read stays as
 * typed, with the reason under it; nothing is lost and nothing wrong is kept.
 */
const { label, text, read, hint = '', hideLabel = false } = defineProps<{
  label: string
  /** The value as it stands, written out. */
  text: string
  /** Reads what was typed. Throws InputError. */
  read: (typed: string) => T
  hint?: string
  hideLabel?: boolean
}>()
const emit = defineEmits<{ commit: [value: T] }>()

const id = useId()
const typed = ref(text)
const problem = ref('')
watch(() => text, (now) => {
  typed.value = now
  problem.value = ''
})

/** A reason below the edge of the pane would not be read. */
const words = useTemplateRef('words')
watch(problem, () => words.value?.scrollIntoView({ block: 'nearest' }), { flush: 'post' })

/** What was handed on last: a field that is left, or taken away, after Enter does not say it twice. */
let handedOn: string | null = null
watch(() => text, () => { handedOn = null })

function leave(): void {
  if (typed.value !== handedOn) commit()
}

function commit(): void {
  if (typed.value.trim() === text.trim()) {
    typed.value = text
    problem.value = ''
    return
  }
  try {
    const value = read(typed.value.trim())
    problem.value = ''
    handedOn = typed.value
    emit('commit', value)
  }
  catch (error) {
    if (!(error instanceof InputError)) throw error
    problem.value = error.expected.length > 0 ? `${error.message} For example: ${error.expected.slice(0, 3).join(', ')}.` : error.message
  }
}

/** Once it is read the keys are the page's again; Tab goes on from here all the same. A dialog keeps the focus inside. */
function enter(): void {
  commit()
  const field = focused()
  if (problem.value === '' && !field?.closest('[role=dialog], .hanging, .editing')) field?.blur()
}

function giveUp(): void {
  typed.value = text
  problem.value = ''
  focused()?.blur()
}
</script>

<template>
  <div class="entry">
    <label :for="id" :class="{ 'hidden-label': hideLabel }">{{ label }}</label>
    <InputText
      :id="id" v-model="typed" size="small" autocomplete="off" spellcheck="false" maxlength="300" :invalid="problem !== ''" :placeholder="hint"
      :aria-describedby="problem ? `${id}-problem` : undefined" @blur="leave" @keydown.enter="enter" @keydown.esc="giveUp"
    />
    <p v-if="problem" :id="`${id}-problem`" ref="words" class="error-words" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.entry { display: grid; gap: 2px; min-width: 0; }
label { font-size: 13.5px; color: var(--ink-soft); }
.entry :deep(input) { width: 100%; font-size: 15px; }
</style>
