<script setup lang="ts">
import type { InputError } from '#core/quantity/inputError'
import { MisspeltError } from '#core/quick/misspelt'
import KeyCap from '~/components/KeyCap.vue'

/** `calm`: it is answered all the same, and is a question more than an error. */
const { error, calm = false } = defineProps<{ error: InputError, calm?: boolean }>()
const emit = defineEmits<{ insert: [piece: string], mend: [line: string] }>()

/** Descriptions are told, not inserted. */
const isPiece = (text: string) => !text.startsWith('an ') && !text.startsWith('a ')
</script>

<template>
  <div class="wrong" role="status">
    <p :class="calm ? 'question' : 'error-words'">
      {{ error.message }}
    </p>
    <p v-if="error instanceof MisspeltError" class="could">
      <button class="piece" type="button" @mousedown.prevent @click="emit('mend', error.mended)">{{ error.meant }}</button> <KeyCap of="Enter" />
    </p>
    <p v-else-if="error.expected.length > 0" class="could soft">
      <span>Here could stand</span>
      <template v-for="text in error.expected" :key="text">
        <button v-if="isPiece(text)" class="piece" type="button" @mousedown.prevent @click="emit('insert', text)">{{ text }}</button>
        <span v-else>{{ text }}</span>
      </template>
    </p>
  </div>
</template>

<style scoped>
.question { font-size: 17px; }
.wrong { display: grid; gap: 6px; }
.could { display: flex; flex-wrap: wrap; gap: 6px 9px; align-items: center; font-size: 15px; }
.piece { border: 1px solid var(--rule-strong); background: var(--paper-raised); border-radius: 2px; font: 600 14px/1 var(--mono); padding: 5px 7px;
  cursor: pointer; color: var(--ink); }
.piece:hover { border-color: var(--ink); }
</style>
