<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { navigateTo, useHead, useRoute } from '#imports'
import { lineVoltsOf, valveOf } from '#core/amplifier/questions'
import { predictLine } from '#core/check/predict'
import { minutesFor, RANGES_OHM, sumOf, TONES_HZ, type Mistake } from '#core/practice/game'
import { actSays, isToldAtOnce, readSays, stepSays, stepSaysShort } from '#core/practice/gameWords'
import { heardIn } from '#core/practice/listen'
import { findIn, kindsAt, nodeOfKind, orderIn, placesOf, testsAt } from '#core/practice/places'
import { FAULT_WORDS } from '#core/check/faultWords'
import type { FaultKind } from '#core/job/schema'
import { amplifierOf, laddersOf } from '#core/trace/next/minutes'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import { laddersSay, minutesSay, testTitle } from '#core/trace/words'
import ChoiceRow from '~/components/form/ChoiceRow.vue'
import AppHeader from '~/components/shell/AppHeader.vue'
import CommonActions from '~/components/shell/CommonActions.vue'
import FindBox from '~/components/shell/FindBox.vue'
import { KeysDialog } from '~/components/shell/opened'
import KeyCap from '~/components/KeyCap.vue'
import { useKeys } from '~/composables/useKeys'
import { useTheme } from '~/composables/useTheme'
import { playKeys } from './keys'
import { MetersDialog } from '~/stations/check/parts'
import { readRigByWire } from './byWire'
import { AfterPane } from './parts'
import { usePracticeStore } from './practiceStore'
import { play as playSound, silence } from './soundOut'
import WorldNote from './WorldNote.vue'

/** A rig: its places beside each other, what can be done at the one that is chosen, what was done so far. When it is over, the way that was gone. */
const practice = usePracticeStore()
const route = useRoute()
practice.open(String(route.params.code))
onBeforeUnmount(() => {
  silence()
  practice.end()
})
useHead({ title: computed(() => practice.rig ? `${practice.rig.exercise.name} · Practice` : 'Practice · Plain Match') })
const keysOpen = ref(false)
const findOpen = ref(false)
const play = computed(() => practice.play)
const output = computed(() => practice.rig!.output)
const places = computed(() => practice.rig ? placesOf(output.value) : [])
const at = ref<string | null>(null)
const place = computed(() => places.value.find(p => p.id === at.value) ?? places.value[0]!)
const naming = ref(false)
watch(at, () => { naming.value = false })
const nameOf = (id: string | null) => places.value.find(p => p.id === id)?.name ?? 'a group'

/** What hangs there as it is drawn: what a plan tells, and no more. */
const drawn = computed(() => {
  const node = findIn(output.value, at.value)
  if (node === null) {
    const { rating } = output.value
    const expected = predictLine(output.value).find(p => p.kind === 'line-impedance')?.expected ?? null
    const [lineVolts, valve] = [lineVoltsOf(rating), valveOf(rating)]
    const onTap = valve?.tapOhm == null ? '' : `, on its tap of ${writeQuantity(valve.tapOhm, 'Ω')}`
    const amplifierIs = lineVolts === null ? `${valve ? 'valve amplifier' : 'amplifier'}${onTap}` : `${writeNumber(Math.floor(lineVolts))} V line`
    return `${amplifierIs}${expected === null ? '' : `; as it is drawn the line reads ${writeQuantity(Number(expected.toPrecision(3)), 'Ω')}`}`
  }
  return node
})
const doables = computed(() => {
  if (!play.value) return []
  return testsAt(output.value, at.value).flatMap((test) => {
    const minutes = minutesFor(play.value!, test)
    if (minutes === null) return []
    const ladders = laddersOf(test, play.value!, orderIn(output.value))
    return [{ test, minutes, needs: amplifierOf(test.kind), title: testTitle(test, id => id === null ? output.value.label : nameOf(id)), costs: [minutesSay(minutes), laddersSay(ladders)].filter(Boolean).join(', ') }]
  })
})
const kinds = computed(() => practice.rig ? kindsAt(practice.rig.exercise, at.value) : [])
/** What was last read at each place, in a word. */
const lastRead = computed(() => {
  const by = new Map<string | null, string>()
  for (const step of play.value?.steps ?? []) {
    if (step.mended) by.clear()
    for (const read of step.read) by.set(read.nodeId, readSays([read], output.value))
  }
  return by
})
const last = computed(() => play.value?.steps.at(-1) ?? null)
const lastSays = computed(() => last.value ? stepSays(last.value, output.value) : '')
const isTold = (mistake: Mistake | null) => mistake !== null && isToldAtOnce(mistake)
const isMistake = computed(() => last.value !== null && isTold(last.value.mistake))
const sum = computed(() => play.value ? sumOf(play.value) : null)

