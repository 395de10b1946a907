<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue'
import Button from '~/components/form/laterButton'
import { checkKey, historyOf, stateOf } from '#core/check/proof'
import { isWrong, judge } from '#core/check/verdict'
import { amplifierFor } from '#core/check/walk'
import { KIND_NAMES } from '#core/check/gradeWords'
import { CAUTION, KIND_WORDS, rightWords, SOUND_WORDS, VERDICT_TAGS, valueWords } from '#core/check/words'
import type { Output, Reading, ReadingKind, ReadingValue, Speaker } from '#core/job/schema'
import { factsOf, isHeard, isTurned, READ_AT_HEAD, READ_AT_SPEAKER } from '#core/job/sections/readings/kinds'
import { SOUNDS } from '#core/job/sections/readings/schema'
import { writeQuantity } from '#core/quantity/write'
import { METER_HZ } from '#core/check/readingBands'
import { newId } from '~/api/ids'
import { whoHere } from '~/door/me'
import { codeLater, goInto } from '~/composables/fetchedLater'
import GradeTag from '~/components/GradeTag.vue'
import { useJobStore } from '~/stores/job'
import { useEvaluationStore } from '~/stores/evaluation'
import TabRow from '~/components/form/TabRow.vue'
import Keypad from './Keypad.vue'
import { useTraceStore } from '~/stations/trace/suspects'
import { readsByWire } from '#core/meter/byWire'
import { useWire } from '~/meter/useWire'
import { kindsHere } from './kindsHere'
import { toneOf, typedProblem, typedValue } from './taken'
import { useTaken } from './useTaken'
import { BandScale, LeaveIt, LevelEntry, NoteInput, OtherEntry, PolarityEntry, ReadingHistory, ReadingWith, SameBehind, SwitchOnNotice, VerdictSays } from './parts'

/** Takes one reading at one place, judges it at once, keeps it. */
const { output, speaker, keypad = false } = defineProps<{ output: Output, speaker: Speaker | null, keypad?: boolean }>()
const emit = defineEmits<{ trace: [], next: [], meters: [] }>()
const kind = defineModel<ReadingKind>('kind', { required: true })

const store = useJobStore()
const evaluation = useEvaluationStore()
const typed = ref('')
const note = ref('')
const noting = ref(false)
const problem = ref('')
/** The reading that the next one corrects. */
const correcting = shallowRef<Reading | null>(null)
/** What plays, but not as it should. */
const ODD = SOUNDS.filter(is => is !== 'plays' && is !== 'silent')
const { by, meter, leads, tone, taken, frequencyHz } = useTaken(kind)
const proof = computed(() => evaluation.proofs.get(output.id) ?? null)
const toneProblem = computed(() => toneOf(kind.value, tone.value).problem)
const trace = useTraceStore()
onMounted(() => { trace.checking = true })
onBeforeUnmount(() => { trace.checking = false })
const isOn = computed(() => amplifierFor(kind.value) === 'on')
/** Not read while the amplifier must not be switched on, unless somebody answers for it. */
const isBarred = computed(() => isOn.value && !trace.mayBeOn)
const field = useTemplateRef<HTMLElement>('field')

/** What is read here; all else behind a word. */
const showsAll = ref(false)
const kinds = computed((): ReadingKind[] => {
  const all = speaker ? READ_AT_SPEAKER : READ_AT_HEAD
  return showsAll.value
    ? all
    : kindsHere(all, {
        asked: new Set(proof.value?.asksAt.get(speaker?.id ?? null)?.flatMap(ask => ask.kinds) ?? []), chosen: kind.value,
        stands: of => proof.value?.standing.has(checkKey(of, speaker?.id ?? null)) ?? false,
      })
})
const possible = computed(() => (speaker ? READ_AT_SPEAKER : READ_AT_HEAD).length)
watch(() => speaker === null, (atHead) => { if (factsOf(kind.value).at === (atHead ? 'speaker' : 'head')) kind.value = kinds.value[0]! }, { immediate: true })
const key = computed(() => `${output.id} ${speaker?.id ?? ''} ${kind.value}`)
watch(key, clear)
function clear(): void {
  typed.value = ''
  note.value = ''
  noting.value = false
  problem.value = ''
  correcting.value = null
}

