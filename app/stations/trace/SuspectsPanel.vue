<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { isWrong } from '#core/check/verdict'
import { FAULT_WORDS } from '#core/check/faultWords'
import { KIND_NAMES } from '#core/check/gradeWords'
import { valueWords } from '#core/check/words'
import { writeQuantity } from '#core/quantity/write'
import { FAULTS } from '#core/faults/index'
import type { NextTest } from '#core/trace/groups'
import type { Suspect } from '#core/trace/rank'
import { newId } from '~/api/ids'
import { whoHere } from '~/door/me'
import { useHold } from '~/composables/useHold'
import { useJobStore } from '~/stores/job'
import { placeName as nameOfPlace } from '~/stations/trace/placeName'
import { shareText } from '~/stations/trace/shown'
import { fetchedLater } from '~/composables/fetchedLater'
import SwitchOnNotice from '~/stations/trace/SwitchOnNotice.vue'
import { useTraceStore } from '~/stations/trace/suspects'
import { useSelectionStore } from '~/stores/selection'

const PhotoStrip = fetchedLater(() => import('~/photos/PhotoStrip.vue'))

/** Ranked suspects of the selected line; one is chosen, its repair recorded, and the line is read again. */
const emit = defineEmits<{ again: [] }>()
const store = useJobStore()
const trace = useTraceStore()
const selected = useSelectionStore()
const note = ref('')
onMounted(() => { trace.tracing = true })
onBeforeUnmount(() => { trace.tracing = false })

const evidence = computed(() => [...selected.proof?.standing.values() ?? []].filter(j => !j.stale).map((j) => {
  const at = j.reading.nodeId === null ? selected.line?.output.label : selected.line?.speakers.find(s => s.id === j.reading.nodeId)?.label
  return { key: j.reading.id, text: `${at} ${KIND_NAMES[j.reading.kind]} ${valueWords(j.reading.value)}`, bad: isWrong(j.verdict) }
}))
const wrongOnes = computed(() => badOnes.value.length > 0 ? `; wrong ${badOnes.value.length === 1 ? 'is' : 'are'} ${badOnes.value.map(b => b.text).join(', ')}` : '')
const badOnes = computed(() => evidence.value.filter(e => e.bad))
const unproved = computed(() => selected.proof?.unproved ?? [])

const placeName = (nodeId: string | null) => nameOfPlace(store.job, nodeId)
const WAYS = { up: 'they draw more than planned', down: 'they draw less than planned' } as const
function saysOf({ fault }: Suspect): string {
  if (!fault) return 'Nothing: the line is as drawn'
  const speaker = selected.line?.speakers.find(s => s.id === fault.nodeId)
  const assumed = speaker ? FAULTS.find(f => f.kind === fault.kind)?.assumes?.(speaker) : null
  const more = fault.tapW !== null ? `on ${writeQuantity(fault.tapW, 'W')}` : fault.way ? WAYS[fault.way] : assumed ?? ''
  return [FAULT_WORDS[fault.kind].at(placeName(fault.nodeId)), more].filter(Boolean).join(': ')
}
const makesOf = ({ fault, lineOhm }: Suspect) => fault?.kind === 'something-else'
  ? 'Another fault, or several at once.'
  : lineOhm === null ? 'The line would read open or short.' : `The line would read ${writeQuantity(lineOhm, 'Ω')}.`

let count = 0
const groups = computed(() => {
  count = 0
  return trace.groups.map(group => ({
    key: group.suspects.map(keyOf).join(), share: shareText(group.probability), alike: group.suspects.length > 1, more: group.more, test: group.test,
    rows: group.suspects.map(suspect => ({
      key: keyOf(suspect), suspect, index: count, rank: ++count, says: saysOf(suspect), makes: makesOf(suspect), share: shareText(suspect.probability),
    })),
  }))
})
function keyOf({ fault }: Suspect): string {
  return fault ? [fault.kind, fault.nodeId, fault.tapW, fault.way].join(' ') : 'none'
}
const rows = computed(() => groups.value.flatMap(g => g.rows))
const chosen = computed(() => rows.value[trace.chosenSuspect] ?? null)
watch(() => rows.value.length, (length) => { if (trace.chosenSuspect >= length) trace.chosenSuspect = 0 })
const testWords = ({ kind, nodeId }: NextTest) => `${KIND_NAMES[kind]}${nodeId === null ? ' at the head' : ` at ${placeName(nodeId)}`}`

/** Where the line may be meant as it reads: the drawing as it would then be. */
const plan = computed(() => {
  const fault = chosen.value?.suspect.fault
  if (!fault || !store.job || !selected.line) return null
  return FAULTS.find(f => f.kind === fault.kind)?.plan?.({ job: store.job, output: selected.line.output, fault, newId }) ?? null
})