const noSound = ref(false)
const heard = computed(() => {
  const step = last.value
  if (!step || step.read.length !== 1 || !play.value) return []
  return heardIn(play.value.rig, step.read[0]!)
})
async function listen(): Promise<void> {
  if (heard.value.length > 0) noSound.value = !await playSound(heard.value)
}
function take(k: number): void {
  const one = doables.value[k]
  if (!one) return
  silence()
  practice.act({ do: 'test', ...one.test })
}
function amplifier(): void {
  silence()
  practice.act({ do: 'amplifier', on: !play.value!.isOn })
}
const RANGES = [{ value: 'own', says: 'its own' }, ...RANGES_OHM.map(ohm => ({ value: String(ohm), says: writeQuantity(ohm, 'Ω') }))]
const TONES = TONES_HZ.map(hz => ({ value: String(hz), says: writeQuantity(hz, 'Hz') }))
const range = computed(() => String(play.value?.meter.rangeOhm ?? 'own'))
function setMeter(rangeText: string | undefined, toneText: string | undefined): void {
  const { rangeOhm, toneHz } = play.value!.meter
  const to = rangeText === undefined ? rangeOhm : RANGES_OHM.find(ohm => String(ohm) === rangeText) ?? null
  practice.act({ do: 'meter', rangeOhm: to, toneHz: TONES_HZ.find(hz => String(hz) === toneText) ?? toneHz })
}
function say(kind: FaultKind): void {
  naming.value = false
  practice.act({ do: 'name', kind, nodeId: nodeOfKind(practice.rig!.exercise, at.value, kind) })
}
/** The simulated meter speaks for a rig of a code, as long as nothing of it was put right. */
const canWire = computed(() => place.value.is === 'speaker' && doables.value.some(d => d.test.kind === 'coil-dcr') && practice.source !== null && 'code' in practice.source && play.value!.mended.length === 0)
const wireProblem = ref('')
const isReading = ref(false)
const metersOpen = ref(false)
watch(at, () => { wireProblem.value = '' })
async function readWire(): Promise<void> {
  wireProblem.value = ''
  if (play.value!.isOn) return practice.act({ do: 'test', kind: 'coil-dcr', nodeId: at.value, besideId: null })
  isReading.value = true
  const nodeId = at.value
  const got = await readRigByWire(practice.rig!.code, output.value.id, nodeId!)
  isReading.value = false
  if (got === 'no-meter') metersOpen.value = true
  else if ('why' in got) wireProblem.value = got.why
  else practice.act({ do: 'test', kind: 'coil-dcr', nodeId, besideId: null, wireOhm: got.ohm })
}
const again = (upTo = 0) => {
  practice.again(upTo)
  at.value = null
}
const giveUp = () => practice.act({ do: 'give-up' })
function go(by: 1 | -1): void {
  const k = places.value.findIndex(p => p.id === at.value)
  at.value = places.value[Math.max(0, Math.min(places.value.length - 1, k + by))]!.id
}
watch(at, () => void nextTick(() => document.querySelector('.place.on')?.scrollIntoView({ block: 'nearest', inline: 'nearest' })))
async function name(): Promise<void> {
  naming.value = true
  await nextTick()
  document.querySelector<HTMLElement>('.naming button')?.focus()
  document.querySelector('.naming')?.scrollIntoView({ block: 'nearest' })
}
const bindings = playKeys({
  step: go, toRack: () => { at.value = null }, press: k => naming.value && kinds.value[k] ? say(kinds.value[k]) : take(k), amplifier, nullLeads: () => practice.act({ do: 'null-leads' }),
  name: () => void name(), listen: () => void listen(), again: () => again(), leave: () => naming.value ? naming.value = false : void navigateTo('/practice'),
  find: () => { findOpen.value = true }, toggleNight: () => useTheme().toggle(), showKeys: () => { keysOpen.value = true },
})
useKeys(() => bindings)
onMounted(() => { noSound.value = typeof AudioContext === 'undefined' })
</script>