const standing = computed(() => proof.value?.standing.get(checkKey(kind.value, speaker?.id ?? null)) ?? null)
/** What is typed is judged at the meter's tone; what was read, at the tone that it was read with. */
const judgedHz = computed(() => isRecorded.value && standing.value ? standing.value.reading.frequencyHz : frequencyHz.value)
/** A level that was read is held against what else was read. */
const predicted = computed(() => kind.value === 'level' && standing.value ? standing.value.predicted : proof.value?.foretold(kind.value, speaker?.id ?? null, judgedHz.value) ?? null)
/** Each earlier reading is judged at its own tone, and beside what was read with it. */
const foretold = (reading: Reading) => proof.value?.planFor(reading) ?? null
const history = computed(() => store.job ? historyOf(store.job, output.id, kind.value, speaker?.id ?? null) : [])

/** What is typed, as far as it can be read. */
const draft = computed((): ReadingValue | null => typedValue(typed.value, taken.value))
/** Of bare pairs apart, open is right: there is no band to draw. */
const isApart = computed(() => predicted.value?.isOpen === true && predicted.value.expected === null)
/** A number is typed. */
const isMeasured = computed(() => factsOf(kind.value).value === 'ohm')
const isOther = computed(() => ['tap', 'volts-amps', 'beside', 'level', 'seen', 'swapped'].includes(factsOf(kind.value).value))
const turnedKind = computed(() => isTurned(kind.value) ? kind.value as 'polarity' | 'polarity-heard' : null)
/** It plays, and it is the right way round: both at once, where both are asked for here. */
const bothOpen = computed(() => kind.value === 'sound' && speaker !== null && proof.value !== null
  && (proof.value.asksAt.get(speaker.id) ?? []).some(ask => ask.kinds[0] === 'polarity-heard' && stateOf(proof.value!.standing, ask) !== 'good'))
const isRecorded = computed(() => draft.value === null && standing.value !== null && typed.value.trim() === '')
const shown = computed(() => draft.value ?? (typed.value.trim() === '' ? standing.value?.reading.value ?? null : null))
const verdict = computed(() => shown.value ? judge(shown.value, predicted.value) : null)
const isBad = computed(() => verdict.value !== null && isWrong(verdict.value))

const asUsual = codeLater(() => import('./asUsual'))
/** One press at a place that is well: it plays, the right way round beside its neighbour, and on to the next. */
async function recordBoth(): Promise<void> {
  const { rightWay } = await asUsual()
  if (!speaker) return
  const made = [readingOf('sound', { is: 'plays' }), readingOf('polarity-heard', rightWay(output, speaker))]
  if (store.edit({ kind: 'batch', edits: made.map(reading => ({ kind: 'reading.add', reading })) })) emit('next')
}
function readingOf(of: ReadingKind, value: ReadingValue): Reading {
  return {
    id: newId(), at: new Date().toISOString(), kind: of, outputId: output.id, nodeId: speaker?.id ?? null, value, note: noteOf(),
    frequencyHz: of === kind.value ? frequencyHz.value : null, supersedes: correcting.value?.kind === of ? correcting.value.id : null,
    taken: taken.value, who: whoHere(), withdrawn: false,
  }
}

function record(value: ReadingValue | null = draft.value): void {
  if (value === null && typed.value.trim() === '' && isRecorded.value) return emit('next')
  if (value === null) {
    problem.value = typedProblem(typed.value)
    return
  }
  if (toneProblem.value) {
    problem.value = toneProblem.value
    return
  }
  if (store.edit({ kind: 'reading.add', reading: readingOf(kind.value, value) })) clear()
}

/** A reading taken on somebody's own word says so. */
function noteOf(): string {
  const own = note.value.trim()
  return isOn.value && trace.risk !== null ? [own, 'amplifier on all the same'].filter(Boolean).join('; ') : own
}

async function correct(reading: Reading): Promise<void> {
  correcting.value = reading
  await nextTick()
  focus()
}

/** Opened, the note has the focus: what is typed next goes there. */
function openNote(): void {
  noting.value = !noting.value
  if (noting.value) void goInto('.note-field')
}

function focus(): void {
  field.value?.querySelector<HTMLElement>('input,button')?.focus()
}

