<script setup lang="ts">
import type { Way } from '#core/quick/answer'
import { writeQuantity } from '#core/quantity/write'
import GradeTag from '~/components/GradeTag.vue'

/** Every wiring of the same speakers on the same output, to be taken with one press. */
defineProps<{ ways: readonly Way[], caption: string }>()
const emit = defineEmits<{ take: [way: Way] }>()

const watts = ({ powerW, mostW, grade }: Way) => powerW === null
  ? grade === 'stop' ? 'not allowed' : 'power not known'
  : mostW !== null && mostW > powerW * 1.001 ? `${writeQuantity(powerW, 'W')} to ${writeQuantity(mostW, 'W')}` : writeQuantity(powerW, 'W')
const says = ({ strings, inString }: Way) => inString === 1 ? 'all in parallel' : strings === 1 ? 'all in series' : `${strings} strings of ${inString}`
</script>

<template>
  <table class="ways">
    <caption class="soft">{{ caption }}</caption>
    <tbody>
      <tr v-for="way in ways" :key="way.text">
        <th scope="row">{{ says(way) }}</th>
        <td class="figure">{{ writeQuantity(way.loadOhm, 'Ω') }}</td>
        <td class="figure" :class="{ soft: way.powerW === null }">{{ watts(way) }}</td>
        <td><GradeTag :grade="way.grade" /></td>
        <td><button class="act" type="button" :aria-label="`take it: ${says(way)}`" @click="emit('take', way)">take it</button></td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.ways { border-collapse: collapse; width: 100%; max-width: 600px; }
caption { text-align: left; padding-bottom: 6px; }
th { text-align: left; font-weight: 400; }
th, td { padding: 6px 14px 6px 0; border-top: 1px solid var(--rule); vertical-align: baseline; white-space: nowrap; }
td:last-child { padding-right: 0; text-align: right; }
.act { text-decoration: underline; color: var(--ink); }
@media (max-width: 760px) {
  tr { display: grid; grid-template-columns: 1fr auto auto; gap: 0 14px; border-top: 1px solid var(--rule); padding: 9px 0; align-items: baseline; }
  th, td { border: 0; padding: 3px 0; }
  td:nth-child(3) { grid-row: 2; }
  td:last-child { grid-row: 2; grid-column: 2 / -1; }
  .act { padding: 9px 0 9px 18px; }
}
</style>
