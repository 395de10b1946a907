<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { isWrong } from '#core/check/verdict'
import { FAULT_WORDS } from '#core/check/faultWords'
import { KIND_NAMES } from '#core/check/gradeWords'
import { valueWords } from '#core/check/words'
import { writeQuantity } from '#core/quantity/write'
import { definitionOf } from '#core/faults/index'
import { SPEAKS } from '#core/trace/reasons'
import { isSomethingElse, type Suspect } from '#core/trace/rank'
import { faultSays, faultsSay } from '#core/trace/words'
import { newId } from '~/api/ids'
import { whoHere } from '~/door/me'
import { ticketAddress } from '~/bench/fromJob'
import { findSpeaker } from '#core/job/tree'
import { useHold } from '~/composables/useHold'
import { useJobStore } from '~/stores/job'
import { placeName as nameOfPlace } from '~/stations/trace/placeName'
import { contradiction } from '~/stations/trace/contradiction'
import { placesText, shareText, type SuspectRow } from '~/stations/trace/shown'
import { fetchedLater } from '~/composables/fetchedLater'
import NextTest from '~/stations/trace/NextTest.vue'
import SwitchOnNotice from '~/stations/trace/SwitchOnNotice.vue'
import { useTraceStore } from '~/stations/trace/suspects'
import { useSelectionStore } from '~/stores/selection'

const PhotoStrip = fetchedLater(() => import('~/photos/PhotoStrip.vue'))

/** What to read next on the selected line, and what it may be; one is chosen, its repair recorded, and the line is read again. */
const emit = defineEmits<{ again: [] }>()
const store = useJobStore()
const trace = useTraceStore()
const selected = useSelectionStore()
const note = ref('')
onMounted(() => { trace.tracing = true })
onBeforeUnmount(() => { trace.tracing = false })

const placeName = (nodeId: string | null) => nameOfPlace(store.job, nodeId)
const speakerOf = (nodeId: string | null) => selected.line?.speakers.find(s => s.id === nodeId) ?? null
/** What was read, in the order in which it was: the way that the next person goes on from. */
const evidence = computed(() => [...trace.telling].sort((a, b) => a.reading.at < b.reading.at ? -1 : 1).map((j) => {
  const at = j.reading.nodeId === null ? selected.line?.output.label : speakerOf(j.reading.nodeId)?.label
  return { key: j.reading.id, text: `${at} ${KIND_NAMES[j.reading.kind]} ${valueWords(j.reading.value)}${j.stale ? ', before the repair' : ''}`, bad: isWrong(j.verdict) }
}))
const textOf = computed(() => new Map(evidence.value.map(e => [e.key, e.text])))
const badOnes = computed(() => evidence.value.filter(e => e.bad))
const unproved = computed(() => selected.proof?.unproved ?? [])

const saysOf = ({ faults }: Suspect): string => faults.length === 1
  ? faultSays(faults[0]!, placeName, speakerOf(faults[0]!.nodeId))
  : faultsSay(faults,
      placeName)
const makesOf = ({ faults, lineOhm }: Suspect) => isSomethingElse(faults)
  ? 'Another fault, or more than two at once.'
  : lineOhm === null ? 'The line would read open or short.' : `The line would read ${writeQuantity(lineOhm, 'Ω')}.`

let count = 0
const groups = computed(() => {
  count = 0
  return trace.groups.map(group => ({
    key: group.rows.map(row => keyOf(row.suspects[0]!)).join(), share: shareText(group.probability), alike: group.rows.length > 1, more: group.more,
    place: group.place,
    rows: group.rows.map(row => ({
      key: keyOf(row.suspects[0]!), row, index: count, rank: trace.numbers[count++], says: rowSays(row), makes: makesOf(row.suspects[0]!),
      share: shareText(row.probability),
    })),
  }))
})
/** The same at several places is said once, with its places. */
function rowSays({ suspects }: SuspectRow): string {
  if (suspects.length === 1) return saysOf(suspects[0]!)
  const names = placesText(suspects.map(s => placeName(s.faults[0]!.nodeId)))
  return faultSays(suspects[0]!.faults[0]!, () => names)
}
function keyOf({ faults }: Suspect): string {
  return faults.map(f => [f.kind, f.nodeId, f.tapW, f.way, f.withId].join(' ')).join(' + ') || 'none'
}
const rows = computed(() => groups.value.flatMap(g => g.rows))
const chosen = computed(() => {
  const of = rows.value[trace.chosenSuspect]
  return of ? { ...of, suspect: of.row.suspects[trace.chosenPlace] ?? of.row.suspects[0]! } : null
})
const placesOf = computed(() => chosen.value && chosen.value.row.suspects.length > 1
  ? chosen.value.row.suspects.map((s, k) => ({ k, says: placeName(s.faults[0]!.nodeId), share: shareText(s.probability) }))
  : [])
