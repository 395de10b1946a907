<script setup lang="ts">
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { CONDITIONS, READ_OF, WHICH_UNITS } from '#core/job/sections/tickets/schema'
import { readingsOf } from '#core/bench/closing'
import { drawDays } from '#core/bench/days'
import { coilBandOhm, intermittent } from '#core/bench/intermittent'
import { writtenOf, type Ticket } from '#core/bench/ticket'
import { CONDITION_WORDS, READ_WORDS, WHICH_WORDS } from '#core/bench/ticketWords'
import { InputError } from '#core/quantity/inputError'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import { readQuantity } from '#core/quantity/read'
import ChoiceRow from '~/components/form/ChoiceRow.vue'
import { MetersDialog } from '~/stations/check/parts'
import { useBenchStore } from '../benchStore'
import DaysChart from '../DaysChart.vue'
import { useBareWire } from '../useBareWire'

/** Ohms over days: of coil, lead or contact, of this one, its twin or the new one; drawn against the band, and what their spread says. */
const { ticket } = defineProps<{ ticket: Ticket }>()
const bench = useBenchStore()
const of = ref<(typeof READ_OF)[number] | undefined>('coil')
const unit = ref<(typeof WHICH_UNITS)[number] | undefined>(writtenOf(ticket, 'fit').length > 0 ? 'new' : 'this')
const condition = ref<(typeof CONDITIONS)[number] | undefined>('as-it-lay')
const last = writtenOf(ticket, 'reading').at(-1)?.what
const meter = ref(last?.meter ?? '')
const leads = ref(last?.leadsOhm === null || last === undefined ? '' : writeNumber(last.leadsOhm))
const typed = ref('')
const problem = ref('')
const choices = <T extends string>(all: readonly T[], words: Record<T, string>) => all.map(value => ({ value, says: words[value] }))
const part = computed(() => of.value ?? 'coil')

/** What cannot be read stays as typed, with the reason. */
function take(text: string): void {
  problem.value = ''
  try {
    if (text === '') throw new InputError('Nothing is typed. Ohms as the meter shows them, or open.', 0, [])
    const ohm = /^(open|ol|o\.l\.?)$/i.test(text) ? null : text === '0' ? 0 : readQuantity('resistance', text)
    const leadsOhm = leads.value.trim() === '' ? null : leads.value.trim() === '0' ? 0 : readQuantity('resistance', leads.value)
    const less = ohm === null || leadsOhm === null ? ohm : Math.max(0, ohm - leadsOhm)
    const what = { is: 'reading' as const, of: part.value, unit: unit.value ?? 'this', ohm: less, condition: condition.value ?? 'as-it-lay', meter: meter.value.trim(), leadsOhm }
    if (bench.write(ticket.id, [what])) typed.value = ''
  }
  catch (error) {
    if (!(error instanceof InputError)) throw error
    problem.value = error.message
  }
}
/** What the meter says stands in the field, and is recorded by the hand that holds its leads. */
const { isReading, metersOpen, read: byWire } = useBareWire('ohm', (read) => {
  typed.value = read.text
  meter.value = read.meterName.slice(0, 60)
  // Four wires measure without the leads.
  if (read.isFourWire) leads.value = '0'
}, (why) => { problem.value = why })
const nominalOhm = computed(() => part.value !== 'coil' ? null : unit.value === 'new' ? writtenOf(ticket, 'fit').at(-1)?.what.nominalOhm ?? ticket.head.labelOhm : ticket.head.labelOhm)
const band = computed(() => nominalOhm.value === null ? null : coilBandOhm(nominalOhm.value))
const drawing = computed(() => drawDays(ticket.entries, part.value, band.value))
const days = computed(() => readingsOf(ticket, unit.value ?? 'this', part.value))
const verdict = computed(() => days.value.length > 0 && nominalOhm.value !== null ? intermittent(days.value, nominalOhm.value) : null)
const TAGS = { 'comes-and-goes': 'comes and goes', 'open': 'open', 'high': 'too high', 'low': 'too low', 'right': 'steady', 'not-known': 'not known' } as const
const sureWords = computed(() => {
  const { sure, spreadOhm } = verdict.value!
  return `, ${Math.floor(100 * sure)} in 100 sure${spreadOhm === null ? '' : `, spread ${writeQuantity(spreadOhm, 'Ω')}`}`
})
</script>

<template>
  <div class="pane">
    <form class="fields" @submit.prevent="take(typed.trim())">
      <ChoiceRow v-model="of" label="What is read" :choices="choices(READ_OF, READ_WORDS)" />
      <ChoiceRow v-model="unit" label="Of which" :choices="choices(WHICH_UNITS, WHICH_WORDS)" />
      <ChoiceRow v-model="condition" label="How it was" :choices="choices(CONDITIONS, CONDITION_WORDS)" />
      <label class="ohms"><span>ohms as the meter shows them</span><InputText
        v-model="typed" inputmode="decimal" maxlength="20" autocomplete="off"
        placeholder="3.4, 36, open" /></label>
      <label class="short"><span>leads touched together</span><InputText
        v-model="leads" size="small" inputmode="decimal" maxlength="10" placeholder="not nulled" /></label>
      <label class="short"><span>meter</span><InputText v-model="meter" size="small" maxlength="60" placeholder="yellow one" /></label>
      <button class="act" type="button" :disabled="isReading" @click="byWire">{{ isReading ? 'the meter reads…' : 'by wire' }}</button>
      <Button type="submit" label="Record" /><Button type="button" variant="outlined" label="It reads open" @click="take('open')" />
    </form>
    <MetersDialog v-if="metersOpen" v-model:open="metersOpen" />
    <p v-if="problem" class="error-words" role="alert">{{ problem }}</p>
    <p v-if="leads.trim() === ''" class="soft small">Leads not nulled: 0.1 to 0.5 Ω of theirs stands in the reading, and at 4 Ω it matters.</p>
    <template v-if="drawing">
      <DaysChart :drawing="drawing" :label="READ_WORDS[part]" />
      <p v-if="verdict" class="told" role="status">
        <b v-if="verdict.verdict !== 'not-known'">{{ TAGS[verdict.verdict] }}{{ sureWords }}.</b> {{ verdict.says }}</p>
      <p v-else-if="part === 'coil'" class="told">Whether it is right is not known: no label can be read. <template v-if="days.length > 1">Its twin is what
        it can be held against.</template></p>
      <p v-else class="soft">A lead or a contact that is right reads well under 1 Ω, and the same however it is moved.</p>
    </template>
    <p v-else class="soft">No reading of the {{ READ_WORDS[part] }} yet. One that comes and goes is read on several days: the spread is the evidence.</p>
    <p v-if="band" class="soft small">A {{ writeQuantity(nominalOhm!, 'Ω') }} coil reads {{ writeNumber(band.lowOhm) }} to {{ writeQuantity(band.highOhm,
      'Ω') }} when it is right. Common practice, no source.</p>
  </div>
</template>

<style scoped>
.ohms :deep(input) { width: 190px; font-size: 18px; }
.short :deep(input) { width: 140px; }
</style>