const { isReading, read: readWire } = useWire(
  wire => wire.readByWire({ jobId: store.id, outputId: output.id, nodeId: speaker?.id ?? null, kind: kind.value }),
  {
    take: async (read) => {
      typed.value = read.text
      meter.value = read.meterName
      if (read.isFourWire) leads.value = '0'
      store.say(`${read.meterName}: ${read.text}${read.text === 'open' ? '' : ' Ω'}`)
      await nextTick()
      focus()
    },
    refuse: (why) => { problem.value = why },
    noMeter: () => emit('meters'),
  }, () => key.value)
const byWire = () => isBarred.value ? undefined : readWire()
/** In the empty field the key of the page means the page: nothing that is typed there begins with it. */
function wireKey(event: KeyboardEvent): void {
  if (typed.value !== '' || event.key !== 'm' || event.ctrlKey || event.metaKey || event.altKey) return
  event.preventDefault()
  void byWire()
}
defineExpose({ focus, byWire })
</script>

<template>
  <section class="reading" data-form :aria-label="KIND_WORDS[kind].title">
    <TabRow class="kinds" label="What is read" :tabs="kinds.map(value => ({ value, says: KIND_NAMES[value] }))" :value="kind" @choose="kind = $event" />
    <h2 class="title">{{ KIND_WORDS[kind].title }}</h2>
    <p v-if="isBarred" class="amplifier off"><b>Amplifier OFF</b> until what reads wrong is cleared.</p>
    <p v-else class="amplifier" :class="amplifierFor(kind)"><b>Amplifier {{ isOn ? 'ON' : 'OFF' }}</b> {{ KIND_WORDS[kind].before }}</p>
    <!-- The step that matters stands; what is known by heart folds away. -->
    <template v-if="isBarred" />
    <ol v-else-if="!keypad && KIND_WORDS[kind].steps.length > 1" class="steps"><li v-for="text in KIND_WORDS[kind].steps" :key="text">{{ text }}</li></ol>
    <details v-else-if="keypad && KIND_WORDS[kind].steps.length > 1" class="steps">
      <summary>{{ KIND_WORDS[kind].steps[0] }}</summary>
      <p v-for="text in KIND_WORDS[kind].steps.slice(1)" :key="text">{{ text }}</p>
    </details>
    <p v-else class="steps">{{ KIND_WORDS[kind].steps[0] }}</p>

    <p v-if="correcting" class="correcting">
      In place of {{ valueWords(correcting.value) }}, which was wrong. <button class="act" type="button" @click="correcting = null">no, leave it</button>
    </p>

    <SwitchOnNotice v-if="isOn" can-answer />
    <div v-if="!isBarred" ref="field" class="entry">
      <PolarityEntry
        v-if="turnedKind && speaker" :kind="turnedKind" :output="output" :speaker="speaker" :thumb="keypad" :is-recorded="isRecorded"
        :is-wrong="isBad"
        @record="record" @next="emit('next')" @trace="emit('trace')" />
      <LevelEntry v-if="kind === 'level' && speaker && store.job" :job="store.job" :output="output" :speaker="speaker" @record="record" />
      <OtherEntry v-else-if="isOther" :kind="kind" :output="output" :speaker="speaker" @record="record" />
      <template v-if="isHeard(kind)">
        <template v-if="!keypad">
          <Button v-if="bothOpen" variant="outlined" label="Plays, right way round: next" @click="recordBoth()" />
          <Button variant="outlined" label="It plays" @click="record({ is: 'plays' })" />
          <Button variant="outlined" label="Silent" @click="record({ is: 'silent' })" />
        </template>
        <span class="odd" role="group" aria-label="It plays, but">
          <span class="soft small">plays, but</span>
          <button v-for="is in ODD" :key="is" class="tap" type="button" @click="record({ is })">{{ SOUND_WORDS[is] }}</button>
        </span>
        <span v-if="shown && verdict" class="result"><GradeTag :grade="verdict.grade" :words="VERDICT_TAGS[verdict.code]" large /></span>
      </template>
      <template v-else-if="isMeasured">
        <span class="value" :class="{ faint: isRecorded }">
          <input
            v-model="typed" class="figure" :inputmode="keypad ? 'none' : 'decimal'"
            :placeholder="standing ? valueWords(standing.reading.value).replace(/ Ω$/, '') : '–'"
            autocomplete="off"
            :aria-label="`${KIND_WORDS[kind].title}, in ohms`" maxlength="20" @keydown.enter="record()" @keydown.m="wireKey" @input="problem = ''"
          >
          <span class="unit">Ω</span>
          <span v-if="predicted?.frequencyHz && predicted.frequencyHz !== METER_HZ" class="soft">at {{ writeQuantity(predicted.frequencyHz, 'Hz') }}</span>
        </span>
        <span v-if="verdict" class="result"><GradeTag :grade="verdict.grade" :words="VERDICT_TAGS[verdict.code]" large /></span>
      </template>
      <template v-else-if="shown && verdict">
        <span class="soft">{{ valueWords(shown) }}</span>
        <span class="result"><GradeTag :grade="verdict.grade" :words="VERDICT_TAGS[verdict.code]" large /></span>
      </template>
    </div>
    <p v-if="problem" class="error-words" role="alert">{{ problem }}</p>
    <p v-if="draft?.is === 'ohm' && taken?.leadsOhm" class="soft small">Without the leads: {{ valueWords(draft) }}.</p>
    <!-- Its place is kept until it is there. -->
    <div v-if="predicted && isMeasured && !isApart" class="scale-place">
      <BandScale :predicted="predicted" :value="shown" :grade="verdict?.grade ?? null" />
    </div>
    <VerdictSays v-if="verdict" :kind="kind" :verdict="verdict" :predicted="predicted" :output="output" :value="shown" />
    <p v-else-if="predicted" class="soft small">{{ rightWords(predicted) }}</p>

    <div class="acts">
      <Button v-if="isMeasured && !keypad" label="Record" :disabled="typed.trim() === ''" @click="record()" />
      <Button v-if="isBad && isRecorded && !keypad" label="Trace it" @click="emit('trace')" />
      <Button v-if="(isOther || (turnedKind && !keypad)) && isRecorded" variant="outlined" label="Next place" @click="emit('next')" />
      <button v-if="!isBarred" class="act" type="button" :aria-expanded="noting" @click="openNote">{{ noting ? 'no note' : 'with a note' }}</button>
      <button v-if="readsByWire(kind) && !isBarred" class="act" type="button" :disabled="isReading" @click="byWire">
        {{ isReading ? 'the meter reads…' : 'by wire' }}</button>
      <button v-if="!showsAll && kinds.length < possible" class="act" type="button" @click="showsAll = true">read something else</button>
    </div>
    <NoteInput
      v-if="noting" v-model="note" class="note-field" size="small" aria-label="Note to this reading"
      placeholder="note, kept with the next reading" maxlength="2000" />
    <ReadingWith
      v-model:by="by" v-model:meter="meter" v-model:leads="leads" v-model:tone="tone" :kind="kind" :taken="taken" :frequency-hz="frequencyHz"
      :problem="toneProblem" />
    <SameBehind
      v-if="speaker && !isMeasured && !isOther && isRecorded && standing?.verdict.grade === 'good' && !isBarred" :output="output" :node-id="speaker.id"
      :reading="() => readingOf(kind, standing!.reading.value)" />
    <LeaveIt v-if="standing && isRecorded && isBad" :key="standing.reading.id" :judged="standing" />
    <ReadingHistory :readings="history" :standing-id="standing?.reading.id ?? null" :foretold="foretold" @correct="correct" />
    <p class="caution small">{{ CAUTION }}</p>
    <!-- Where the thumb is. -->
    <div v-if="keypad && isHeard(kind) && !isBarred" class="pad heard" role="group" aria-label="What is heard">
      <Button v-if="bothOpen" class="both" label="Plays, right way round: next" @click="recordBoth()" />
      <Button :variant="bothOpen ? 'outlined' : undefined" label="It plays" @click="record({ is: 'plays' })" />
      <Button variant="outlined" label="Silent" @click="record({ is: 'silent' })" />
      <template v-if="isRecorded">
        <Button v-if="isBad" variant="outlined" label="Trace it" @click="emit('trace')" />
        <span v-else />
        <Button variant="outlined" label="Next place" @click="emit('next')" />
      </template>
    </div>
    <Keypad
      v-if="keypad && isMeasured" class="pad" :can-record="draft !== null" :is-done="isRecorded" :is-wrong="isBad" @next="emit('next')"
      @trace="emit('trace')"
      @press="key => { typed = key === 'open' ? 'open' : (typed === 'open' ? '' : typed) + key; problem = '' }" @back="typed = typed === 'open' ? ''
      : typed.slice(0, -1)" @record="record()" />
  </section>
