<script setup lang="ts">
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import { navigateTo, useHead, useRoute, useRouter } from '#imports'
import { cautionsOf, STATE_WORDS, UNIT_WORDS } from '#core/bench/ticketWords'
import TabRow from '~/components/form/TabRow.vue'
import FindBox from '~/components/shell/FindBox.vue'
import { KeysDialog } from '~/components/shell/opened'
import { useKeys } from '~/composables/useKeys'
import { dayText, useBenchStore } from './benchStore'
import { FACES, nextWords, type Face } from '#core/bench/next'
import { ticketKeys } from './keys'
import { ClosingFace, HeadFace, OpeningFace, PlusFace, ReadingsFace, ReplacingFace, RunFace, TicketPaper, WhichFace } from './parts'
import StateForm from './StateForm.vue'
import TicketHistory from './TicketHistory.vue'
import { useBenchKeys } from './useBenchKeys'

/** One ticket: what comes next in a sentence, the steps of the work side by side, what was written below. */
const bench = useBenchStore()
const route = useRoute()
const router = useRouter()
const { common, keysOpen, findOpen } = useBenchKeys()
const ticketId = computed(() => String(route.params.ticket))
const ticket = computed(() => bench.tickets.find(t => t.id === ticketId.value) ?? null)
useHead({ title: computed(() => ticket.value ? `${ticket.value.head.unit} · Bench` : 'Bench · Plain Match') })

/** What is said of its state besides the state itself. */
const standsWords = computed(() => {
  if (!ticket.value) return ''
  const { state, as, on, reason } = ticket.value.state
  const how = as === null ? '' : as === 'proved' ? ' as proved' : ' left so'
  return `${how}${on === null ? '' : `, ${state === 'gone-out' ? 'look again ' : ''}${dayText(on)}`}${reason === '' ? '' : `: ${reason}`}`
})
const jobOf = computed(() => ticket.value?.head.from ? `/jobs/${ticket.value.head.from.jobId}?speaker=${ticket.value.head.from.nodeId}` : '')
const stepIn = (): Face => FACES.find(f => f.value === route.query.step)?.value ?? 'complaint'
/** At once: the address comes after it, and two keys may follow each other sooner. */
const face = ref(stepIn())
watch(() => route.query.step, () => { face.value = stepIn() })
function go(value: Face): void {
  face.value = value
  void router.replace({ query: value === 'complaint' ? {} : { step: value } })
}
const isPaper = computed(() => route.query.paper !== undefined)
const stateOpen = ref(false)
watch(ticketId, () => { stateOpen.value = false })
const PANES = { complaint: HeadFace, which: WhichFace, opening: OpeningFace, readings: ReadingsFace, replacing: ReplacingFace, plus: PlusFace,
  closing: ClosingFace, load: RunFace }
const next = computed(() => ticket.value ? nextWords(ticket.value) : null)

/** On a phone the steps are drawn along: the one that is shown is in sight. */
const showChosen = () => document.querySelector('.faces [role=tab][aria-selected=true]')?.scrollIntoView({ block: 'nearest', inline: 'center' })
watch(face, () => void nextTick(showChosen))
onMounted(showChosen)

function turn(by: 1 | -1): void {
  const at = FACES.findIndex(f => f.value === face.value)
  go(FACES[Math.max(0, Math.min(FACES.length - 1, at + by))]!.value)
}
const answers = () => [...document.querySelectorAll<HTMLButtonElement>('.face .answers .tap:not(:disabled)')]
async function toState(): Promise<void> {
  stateOpen.value = true
  await nextTick()
  document.querySelector<HTMLElement>('.state-form .tap')?.focus()
}
const bindings = [
  ...ticketKeys({
    face: turn, press: nth => answers()[nth]?.click(), toField: () => document.querySelector<HTMLElement>('.face input')?.focus(), toState: () => void toState(),
    toPaper: () => void router.replace({ query: isPaper.value ? {} : { paper: '' } }), leave: () => isPaper.value || stateOpen.value ? (stateOpen.value = false, void router.replace({ query: {} })) : void navigateTo('/bench'),
  }),
  ...common,
]
useKeys(() => bindings)
</script>

