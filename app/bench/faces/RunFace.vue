<script setup lang="ts">
import { computed, onBeforeUnmount, ref } from 'vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { SKIN_C } from '#core/bench/thermal'
import { runsOf, type WarmRun } from '#core/bench/runs'
import { writtenOf, type Ticket } from '#core/bench/ticket'
import { HEARD_WORDS } from '#core/bench/ticketWords'
import { InputError } from '#core/quantity/inputError'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import ChoiceRow from '~/components/form/ChoiceRow.vue'
import { within, withinOrNot } from '~/components/form/readers'
import { useBenchStore } from '../benchStore'
import { MetersDialog } from '~/stations/check/parts'
import { useBareWire } from '../useBareWire'
import WarmChart from '../WarmChart.vue'

/** An unknown load on a valve amplifier: the louder tap, and how the power transformer warms. Quiet to normal, off before each change. */
const { ticket } = defineProps<{ ticket: Ticket }>()
const bench = useBenchStore()
const now = ref(Date.now())
const timer = setInterval(() => { now.value = Date.now() }, 1000)
onBeforeUnmount(() => clearInterval(timer))

const taps = computed(() => writtenOf(ticket, 'tap'))
const tapOhm = ref<number | undefined>(8)
const TAPS = [4, 8, 16].map(value => ({ value, says: `${value} Ω`, isFigure: true }))
const HEARD = ['louder', 'same', 'quieter', 'trouble'] as const
const first = computed(() => taps.value.find(t => t.what.heard === 'first')?.what.tapOhm ?? null)
const louder = computed(() => taps.value.findLast(t => t.what.heard === 'louder')?.what.tapOhm ?? first.value)
const isTrouble = computed(() => taps.value.at(-1)?.what.heard === 'trouble')
const heard = (how: 'first' | (typeof HEARD)[number]) => bench.write(ticket.id, [{ is: 'tap', tapOhm: tapOhm.value ?? 8, heard: how }])

const runs = computed(() => runsOf(ticket))
const current = computed(() => runs.value.at(-1) ?? null)
const which = ref<'baseline' | 'unknown' | undefined>(runs.value.some(r => r.run.what.run === 'baseline') ? 'unknown' : 'baseline')
const WHICH = [{ value: 'baseline' as const, says: 'with a right load, first' }, { value: 'unknown' as const, says: 'with the unknown one' }]
const limit = ref('')
const celsius = ref('')
const minute = ref('')
const problem = ref('')
const sinceMin = computed(() => current.value ? Math.max(0, (now.value - Date.parse(current.value.run.at)) / 60_000) : 0)
const clock = computed(() => `${Math.floor(sinceMin.value)}:${String(Math.floor(60 * (sinceMin.value % 1))).padStart(2, '0')}`)
/** A run that was left for a day goes on by typed minutes. */
const isGoing = computed(() => sinceMin.value < 1440)

/** What is to be minded now: at the field, where the next temperature is typed. */
const warned = (of: WarmRun) => of.report ? of.report.warns && of.report.says[0] : of.warm.some(w => w.celsius >= of.limitC) ? of.why : null

function told(act: () => void): void {
  problem.value = ''
  try {
    act()
  }
  catch (error) {
    if (!(error instanceof InputError)) throw error
    problem.value = error.message
  }
}
const begin = () => told(() => {
  const limitC = withinOrNot(20, 150, 'A limit', ' °C')(limit.value.replace(/\s*°?\s*c$/i, ''))
  bench.write(ticket.id, [{ is: 'run', run: which.value ?? 'baseline', limitC, note: '' }])
})
const read = () => told(() => {
  const at = minute.value.trim() === '' && isGoing.value ? Math.round(sinceMin.value * 10) / 10 : within(0, 1440, 'A minute', ' min')(minute.value)
  if (bench.write(ticket.id, [{ is: 'warm', runId: current.value!.run.id, minute: at, celsius: within(-40, 300, 'A temperature', ' °C')(celsius.value.replace(/\s*°?\s*c$/i, '')) }])) {
    celsius.value = ''
    minute.value = ''
  }
})
const { isReading, metersOpen, read: byWire } = useBareWire('celsius', ({ text }) => {
  celsius.value = text
}, (why) => {
  problem.value = why
})
</script>

