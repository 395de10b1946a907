<script setup lang="ts">
import { computed, useTemplateRef } from 'vue'
import type { InputError } from '#core/quantity/inputError'
import { tokensOf } from '#core/quick/token'

/** The typed line, with its connecting words in copper and an error pointed at by its character. */
const { error = null, large = false, label = 'What do I get if', hint = '' } = defineProps<{ error?: InputError | null, large?: boolean, label?: string, hint?: string }>()
const text = defineModel<string>({ required: true })
const emit = defineEmits<{ enter: [] }>()
const input = useTemplateRef<HTMLInputElement>('input')

const CONNECTING = new Set(['||', '+', 'on', 'parallel', 'series'])

/** The text in pieces: those that connect, and the one at fault. */
const pieces = computed(() => {
  const out: { text: string, kind: 'plain' | 'connects' | 'fault' }[] = []
  let at = 0
  for (const token of tokensOf(text.value)) {
    if (token.at > at) out.push({ text: text.value.slice(at, token.at), kind: 'plain' })
    const fault = error !== null && error.position >= token.at && (error.position < token.end || token.kind === 'end') && error.position - token.at < Math.max(1, token.end - token.at)
    if (token.end > token.at) out.push({ text: text.value.slice(token.at, token.end), kind: fault ? 'fault' : CONNECTING.has(token.text) ? 'connects' : 'plain' })
    else if (fault && text.value.trim() !== '') out.push({ text: ' ', kind: 'fault' })
    at = token.end
  }
  return out
})

/** Puts text in at the caret, with a space where words would run together; the caret goes behind it. */
function insert(piece: string): void {
  const field = input.value!
  const [from, to] = [field.selectionStart ?? text.value.length, field.selectionEnd ?? text.value.length]
  const before = text.value.slice(0, from)
  const gap = before !== '' && !/[\s(]$/.test(before) && !/^[),]/.test(piece) ? ' ' : ''
  text.value = before + gap + piece + text.value.slice(to)
  const caret = from + gap.length + piece.length
  requestAnimationFrame(() => {
    field.focus()
    field.setSelectionRange(caret, caret)
  })
}

/** Takes out the piece before the caret. */
function back(): void {
  const field = input.value!
  const at = field.selectionStart ?? text.value.length
  const kept = text.value.slice(0, at).replace(/\s*(\d+(\.\d*)?|\p{L}+|\|\||\S)\s*$/u, '')
  text.value = kept + text.value.slice(at)
  requestAnimationFrame(() => {
    field.focus()
    field.setSelectionRange(kept.length, kept.length)
  })
}

defineExpose({ insert, back, focus: () => input.value?.focus() })
</script>

<template>
  <div class="line" :class="{ large }">
    <div class="shown" aria-hidden="true">
      <span v-for="(piece, k) in pieces" :key="k" :class="piece.kind">{{ piece.text }}</span>
    </div>
    <input
      ref="input" v-model="text" class="typed" type="text" :aria-label="label" :placeholder="hint"
        spellcheck="false" autocomplete="off" autocapitalize="off" maxlength="2000"
      :aria-invalid="error !== null && text.trim() !== ''" @keydown.enter="emit('enter')" @scroll="($event.target as
        HTMLElement).previousElementSibling!.scrollLeft = ($event.target as HTMLElement).scrollLeft"
    >
  </div>
</template>

<style scoped>
.line { position: relative; border-bottom: 2px solid var(--ink); font: 400 20px/1.5 var(--mono); }
.line.large { font-size: 28px; }
.shown, .typed { font: inherit; padding: 4px; white-space: pre; letter-spacing: 0; }
.shown { position: absolute; inset: 0; overflow: hidden; pointer-events: none; color: var(--ink); }
.typed { width: 100%; border: 0; background: none; color: transparent; caret-color: var(--copper); border-radius: 0; }
.typed:focus-visible { outline: none; }
.typed::placeholder { color: var(--ink-soft); opacity: .75; font-family: var(--sans); }
.line:focus-within { border-bottom-color: var(--copper); }
.typed::selection { background: var(--copper-pale); }
.connects { color: var(--copper); font-weight: 600; }
.fault { color: var(--stop); text-decoration: underline wavy var(--stop) 2px; text-underline-offset: 5px; }
@media (max-width: 760px) { .line.large { font-size: 20px; } }
</style>
