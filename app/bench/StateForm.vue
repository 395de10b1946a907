<script setup lang="ts">
import { computed, ref } from 'vue'
import InputText from 'primevue/inputtext'
import { daysAfter, type Ticket } from '#core/bench/ticket'
import { STATE_WORDS } from '#core/bench/ticketWords'
import { TICKET_STATES } from '#core/job/sections/tickets/schema'
import { today, useBenchStore } from './benchStore'

/** Where a ticket stands. That it has gone out is said where what is still open stands beside it. */
const { ticket } = defineProps<{ ticket: Ticket }>()
const emit = defineEmits<{ done: [], closing: [] }>()
const bench = useBenchStore()
const on = ref(daysAfter(today(), 14))
const reason = ref('')
const states = computed(() => TICKET_STATES.filter(s => s !== 'gone-out' && s !== ticket.state.state))
function set(state: (typeof TICKET_STATES)[number]): void {
  if (bench.write(ticket.id, [{ is: 'state', state, on: state === 'again' && on.value ? on.value : null, as: null, reason: reason.value.trim() }])) emit('done')
}
</script>

<template>
  <div class="state-form" role="group" aria-label="Where it stands">
    <label><span>Why, if it needs saying</span><InputText v-model="reason" size="small" maxlength="500" placeholder="driver ordered" /></label>
    <label><span>Day, where it is to be seen again</span><InputText v-model="on" size="small" type="date" /></label>
    <span class="buttons">
      <button v-for="state in states" :key="state" class="tap" type="button" @click="set(state)">{{ STATE_WORDS[state] }}</button>
      <button v-if="ticket.state.state !== 'gone-out'" class="tap" type="button" @click="emit('closing')">gone out…</button>
    </span>
  </div>
</template>

<style scoped>
.state-form { display: flex; flex-wrap: wrap; gap: 8px 14px; align-items: end;
  border: 1.5px solid var(--ink); background: var(--paper-raised); padding: 10px 12px; }
label { display: grid; gap: 2px; }
label > span { font-size: 13.5px; color: var(--ink-soft); }
.buttons { display: flex; flex-wrap: wrap; gap: 6px; }
</style>
