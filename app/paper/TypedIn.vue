<script setup lang="ts">
import { computed, ref } from 'vue'
import { KIND_NAMES } from '#core/check/gradeWords'
import { standingAt } from '#core/check/marks'
import { phaseOf } from '#core/check/walk'
import { PHASE_WORDS, VERDICT_TAGS, valueShort } from '#core/check/words'
import { HOW_WORDS } from '#core/check/turnedWords'
import { howsOf } from '#core/job/sections/readings/hows'
import type { ReadingKind } from '#core/job/schema'
import { newId } from '~/api/ids'
import { whoHere } from '~/door/me'
import TextEntry from '~/components/form/TextEntry.vue'
import GradeTag from '~/components/GradeTag.vue'
import { takenOf, withoutLeads } from '~/stations/check/taken'
import { useHow } from '~/stations/check/polarityTaken'
import { useJobStore } from '~/stores/job'
import InputText from 'primevue/inputtext'
import { walkCode, type Numbered } from './numbered'
import { readingOf, readWritten, writtenAt } from './typedIn'
import { rightText } from './sheets/walk'

/** What came back on paper, typed in in its order: one field a line of the sheet, Enter goes on. Each is kept at once, and judged. */
const { stops } = defineProps<{ stops: Numbered[] }>()
const store = useJobStore()
const day = ref('')
const by = ref('')
const meter = ref('')
const leads = ref('')
const code = ref('')
const from = ref(1)
/** So many lines at a time: as many as three sheets of paper hold. */
const AT_A_TIME = 60
const shown = computed(() => stops.slice(from.value - 1, from.value - 1 + AT_A_TIME))
const ownCode = computed(() => walkCode(stops))
const isOther = computed(() => code.value.trim() !== '' && code.value.trim().toUpperCase() !== ownCode.value)
const hows = useHow().kept
const standingOf = ({ at: { proof, stop } }: Numbered) => standingAt(proof.standing, stop.ask)
const placeOf = ({ at: { stop: { speaker }, output } }: Numbered) => speaker ? `${output.label} ${speaker.label}` : `${output.label}, at the rack`
const isNewPhase = (k: number) => k === 0 || phaseOf(shown.value[k]!.at.stop) !== phaseOf(shown.value[k - 1]!.at.stop)
const HINTS: Partial<Record<ReadingKind, string>> = { 'sound': 'plays', 'polarity': 'right, turned', 'polarity-heard': 'right, turned' }
const howWords = computed(() => (['polarity', 'polarity-heard'] as const).flatMap((kind) => {
  const how = howsOf(kind).find(h => h === hows.value[kind])
  return how ? [`${KIND_NAMES[kind]}: ${HOW_WORDS[how].says}`] : []
}).join('; '))

const reader = (numbered: Numbered) => (text: string) => {
  const { stop: { kind, speaker }, output } = numbered.at
  const at = { kind, output, speaker }
  const taken = takenOf(kind, { by: by.value, meter: meter.value, leads: leads.value })
  const value = readWritten(text, at, hows.value)
  const measured = value.is === 'ohm' ? { ...value, ohm: withoutLeads(value.ohm, taken) } : value
  return readingOf(measured, at, { taken, who: whoHere(), note: 'typed in from paper', at: writtenAt(day.value, numbered.no, new Date()), id: newId() })
}
function keep(reading: ReturnType<ReturnType<typeof reader>>): void {
  store.edit({ kind: 'reading.add', reading })
}
/** On to the next field of the sheet. */
function onward(event: KeyboardEvent): void {
  const fields = [...(event.currentTarget as HTMLElement).querySelectorAll<HTMLInputElement>('li input')]
  const at = fields.indexOf(event.target as HTMLInputElement)
  // What could not be read stays in front of the person.
  if (at >= 0) setTimeout(() => { if (fields[at]!.getAttribute('aria-invalid') !== 'true' && !fields[at]!.classList.contains('p-invalid')) fields[at + 1]?.focus() })
}
</script>

