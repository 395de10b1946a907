<script setup lang="ts">
import { computed, nextTick, onMounted, ref, useTemplateRef, watch } from 'vue'
import { navigateTo, useRoute, useRouter } from '#imports'
import { markAt, standingAt } from '#core/check/marks'
import { firstWrong, stateOf } from '#core/check/proof'
import { amplifierFor, nextOpen, phaseOf, type Stop } from '#core/check/walk'
import { roomsOf, walkOver, type JobStop } from '#core/check/walkOrder'
import { KIND_NAMES } from '#core/check/gradeWords'
import { PHASE_WORDS, valueShort } from '#core/check/words'
import type { ReadingKind } from '#core/job/schema'
import KeyCap from '~/components/KeyCap.vue'
import ReadingPanel from '~/stations/check/ReadingPanel.vue'
import TabRow from '~/components/form/TabRow.vue'
import PlaceRail from '~/stations/check/PlaceRail.vue'
import { PHASES, READ_AT_SPEAKER } from '#core/job/sections/readings/kinds'
import { walkKeys } from '~/stations/check/keys'
import { useJobKeys } from '~/stations/useJobKeys'
import { goInto } from '~/composables/fetchedLater'
import { useKeys } from '~/composables/useKeys'
import { useMedia } from '~/composables/useMedia'
import { wiringText } from '~/drawing/speakerText'
import { useWalkOrder } from './walkOrder'
import { useJobStore } from '~/stores/job'
import { useEvaluationStore } from '~/stores/evaluation'
import { useSelectionStore } from '~/stores/selection'
import { useTraceStore } from '~/stations/trace/suspects'
import { focused } from '~/composables/elements'
import FindBox from '~/components/shell/FindBox.vue'
import { KeysDialog } from '~/components/shell/opened'
import { ChecksDialog, FoundHere, MetersDialog, PhotoStrip, PlaceOnPlan, ShareRow, SuspectsPanel } from './parts'
import { roomsToWalk, sharedRooms } from '#core/check/sharing'
import { whoHere } from '~/door/me'

const store = useJobStore()
const evaluation = useEvaluationStore()
const selected = useSelectionStore()
const route = useRoute()
const router = useRouter()
const { common, keysOpen, findOpen } = useJobKeys()
const AT_HEAD: ReadingKind = 'line-impedance'
const kind = ref<ReadingKind>(AT_HEAD)
const tracing = ref(false)
const wantsOpen = ref(false)
const metersOpen = ref(false)
const trace = useTraceStore()
const panel = useTemplateRef<InstanceType<typeof ReadingPanel>>('panel')

/** A thumb has its own keys, upright and sideways; at a desk the keyboard is there. */
const narrow = useMedia('(max-width: 900px), (max-height: 560px)')
onMounted(() => {
  const wanted = selected.asked(route.query.line)
  const speakerId = typeof route.query.speaker === 'string' ? route.query.speaker : null
  if (wanted !== null) selected.select(wanted, speakerId ?? (selected.selection.outputId === wanted ? selected.selection.nodeId : null))
  if (route.query.read === 'polarity') kind.value = turnedAt(selected.selection.nodeId) ?? kind.value
  if (wanted === null && selected.selection.outputId === null) {
    selected.select((evaluation.lines.find(l => l.speakers.length > 0) ?? evaluation.lines[0])?.outputId ?? null)
  }
})
watch(() => selected.selection, ({ outputId, nodeId }) => {
  if (outputId) void router.replace({ query: { line: outputId, ...(nodeId ? { speaker: nodeId } : {}) } })
})

