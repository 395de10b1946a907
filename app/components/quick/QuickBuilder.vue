<script setup lang="ts">
/** Builds a line by tapping: only pieces that can stand next are live. */
const { next } = defineProps<{ next: readonly string[] }>()
const emit = defineEmits<{ insert: [piece: string], back: [], clear: [] }>()

/** Each key and what the reader of the line must be looking for so that it can stand there. */
const ROWS: { says: string, keys: { text: string, when: string[] }[] }[] = [
  { says: 'speakers', keys: ['4', '8', '16'].map(text => ({ text, when: ['an impedance, as 8', 'an impedance, as 4', 'an impedance, as 2'] })) },
  { says: 'taps', keys: ['5 W', '10 W', '20 W', '30 W'].map(text => ({ text, when: ['a tap, as 5 W'] })) },
  { says: 'so many', keys: ['2 x', '4 x', '6 x', '12 x'].map(text => ({ text, when: ['4 x'] })) },
  {
    says: 'joined', keys: [
      { text: '+', when: ['+'] }, { text: '||', when: ['||'] }, { text: '(', when: ['('] }, { text: ')', when: [')'] },
      { text: 'parallel', when: ['parallel'] }, { text: 'series', when: ['series'] },
    ],
  },
  {
    says: 'amplifier', keys: [
      { text: 'on 70 V', when: ['on', 'on 70 V'] }, { text: 'on 100 V', when: ['on', 'on 100 V'] }, { text: '120 W', when: ['120 W'] }, { text: '250 W', when: ['120 W'] },
      { text: 'on 300 W at 4', when: ['on'] }, { text: '300 W at 4', when: ['300 W at 4'] }, { text: ', 180 W at 8', when: [', 180 W at 8'] }, { text: ', from 2', when: [', from 2'] },
    ],
  },
]

const isLive = (when: string[]) => when.some(w => next.includes(w))
</script>

<template>
  <div class="builder" role="group" aria-label="Build the line by tapping">
    <div v-for="row in ROWS" :key="row.says" class="row">
      <span class="says soft small">{{ row.says }}</span>
      <button
        v-for="key in row.keys" :key="key.text" class="piece" type="button" :disabled="!isLive(key.when)" @mousedown.prevent
        @click="emit('insert', key.text)">
        {{ key.text }}
      </button>
    </div>
    <div class="row">
      <span class="says soft small">mend</span>
      <button class="piece" type="button" @mousedown.prevent @click="emit('back')">take back</button>
      <button class="piece" type="button" @mousedown.prevent @click="emit('clear')">clear</button>
    </div>
  </div>
</template>

<style scoped>
.builder { display: flex; flex-wrap: wrap; gap: 8px 22px; padding: 10px 0 2px; }
.row { display: flex; flex-wrap: wrap; gap: 5px; align-items: center; }
.says { margin-right: 3px; }
.piece { border: 1px solid var(--rule-strong); background: var(--paper-raised); border-radius: 2px; font: 600 14px/1 var(--mono); padding: 8px 9px;
  cursor: pointer; min-width: 36px; white-space: pre; }
.piece:hover:not(:disabled) { border-color: var(--ink); background: var(--wash); }
.piece:disabled { opacity: .35; cursor: default; }
@media (max-width: 760px) { .piece { padding: 12px 12px; font-size: 16px; } }
</style>
