<script setup lang="ts">
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { OPENING_STEPS, PART_KINDS } from '#core/job/sections/tickets/schema'
import { listOfModel, missingOf, missingWords, partsOf } from '#core/bench/opening'
import { writtenOf, type Ticket } from '#core/bench/ticket'
import { PART_WORDS, STEP_WORDS } from '#core/bench/ticketWords'
import { whichOne } from '#core/bench/whichOne'
import ChoiceRow from '~/components/form/ChoiceRow.vue'
import { PhotoStrip } from '~/stations/check/parts'
import { useBenchStore } from '../benchStore'

/** Off first; then what comes out, counted, in order; the same the other way when it goes in again. */
const { ticket } = defineProps<{ ticket: Ticket }>()
const bench = useBenchStore()
const notYet = computed(() => writtenOf(ticket, 'answer').length > 0 && partsOf(ticket).length === 0 ? whichOne(ticket).notYet : null)
const steps = computed(() => OPENING_STEPS.filter(s => s !== 'battery-off' || ticket.head.kind === 'saddle-speaker' || ticket.head.kind === 'megaphone' || ticket.head.kind === 'radio'))
const done = computed(() => new Map(writtenOf(ticket, 'step').map(e => [e.what.step, e.id])))
const isSafe = computed(() => steps.value.every(s => done.value.has(s)))
const parts = computed(() => partsOf(ticket))
const missing = computed(() => missingOf(ticket))
const before = computed(() => parts.value.length === 0 ? listOfModel(bench.tickets, ticket) : null)

const kind = ref<(typeof PART_KINDS)[number] | undefined>('screw')
const name = ref('')
const place = ref('')
const count = ref(4)
const KINDS = PART_KINDS.map(value => ({ value, says: PART_WORDS[value] }))
const COUNTS = [1, 2, 3, 4, 6, 8].map(value => ({ value, says: String(value), isFigure: true }))
const PLACES: Record<string, string> = { 'screw': 'corners, the long ones below', 'clip': 'left and right', 'bushing': 'under the screws', 'wire': 'white on the wide tab', 'way-round': 'arrow to the top', 'other': 'where it was' }
function out(): void {
  const what = { is: 'part' as const, kind: kind.value ?? 'screw', name: name.value.trim() || PART_WORDS[kind.value ?? 'screw'], count: kind.value === 'wire' || kind.value === 'way-round' ? 1 : count.value, place: place.value.trim() }
  if (!bench.write(ticket.id, [what])) return
  name.value = ''
  place.value = ''
}
function step(which: (typeof OPENING_STEPS)[number]): void {
  const id = done.value.get(which)
  if (id) bench.withdraw(id)
  else bench.write(ticket.id, [{ is: 'step', step: which }])
}
const back = (partId: string, n: number) => bench.write(ticket.id, [{ is: 'back', partId, count: n }])
/** Which wire on which tab, the long screws where: a photo belongs to what came out. */
const photoOf = (part: (typeof parts.value)[number]) => `${part.count} × ${part.name}${part.place ? `, ${part.place}` : ''}`.slice(0, 200)
const sameAsBefore = () => before.value && bench.write(ticket.id, before.value.parts)
</script>

<template>
  <div class="pane">
    <p v-if="notYet" class="warn" role="status">{{ notYet }}</p>
    <section>
      <h2>Before the first screw</h2>
      <div class="answers" role="group" aria-label="Before the first screw">
        <button v-for="s in steps" :key="s" class="tap" :class="{ on: done.has(s) }" type="button" :aria-pressed="done.has(s)" @click="step(s)">{{
          STEP_WORDS[s] }}</button>
      </div>
      <p v-if="!isSafe" class="soft small">Each is pressed when it is done. Nothing is opened before.</p>
    </section>
    <PhotoStrip :output-id="ticket.id" :node-id="null" step="before it was opened" label="it before it was opened" />
    <section v-if="before" class="told">
      <p>Ticket #{{ before.from.number }} was such a unit: {{ before.parts.map(p => `${p.count} × ${p.name}${p.place ? ` (${p.place})` : ''}`).join('; ')
        }}.</p>
      <button class="act" type="button" @click="sameAsBefore">the same comes out here</button>
    </section>
    <section class="out">
      <h2>Comes out</h2>
      <form class="fields" @submit.prevent="out">
        <div class="kinds">
        <ChoiceRow v-model="kind" label="What comes out" :choices="KINDS" />
        <ChoiceRow
          v-if="kind !== 'wire' && kind !== 'way-round'" :model-value="count" label="How many" :choices="COUNTS"
          @update:model-value="n => count = n ?? count" />
        </div>
        <label><span>which ones</span><InputText
          v-model="name" size="small" maxlength="120" :placeholder="kind === 'wire' ? 'white wire' : PART_WORDS[kind ?? 'screw']" /></label>
        <label><span>{{ kind === 'wire' ? 'on which tab' : 'where' }}</span><InputText
          v-model="place" size="small" maxlength="120" :placeholder="PLACES[kind ?? 'screw']" /></label>
        <Button size="small" type="submit" label="Out" />
      </form>
    </section>
    <section v-if="parts.length > 0">
      <h2>Out, and in again</h2>
      <p v-if="missing.length > 0" class="missing" role="status">{{ missing.map(missingWords).join('; ') }}.</p>
      <p v-else>All that came out is in again.</p>
      <ul class="rows">
        <li v-for="part in parts.toReversed()" :key="part.id" class="part" :class="{ in: part.back === part.count }">
          <span><b>{{ part.count }} × {{ part.name }}</b> <span class="soft">{{ [part.name === PART_WORDS[part.kind] ? '' : PART_WORDS[part.kind],
            part.place].filter(Boolean).join(', ') }}</span></span>
          <span class="back" role="group" :aria-label="`${part.name}: how many are in again`">
            <button
              class="tap" type="button" :disabled="part.back === 0" :aria-label="`one less of ${part.name} is in`" @click="back(part.id, part.back
              - 1)">−</button>
            <span class="figure">{{ part.back }} of {{ part.count }} in</span>
            <button
              class="tap" type="button" :disabled="part.back === part.count" :aria-label="`one more of ${part.name} is in`" @click="back(part.id,
              part.back + 1)">+</button>
            <button class="tap" type="button" :disabled="part.back === part.count" @click="back(part.id, part.count)">all in</button>
          </span>
          <PhotoStrip class="strip" :output-id="ticket.id" :node-id="null" :step="photoOf(part)" :label="photoOf(part)" />
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.out { display: grid; gap: 6px; }
.kinds { flex-basis: 100%; display: flex; flex-wrap: wrap; gap: 6px 16px; }
.part { display: flex; flex-wrap: wrap; gap: 4px 16px; justify-content: space-between; align-items: center; }
.strip { flex-basis: 100%; }
.part.in b { font-weight: 400; color: var(--ink-soft); }
.back { display: inline-flex; gap: 6px; align-items: center; }
.missing { color: var(--stop); font-weight: 700; }
.missing::first-letter { text-transform: uppercase; }
</style>