<template>
  <div>
    <AppHeader :title="practice.rig?.exercise.name ?? 'Practice'" :says="practice.rig?.code ?? ''">
      <button class="act" type="button" @click="navigateTo('/practice')">all exercises <KeyCap of="b" /></button>
      <CommonActions has-find @find="findOpen = true" @keys="keysOpen = true" />
    </AppHeader>
    <main class="rig">
      <WorldNote />
      <section v-if="!practice.rig || !play" class="gone" role="alert">
        <p class="error-words">{{ practice.problem }}</p>
        <NuxtLink to="/practice" class="act">All exercises</NuxtLink>
      </section>
      <template v-else>
        <p class="teach"><b>{{ practice.rig.exercise.before }}</b> <span class="soft">{{ practice.rig.exercise.faults === 1 ? 'One thing is hidden.'
          : 'Two things are hidden.' }}</span></p>
        <AfterPane v-if="play.isOver" @again="again" />
        <div v-else class="work">
          <nav class="places" aria-label="Places of the line">
            <button
              v-for="p in places" :key="p.id ?? 'rack'" type="button" class="place" :class="{ on: p.id === at }" :aria-pressed="p.id === at" @click="at = p.id">
              <b>{{ p.is === 'rack' ? 'Rack' : p.name }}</b><span class="soft small">{{ lastRead.get(p.id) ?? '' }}</span>
            </button>
          </nav>
          <section class="here" :aria-label="`At ${place.name}`">
            <h2>{{ place.is === 'rack' ? 'At the rack' : `At ${place.name}` }} <span class="soft drawn">{{ drawn }}</span></h2>
            <div class="switch" :class="{ live: play.isOn }">
              <span><b>Amplifier {{ play.isOn ? 'ON' : 'OFF' }}</b> <span class="soft">{{ play.isOn ? 'ears work, meters must not' : 'unplugged at the rack'
                }}</span></span>
              <button class="tap" type="button" @click="amplifier">{{ play.isOn ? 'switch it off' : 'switch it on' }} <KeyCap of="o" /></button>
            </div>
            <p class="leads soft small">{{ play.isNulled ? 'Leads nulled.' : 'Leads not nulled.' }} <button
              v-if="!play.isNulled" class="act" type="button" @click="practice.act({ do: 'null-leads' })">touch them together, null <KeyCap of="0"
                /></button></p>
            <details class="small"><summary>Meter: {{ play.meter.rangeOhm === null ? 'finds its own range'
              : `range of ${writeQuantity(play.meter.rangeOhm, 'Ω')}` }}, {{ writeQuantity(play.meter.toneHz, 'Hz') }}</summary>
              <div class="meter">
                <ChoiceRow
                  :model-value="range" label="Range of the meter" before="range" :choices="RANGES" @update:model-value="setMeter($event, undefined)" />
                <ChoiceRow
                  :model-value="String(play.meter.toneHz)" label="Tone of the impedance meter" before="tone" :choices="TONES"
                  @update:model-value="setMeter(undefined, $event)" />
              </div></details>
            <div v-if="last" class="last" :class="{ stop: isMistake }" role="status">
              <span class="soft small">{{ actSays(last.act, output) }}</span>
              <b v-if="lastSays">{{ lastSays }}</b>
              <button v-if="heard.length > 0" class="tap" type="button" @click="listen">hear it <KeyCap of="s" /></button>
            </div>
            <p v-if="heard.length > 0" class="soft small">{{ noSound ? 'This device makes no sound: the words say it all the same.'
              : 'Turn this device down first. Levels are limited, and an ear is not: never test at an ear.' }}</p>
            <ul class="doables" aria-label="What can be done here">
              <li v-for="(one, k) in doables" :key="one.title"><button class="offer" type="button" @click="take(k)">{{ one.title }}<span class="then">{{
                one.costs
                }}<template v-if="(one.needs === 'on') !== play.isOn"> · with the amplifier {{ one.needs }}</template></span><KeyCap
                  v-if="k < 9"
                  :of="`${k + 1}`" /></button></li>
            </ul>
            <p v-if="canWire" class="small"><button class="act" type="button" :disabled="isReading" @click="readWire">{{ isReading ? 'the meter reads…'
              : 'its coil by wire' }}</button>
              <span v-if="wireProblem" class="error-words" role="alert">{{ wireProblem }}</span></p>
            <MetersDialog v-if="metersOpen" v-model:open="metersOpen" />
            <section class="naming">
              <button v-if="!naming" class="offer found" type="button" :disabled="kinds.length === 0" @click="name">This is it: open it<span class="then">{{
                kinds.length === 0
                ? 'nothing can be wrong here' : 'a wrong place costs its minutes' }}</span><KeyCap of="m" /></button>
              <template v-else>
                <p><b>What is it, at {{ place.is === 'rack' ? 'the rack, or of the whole line' : place.name }}?</b></p>
                <div class="kinds"><button v-for="(kind, k) in kinds" :key="kind" class="tap" type="button" @click="say(kind)">{{
                  FAULT_WORDS[kind].at(place.is === 'rack' ? output.label : place.name) }} <KeyCap v-if="k < 9" :of="`${k + 1}`" /></button>
                  <button class="act" type="button" @click="naming = false">not yet</button></div>
              </template>
            </section>
          </section>
          <section class="log" aria-label="Done so far">
            <h2>Done so far</h2>
            <p class="sums">{{ Math.round(sum!.minutes) }} min · {{ sum!.tests }} {{ sum!.tests === 1 ? 'test' : 'tests' }} · {{ sum!.ladders }} {{
              sum!.ladders === 1 ? 'ladder' : 'ladders' }}</p>
            <p v-if="play.steps.length === 0" class="soft">Nothing yet. Off is off: read the head before anything is switched on.</p>
            <ol><li v-for="(step, k) in play.steps" :key="k" :class="{ stop: isTold(step.mistake) }"><span class="soft">{{
              actSays(step.act, output)
              }}</span> <b>{{ stepSaysShort(step, output) }}</b></li></ol>
            <p class="ends"><button v-if="play.steps.length > 0" class="act" type="button" @click="again()">begin again <KeyCap of="r" /></button>
              <button class="act" type="button" @click="giveUp">give up, and see</button></p>
          </section>
        </div>
      </template>
    </main>
    <FindBox v-model:open="findOpen" :actions="bindings" />
    <KeysDialog v-model:open="keysOpen" :bindings="bindings" />
  </div>