<template>
  <main class="ticket">
    <section v-if="!ticket" class="gone" role="alert">
      <p>This ticket is not here: its opening was taken back, or it was opened where the server has not heard of it yet.</p>
      <NuxtLink to="/bench" class="act">All tickets</NuxtLink>
    </section>
    <TicketPaper v-else-if="isPaper" :ticket="ticket" @close="router.replace({ query: {} })" />
    <template v-else>
      <header class="top">
        <p class="soft small"><NuxtLink to="/bench" class="act">All tickets</NuxtLink> <span class="figure">{{ bench.unnumbered.has(ticket.id)
          ? 'no number yet' : `#${ticket.number}` }}</span>,
          came in {{ dayText(ticket.openedAt) }}<template v-if="ticket.head.from">, from
            <NuxtLink :to="jobOf">{{ ticket.head.from.says }}</NuxtLink></template></p>
        <h1>{{ ticket.head.unit }} <span class="soft">{{ UNIT_WORDS[ticket.head.kind] }}</span></h1>
        <p v-if="ticket.head.complaint" class="complaint">“{{ ticket.head.complaint }}”</p>
        <p class="stands">
          <span><b>{{ STATE_WORDS[ticket.state.state] }}</b>{{ standsWords }}</span>
          <button class="act" type="button" :aria-expanded="stateOpen" @click="stateOpen = !stateOpen">{{ stateOpen ? 'leave it' : 'change it' }}</button>
          <button class="act" type="button" @click="router.replace({ query: { paper: '' } })">paper</button>
        </p>
        <StateForm v-if="stateOpen" :ticket="ticket" @done="stateOpen = false" @closing="stateOpen = false; go('closing')" />
        <p v-if="next" class="next"><b>Next:</b> {{ next.says }} <button v-if="next.face !== face" class="act" type="button" @click="go(next.face)">go
          there</button></p>
      </header>
      <TabRow class="faces" label="Steps of the work" :tabs="FACES" :value="face" @choose="go" />
      <section class="face" :aria-label="FACES.find(f => f.value === face)!.says">
        <component :is="PANES[face]" :key="`${ticket.id} ${face}`" :ticket="ticket" />
      </section>
      <section class="cautions" aria-label="Cautions"><p v-for="caution in cautionsOf(ticket.head.kind)" :key="caution">{{ caution }}</p></section>
      <TicketHistory :ticket="ticket" />
    </template>
    <FindBox v-model:open="findOpen" :actions="bindings" />
    <KeysDialog v-model:open="keysOpen" :bindings="bindings" />
  </main>
</template>

<style scoped>
.ticket { max-width: 960px; margin: 0 auto; padding: 12px 20px 60px; display: grid; gap: 14px; grid-template-columns: minmax(0, 1fr); }
.gone { padding: 40px 0; display: grid; gap: 10px; }
.top { display: grid; gap: 4px; }
h1 { font-size: 22px; }
h1 .soft { font-size: 16px; font-weight: 400; }
.stands { display: flex; flex-wrap: wrap; gap: 2px 10px; align-items: baseline; }
.stands .act { text-decoration: underline; text-underline-offset: 3px; }
.next { border-left: 3px solid var(--ink); padding-left: 10px; }
.next .act { text-decoration: underline; }
.face { min-height: 180px; }
.cautions { border-top: 1px solid var(--rule); padding-top: 8px; font-size: 14px; color: var(--ink-soft); }
@media (max-width: 760px) {
  .ticket { padding: 8px 12px 60px; gap: 10px; }
  .faces :deep(.tabs) { flex-wrap: nowrap; overflow-x: auto; scrollbar-width: none; }
}
</style>

<style>
/* What the steps of a ticket have in common. */
.face .asks { font-weight: 700; font-size: 17px; }
.face .answers { display: flex; flex-wrap: wrap; gap: 6px; }
.face .answers .tap { padding: 8px 12px; font-size: 15px; }
.face .rows { list-style: none; border-top: 1px solid var(--rule); }
.face .rows > li { border-bottom: 1px solid var(--rule); padding: 7px 2px; }
.face .pane { display: grid; gap: 12px; grid-template-columns: minmax(0, 1fr); }
.face .fields { display: flex; flex-wrap: wrap; gap: 8px 14px; align-items: end; }
.face .fields label:not(.check-line) { display: grid; gap: 2px; }
.face .fields label:not(.check-line) > span { font-size: 13.5px; color: var(--ink-soft); }
.face .warn { border: 1.5px solid var(--stop); padding: 7px 11px; }
.face .told { border: 1.5px solid var(--ink); background: var(--paper-raised); padding: 8px 12px; }
</style>
