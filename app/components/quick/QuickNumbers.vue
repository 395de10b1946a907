<script setup lang="ts">
import { computed } from 'vue'
import type { LineEvaluation } from '#core/line/evaluate'
import { NOT_KNOWN, numberRows } from '#core/quick/numberRows'

const { line } = defineProps<{ line: LineEvaluation }>()

const rows = computed(() => numberRows(line))
</script>

<template>
  <table class="numbers">
    <caption class="hidden-label">The numbers of this line</caption>
    <tbody>
      <tr v-for="row in rows" :key="row.name">
        <th scope="row">{{ row.name }}</th>
        <td class="figure" :class="{ soft: row.figure === NOT_KNOWN }">{{ row.figure }}</td>
        <td class="soft">{{ row.note }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.numbers { border-collapse: collapse; width: 100%; font-size: 15.5px; }
tr { border-bottom: 1px solid var(--rule); }
th { font-weight: 400; text-align: left; padding: 5px 4px; white-space: nowrap; }
td { padding: 5px 8px; }
td.figure { text-align: right; white-space: nowrap; padding-left: 20px; }
</style>
