<script setup lang="ts">
import { computed, useTemplateRef } from 'vue'
import type { InputError } from '#core/quantity/inputError'
import { MisspeltError } from '#core/quick/misspelt'
import { piecesOf } from '#core/quick/pieces'

/** The typed line, with its connecting words underlined and an error pointed at by its character. */
const { error = null, large = false, label = 'What do I get if', hint = '' } = defineProps<{ error?: InputError | null, large?: boolean, label?: string, hint?: string }>()
const text = defineModel<string>({ required: true })
const emit = defineEmits<{ enter: [] }>()
const input = useTemplateRef<HTMLInputElement>('input')

/** The text in pieces: those that connect, and the one at fault. */
const pieces = computed(() => {
  const isFault = ({ at, end }: { at: number, end: number }) => error !== null && error.position >= at && error.position < end
  const shown = piecesOf(text.value).map(piece => ({ text: piece.text, kind: isFault(piece) ? 'fault' : piece.connects ? 'connects' : 'plain' }))
  // What is missing at the end is pointed at behind it.
  const isMissing = error !== null && error.position >= text.value.length && text.value.trim() !== ''
  return isMissing ? [...shown, { text: ' ', kind: 'fault' }] : shown
})

/** Puts text in at the caret, or at a place of the text, with a space where words would run together; the caret goes behind it. */
function insert(piece: string, place?: number): void {
  const field = input.value!
  const [from, to] = place === undefined ? [field.selectionStart ?? text.value.length, field.selectionEnd ?? text.value.length] : [place, place]
  const before = text.value.slice(0, from)
  const after = text.value.slice(to)
  const gap = before !== '' && !/[\s(]$/.test(before) && !/^[),]/.test(piece) ? ' ' : ''
  const gapAfter = after !== '' && !/^[\s),]/.test(after) ? ' ' : ''
  text.value = before + gap + piece + gapAfter + after
  const caret = from + gap.length + piece.length
  requestAnimationFrame(() => {
    field.focus()
    field.setSelectionRange(caret, caret)
  })
}

/** Enter takes the line, or first the word that is meant. */
function enter(): void {
  if (error instanceof MisspeltError) text.value = error.mended
  else emit('enter')
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
      :aria-invalid="error !== null && text.trim() !== ''" @keydown.enter="enter" @scroll="($event.target as
        HTMLElement).previousElementSibling!.scrollLeft = ($event.target as HTMLElement).scrollLeft"
    >
  </div>
</template>

<style scoped>
.line { position: relative; border-bottom: 2px solid var(--ink); font: 400 20px/1.5 var(--mono); }
.line.large { font-size: 28px; }
.shown, .typed { font: inherit; padding: 4px; white-space: pre; letter-spacing: 0; }
.shown { position: absolute; inset: 0; overflow: hidden; pointer-events: none; color: var(--ink); }
.typed { width: 100%; border: 0; background: none; color: transparent; caret-color: var(--pen); border-radius: 0; }
.typed:focus-visible { outline: none; }
.typed::placeholder { color: var(--ink-soft); opacity: .75; font-family: var(--sans); }
.line:focus-within { border-bottom-color: var(--pen); }
.typed::selection { background: color-mix(in srgb, var(--pen) 30%, var(--paper)); }
.connects { font-weight: 700; text-decoration: underline; text-decoration-color: var(--rule-strong); text-underline-offset: 5px; }
.fault { color: var(--stop); text-decoration: underline wavy var(--stop) 2px; text-underline-offset: 5px; }
@media (max-width: 760px) { .line.large { font-size: 20px; } }
</style>