const { order, setOrder } = useWalkOrder()
const hasRooms = computed(() => store.opened.spaces.some(s => s.spots.some(spot => spot.nodeId !== null)))
const isByRoom = computed(() => order.value === 'room' && hasRooms.value)
/** Every reading of the job, room by room within each phase; of the line alone where one goes along it. */
const all = computed((): JobStop[] => {
  const lines = evaluation.lines.flatMap(({ outputId, output }) => {
    const proof = evaluation.proofs.get(outputId)
    return proof && (isByRoom.value || outputId === selected.selection.outputId) ? [{ output, proof }] : []
  })
  return walkOver(store.opened, lines, isByRoom.value ? 'room' : 'line')
})
const isThere = ({ stop: { speaker }, output }: JobStop) =>
  output.id === selected.selection.outputId && (speaker?.id ?? null) === selected.selection.nodeId
const isHere = (to: JobStop) => isThere(to) && to.stop.ask.kinds.includes(kind.value)
const current = computed(() => all.value.findIndex(isHere))
const rooms = computed(() => isByRoom.value ? sharedRooms(store.opened, roomsOf(store.opened, all.value), whoHere()) : [])
const room = computed(() => rooms.value.find(r => r.stops.some(isThere)) ?? rooms.value[0] ?? null)
/** Those that are in sight: of this line, or of this room. */
const stops = computed((): JobStop[] => isByRoom.value ? room.value?.stops ?? [] : all.value)
/** The phases of the work that this job asks something of. */
const phases = computed(() => PHASES.map(phase => ({ phase, stops: stops.value.filter(s => phaseOf(s.stop) === phase) }))
  .filter(({ stops }) => stops.length > 0))
const at = computed(() => stops.value.findIndex(isHere))
const proof = computed(() => selected.proof)

function go(to: JobStop | undefined): void {
  if (!to) return
  const { stop, output } = to
  tracing.value = false
  selected.select(output.id, stop.speaker?.id ?? null)
  // What was read there, where it can be read in more than one way.
  kind.value = standingOf(to)?.reading.kind ?? stop.kind
}
function step(by: 1 | -1): void {
  go(stops.value[Math.max(0, Math.min(stops.value.length - 1, (at.value === -1 ? 0 : at.value) + by))])
}
/** The next place not proved yet. */
const nextId = computed(() => nextStop()?.stop.speaker?.id ?? null)
function goOn(): void {
  go(nextStop() ?? undefined)
}
function nextStop(): JobStop | null {
  // Nothing with the amplifier on while that is not safe; where all else is read, the place says why it stops.
  const of = new Map(all.value.map(to => [to.stop, to]))
  const isProved = (s: Stop) => ['good', 'left'].includes(stateOf(of.get(s)!.proof.standing, s.ask))
  // Shared out, one goes on in one's own rooms.
  const wanted = new Set(isByRoom.value ? roomsToWalk(rooms.value, r => r.stops.some(s => !isProved(s.stop))).flatMap(r => r.stops) : all.value)
  const every = all.value.filter(to => wanted.has(to)).map(to => to.stop)
  const safe = trace.mayBeOn ? every : every.filter(s => amplifierFor(s.kind) === 'off')
  const here = all.value[current.value]?.stop
  const at = (stops: readonly Stop[]) => here === undefined ? -1 : stops.indexOf(here)
  const next = nextOpen(safe, at(safe), isProved)
  const found = next && !isProved(next) ? next : nextOpen(every, at(every), isProved)
  return found && of.get(found)!
}
function chooseRoom(id: string): void {
  go(rooms.value.find(r => r.id === id)?.stops[0])
}
function otherLine(by: 1 | -1): void {
  if (isByRoom.value) {
    const k = rooms.value.findIndex(r => r.id === room.value?.id)
    return go(rooms.value[Math.max(0, Math.min(rooms.value.length - 1, k + by))]?.stops[0])
  }
  const k = evaluation.lines.findIndex(l => l.outputId === selected.selection.outputId)
  const next = evaluation.lines[Math.max(0, Math.min(evaluation.lines.length - 1, k + by))]
  if (next) chooseLine(next.outputId)
}
function chooseLine(outputId: string): void {
  tracing.value = false
  selected.select(outputId)
  kind.value = AT_HEAD
}
function choosePlace(nodeId: string | null): void {
  tracing.value = false
  selected.select(selected.selection.outputId, nodeId)
  kind.value = nodeId === null ? AT_HEAD : READ_AT_SPEAKER.includes(kind.value) ? kind.value : firstAt(nodeId)
}
/** Where which way round it is was asked for: by the way that works there. */
function turnedAt(nodeId: string | null): ReadingKind | undefined {
  return proof.value?.asksAt.get(nodeId)?.find(ask => ask.kinds.length > 1)?.kinds[0] ?? (nodeId === null ? undefined : 'polarity')
}
/** What is asked of a speaker first. */
function firstAt(nodeId: string): ReadingKind {
  return proof.value?.asksAt.get(nodeId)?.[0]?.kinds[0] ?? 'coil-dcr'
}
async function again(): Promise<void> {
  tracing.value = false
  const bad = proof.value && firstWrong(proof.value)
  selected.select(selected.selection.outputId, bad?.reading.nodeId ?? null)
  kind.value = bad?.reading.kind ?? AT_HEAD
  await nextTick()
  panel.value?.focus()
}

