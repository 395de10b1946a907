<script setup lang="ts">
import { computed } from 'vue'
import { headOf } from '#core/gear/csv'
import type { GearKind, Model } from '#core/gear/models'
import { differences } from '~/gear/list'

/** Two or three models side by side: what differs, and how much is alike. */
const { kind, models } = defineProps<{ kind: GearKind, models: { id: string, body: Model }[] }>()
const emit = defineEmits<{ close: [] }>()
const rows = computed(() => differences(kind, models.map(m => m.body)))
</script>

<template>
  <section class="compare" aria-label="Side by side">
    <table>
      <thead><tr><th scope="col" class="soft">what differs</th><th v-for="model in models" :key="model.id" scope="col">{{ model.body.name }}</th></tr></thead>
      <tbody>
        <tr v-for="row in rows.filter(r => r.column.key !== 'name')" :key="row.column.key">
          <th scope="row" class="soft">{{ headOf(row.column) }}</th>
          <td v-for="(says, k) in row.says" :key="k" :class="{ figure: row.column.cell === 'number' }">{{ says === '' ? 'not stated' : says }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="rows.length === 0" class="soft">They are the same in everything.</p>
    <button class="act" type="button" @click="emit('close')">done comparing</button>
  </section>
</template>

<style scoped>
.compare { border: 1.5px solid var(--ink); background: var(--paper-raised); padding: 10px 14px; display: grid; gap: 8px;
  max-height: 46vh; overflow: auto; justify-items: start; }
table { border-collapse: collapse; }
th, td { text-align: left; padding: 3px 22px 3px 0; border-bottom: 1px solid var(--rule); vertical-align: top; font-size: 15px; }
th.soft { font-weight: 400; }
</style>
