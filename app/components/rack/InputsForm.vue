<script setup lang="ts">
import { computed, ref } from 'vue'
import { addInput } from '#core/hands/inputs'
import { inputName, sourceName } from '#core/line/sources'
import type { Amplifier } from '#core/job/schema'
import { useJobStore } from '~/stores/job'
import InputPart from './InputPart.vue'

/** The inputs of an amplifier or a mixer, one opened at a time. */
const { amplifier } = defineProps<{ amplifier: Amplifier }>()
const store = useJobStore()
/** The one there is stands open. */
const opened = ref<number | null>(amplifier.inputs.length === 1 ? 0 : null)
const rows = computed(() => amplifier.inputs.map((input, k) => ({ name: inputName(input, k), source: input.source && sourceName(store.opened, input.source) })))
function add(): void {
  if (store.edit(addInput(store.opened, amplifier.id))) opened.value = amplifier.inputs.length
  else store.sayNot('It has as many inputs as are kept.')
}
</script>

<template>
  <div class="inputs">
    <p v-if="rows.length === 0" class="soft small">What comes in is not stated.</p>
    <div v-for="({ name, source }, k) in rows" :key="k" class="row">
      <button class="head" type="button" :aria-expanded="opened === k" @click="opened = opened === k ? null : k">
        <b>{{ name }}</b> <span v-if="source">{{ source }}</span><span v-else class="soft">nothing comes in</span></button>
      <InputPart v-if="opened === k" :amplifier="amplifier" :at="k" />
    </div>
    <p><button class="act" type="button" @click="add">an input more</button></p>
  </div>
</template>

<style scoped>
.inputs { display: grid; gap: 2px; }
.row { border-bottom: 1px solid var(--rule); }
.head { width: 100%; min-height: 34px; border: 0; background: none; text-align: left; cursor: pointer; padding: 4px 0;
  display: flex; gap: 10px; flex-wrap: wrap; }
.head b::before { content: '▸ '; color: var(--ink-soft); }
.head[aria-expanded='true'] b::before { content: '▾ '; }
.act { padding-left: 0; }
@media (pointer: coarse), (max-width: 760px) { .head { min-height: 44px; align-items: center; } }
</style>