const wiredAs = computed(() => selected.speaker ? `${selected.speaker.load.kind === 'tap' ? 'tap ' : ''}${wiringText(selected.speaker)}` : '')
function textOf({ stop: { speaker, kind: read }, output }: JobStop): string {
  const where = isByRoom.value ? [output.label, speaker?.label ?? ''] : [speaker?.label ?? '']
  return [...where, KIND_NAMES[read]].filter(Boolean).join(' ')
}
const standingOf = ({ stop, proof: of }: JobStop) => standingAt(of.standing, stop.ask)
const markOf = ({ stop, proof: of }: JobStop) => markAt(of.standing, stop.ask)

function byRoom(): void {
  if (hasRooms.value) setOrder(order.value === 'room' ? 'line' : 'room')
  else store.sayNot('No speaker hangs in a room that is drawn: draw it at Space first.')
}

const bindings = [...walkKeys({
  step, nextOpen: goOn, otherLine, byRoom, toReading: () => panel.value?.focus(),
  trace: () => { tracing.value = true },
  toTest: () => {
    tracing.value = true
    void goInto('.next .walk button, .next input, .next .answer')
  },
  wants: () => { wantsOpen.value = true },
  byWire: () => void panel.value?.byWire(),
  meters: () => { metersOpen.value = true },
  leave: () => { tracing.value = false },
}), ...common]
useKeys(() => bindings)

function leaveField(event: KeyboardEvent): void {
  if (event.key === 'Escape') focused()?.blur()
}
const settled = computed(() => stops.value.filter(s => ['good', 'left'].includes(stateOf(s.proof.standing, s.stop.ask))).length)
const isWrong = ({ proof: of, stop }: JobStop) => stateOf(of.standing, stop.ask) === 'wrong'
const roomTabs = computed(() => rooms.value.map(r => ({ value: r.id, says: r.name, isWrong: r.stops.some(isWrong), by: r.share === null ? '' : r.isMine ? 'you' : r.share.name })))
/** "3 of 8 here", "8 readings on this line". */
const standsAt = computed(() => {
  const many = at.value >= 0 ? `${at.value + 1} of ${stops.value.length}` : `${stops.value.length} readings`
  return `${many} ${isByRoom.value ? 'here' : 'on this line'}, ${settled.value} proved`
})
const lines = computed(() => evaluation.lines.map(({ outputId, output }) => ({
  value: outputId, says: output.label, name: output.name, isWrong: (evaluation.proofs.get(outputId)?.wrong ?? 0) > 0,
})))
</script>