<template>
  <div class="pane">
    <section class="cautions2">
      <p><b>Never inside a live chassis.</b> Valve amplifiers hold lethal voltage, also unplugged. Touch and measure from outside; with bare metal, no longer
        than skin stands. Off before each change of a cable. At the least sign of trouble, off.</p>
    </section>
    <section class="part">
      <h2>The louder tap, minutes</h2>
      <p class="soft">Same knob, same programme, quiet to normal. Listen on one tap; off; change; listen again. The louder one is the better match.</p>
      <div class="fields"><ChoiceRow v-model="tapOhm" label="Tap" before="Now on the tap of" :choices="TAPS" /></div>
      <div class="answers">
        <button v-if="first === null" class="tap" type="button" @click="heard('first')">heard, the first one</button>
        <template v-else><button v-for="how in HEARD" :key="how" class="tap" type="button" @click="heard(how)">{{ HEARD_WORDS[how] }}</button></template>
      </div>
      <p v-if="isTrouble" class="warn" role="alert">Off. Let it cool, and take that load away before anything else.</p>
      <p v-else-if="taps.length > 1" role="status">So far the tap of {{ writeQuantity(louder!, 'Ω') }} is the louder one: the better match, and no proof. The
        warm-up tells what the ear cannot.</p>
    </section>
    <section class="part">
      <h2>How it warms, an hour or more</h2>
      <p class="soft">The power transformer, from outside: it carries what the load asks for, and the output transformer does not tell. From cold, in the
        same room, with the same programme: first with a right load, then with the unknown one.</p>
      <form class="fields" @submit.prevent="begin">
        <ChoiceRow v-model="which" label="Which run" :choices="WHICH" />
        <label><span>own limit, °C; else {{ SKIN_C }} for skin</span><InputText
          v-model="limit" size="small" maxlength="8" inputmode="decimal"
          :placeholder="String(SKIN_C)" /></label>
        <Button size="small" type="submit" variant="outlined" label="Begin a run, from cold" />
      </form>
      <template v-if="current">
        <form class="fields" @submit.prevent="read">
          <span v-if="isGoing" class="clock figure" role="timer" :aria-label="`${Math.floor(sinceMin)} minutes since it began`">{{ clock }}</span>
          <label><span>°C now</span><InputText v-model="celsius" maxlength="8" inputmode="decimal" class="short" /></label>
          <label><span>minute{{ isGoing ? ', if it was another' : '' }}</span><InputText
            v-model="minute" size="small" maxlength="8" inputmode="decimal"
            class="short" /></label>
          <button class="act" type="button" :disabled="isReading" @click="byWire">{{ isReading ? 'the meter reads…' : 'by wire' }}</button>
          <Button type="submit" label="Record" />
        </form>
        <MetersDialog v-if="metersOpen" v-model:open="metersOpen" />
      </template>
      <p v-if="problem" class="error-words" role="alert">{{ problem }}</p>
      <p v-if="current && warned(current)" class="warn" role="alert"><b>{{ warned(current) }}</b></p>
      <article v-for="of in runs.toReversed()" :key="of.run.id" class="run">
        <h3>{{ of.run.what.run === 'baseline' ? 'With a right load' : 'With the unknown one' }}<span class="soft">, {{ of.warm.length }} read</span></h3>
        <template v-if="of.report">
          <p v-for="line in of.report.says.slice(of.report.warns ? 1 : 0, -1)" :key="line">{{ line }}</p>
          <p class="soft small">Rise {{ writeNumber(of.report.riseC, 3) }} K, time constant {{ writeNumber(of.report.tauMin, 2) }} min<template
            v-if="of.report.against">, {{ writeNumber(of.report.against.riseRatio, 3) }} times the rise with the right load</template>.</p>
        </template>
        <p v-else-if="of.run.id !== current?.run.id || !warned(of)" role="status">{{ of.why }}</p>
        <WarmChart v-if="of.warm.length > 0" :of="of" />
        <p v-if="of.baseline" class="soft small">● this run · × with a right load</p>
      </article>
    </section>
  </div>
</template>

<style scoped>
.cautions2 { border: 1.5px solid var(--stop); padding: 8px 12px; }
.part { display: grid; gap: 8px; grid-template-columns: minmax(0, 1fr); border-top: 1px solid var(--rule); padding-top: 8px; }
.clock { font-size: 26px; }
.short { width: 110px; }
.run { display: grid; gap: 4px; border-top: 1px solid var(--rule); padding-top: 8px; }
</style>
