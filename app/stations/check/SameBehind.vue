<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Output, Reading } from '#core/job/schema'
import { newId } from '~/api/ids'
import { useJobStore } from '~/stores/job'
import { behindOf, sameUpTo } from './sameBehind'

/** As it should be here, and so on up to another: only what is heard or seen, and well. */
const { output, nodeId, reading } = defineProps<{ output: Output, nodeId: string, reading: () => Reading }>()
const store = useJobStore()
const upTo = ref('')
const behind = computed(() => behindOf(output, nodeId))

function record(): void {
  const label = behind.value.find(s => s.id === upTo.value)?.label ?? ''
  if (store.edit(sameUpTo(output, reading(), upTo.value, newId))) store.say(`As here, up to ${label}: kept as one act`)
  upTo.value = ''
}
</script>

<template>
  <p v-if="behind.length > 0" class="same">
    <label class="soft small">as here, up to <select v-model="upTo" aria-label="As here, up to which speaker"><option value="">–</option>
      <option v-for="s in behind" :key="s.id" :value="s.id">{{ s.label }}</option></select></label>
    <button class="act" type="button" :disabled="upTo === ''" @click="record">record them</button></p>
</template>

<style scoped>
.same { display: flex; flex-wrap: wrap; gap: 4px 12px; align-items: center; }
.same select { font: inherit; color: inherit; background: var(--paper-raised); border: 1px solid var(--ink); padding: 4px 8px; min-height: 40px; }
</style>