<template>
  <div>
    <main v-if="evaluation.lines.length === 0" class="nothing">
      <p>Nothing to check yet: the sheet has no line.</p>
      <NuxtLink class="act" :to="`/jobs/${route.params.id}`">to the run sheet <KeyCap of="v" /></NuxtLink>
    </main>
    <main v-else class="check" aria-label="Checks">
      <div class="walk">
        <div class="along">
        <TabRow
          v-if="isByRoom" class="lines" label="Rooms" :tabs="roomTabs" :value="room?.id ?? null"
          @choose="chooseRoom">
          <template #default="{ tab }"><b>{{ tab.says }}</b> <span v-if="tab.by" class="by">{{ tab.by }}</span>
            <span v-if="tab.isWrong" class="wrong" aria-label="reads wrong">✕</span></template>
        </TabRow>
        <TabRow v-else class="lines" label="Lines" :tabs="lines" :value="selected.selection.outputId" @choose="chooseLine">
          <template #default="{ tab }"><b>{{ tab.says }}</b> <span class="soft">{{ tab.name }}</span>
            <span v-if="tab.isWrong" class="wrong" aria-label="reads wrong">✕</span></template>
        </TabRow>
        <button v-if="hasRooms" class="act order" type="button" :aria-pressed="isByRoom" @click="byRoom">{{ isByRoom ? 'by lines' : 'by rooms' }}
          <KeyCap v-if="!narrow" of="o" /></button>
        </div>
        <ShareRow v-if="isByRoom && room" :room="room" />
        <PlaceRail v-if="selected.line && proof" :line="selected.line" :proof="proof" :selected-id="selected.selection.nodeId" @select="choosePlace" />
        <p v-if="proof" class="soft small progress">{{ standsAt }}<template v-if="proof.wrong > 0">, {{ proof.wrong }} wrong on this line</template>
          <button v-if="!narrow" class="act find" type="button" @click="wantsOpen = true">what is asked <KeyCap of="w" /></button>
          <NuxtLink v-if="!narrow" class="act find" :to="`/jobs/${route.params.id}/paper`">on paper <KeyCap of="I" /></NuxtLink>
          <button v-if="!narrow" class="act find" type="button" @click="findOpen = true">find <KeyCap of="/" /></button></p>
        <template v-if="!narrow">
          <p class="soft small">The meter is tried on something known first. After a repair the whole line is read once more.</p>
          <section v-for="pass in phases" :key="pass.phase" class="pass">
            <h3>{{ PHASE_WORDS[pass.phase] }}</h3>
            <ul class="stops">
              <li v-for="stop in pass.stops" :key="textOf(stop)">
                <button type="button" class="stop-row" :class="{ on: stops[at] === stop }" :aria-current="stops[at] === stop" @click="go(stop)">
                  <span
                    class="mark"
                    :class="markOf(stop)?.grade ?? 'none'">{{ markOf(stop)?.mark }}</span>
                  {{ textOf(stop) }}
                  <span class="figure soft">{{ standingOf(stop) ? valueShort(standingOf(stop)!.reading.value) : '' }}</span>
                </button>
              </li>
            </ul>
          </section>
        </template>
      </div>
      <div v-if="selected.line" class="here">
        <p class="soft place">
          <template v-if="selected.speaker">speaker {{ selected.speaker.label }}<template
            v-if="selected.speaker.name"> · {{ selected.speaker.name }}</template> · {{ wiredAs }}</template>
          <template v-else>{{ selected.line.output.label }} {{ selected.line.output.name }} · at the rack</template>
        </p>
        <SuspectsPanel v-if="tracing" @again="again" />
        <ReadingPanel
          v-else ref="panel" v-model:kind="kind" :output="selected.line.output" :speaker="selected.speaker" :keypad="narrow" @trace="tracing = true"
          @meters="metersOpen = true" @next="goOn" @keydown="leaveField" />
        <PlaceOnPlan v-if="!tracing && selected.speaker" :node-id="selected.speaker.id" :next-id="nextId" />
        <PhotoStrip
          v-if="!tracing" :key="`${selected.line.outputId} ${selected.speaker?.id ?? ''}`" :output-id="selected.line.outputId"
          :node-id="selected.speaker?.id ?? null" :label="selected.speaker?.label ?? selected.line.output.label" />
        <FoundHere v-if="!tracing && selected.speaker" :key="selected.speaker.id" :output="selected.line.output" :speaker="selected.speaker" />
        <p v-if="tracing" class="back"><button class="act" type="button" @click="tracing = false">back to the reading</button> <button
          v-if="!narrow"
          class="act" type="button" @click="navigateTo({ path: `/jobs/${route.params.id}/trace`, query: { line: selected.selection.outputId } })">see it
          on the run sheet</button></p>
      </div>
    </main>
    <MetersDialog v-if="metersOpen" v-model:open="metersOpen" />
    <ChecksDialog v-if="wantsOpen" v-model:open="wantsOpen" />
    <FindBox v-model:open="findOpen" :actions="bindings" />
    <KeysDialog v-model:open="keysOpen" :bindings="bindings" />
  </div>
