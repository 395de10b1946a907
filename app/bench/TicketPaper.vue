<script setup lang="ts">
import { computed } from 'vue'
import type { Ticket } from '#core/bench/ticket'
import { partsOf } from '#core/bench/opening'
import { cautionsOf, STATE_WORDS, UNIT_WORDS, writtenWords } from '#core/bench/ticketWords'
import { writtenOf } from '#core/bench/ticket'
import { dayText, useBenchStore, whenText } from './benchStore'

/** The ticket on paper: what was brought, found, done and left; and the label that goes inside. */
const { ticket } = defineProps<{ ticket: Ticket }>()
const emit = defineEmits<{ close: [] }>()
const bench = useBenchStore()
const number = computed(() => bench.unnumbered.has(ticket.id) ? 'no number yet' : `#${ticket.number}`)
const said = (as: string) => writtenOf(ticket, 'said').filter(e => e.what.as === as).map(e => e.what.text)
const SORTS = [['Found', 'found'], ['Done', 'done'], ['Left', 'left']] as const
const fit = computed(() => writtenOf(ticket, 'fit').at(-1)?.what ?? null)
const print = () => window.print()
</script>

<template>
  <article class="sheet">
    <p class="no-print"><button class="act" type="button" @click="emit('close')">back to the ticket</button> <button
      class="offer print" type="button"
      @click="print">Print</button></p>
    <header><h1>{{ ticket.head.unit }}</h1><p class="figure">{{ number }}</p></header>
    <dl>
      <dt>came in</dt><dd>{{ dayText(ticket.openedAt) }}, {{ UNIT_WORDS[ticket.head.kind] }}<template v-if="ticket.head.from">, from {{ ticket.head.from.says
        }}</template></dd>
      <dt>its owner says</dt><dd>{{ ticket.head.complaint || 'nothing written' }}</dd>
      <dt>stands</dt><dd>{{ STATE_WORDS[ticket.state.state] }}{{ ticket.state.as === 'proved' ? ', as proved' : ticket.state.as === 'left-so' ? ', left so'
        : '' }}{{ ticket.state.reason ? `: ${ticket.state.reason}` : '' }}</dd>
      <template v-if="ticket.state.on"><dt>look again</dt><dd>{{ dayText(ticket.state.on) }}</dd></template>
      <template v-for="[says, as] in SORTS" :key="as"><template v-if="said(as).length > 0"><dt>{{ says.toLowerCase() }}</dt><dd><p
        v-for="text in said(as)"
        :key="text">{{ text }}</p></dd></template></template>
    </dl>
    <section v-if="partsOf(ticket).length > 0"><h2>What came out</h2><ul><li v-for="part in partsOf(ticket)" :key="part.id">{{ part.count }} × {{ part.name
      }}{{ part.place ? `, ${part.place}` : '' }}: {{ part.back }} in again</li></ul></section>
    <section><h2>All that was written</h2><ul><li v-for="entry in ticket.entries" :key="entry.id"><span class="soft">{{ whenText(entry.at) }}</span> {{
      writtenWords(entry.what) }}</li></ul></section>
    <section class="cautions"><p v-for="caution in cautionsOf(ticket.head.kind)" :key="caution">{{ caution }}</p></section>
    <aside class="label" aria-label="Label for the inside">
      <b>{{ number }} {{ ticket.head.unit }}</b>
      <span>{{ dayText(ticket.changedAt) }}{{ fit ? `; in it: ${fit.name}` : '' }}</span>
      <span v-for="text in said('done').slice(-2)" :key="text">{{ text }}</span>
      <span v-if="ticket.state.on">look again {{ dayText(ticket.state.on) }}</span>
    </aside>
  </article>
</template>

<style scoped>
.sheet { display: grid; gap: 14px; max-width: 760px; }
header { display: flex; justify-content: space-between; gap: 20px; border-bottom: 2px solid var(--ink); align-items: baseline; }
h1 { font-size: 22px; }
dl { display: grid; grid-template-columns: 120px minmax(0, 1fr); gap: 4px 14px; margin: 0; }
dt { color: var(--ink-soft); }
dd { margin: 0; }
ul { list-style: none; }
li { border-bottom: 1px solid var(--rule); padding: 3px 0; }
.label { border: 1.5px dashed var(--ink); padding: 8px 12px; width: min(340px, 100%); display: grid; }
.no-print { display: flex; gap: 20px; align-items: center; }
.print { width: auto; }
.cautions { font-size: 14px; color: var(--ink-soft); }
@media print { .no-print { display: none; } }
</style>

<style>
@media print { .ticket ~ *, .band:has(+ * .ticket .sheet), body:has(.ticket .sheet) .band { display: none !important; } }
</style>
