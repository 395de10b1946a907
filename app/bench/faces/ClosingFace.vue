<script setup lang="ts">
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { CLOSING_CHECKS } from '#core/job/sections/tickets/schema'
import { beforeClosing, checkStates, stillOpen } from '#core/bench/closing'
import { daysAfter, type Ticket } from '#core/bench/ticket'
import { CHECK_WORDS } from '#core/bench/ticketWords'
import KeyCap from '~/components/KeyCap.vue'
import { today, useBenchStore } from '../benchStore'

/** Before it is closed, and after: one after the other. With any of it open it goes out left so, with the reason, and not as proved. */
const { ticket } = defineProps<{ ticket: Ticket }>()
const bench = useBenchStore()
const states = computed(() => checkStates(ticket))
const open = computed(() => stillOpen(ticket))
const lid = computed(() => beforeClosing(ticket))
const next = computed(() => CLOSING_CHECKS.find(c => states.value.get(c) !== true) ?? null)
const on = ref(daysAfter(today(), 14))
const reason = ref('')
const note = ref('')
const isOut = computed(() => ticket.state.state === 'gone-out')
const isBarred = (check: (typeof CLOSING_CHECKS)[number]) => (check === 'closed' || check === 'listen-again') && lid.value.length > 0

function say(check: (typeof CLOSING_CHECKS)[number], isRight: boolean): void {
  if (bench.write(ticket.id, [{ is: 'check', check, isRight, note: note.value.trim() }])) note.value = ''
}
function goOut(as: 'proved' | 'left-so'): void {
  bench.write(ticket.id, [{ is: 'state', state: 'gone-out', on: on.value || null, as, reason: reason.value.trim() }])
}
const cameBack = () => bench.write(ticket.id, [{ is: 'state', state: 'on-test', on: null, as: null, reason: 'came back' }])
</script>

<template>
  <div class="pane">
    <section v-if="next && !isOut" class="ask">
      <p class="asks">{{ CHECK_WORDS[next].says }}?</p>
      <p class="soft">{{ CHECK_WORDS[next].how }}</p>
      <p v-if="isBarred(next)" class="warn" role="status">Not yet: {{ lid.join('; ') }}.</p>
      <template v-else>
        <div class="answers">
          <button class="tap" type="button" @click="say(next, true)">right <KeyCap of="1" /></button>
          <button class="tap" type="button" @click="say(next, false)">not right <KeyCap of="2" /></button>
        </div>
        <div class="fields"><label class="note"><span>what was heard or read, if it needs saying</span><InputText v-model="note" size="small" maxlength="300"
          /></label></div>
      </template>
    </section>
    <ol class="rows">
      <li v-for="check in CLOSING_CHECKS" :key="check" class="check">
        <span>{{ CHECK_WORDS[check].says }}</span>
        <b :class="states.get(check) === false ? 'wrong' : states.get(check) ? 'right' : 'soft'">{{ states.get(check) === undefined ? 'open'
          : states.get(check) ? 'right' : 'not right' }}</b>
        <button v-if="states.get(check) === true" class="act small" type="button" @click="say(check, false)">not right</button>
      </li>
    </ol>
    <section class="out">
      <h2>{{ isOut ? 'It has gone out' : 'It goes out' }}</h2>
      <p v-if="isOut">{{ ticket.state.as === 'proved' ? 'As proved.' : 'Left so.' }} <button
        class="act" type="button" @click="cameBack">it is back on the bench</button></p>
      <template v-else>
        <p v-if="open.length > 0">Not as proved while this is open: {{ open.join('; ') }}.</p>
        <p v-else>Nothing is open.</p>
        <div class="fields">
          <label><span>look again on</span><InputText v-model="on" size="small" type="date" /></label>
          <label class="note"><span>{{ open.length > 0 ? 'why it goes out so' : 'a word, if it needs saying' }}</span><InputText
            v-model="reason"
            size="small" maxlength="500" placeholder="its owner takes it as it is" /></label>
        </div>
        <p class="acts">
          <Button size="small" label="Gone out, as proved" :disabled="open.length > 0" @click="goOut('proved')" />
          <Button size="small" variant="outlined" label="Gone out, left so" :disabled="reason.trim() === ''" @click="goOut('left-so')" />
        </p>
        <p v-if="reason.trim() === '' && open.length > 0" class="soft small">Left so needs a reason.</p>
      </template>
    </section>
  </div>
</template>

<style scoped>
.ask, .out { display: grid; gap: 6px; }
.check { display: grid; grid-template-columns: minmax(0, 300px) auto 1fr; gap: 2px 14px; align-items: baseline; }
.check .act { justify-self: start; }
@media (max-width: 760px) { .check { grid-template-columns: minmax(0, 1fr) auto auto; } }
.wrong { color: var(--stop); }
.right { color: var(--good); }
.rows { list-style: none; }
.note :deep(input) { width: min(420px, 84vw); }
.acts { display: flex; flex-wrap: wrap; gap: 10px; }
</style>
