<script setup lang="ts">
import { UNIT_KINDS, headFields, type TicketHead } from '#core/job/sections/tickets/schema'
import type { Ticket } from '#core/bench/ticket'
import { UNIT_WORDS } from '#core/bench/ticketWords'
import ChoiceRow from '~/components/form/ChoiceRow.vue'
import TextEntry from '~/components/form/TextEntry.vue'
import { millimetresOrNot, quantityOrNot, textOf, withinOrNot, writeOrNot } from '~/components/form/readers'
import { useBenchStore } from '../benchStore'

/** What is known of the unit, the owner's words, and what everybody says, which the tests decide. */
const { ticket } = defineProps<{ ticket: Ticket }>()
const bench = useBenchStore()
const KINDS = UNIT_KINDS.map(value => ({ value, says: UNIT_WORDS[value] }))
const set = (to: Partial<TicketHead>) => bench.write(ticket.id, [{ is: 'told', to }])
const LINES = [
  { field: 'complaint', says: 'In its owner’s words', read: textOf(headFields.complaint, 'complaint') },
  { field: 'folklore', says: 'What everybody says it is; the tests decide', read: textOf(headFields.folklore, 'line') },
  { field: 'unit', says: 'Unit: one name for all of a model, so that a list made once serves the next', read: textOf(headFields.unit, 'name') },
  { field: 'holes', says: 'Holes of its frame', read: textOf(headFields.holes, 'line') },
  { field: 'plusMark', says: 'How plus is marked, and its tabs: a mark proves nothing', read: textOf(headFields.plusMark, 'line') },
] as const
const FIGURES = [
  { field: 'labelOhm', says: 'ohms by its label', unit: 'Ω', read: quantityOrNot('resistance') }, { field: 'labelW', says: 'watts by its label', unit: 'W', read: quantityOrNot('power') },
  { field: 'frameMm', says: 'frame', unit: 'mm', read: millimetresOrNot('A frame') }, { field: 'cutOutMm', says: 'cut-out', unit: 'mm', read: millimetresOrNot('A cut-out') },
  { field: 'depthMm', says: 'depth', unit: 'mm', read: millimetresOrNot('A depth') }, { field: 'magnetMm', says: 'magnet', unit: 'mm', read: millimetresOrNot('A magnet') },
  { field: 'sensitivityDb', says: 'dB at 1 W', unit: 'dB', read: withinOrNot(40, 130, 'A sensitivity', ' dB') },
] as const
</script>

<template>
  <div class="pane">
    <TextEntry
      v-for="line in LINES" :key="line.field" :label="line.says" :text="ticket.head[line.field]" :read="line.read"
      @commit="value => set({ [line.field]: value })" />
    <ChoiceRow label="What it is" :choices="KINDS" :model-value="ticket.head.kind" @update:model-value="kind => kind && set({ kind })" />
    <div class="sheet">
      <TextEntry
        v-for="figure in FIGURES" :key="figure.field" :label="figure.says" :text="writeOrNot(ticket.head[figure.field], figure.unit)" :read="figure.read"
        hint="not known" @commit="value => set({ [figure.field]: value })" />
    </div>
  </div>
</template>

<style scoped>
.sheet { display: grid; grid-template-columns: repeat(auto-fill, minmax(126px, 1fr)); gap: 8px 14px; }
</style>
