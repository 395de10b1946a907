<script setup lang="ts">
import { computed, nextTick, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { navigateTo, useRoute, useRouter } from '#imports'
import InputText from 'primevue/inputtext'
import { daysAfter, daysBetween, foundTickets, seeAgainOn, type Ticket, type TicketAsk } from '#core/bench/ticket'
import { STATE_WORDS, UNIT_WORDS } from '#core/bench/ticketWords'
import { TICKET_STATES } from '#core/job/sections/tickets/schema'
import CheckLine from '~/components/form/CheckLine.vue'
import TabRow from '~/components/form/TabRow.vue'
import FindBox from '~/components/shell/FindBox.vue'
import { KeysDialog } from '~/components/shell/opened'
import KeyCap from '~/components/KeyCap.vue'
import { useKeys } from '~/composables/useKeys'
import { dayText, today, useBenchStore } from './benchStore'
import DrawerPane from './DrawerPane.vue'
import { ticketListKeys } from './keys'
import NewTicket from './NewTicket.vue'
import { useBenchKeys } from './useBenchKeys'

/** Tickets: what is on the bench, found by words, state and day; the drawer beside them. */
const bench = useBenchStore()
const route = useRoute()
const router = useRouter()
const { common, keysOpen, findOpen } = useBenchKeys()
const ask = shallowRef<TicketAsk>({ words: '', state: 'in-hand', isOldestFirst: false })
const opening = ref(false)
const list = useTemplateRef<HTMLElement>('list')
const STEP = 60
const most = ref(STEP)
watch(ask, () => { most.value = STEP })

const isDrawer = computed(() => route.query.at === 'drawer')
const count = (state: TicketAsk['state']) => foundTickets(bench.tickets, { words: '', state, isOldestFirst: false }).length
type TabValue = NonNullable<TicketAsk['state']> | 'all' | 'drawer'
const tabs = computed((): { value: TabValue, says: string }[] => [
  { value: 'in-hand', says: `in hand ${count('in-hand')}` }, { value: 'to-see', says: `to look at again ${count('to-see')}` },
  ...TICKET_STATES.map(state => ({ value: state, says: STATE_WORDS[state] })), { value: 'all', says: 'all' }, { value: 'drawer', says: `drawer ${bench.drawer.length}` },
])
const tab = computed(() => isDrawer.value ? 'drawer' : ask.value.state ?? 'all')
function choose(value: string): void {
  void router.replace({ query: value === 'drawer' ? { at: 'drawer' } : {} })
  if (value !== 'drawer') ask.value = { ...ask.value, state: value === 'all' ? null : value as TicketAsk['state'] }
}
const isOldestFirst = computed({ get: () => ask.value.isOldestFirst, set: (isFirst) => { ask.value = { ...ask.value, isOldestFirst: isFirst } } })
const found = computed(() => foundTickets(bench.tickets, ask.value))
const shown = computed(() => found.value.slice(0, most.value))
function ageOf({ openedAt }: Ticket): string {
  const days = daysBetween(openedAt, today())
  return days <= 0 ? 'today' : days === 1 ? '1 day' : `${days} days`
}
function dueOf(ticket: Ticket): { says: string, isDue: boolean } | null {
  const on = seeAgainOn(ticket)
  if (on === null) return null
  const days = daysBetween(today(), on)
  return { says: days === 0 ? 'look again today' : days < 0 ? `look again: was due ${dayText(on)}` : `look again ${dayText(on)}`, isDue: days <= 0 }
}
function opened(id: string): void {
  opening.value = false
  void navigateTo(`/bench/${id}`)
}
async function begin(): Promise<void> {
  opening.value = true
  await nextTick()
  document.querySelector<HTMLElement>('.new-ticket input')?.focus()
}
function step(by: 1 | -1): void {
  const links = [...list.value?.querySelectorAll<HTMLElement>('a') ?? []]
  const at = links.findIndex(l => l === document.activeElement)
  links[Math.max(0, Math.min(links.length - 1, at + by))]?.focus()
}
/** Several at once: what came in together goes on test together. Gone out they go one by one, for each is checked before. */
const chosen = shallowRef<ReadonlySet<string>>(new Set())
const several = computed(() => found.value.filter(t => chosen.value.has(t.id)))
const isChoosing = ref(false)
function toggle(id: string): void {
  const next = new Set(chosen.value)
  if (!next.delete(id)) next.add(id)
  chosen.value = next
}
function endChoosing(): void {
  isChoosing.value = false
  chosen.value = new Set()
}
function putAll(state: TicketAsk['state'] & (typeof TICKET_STATES)[number], on: string | null): void {
  if (bench.writeOn(several.value.map(t => t.id), { is: 'state', state, on, as: null, reason: '' })) endChoosing()
}
const bindings = [
  ...ticketListKeys({ begin: () => void begin(), toSearch: () => document.querySelector<HTMLElement>('.find input')?.focus(), step, toDrawer: () => choose('drawer'), several: () => isChoosing.value ? endChoosing() : isChoosing.value = true }), ...common,
]
useKeys(() => bindings)
onMounted(() => { if (route.query.from === 'job') void begin() })
</script>

<template>
  <main class="bench">
    <div class="choice" role="search" aria-label="Which tickets">
      <TabRow class="states" label="Which tickets" :tabs="tabs" :value="tab" @choose="choose" />
      <span v-if="!isDrawer" class="find">
        <InputText
          :model-value="ask.words" size="small" aria-label="Find by any words" placeholder="find: handset rattles" maxlength="120"
          @update:model-value="ask = { ...ask, words: $event ?? '' }" @keydown.down.prevent="step(1)" @keydown.esc="ask = { ...ask, words: '' }" />
        <KeyCap of="f" />
      </span>
    </div>
    <DrawerPane v-if="isDrawer" />
    <template v-else>
      <NewTicket v-if="opening" @opened="opened" @close="opening = false" />
      <button v-else class="offer begin" type="button" @click="begin">New ticket<span class="then">a unit came in</span><KeyCap of="c" /></button>
      <p v-if="found.length > 1" class="several">
        <button class="act" type="button" :aria-pressed="isChoosing" @click="isChoosing ? endChoosing() : isChoosing = true">{{
          isChoosing ? 'choose no more' : 'several at once' }} <KeyCap of="s" /></button>
        <template v-if="isChoosing">
          <button class="act" type="button" @click="chosen = new Set(found.map(t => t.id))">all {{ found.length }}</button>
          <span role="status">{{ several.length === 0 ? 'none is chosen' : `${several.length} chosen` }}</span>
          <template v-if="several.length > 0">
            <button v-for="state in ['came-in', 'waits', 'on-test'] as const" :key="state" class="tap" type="button" @click="putAll(state, null)">{{
              STATE_WORDS[state] }}</button>
            <button class="tap" type="button" @click="putAll('again', daysAfter(today(), 14))">to be seen again in two weeks</button>
          </template>
        </template>
      </p>
      <CheckLine v-if="found.length > 1 && ask.state !== 'to-see'" v-model="isOldestFirst" class="order">longest here first</CheckLine>
      <section v-if="bench.tickets.length === 0" class="state">
        <p>No ticket yet. One unit, one ticket: what its owner says of it, what was found, what was done, and the sound checked before it is closed.</p>
      </section>
      <p v-else-if="found.length === 0" class="state soft">No ticket is like that.</p>
      <ul v-else ref="list" class="list" aria-label="Tickets">
        <li v-for="ticket in shown" :key="ticket.id" :class="{ choosing: isChoosing }">
          <CheckLine v-if="isChoosing" class="pick" :model-value="chosen.has(ticket.id)" @update:model-value="toggle(ticket.id)"><span class="hidden-label">{{
            ticket.head.unit }}</span></CheckLine>
          <NuxtLink :to="`/bench/${ticket.id}`" class="row">
            <span class="number figure soft">{{ bench.unnumbered.has(ticket.id) ? 'new' : `#${ticket.number}` }}</span>
            <span class="unit"><b>{{ ticket.head.unit }}</b> <span class="soft">{{ UNIT_WORDS[ticket.head.kind] }}</span></span>
            <span class="says">{{ ticket.head.complaint || 'no complaint written' }}<span v-if="ticket.isTakenBack" class="soft">, its opening was taken
              back</span></span>
            <span class="where">{{ STATE_WORDS[ticket.state.state] }}<span v-if="dueOf(ticket)" :class="{ due: dueOf(ticket)!.isDue }">, {{
              dueOf(ticket)!.says }}</span></span>
            <span class="age soft">{{ ageOf(ticket) }}</span>
          </NuxtLink>
        </li>
      </ul>
      <button v-if="found.length > most" class="act" type="button" @click="most += STEP">{{ found.length - most }} more</button>
    </template>
    <FindBox v-model:open="findOpen" :actions="bindings" />
    <KeysDialog v-model:open="keysOpen" :bindings="bindings" />
  </main>
</template>

<style scoped>
.bench { max-width: 1120px; margin: 0 auto; padding: 14px 20px 60px; display: grid; gap: 12px; grid-template-columns: minmax(0, 1fr); }
.choice { display: flex; flex-wrap: wrap; gap: 6px 18px; align-items: center; border-bottom: 1px solid var(--rule); }
.states { flex: 1 1 auto; min-width: 0; }
.states :deep(.tabs) { border-bottom: 0; }
.find { display: inline-flex; gap: 6px; align-items: center; }
.begin { max-width: 320px; }
.order { justify-self: end; }
.state { padding: 26px 0; max-width: 640px; }
.list { list-style: none; border-top: 1px solid var(--rule); }
.row { display: grid; grid-template-columns: 52px minmax(160px, 2fr) minmax(160px, 3fr) minmax(130px,
  2fr) 72px; gap: 2px 14px; padding: 9px 2px; text-decoration: none; align-items: baseline;
  border-bottom: 1px solid var(--rule); }
.several { display: flex; flex-wrap: wrap; gap: 6px 14px; align-items: center; }
.choosing { display: grid; grid-template-columns: 34px minmax(0, 1fr); align-items: center; }
.row:hover { background: var(--paper-raised); }
.age { text-align: right; }
.due { font-weight: 700; }
@media (max-width: 760px) {
  .bench { padding: 8px 12px 60px; }
  .row { grid-template-columns: 44px minmax(0, 1fr) auto; padding: 10px 2px; }
  .says, .where { grid-column: 2 / -1; }
  .age { grid-column: 3; grid-row: 1; }
  .states :deep(.tabs) { flex-wrap: nowrap; overflow-x: auto; scrollbar-width: none; }
  .find, .find :deep(input) { width: 100%; }
  .find :deep(.keycap) { display: none; }
}
</style>
