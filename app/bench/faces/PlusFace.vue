<script setup lang="ts">
import { computed, ref } from 'vue'
import { PLUS_WAYS } from '#core/job/sections/tickets/schema'
import type { Written } from '#core/job/schema'
import { batteryFor, plusOf } from '#core/bench/plus'
import { writtenOf, type Ticket } from '#core/bench/ticket'
import { PLUS_WAY_WORDS, SEEN_PLUS_WORDS, writtenWords } from '#core/bench/ticketWords'
import CheckLine from '~/components/form/CheckLine.vue'
import ChoiceRow from '~/components/form/ChoiceRow.vue'
import KeyCap from '~/components/KeyCap.vue'
import { useBenchStore } from '../benchStore'
import { MetersDialog } from '~/stations/check/parts'
import { useBareWire } from '../useBareWire'

/** Which tab is plus, of one bare unit: by a battery, by the sign of millivolts, by a pulse tester. A mark is a word. */
const { ticket } = defineProps<{ ticket: Ticket }>()
const bench = useBenchStore()
type Plus = Extract<Written, { is: 'plus' }>
const fit = computed(() => writtenOf(ticket, 'fit').at(-1)?.what ?? null)
const unit = ref<'this' | 'new' | undefined>(fit.value ? 'new' : 'this')
const by = ref<Plus['by'] | undefined>('battery')
const behind = ref<'nothing' | 'capacitor' | 'transformer' | undefined>('nothing')
const isHighUnit = ref(false)
const UNITS = [{ value: 'this' as const, says: 'this one' }, { value: 'new' as const, says: 'the new one' }]
const WAYS = PLUS_WAYS.map(value => ({ value, says: PLUS_WAY_WORDS[value] }))
const BEHIND = [{ value: 'nothing' as const, says: 'at its own tabs' }, { value: 'capacitor' as const, says: 'behind a capacitor' }, { value: 'transformer' as const, says: 'behind a transformer' }]
const SEEN: Record<Plus['by'], Plus['seen'][]> = { battery: ['cone-out', 'cone-in', 'not-seen'], millivolts: ['negative', 'positive', 'not-seen'], pulse: ['positive', 'negative', 'not-seen'], mark: [] }
const battery = computed(() => batteryFor({ kind: ticket.head.kind, nominalOhm: unit.value === 'new' ? fit.value?.nominalOhm ?? null : ticket.head.labelOhm, ratedW: unit.value === 'new' ? null : ticket.head.labelW, isHighUnit: isHighUnit.value, behind: behind.value ?? 'nothing' }))
const stands = computed(() => plusOf(ticket, unit.value ?? 'this'))
const done = computed(() => writtenOf(ticket, 'plus').filter(e => e.what.unit === unit.value))
const isBarred = computed(() => by.value === 'battery' && battery.value.volts === null)
function saw(seen: Plus['seen']): void {
  bench.write(ticket.id, [{ is: 'plus', unit: unit.value ?? 'this', by: by.value ?? 'battery', seen, note: by.value === 'battery' ? battery.value.says.slice(0, 200) : by.value === 'millivolts' ? byMeter.value.slice(0, 200) : '' }])
  byMeter.value = ''
}
/** What the meter said while the cone was pushed: it goes with the answer, which is pressed by the hand that pushed. */
const byMeter = ref('')
const problem = ref('')
const { isReading, metersOpen, read: byWire } = useBareWire('volts', ({ text, meterName }) => { byMeter.value = `${text} mV by ${meterName}` }, (why) => {
  problem.value = why
  byMeter.value = ''
})
</script>

<template>
  <div class="pane">
    <div class="fields">
      <ChoiceRow v-model="unit" label="Of which" :choices="UNITS" />
      <ChoiceRow v-model="behind" label="Where the leads are" :choices="BEHIND" />
      <CheckLine v-model="isHighUnit">a high unit</CheckLine>
    </div>
    <p class="told" role="status"><template v-if="stands.says === 'as-marked'"><b>The tab that is marked plus is plus.</b> Proved.</template><template
      v-else-if="stands.says === 'other'"><b>The other tab is plus,</b> not the one that
      is marked. Proved: mark it anew.</template><template v-else-if="stands.says === 'against-each-other'"><b>Two tests say otherwise.</b> One more decides;
        take back the one that was wrong.</template><template v-else><b>Not known</b> which tab is plus. The
      larger tab often is, and a mark says so: proved all the same.</template></p>
    <ChoiceRow v-model="by" label="By" before="By" :choices="WAYS" />
    <template v-if="by === 'battery'">
      <p :class="{ warn: battery.volts === null }">{{ battery.says }}</p>
      <p v-if="battery.volts !== null" class="asks">Plus of the battery at the tab that is marked plus, minus at the other: what does the cone do?</p>
    </template>
    <p v-else-if="by === 'millivolts'" class="asks">Meter on millivolts, its plus at the tab that is marked plus. Push the cone in gently: what does it show
      at that moment? <button class="act" type="button" :disabled="isReading" @click="byWire">{{ isReading ? 'push it now: the meter reads…'
        : 'by wire, while you push' }}</button></p>
    <p v-else-if="by === 'pulse'" class="asks">The tester’s own plus at the tab that is marked plus: what does it show?</p>
    <p v-else>A mark, a wide tab or a red washer is its maker’s word. It is written down at “found”, and proves nothing.</p>
    <div v-if="!isBarred" class="answers">
      <button v-for="(seen, k) in SEEN[by ?? 'battery']" :key="seen" class="tap" type="button" @click="saw(seen)">{{ SEEN_PLUS_WORDS[seen] }} <KeyCap
        :of="`${k + 1}`" /></button>
    </div>
    <p v-if="by === 'millivolts' && byMeter" role="status"><b class="figure">{{ byMeter }}</b>. A few tenths of a millivolt are noise: push again, quicker.</p>
    <p v-if="problem" class="error-words" role="alert">{{ problem }}</p>
    <MetersDialog v-if="metersOpen" v-model:open="metersOpen" />
    <ul v-if="done.length > 0" class="rows"><li v-for="entry in done" :key="entry.id">{{ writtenWords(entry.what) }} <button
      class="act small" type="button"
      @click="bench.withdraw(entry.id)">take back</button></li></ul>
    <p class="soft small">A battery on plus moves the cone out: IEC 60268-5, AES26. Never on a high unit, a compression driver or a headphone without the
      resistor.</p>
  </div>
</template>