</template>

<style scoped>
.reading { display: grid; gap: 10px; align-content: start; }
.kinds :deep(.tab.on) { border-bottom-color: var(--pen); }
.title { font-size: 21px; line-height: 1.2; }
.amplifier { border-left: 5px solid var(--ink); padding: 2px 0 2px 10px; font-size: 15px; }
.amplifier b { font-size: 18px; margin-right: 8px; }
.amplifier.on { border-left-color: var(--copper); }
.steps { font-size: 15px; }
.steps summary { cursor: pointer; }
ol.steps { padding-left: 22px; }
.odd { display: flex; flex-wrap: wrap; gap: 5px 6px; align-items: center; flex-basis: 100%; }
.entry { display: flex; flex-wrap: wrap; gap: 10px 14px; align-items: center; }
.value { display: inline-flex; align-items: baseline; gap: 6px; border-bottom: 2px solid var(--ink); }
.value:focus-within { border-bottom-color: var(--pen); }
.value input { border: 0; background: none; color: inherit; font-size: 40px; font-weight: 600; width: 5.2ch; padding: 0; line-height: 1.1; }
.value input:focus-visible { outline: none; }
.value input::placeholder { color: var(--ink); opacity: 1; }
.unit { font-size: 20px; }
.result { margin-left: auto; }
.acts { display: flex; flex-wrap: wrap; gap: 10px 14px; align-items: center; }
.correcting { border-left: 4px solid var(--pen); padding-left: 10px; }
.scale-place { max-width: 420px; aspect-ratio: 358 / 52; }
.caution { color: var(--ink-soft); border-top: 1px solid var(--rule); padding-top: 8px; }
.pad { position: sticky; bottom: 0; margin: 4px -16px 0; background: var(--paper); }
.pad.heard { position: fixed; left: 0; right: 0; bottom: 0; margin: 0; }
.reading:has(.heard), .reading:has(.answers.pad) { padding-bottom: 230px; }
.heard { display: grid; grid-template-columns: 1fr 1fr; gap: 8px; padding: 8px 16px; border-top: 1px solid var(--rule); }
.heard :deep(button) { min-height: 56px; font-size: 18px; }
.heard .both { grid-column: 1 / -1; }
/* A small phone: what the tab says already is not said twice, and the keys are a little lower. */
@media (max-width: 760px) and (max-height: 720px) {
  .title { display: none; }
  .pad :deep(.key) { min-height: 49px; }
}
/* Low windows, and zoom: keys that stuck to the foot would cover the field that they fill. They stand right under it. */
@media (max-width: 560px) and (max-height: 660px) {
  .reading { gap: 4px; }
  .amplifier { font-size: 14px; line-height: 1.3; }
  .amplifier b { font-size: 16px; }
  .value input { font-size: 30px; width: 4.6ch; }
  .entry { gap: 2px 8px; }
  .entry :deep(.large) { font-size: 15px; }
  .pad { margin-top: 0; }
  .pad :deep(.key) { min-height: 44px; }
  .reading > * { order: 2; }
  .reading > :is(.kinds, .title, .amplifier, .correcting, .entry) { order: 0; }
  .reading > .pad { position: static; order: 1; }
}
/* Sideways: the keys stand at the right edge, whatever is scrolled beside them, and the field comes before what is told of it. */
@media (max-height: 560px) and (min-width: 561px) {
  .reading { gap: 6px; }
  .title { display: none; }
  .reading > * { order: 2; }
  .reading > .kinds { order: 0; }
  .reading > :is(.entry, .correcting) { order: 1; }
  .pad, .pad.heard { position: fixed; left: auto; right: 0; bottom: 0; width: min(42vw, 420px); margin: 0; z-index: 5; }
  .pad :deep(.key) { min-height: 44px; }
  .heard :deep(button) { min-height: 44px; }
  .reading:has(.heard), .reading:has(.answers.pad) { padding-bottom: 0; }
}
@media (max-width: 760px) {
  .reading { gap: 7px; }
  .title { font-size: 19px; }
  .value input { font-size: 36px; }
}
</style>

<style>
/* What is scrolled to stands above the keys at the foot. */
@media (min-height: 561px) { html:has(.pad.heard), html:has(.answers.pad) { scroll-padding-bottom: 230px; } }
</style>
