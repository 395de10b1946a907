<script setup lang="ts">
import { computed } from 'vue'
import { floorOhm } from '#core/amplifier/index'
import type { LineEvaluation } from '#core/match/evaluate'
import { writeQuantity } from '#core/quantity/write'

const { line } = defineProps<{ line: LineEvaluation }>()

interface Row { name: string, figure: string, note: string }

const PARTS: Record<number, string> = { 2: 'half', 3: 'a third', 4: 'a quarter' }
const NOT_KNOWN = 'not known'
const quantity = (value: number | null, unit: 'Ω' | 'W' | 'V') => value === null ? NOT_KNOWN : writeQuantity(value, unit)

const rows = computed((): Row[] => line.kind === 'constant-voltage' ? distributed() : plain())

function plain(): Row[] {
  const { rating } = line.output
  const shares = line.drops.map(d => d.share)
  const equal = Math.max(...shares) - Math.min(...shares) < 1e-6
  const powers = line.drops.flatMap(d => d.powerW === null ? [] : [d.powerW])
  const each = powers.length === 0
    ? NOT_KNOWN
    : equal ? writeQuantity(powers[0]!, 'W') : `${writeQuantity(Math.min(...powers), 'W')} to ${writeQuantity(Math.max(...powers), 'W')}`
  const floor = rating.kind === 'solid-state' ? floorOhm(rating) : null
  const share = line.drops.length === 1 ? 'the one driver' : equal ? `${PARTS[line.drops.length] ?? `1/${line.drops.length}`} each: equal` : 'unequal: see the drawing'
  const basis = { 'rated': 'rated here', 'between': 'between two rated loads', 'above': 'above its highest rated load', 'not-rated': 'at least; not rated here', 'under-floor': 'asked for, not allowed', 'line': '' }
  return [
    { name: 'load, nominal', figure: quantity(line.loadOhm, 'Ω'), note: line.lowest?.from === 'label' ? `may go down to ${writeQuantity(line.lowest.ohm, 'Ω')} by the label; curve not known` : '' },
    { name: 'from this output', figure: quantity(line.drive?.powerW ?? null, 'W'), note: line.drive ? basis[line.drive.basis] : 'name it after “on”' },
    { name: line.drops.length === 1 ? 'the driver' : 'each driver', figure: each, note: share },
    {
      name: 'output’s floor', figure: quantity(floor, 'Ω'),
      note: floor === null || line.loadOhm === null ? '' : line.loadOhm >= 1.95 * floor ? 'twice that: safe' : line.loadOhm >= floor * 0.995 ? 'not under it' : 'under it',
    },
  ]
}

function distributed(): Row[] {
  const { rating } = line.output
  const ratedW = rating.kind === 'constant-voltage' ? rating.powerW : null
  const chosen = line.required.find(r => r.chosen)
  return [
    { name: 'all taps', figure: quantity(line.tapsW, 'W'), note: `${line.speakers.length} speakers, each takes its tap` },
    { name: 'line voltage', figure: quantity(line.lineV, 'V'), note: 'all in parallel, always mono' },
    { name: 'load, nominal', figure: quantity(line.loadOhm, 'Ω'), note: 'for the impedance meter; cable comes on top' },
    { name: 'the amplifier', figure: quantity(ratedW, 'W'), note: ratedW === null ? 'write its watts after the volts' : line.tapsW === null ? '' : `${Math.round(100 * line.tapsW / ratedW)} % of it is asked` },
    { name: 'asked by rule', figure: quantity(chosen?.powerW ?? null, 'W'), note: chosen ? `“${chosen.name}”` : '' },
  ]
}
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