</template>

<style scoped>
.nothing { padding: 50px 22px; display: grid; gap: 12px; justify-items: start; }
.check { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 520px); gap: 18px 50px; max-width: 1180px; margin: 0 auto; padding: 20px 22px 60px; }
.walk { display: grid; gap: 12px; align-content: start; }
.progress { display: flex; justify-content: space-between; align-items: baseline; }
.find { font-size: 14px; }
.along { display: flex; gap: 14px; align-items: start; justify-content: space-between; min-width: 0; }
.along .lines { min-width: 0; flex: 1; }
.order { flex: none; font-size: 14px; padding: 6px 0; }
@media (pointer: coarse), (max-width: 760px) { .order { min-height: 44px; min-width: 44px; } }
.lines :deep(.tabs) { row-gap: 4px; }
.lines :deep(.tab) { min-width: 24px; flex: none; font-weight: 600; }
.lines .soft, .by { font-weight: 400; }
.by { color: var(--ink-soft); }
.lines :deep(.tab.on) { border-bottom-color: var(--pen); }
.wrong { color: var(--stop); font-weight: 700; margin-left: 6px; }
.stops { list-style: none; columns: 2; column-gap: 30px; }
.stop-row { width: 100%; display: grid; grid-template-columns: 20px 1fr auto; gap: 6px; border: 0; border-bottom: 1px solid var(--rule); background: none;
  text-align: left; padding: 4px 4px; cursor: pointer; break-inside: avoid; }
.stop-row.on { background: var(--wash); box-shadow: inset 3px 0 var(--pen); }
.mark { font-weight: 700; text-align: center; color: var(--ink-soft); }
.mark.good { color: var(--good); }
.mark.stop, .mark.tight { color: var(--stop); }
.here { display: grid; gap: 6px; align-content: start; }
.back { display: flex; gap: 20px; padding-top: 10px; }
@media (max-width: 900px) {
  .check { grid-template-columns: minmax(0, 1fr); }
  .stops { columns: 1; }
}
@media (max-width: 760px) {
  .check { padding: 8px 16px 0; gap: 10px; }
  .walk { gap: 6px; }
  .lines :deep(.tabs) { flex-wrap: nowrap; overflow-x: auto; gap: 16px; }
  .lines :deep(.tab) { padding: 6px 0 5px; }
  .progress { display: none; }
  .place { font-size: 14px; line-height: 1.3; }
  .lines :deep(.tab:not(.on)) .soft { display: none; }
}
/* A small phone: its keys are in sight with the field; the place is marked on its rail. */
@media (max-width: 560px) and (max-height: 660px) {
  .check { padding-top: 2px; gap: 4px; }
  .walk { gap: 2px; }
  .place { display: none; }
}
/* Sideways: what is read to the left, its keys to the right (ReadingPanel). */
@media (max-height: 560px) and (min-width: 561px) {
  .check { display: block; max-width: none; margin: 0; padding: 6px calc(min(42vw, 420px) + 16px) 10px 16px; }
  .walk { gap: 4px; }
  .lines :deep(.tabs) { flex-wrap: nowrap; overflow-x: auto; gap: 16px; }
  .place, .progress { display: none; }
}
</style>