<template>
  <section class="typed-in" data-form aria-label="What came back on paper">
    <div class="head">
      <label><span class="small soft">Code on the sheet</span><InputText v-model="code" size="small" maxlength="8" :placeholder="ownCode" /></label>
      <label><span class="small soft">Read on the day</span><InputText v-model="day" size="small" type="date" /></label>
      <label><span class="small soft">By</span><InputText v-model="by" size="small" maxlength="80" /></label>
      <label><span class="small soft">With which meter</span><InputText v-model="meter" size="small" maxlength="80" /></label>
      <label><span class="small soft">Its leads</span><InputText v-model="leads" size="small" maxlength="12" placeholder="0 Ω if nulled" /></label>
    </div>
    <p v-if="isOther" class="error-words" role="alert">The plan now has the sheet {{ ownCode }}: what was printed as {{ code.trim().toUpperCase() }} may
      number other places. Go by the places, not by the numbers.</p>
    <p v-if="howWords" class="small soft">{{ howWords }}.</p>
    <p v-if="stops.length === 0" class="soft">Nothing is asked to be read.</p>
    <ol v-else @keydown.enter="onward">
      <template v-for="(numbered, k) in shown" :key="numbered.no">
        <li v-if="isNewPhase(k)" class="phase">{{ PHASE_WORDS[phaseOf(numbered.at.stop)] }}</li>
        <li>
          <span class="no figure">{{ numbered.no }}</span>
          <span class="place"><b>{{ placeOf(numbered) }}</b> <span class="soft">{{ KIND_NAMES[numbered.at.stop.kind] }}, {{ rightText(numbered.at.stop.kind,
            numbered.at.proof.foretold(numbered.at.stop.kind, numbered.at.stop.speaker?.id ?? null)) }}</span></span>
          <TextEntry
            :label="`${numbered.no}: ${placeOf(numbered)}, ${KIND_NAMES[numbered.at.stop.kind]}`" hide-label text="" :read="reader(numbered)"
            :hint="standingOf(numbered) ? valueShort(standingOf(numbered)!.reading.value) : HINTS[numbered.at.stop.kind] ?? 'Ω'" @commit="keep" />
          <span class="verdict"><GradeTag
            v-if="standingOf(numbered)" :grade="standingOf(numbered)!.verdict.grade" :words="VERDICT_TAGS[standingOf(numbered)!.verdict.code]" /></span>
        </li>
      </template>
    </ol>
    <p v-if="stops.length > AT_A_TIME" class="turn">
      <button class="act" type="button" :disabled="from === 1" @click="from = Math.max(1, from - AT_A_TIME)">earlier</button>
      <span class="soft small">{{ from }} to {{ Math.min(stops.length, from + AT_A_TIME - 1) }} of {{ stops.length }}</span>
      <button class="act" type="button" :disabled="from + AT_A_TIME > stops.length" @click="from += AT_A_TIME">further</button>
    </p>
  </section>
</template>

<style scoped>
.typed-in { display: grid; gap: 12px; max-width: 860px; }
.head { display: flex; flex-wrap: wrap; gap: 8px 14px; }
.head label { display: grid; gap: 2px; flex: 1 1 130px; min-width: 0; }
.head :deep(input) { width: 100%; }
ol { list-style: none; border-top: 1px solid var(--rule); }
li { display: grid; grid-template-columns: 44px minmax(0, 1fr) 150px 190px; gap: 4px 14px; align-items: center; padding: 4px 0;
  border-bottom: 1px solid var(--rule); }
.phase { display: block; font-weight: 700; padding-top: 14px; }
.no { text-align: right; color: var(--ink-soft); }
.place { overflow-wrap: anywhere; }
.turn { display: flex; gap: 18px; align-items: baseline; }
@media (max-width: 760px) {
  li { grid-template-columns: 34px minmax(0, 1fr) 120px; }
  .verdict { grid-column: 2 / -1; }
  .verdict:empty { display: none; }
  li :deep(input) { min-height: 44px; }
}
</style>