watch(() => rows.value.length, (length) => { if (trace.chosenSuspect >= length) trace.chosenSuspect = 0 })

/** What of the readings speaks for the chosen one, and what against, strongest first. */
const reasons = computed(() => {
  const place = chosen.value ? trace.view?.ranking.suspects.indexOf(chosen.value.suspect) ?? -1 : -1
  const all = (trace.view?.reasons[place] ?? []).flatMap(({ readingId, times }) => textOf.value.has(readingId)
    ? [{ text: textOf.value.get(readingId)!,
        times }]
    : [])
  const timesText = (times: number) => times >= 20 ? 'many times' : `${writeTimes(times)} times`
  return {
    for: all.filter(r => r.times >= SPEAKS).sort((x, y) => y.times - x.times).map(r => `${r.text}: ${timesText(r.times)} likelier with it`),
    against: all.filter(r => r.times <= 1 / SPEAKS).sort((x, y) => x.times - y.times).map(r => `${r.text}: ${timesText(1 / r.times)} less likely with it`),
  }
})
const writeTimes = (times: number) => times < 3 ? times.toFixed(1) : String(Math.round(times))
const doubt = computed(() => trace.view ? contradiction(trace.view.ranking.suspects, trace.telling, placeName) : null)
const triedWords = computed(() => {
  const ranking = trace.view?.ranking
  if (!ranking) return ''
  if (ranking.untried >= 1) return 'One fault of each kind that is known here was tried at every place; two at once are being tried.'
  const all = ranking.untried > 0 ? 'two at once only where one of them is among the sixty likeliest' : 'and every two of them at once'
  const two = ranking.leftOut > 0 ? `${all}, but for those that come to under 1 % together` : all
  const rest = ranking.unlisted >= 0.01 ? ` Pairs that are not listed hold ${shareText(ranking.unlisted)} together.` : ''
  return `One fault of each kind that is known here was tried at every place, ${two}.${rest}`
})

/** Where the line may be meant as it reads: the drawing as it would then be. */
const plan = computed(() => {
  const faults = chosen.value?.suspect.faults ?? []
  const [fault] = faults
  if (faults.length !== 1 || !fault || !store.job || !selected.line) return null
  return definitionOf(fault.kind)?.plan?.({ job: store.job, output: selected.line.output, fault, newId }) ?? null
})

const repairWords = computed(() => {
  const place = placesOf.value[trace.chosenPlace]
  return `Record the repair of ${chosen.value?.rank ?? ''}${place ? ` at ${place.says}` : ''}`
})
/** Its one unit on the bench, where it is one speaker. */
const toBench = computed(() => {
  const [fault, other] = chosen.value?.suspect.faults ?? []
  if (!fault?.nodeId || other || !store.job || !findSpeaker(store.job, fault.nodeId)) return null
  return ticketAddress(store.id, store.job, fault.nodeId, `traced: ${FAULT_WORDS[fault.kind].at(placeName(fault.nodeId))}`)
})
const { isHeld, hold } = useHold()
function repair(): void {
  const { line } = selected
  const faults = chosen.value?.suspect.faults ?? []
  if (faults.length === 0 || !line) return
  const at = new Date().toISOString()
  const edits = faults.map(fault => ({
    kind: 'repair.add' as const,
    repair: { id: newId(), at, outputId: line.outputId, nodeId: fault.nodeId, fault: fault.kind, note: note.value.trim(), who: whoHere(), withdrawn: false },
  }))
  if (!store.edit(edits.length === 1 ? edits[0]! : { kind: 'batch', edits })) return
  note.value = ''
  trace.chosenSuspect = 0
  hold()
}
</script>