const { isHeld, hold } = useHold()
function repair(): void {
  const fault = chosen.value?.suspect.fault
  if (!fault || !selected.line) return
  const done = store.edit({
    kind: 'repair.add',
    repair: {
      id: newId(), at: new Date().toISOString(), outputId: selected.line.outputId, nodeId: fault.nodeId,
      fault: fault.kind, note: note.value.trim(), who: whoHere(), withdrawn: false,
    },
  })
  if (!done) return
  note.value = ''
  hold()
}
</script>

<template>
  <section class="trace" aria-label="Suspects">
    <template v-if="unproved.length > 0">
      <h2>Repaired, not proved yet</h2>
      <div v-for="fix in unproved" :key="fix.id">
        <p>{{ FAULT_WORDS[fix.fault].at(placeName(fix.nodeId)) }}. {{ fix.note }}</p>
        <PhotoStrip :output-id="fix.outputId" :node-id="fix.nodeId" :repair-id="fix.id" :label="`the repair at ${placeName(fix.nodeId)}`" />
      </div>
      <p class="soft">Read the line again: a good reading proves the repair.</p>
      <div><Button label="Read again" @click="emit('again')" /></div>
    </template>
    <template v-if="evidence.length === 0 && unproved.length === 0">
      <h2>Nothing to go by</h2>
      <p class="soft">No reading describes this line as it is now. Read its impedance first; then the suspects are ranked by what was read.</p>
      <div><Button label="Take a reading" @click="emit('again')" /></div>
    </template>
    <template v-else-if="evidence.length > 0">
      <h2>{{ badOnes.length > 0 ? 'What is broken' : 'Nothing is read wrong here' }}</h2>
      <p class="soft small">One fault of each kind that is known here was tried at every place of this line and compared
        with {{ evidence.length === 1 ? 'one reading' : `${evidence.length} readings` }}{{ wrongOnes }}. One fault
        at a time is assumed; how common each is, is common practice, not a count.</p>
      <SwitchOnNotice />
      <p v-if="trace.tried !== null" class="soft" role="status">Trying out every fault: {{ Math.round(trace.tried * 100) }} % done…</p>
      <div role="radiogroup" aria-label="Suspects, likeliest first" class="list">
        <div v-for="(group, k) in groups" :key="group.key" class="group" :class="{ alike: group.alike }">
          <p v-if="group.alike" class="small together">
            <b>{{ group.share }}</b> together: these read alike so far.
            <template v-if="group.test">What tells them apart: <b>{{ testWords(group.test) }}</b>.</template>
          </p>
          <button
            v-for="row in group.rows" :key="row.key" type="button" role="radio" class="offer suspect" :class="{ on: row.index === trace.chosenSuspect }"
            :aria-checked="row.index === trace.chosenSuspect" @click="trace.chosenSuspect = row.index">
            <span class="bar" :style="{ width: `${Math.max(2, row.suspect.probability * 100)}%` }" />
            <span class="rank figure">{{ row.rank }}</span>
            <span>{{ row.says }}</span>
            <span class="share figure">{{ row.share }}</span>
            <span class="then">{{ row.makes }}</span>
          </button>
          <button v-if="group.more > 0" class="act" type="button" @click="trace.openGroup(k)">{{ group.more }} more that read alike: show them</button>
        </div>
      </div>
      <template v-if="chosen?.suspect.fault">
        <p>{{ FAULT_WORDS[chosen.suspect.fault.kind].repair }}</p>
        <div data-form class="form">
        <InputText v-model="note" size="small" aria-label="What was done" placeholder="what was done (if you like)" maxlength="2000" @keydown.enter="repair" />
        <div class="deeds">
          <Button :label="`Record the repair of ${chosen.rank}`" :disabled="isHeld" @click="repair" />
          <Button v-if="plan" variant="outlined" label="It is meant so: correct the plan" @click="store.edit(plan)" />
        </div>
        </div>
        <p class="soft small">Off before any cable is touched. The test decides, not the list: open the likeliest place first.</p>
      </template>
    </template>
  </section>
</template>

<style scoped>
.trace { display: grid; gap: 10px; align-content: start; }
.list { display: grid; gap: 5px; }
.suspect { display: grid; grid-template-columns: auto 1fr auto; gap: 0 10px; align-items: baseline; border-width: 1px; border-color: var(--rule-strong);
  padding: 7px 10px 8px; overflow: hidden; }
.suspect.on { border-color: var(--pen); outline: 1px solid var(--pen); }
.suspect .then { grid-column: 2 / -1; }
.group { display: grid; gap: 5px; }
.group.alike { border-left: 3px solid var(--pen); padding-left: 8px; }
.together { line-height: 1.35; }
.form { display: grid; gap: 10px; }
.deeds { display: flex; flex-wrap: wrap; gap: 8px; }
.rank { font-weight: 600; color: var(--pen); }
.bar { position: absolute; left: 0; bottom: 0; height: 3px; background: var(--pen); }
</style>
