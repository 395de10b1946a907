<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import { useRoute } from '#imports'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { InputError } from '#core/quantity/inputError'
import { headSchema, UNIT_KINDS, UNMEASURED, type TicketHead } from '#core/job/sections/tickets/schema'
import { UNIT_WORDS } from '#core/bench/ticketWords'
import ChoiceRow from '~/components/form/ChoiceRow.vue'
import { quantityOrNot } from '~/components/form/readers'
import { useBenchStore } from './benchStore'

/** A ticket is opened: what it is, what its owner says. Nothing else is asked before it lies on the bench. */
const emit = defineEmits<{ opened: [id: string], close: [] }>()
const bench = useBenchStore()
const { query } = useRoute()
const text = (value: unknown) => typeof value === 'string' ? value : ''
const typed = reactive({ unit: text(query.unit), label: text(query.ohm), complaint: text(query.complaint), folklore: '' })
const kind = ref<TicketHead['kind'] | undefined>('speaker')
/** The tag of a job that it was taken down from. */
const from = computed((): TicketHead['from'] => text(query.job) && text(query.node) ? { jobId: text(query.job), nodeId: text(query.node), says: text(query.says).slice(0, 200) } : null)
const problem = ref('')
const KINDS = UNIT_KINDS.map(value => ({ value, says: UNIT_WORDS[value] }))

function open(): void {
  problem.value = ''
  try {
    const head = { unit: typed.unit.trim(), kind: kind.value ?? 'speaker', ...UNMEASURED, labelOhm: quantityOrNot('resistance')(typed.label), complaint: typed.complaint.trim(), folklore: typed.folklore.trim(), from: from.value }
    const read = headSchema.safeParse(head)
    if (!read.success) {
      problem.value = `The ${WORDS[String(read.error.issues[0]!.path[0])] ?? 'ticket'} ${read.error.issues[0]!.message}.`
      return
    }
    const id = bench.open(read.data)
    if (id) emit('opened', id)
  }
  catch (error) {
    if (!(error instanceof InputError)) throw error
    problem.value = error.message
  }
}
const WORDS: Record<string, string> = { unit: 'name of the unit', complaint: 'complaint', folklore: 'line of what everybody says', labelOhm: 'label' }
</script>

<template>
  <form class="new-ticket" aria-label="New ticket" @submit.prevent="open" @keydown.esc.stop="emit('close')">
    <p v-if="from" class="soft">Taken down from {{ from.says }}.</p>
    <label><span>Unit</span><InputText v-model="typed.unit" size="small" maxlength="120" placeholder="Audio-guide handset" /></label>
    <ChoiceRow v-model="kind" label="What it is" before="It is" :choices="KINDS" />
    <label class="short"><span>Ohms by its label, if it can be read</span><InputText
      v-model="typed.label" size="small" maxlength="40" placeholder="not known" inputmode="decimal" /></label>
    <label><span>In its owner’s words</span><InputText
      v-model="typed.complaint" size="small" maxlength="500" placeholder="left side is dead since the spring" /></label>
    <label><span>What everybody says it is</span><InputText v-model="typed.folklore" size="small" maxlength="500" placeholder="it is always the socket"
      /></label>
    <p v-if="problem" class="error-words" role="alert">{{ problem }}</p>
    <p class="acts"><Button size="small" type="submit" label="Open the ticket" /><button class="act" type="button" @click="emit('close')">leave it</button></p>
  </form>
</template>

<style scoped>
.new-ticket { display: grid; gap: 9px; border: 1.5px solid var(--ink); background: var(--paper-raised); padding: 12px 14px; max-width: 760px; }
label { display: grid; gap: 2px; }
label > span { font-size: 13.5px; color: var(--ink-soft); }
label :deep(input) { width: 100%; }
.short { max-width: 260px; }
.acts { display: flex; gap: 18px; align-items: center; }
</style>