</template>

<style scoped>
.rig { max-width: 1180px; margin: 0 auto; padding: 14px 20px 60px; display: grid; gap: 14px; grid-template-columns: minmax(0, 1fr); }
.gone { padding: 30px 0; display: grid; gap: 10px; justify-items: start; }
.work { display: grid; grid-template-columns: 190px minmax(0, 1fr) minmax(0, 300px); gap: 22px; align-items: start; }
.places { display: grid; gap: 3px; max-height: 70vh; overflow-y: auto; padding: 2px; }
.place { border: 1px solid var(--rule-strong); background: var(--paper-raised); border-radius: 2px; padding: 5px 9px; text-align: left; cursor: pointer;
  display: flex; gap: 10px; justify-content: space-between; align-items: baseline; min-height: 34px; }
@media (pointer: coarse), (max-width: 760px) { .place { min-height: 44px; } }
.place.on { background: var(--ink); color: var(--paper); border-color: var(--ink); }
.place.on .soft { color: inherit; }
.here { display: grid; gap: 10px; grid-template-columns: minmax(0, 1fr); }
.drawn { font-weight: 400; font-size: 15px; }
.switch { display: flex; flex-wrap: wrap; gap: 6px 16px; justify-content: space-between; align-items: center;
  border-left: 5px solid var(--ink); padding: 2px 0 2px 10px; }
.switch.live { border-left-color: var(--copper); }
.meter { display: flex; flex-wrap: wrap; gap: 6px 18px; padding: 4px 0; }
.last { border: 1.5px solid var(--ink); background: var(--paper-raised); padding: 8px 12px; display: grid; gap: 4px; justify-items: start; font-size: 17px; }
.last.stop { border-color: var(--stop); color: var(--stop); }
.doables { list-style: none; display: grid; grid-template-columns: repeat(auto-fill, minmax(230px, 1fr)); gap: 6px; }
.doables .offer { height: 100%; border-width: 1px; }
.found { border-width: 2px; font-weight: 700; }
.found .then { font-weight: 400; }
.naming { display: grid; gap: 8px; border-top: 1px solid var(--rule); padding-top: 10px; }
.kinds { display: flex; flex-wrap: wrap; gap: 6px; }
.log { display: grid; gap: 6px; border-left: 1px solid var(--rule); padding-left: 16px; }
.log ol { list-style: none; font-size: 14.5px; max-height: 56vh; overflow-y: auto; }
.log li { border-bottom: 1px solid var(--rule); padding: 4px 0; }
.log li.stop b { color: var(--stop); }
.ends { display: flex; flex-wrap: wrap; gap: 4px 16px; }
@media (max-width: 1000px) {
  .work { grid-template-columns: 150px minmax(0, 1fr); }
  .log { grid-column: 1 / -1; border-left: 0; border-top: 1px solid var(--rule); padding: 10px 0 0; }
}
@media (max-width: 760px) {
  .rig { padding: 8px 12px 60px; gap: 10px; }
  .work { grid-template-columns: minmax(0, 1fr); gap: 12px; }
  .places { display: flex; overflow-x: auto; max-height: none; scrollbar-width: none; }
  .place { flex: 0 0 auto; flex-direction: column; gap: 0; }
  .doables { grid-template-columns: minmax(0, 1fr); }
}
</style>
