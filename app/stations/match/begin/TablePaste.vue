<script setup lang="ts">
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import Textarea from 'primevue/textarea'
import type { Branch } from '#core/job/schema'
import type { Cable } from '#core/quantity/cable'
import { newId } from '~/api/ids'
import { EXAMPLE_TABLE, lookAt } from './tablePaste'

/** A table of speakers as a spreadsheet copies it, with all that is wrong in it beside its rows; what can be read is hung by one press. */
const { text: given = '', usual } = defineProps<{ text?: string, usual: { lineV: number, cable: Cable | null } }>()
const emit = defineEmits<{ hang: [branches: Branch[]] }>()
const text = ref(given)
const looked = computed(() => lookAt(text.value, usual, newId))
const unread = computed(() => looked.value.rows.filter(r => r.problem !== null))
const hangs = computed(() => {
  const { branches: { length }, bad } = looked.value
  return length === 0 ? 'Hang them' : bad > 0 ? `Hang the ${length} that can be read` : `Hang all ${length}`
})
</script>

<template>
  <div class="paste">
    <label for="pasted-speakers" class="soft small">Speakers as a spreadsheet copies them: a row each. Columns it knows: no., what it is, tap or impedance,
      its taps, rating, driver, length, cable.</label>
    <Textarea id="pasted-speakers" v-model="text" rows="6" spellcheck="false" wrap="off" class="figure" maxlength="400000" :placeholder="EXAMPLE_TABLE" />
    <p v-if="looked.says" class="small" :class="{ 'error-words': looked.rows.length === 0 }" role="status">{{ looked.says }}</p>
    <ul v-if="unread.length > 0" class="bad" aria-label="Rows that cannot be read">
      <li v-for="row in unread.slice(0, 40)" :key="row.row"><span class="figure row">{{ row.row }}</span> <span class="figure cells">{{ row.text }}</span> <span
        class="error-words">{{ row.problem!.message.replace(/^Row \d+[,:]? ?/, '') }}</span></li>
      <li v-if="unread.length > 40" class="soft small">and {{ unread.length - 40 }} more</li>
    </ul>
    <Button
      :disabled="looked.branches.length === 0" :label="hangs"
      @click="emit('hang', looked.branches)" />
  </div>
</template>

<style scoped>
.paste { display: grid; gap: 8px; justify-items: start; }
.paste :deep(textarea) { width: 100%; font-size: 14px; white-space: pre; overflow-x: auto; }
.bad { list-style: none; width: 100%; max-height: 240px; overflow-y: auto; border-top: 1px solid var(--rule); }
.bad li { display: grid; grid-template-columns: 34px minmax(0, 1fr) minmax(0, 1.4fr); gap: 10px; padding: 4px 0; border-bottom: 1px solid var(--rule);
  font-size: 14.5px; }
.row { text-align: right; color: var(--ink-soft); }
.cells { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
@media (max-width: 760px) { .bad li { grid-template-columns: 26px minmax(0, 1fr); } .bad .error-words { grid-column: 2; } }
</style>