<template>
  <section class="trace" aria-label="Suspects">
    <template v-if="unproved.length > 0">
      <h2>Repaired, not proved yet</h2>
      <div v-for="fix in unproved" :key="fix.id">
        <p>{{ FAULT_WORDS[fix.fault].at(placeName(fix.nodeId)) }}. {{ fix.note }}</p>
        <p v-if="FAULT_WORDS[fix.fault].againDays" class="soft small">
          Look again in {{ FAULT_WORDS[fix.fault].againDays }} days: what came once may come again.
        </p>
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
      <SwitchOnNotice />
      <p v-if="trace.problem" class="problem" role="alert">{{ trace.problem }}</p>
      <p v-if="trace.tried !== null" class="soft small" role="status">Trying out {{ trace.view ? 'every two faults'
        : 'every fault' }}: {{ Math.round(trace.tried * 100) }} % done…</p>
      <NextTest />
      <h2>{{ badOnes.length > 0 ? 'What it can still be' : 'Nothing is read wrong here' }}</h2>
      <p v-if="doubt" class="doubt">{{ doubt }}</p>
      <div role="radiogroup" aria-label="Suspects, likeliest first" class="list">
        <div v-for="group in groups" :key="group.key" class="group" :class="{ alike: group.alike, beside: group.place === null }">
          <p v-if="group.alike" class="small together"><b>{{ group.share }}</b> together: these read alike so far.</p>
          <button
            v-for="row in group.rows" :key="row.key" type="button" role="radio" class="offer suspect" :class="{ on: row.index === trace.chosenSuspect }"
            :aria-checked="row.index === trace.chosenSuspect" @click="trace.chosenSuspect = row.index">
            <span class="bar" :style="{ width: `${Math.max(2, row.row.probability * 100)}%` }" />
            <span class="rank figure">{{ row.rank }}</span>
            <span>{{ row.says }}</span>
            <span class="share figure">{{ row.share }}</span>
            <span class="then">{{ row.makes }}</span>
          </button>
          <button
            v-if="group.more > 0" class="act" type="button"
            @click="trace.openGroup(group.place!)">{{ group.more }} more that read alike: show them</button>
        </div>
      </div>
      <template v-if="chosen">
        <div v-if="placesOf.length > 0" class="places" role="radiogroup" aria-label="At which place">
          <span class="small">at</span>
          <button
            v-for="place in placesOf" :key="place.k" type="button" role="radio" class="tap" :class="{ on: place.k === trace.chosenPlace }"
            :aria-checked="place.k === trace.chosenPlace" @click="trace.chosenPlace = place.k">
            {{ place.says }} <span class="soft">{{ place.share }}</span></button>
        </div>
        <div v-if="reasons.for.length + reasons.against.length > 0" class="reasons">
          <p v-if="reasons.for.length > 0" class="small"><b>For it:</b> {{ reasons.for.join('; ') }}.</p>
          <p v-if="reasons.against.length > 0" class="small"><b>Against it:</b> {{ reasons.against.join('; ') }}.</p>
        </div>
        <template v-for="fault in chosen.suspect.faults" :key="`${fault.kind} ${fault.nodeId}`">
          <p class="small soft">What parts it from its neighbours: {{ FAULT_WORDS[fault.kind].apart }}</p>
          <p>{{ FAULT_WORDS[fault.kind].repair }}<template v-if="FAULT_WORDS[fault.kind].part"> Take along: {{ FAULT_WORDS[fault.kind].part }}.</template></p>
        </template>
        <div v-if="chosen.suspect.faults.length > 0" data-form class="form">
          <InputText
            v-model="note" size="small" aria-label="What was done" placeholder="what was done (if you like)" maxlength="2000" @keydown.enter="repair" />
          <div class="deeds">
            <Button :label="repairWords" :disabled="isHeld" @click="repair" />
            <NuxtLink v-if="toBench" class="act" :to="toBench">a ticket for it at the bench</NuxtLink>
            <Button v-if="plan" variant="outlined" label="It is meant so: correct the plan" @click="store.edit(plan)" />
          </div>
        </div>
      </template>
      <details class="so-far">
        <summary class="small">The way so far: {{ evidence.length === 1 ? 'one reading' : `${evidence.length} readings` }}, and what was tried</summary>
        <ol><li v-for="e in evidence" :key="e.key" :class="{ bad: e.bad }">{{ e.text }}{{ e.bad ? ', reads wrong' : '' }}</li></ol>
        <p class="soft small">{{ triedWords }} How common each is, is common practice, not a count.</p>
      </details>
      <p class="soft small">Off before any cable is touched. The test decides, not the list: open the likeliest place first.</p>
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
.beside .suspect { border-style: dashed; background: none; }
.group.alike { border-left: 3px solid var(--pen); padding-left: 8px; }
.places { display: flex; flex-wrap: wrap; gap: 6px; align-items: center; }
.together { line-height: 1.35; }
.form { display: grid; gap: 10px; }
.reasons { display: grid; gap: 4px; }
.doubt { border-left: 3px solid var(--tight); padding-left: 10px; }
.so-far ol { margin: 6px 0; padding-left: 22px; font-size: 14px; display: grid; gap: 3px; }
.bad { font-weight: 600; }
.problem { color: var(--stop); }
.deeds { display: flex; flex-wrap: wrap; gap: 8px; }
.rank { min-width: 1ch; font-weight: 600; color: var(--pen); }
.bar { position: absolute; left: 0; bottom: 0; height: 3px; background: var(--pen); }
</style>
