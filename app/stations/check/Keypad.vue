<script setup lang="ts">
/** For a thumb: digits, the unit, open; then record, and once that is done, on to the next place, or to the trace of what reads wrong. */
const { canRecord, isDone, isWrong } = defineProps<{ canRecord: boolean, isDone: boolean, isWrong: boolean }>()
const emit = defineEmits<{ press: [text: string], back: [], record: [], next: [], trace: [] }>()
const ROWS = [['7', '8', '9', 'k'], ['4', '5', '6', 'open'], ['1', '2', '3', 'back'], ['.', '0']]

function press(key: string): void {
  if (key === 'back') emit('back')
  else emit('press', key)
}
</script>

<template>
  <div class="keypad" role="group" aria-label="Number keys">
    <template v-for="row in ROWS" :key="row.join()">
      <button
        v-for="key in row" :key="key" type="button" class="key" :class="{ word: key.length > 1 || key === 'k' }"
        :aria-label="key === 'k' ? 'kΩ, kilo-ohm' : key" @click="press(key)">
        {{ key === 'k' ? 'kΩ' : key }}
      </button>
    </template>
    <button v-if="isDone && isWrong" type="button" class="key word" @click="emit('trace')">Trace it</button>
    <span v-else class="key" />
    <button v-if="isDone && !canRecord" type="button" class="key record" @click="emit('next')">Next place</button>
    <button v-else type="button" class="key record" :disabled="!canRecord" @click="emit('record')">Record</button>
  </div>
</template>

<style scoped>
.keypad { display: grid; grid-template-columns: repeat(4, 1fr); border-top: 1px solid var(--rule); border-left: 1px solid var(--rule); }
.key { border: 0; border-right: 1px solid var(--rule); border-bottom: 1px solid var(--rule); background: var(--paper-raised); font-size: 21px;
  font-weight: 600; min-height: 58px; cursor: pointer; touch-action: manipulation; }
.key:active { background: var(--wash); }
.word { font-size: 16px; color: var(--ink-soft); }
.record { background: var(--ink); color: var(--paper); font-size: 17px; }
@media (max-width: 360px) { .word, .record { font-size: 15px; padding: 0 2px; } }
.record:disabled { background: var(--wash); color: var(--ink-soft); }
</style>
