<script setup lang="ts">
import { computed, ref } from 'vue'
import Dialog from 'primevue/dialog'
import InputText from 'primevue/inputtext'
import { MOST_CONDUCTORS, signWords, tripsFor } from '#core/polarity/bareRun'
import { drawnParity } from '#core/polarity/joints'
import { saySplice } from '#core/hands/splices'
import { nodeWords } from '#core/polarity/words'
import TabRow from '~/components/form/TabRow.vue'
import Button from '~/components/form/laterButton'
import { useJobStore } from '~/stores/job'
import { useSelectionStore } from '~/stores/selection'
import { useWireStore } from './wireStore'

/** Conductors that nobody knows: which is which, by a battery at one end and the sign of a meter at the other; of a harness in as few trips as there can be. */
const open = defineModel<boolean>('open', { required: true })
const store = useJobStore()
const selected = useSelectionStore()
const at = useWireStore()
const TABS = [{ value: 'pair', says: 'this pair' }, { value: 'harness', says: 'a harness' }] as const
const tab = ref<typeof TABS[number]['value']>(selected.place ? 'pair' : 'harness')

const start = computed(() => {
  const nodeId = selected.selection.nodeId
  const line = at.joint?.line
  const index = line?.joints.findIndex(j => j.nodeId === nodeId && j.at === 'start') ?? -1
  return line && index >= 0 ? { line, joint: line.joints[index]! } : null
})
/** Which way round the pair comes to the joint before it; null where that is not known: then the whole way is one run. */
const before = computed(() => start.value === null ? null : start.value.joint.before === null ? 0 : drawnParity(start.value.line, start.value.joint.before))
/** What the meter shows, red on the conductor that stands first there. */
function shows(sign: 'plus' | 'minus'): void {
  if (!start.value || before.value === null) return
  const turned = (sign === 'minus') !== (before.value === 1)
  store.edit(saySplice(store.opened, start.value.joint.nodeId, { start: turned ? 'crossed' : 'straight' }))
  store.say('Drawn so. The same sign proves that it goes through.')
  open.value = false
}

const typed = ref('4')
const count = computed(() => /^\d{1,3}$/.test(typed.value.trim()) ? Number(typed.value.trim()) : NaN)
const isCount = computed(() => count.value >= 2 && count.value <= MOST_CONDUCTORS)
const codes = computed(() => isCount.value ? tripsFor(count.value) : [])
const trips = computed(() => (codes.value[0] ?? []).map((_, trip) => {
  const on = (pole: string) => codes.value.flatMap((code, k) => code[trip] === pole ? [k + 1] : []).join(', ')
  return { plus: on('plus'), minus: on('minus'), open: on('open') }
}))
</script>

<template>
  <Dialog v-model:visible="open" modal header="Which conductor is which" :dismissable-mask="true" :style="{ width: 'min(600px, 96vw)' }">
    <div class="bare" data-form>
      <TabRow label="Of what" :tabs="TABS" :value="tab" @choose="tab = $event" />
      <p class="soft small">Amplifier off and disconnected, nothing hanging on the run: a battery never goes into an amplifier, a
        transformer or a tweeter. 1.5 or 9 V.</p>
      <template v-if="tab === 'pair'">
        <p v-if="!start">Choose a lead first: press its joint or its tag.</p>
        <p v-else-if="before === null">What comes before it is not known yet: begin with the lead nearest to the rack.</p>
        <template v-else>
          <ol>
            <li>At the rack, battery on the pair: + on its plus.</li>
            <li>At the lead to {{ nodeWords(store.opened, start.joint.nodeId) }}, millivolts or volts DC: red on the conductor that you take for plus.</li>
          </ol>
          <div class="answers" role="group" aria-label="What the meter shows">
            <Button variant="outlined" label="plus" @click="shows('plus')" />
            <Button variant="outlined" label="minus" @click="shows('minus')" />
          </div>
          <p class="soft small">Nothing at all: it does not go through, or it is another pair. Minus:
            the leads are on the other way round there, and it is drawn crossed.</p>
        </template>
      </template>
      <template v-else>
        <label class="count">Conductors <InputText v-model="typed" size="small" inputmode="numeric" maxlength="3" aria-label="Conductors in it" /></label>
        <p v-if="!isCount" class="error-words" role="alert">A whole number from 2 to {{ MOST_CONDUCTORS }}.</p>
        <template v-else>
          <p>Number them at the rack. {{ trips.length === 1 ? 'One trip tells' : `${trips.length} trips tell` }} all of them apart, and there are no fewer.</p>
          <table>
            <thead><tr><th>trip</th><th>on plus</th><th>on minus</th><th>open</th></tr></thead>
            <tbody><tr v-for="(trip, k) in trips" :key="k"><td>{{ k + 1 }}</td><td>{{ trip.plus }}</td><td>{{ trip.minus }}</td>
              <td>{{ trip.open || '–' }}</td></tr></tbody>
          </table>
          <p class="soft small">At the far end, each against the others: plus against one of them, minus, or nothing against any.
            Write it down per trip, and look it up:</p>
          <ul class="key"><li v-for="(code, k) in codes" :key="k"><b class="figure">{{ k + 1 }}</b> {{ signWords(code) }}</li></ul>
        </template>
      </template>
    </div>
  </Dialog>
</template>

<style scoped>
.bare { display: grid; gap: 10px; }
ol { padding-left: 20px; }
.answers { display: flex; gap: 8px; }
.answers :deep(button) { min-height: 46px; min-width: 110px; }
.count { display: flex; gap: 10px; align-items: center; }
.count :deep(input) { width: 80px; }
table { border-collapse: collapse; font-size: 15px; }
th { text-align: left; color: var(--ink-soft); font-weight: 600; }
th, td { padding: 4px 14px 4px 0; border-bottom: 1px solid var(--rule); vertical-align: top; }
.key { list-style: none; columns: 3 150px; font-size: 14.5px; }
</style>
