<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Ticket } from '#core/bench/ticket'
import { writtenWords } from '#core/bench/ticketWords'
import { PhotoStrip } from '~/stations/check/parts'
import { useDoorStore } from '~/stores/door'
import { whoHere } from '~/door/me'
import { useBenchStore, whenText } from './benchStore'

/** Found, done, left; and all that was written, newest first. Nothing is ever changed: what was wrong is taken back. */
const { ticket } = defineProps<{ ticket: Ticket }>()
const bench = useBenchStore()
const text = ref('')
const STEP = 12
const most = ref(STEP)
const rows = computed(() => ticket.entries.filter(e => e.what.is !== 'photo').toReversed())
const isOfSeveral = computed(() => ticket.entries.some(e => e.who !== whoHere()))
const by = (who: string | null) => isOfSeveral.value ? `, ${useDoorStore().nameOf(who)}` : ''
function say(as: 'found' | 'done' | 'left'): void {
  if (text.value.trim() !== '' && bench.write(ticket.id, [{ is: 'said', as, text: text.value.trim() }])) text.value = ''
}
</script>

<template>
  <section class="history" aria-label="Written on this ticket">
    <h2>Written on this ticket</h2>
    <div class="say">
      <textarea v-model="text" aria-label="What was found, done or left" rows="2" maxlength="1000" placeholder="what was found, done, or left" />
      <span class="as">
        <button class="tap" type="button" :disabled="text.trim() === ''" @click="say('found')">found</button>
        <button class="tap" type="button" :disabled="text.trim() === ''" @click="say('done')">done</button>
        <button class="tap" type="button" :disabled="text.trim() === ''" @click="say('left')">left so</button>
      </span>
    </div>
    <PhotoStrip :output-id="ticket.id" :node-id="null" :label="ticket.head.unit" />
    <ul>
      <li v-for="entry in rows.slice(0, most)" :key="entry.id">
        <span class="soft when">{{ whenText(entry.at) }}{{ by(entry.who) }}</span>
        <span>{{ writtenWords(entry.what) }}</span>
        <button class="act small" type="button" :aria-label="`take back: ${writtenWords(entry.what)}`" @click="bench.withdraw(entry.id)">take back</button>
      </li>
    </ul>
    <button v-if="rows.length > most" class="act" type="button" @click="most += 60">{{ rows.length - most }} more</button>
  </section>
</template>

<style scoped>
.history { border-top: 1px solid var(--rule); padding-top: 10px; display: grid; gap: 8px; grid-template-columns: minmax(0, 1fr); }
.say { display: flex; flex-wrap: wrap; gap: 8px; align-items: end; }
textarea { flex: 1 1 320px; min-width: 0; font: inherit; font-size: 15px; color: inherit;
  background: var(--paper-raised); border: 1px solid var(--rule-strong); border-radius: 2px; padding: 6px 8px; resize: vertical; }
.as { display: flex; gap: 6px; }
ul { list-style: none; font-size: 15px; }
li { display: grid; grid-template-columns: 150px minmax(0, 1fr) auto; gap: 0 12px; align-items: baseline;
  border-bottom: 1px solid var(--rule); padding: 4px 0; }
@media (max-width: 760px) {
  li { grid-template-columns: minmax(0, 1fr) auto; }
  .when { grid-column: 1 / -1; font-size: 13.5px; }
}
</style>
