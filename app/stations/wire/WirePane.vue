<script setup lang="ts">
import { computed, ref } from 'vue'
import { leftSo, swapped } from '#core/polarity/correct'
import type { Correction, PolarityGroup } from '#core/polarity/report'
import { groupWords, jointWords, nodeWords, swapWords, turnsWords } from '#core/polarity/words'
import { newId } from '~/api/ids'
import GradeTag from '~/components/GradeTag.vue'
import { useJobStore } from '~/stores/job'
import { useSelectionStore } from '~/stores/selection'
import LeaveReason from '~/stations/check/LeaveReason.vue'
import PairForm from './PairForm.vue'
import { useWireStore } from './wireStore'

/** Beside the pairs: what is to be swapped so that all agree, what nobody knows, and of the lead that is looked at what is said of it. */
const { nodeId, isGroup } = defineProps<{ nodeId: string | null, isGroup: boolean }>()
const store = useJobStore()
const selected = useSelectionStore()
const at = useWireStore()

const agree = computed(() => at.report?.agree ?? null)
/** Swaps that somebody may want besides: those that make all right, where that is more. */
const absolute = computed(() => {
  const all = at.report?.absolute
  return all && agree.value && all.swaps.length > agree.value.swaps.length ? all : null
})
const showsAbsolute = ref(false)
const apart = computed(() => at.groups.filter(g => g.is === 'apart'))
/** Of one speaker alone nobody asks. */
const unknown = computed(() => at.groups.filter(g => g.notKnown > 0 && g.leaves.length > 1))
const nothingKnown = computed(() => unknown.value.filter(g => g.is === 'open'))
const partKnown = computed(() => unknown.value.filter(g => g.is === 'alike'))
const left = computed(() => [...store.opened.leavings].filter(l => !l.withdrawn))
const now = () => ({ at: new Date().toISOString(), newId })

function swap(correction: Correction): void {
  if (store.edit(swapped(store.opened, correction, now()))) store.say('Noted as swapped. Read it again: what was read before counts no more.')
}
const leave = (group: PolarityGroup, reason: string) => store.edit(leftSo(store.opened, group, reason, now()))
const heading = computed(() => {
  const count = agree.value?.swaps.length ?? 0
  return count === 0 ? '' : count === 1 ? 'One swap makes all agree' : `${count} swaps make all agree`
})
const proof = computed(() => !agree.value ? '' : agree.value.isExact ? (agree.value.isProven ? 'There are no fewer.' : 'Of what is known there are no fewer; more may be needed once the rest is known.') : 'Too much at once to be sure that there are no fewer.')
</script>

<template>
  <aside class="wire-pane" aria-label="Which way round">
    <section v-if="nodeId" class="about">
      <h2>{{ isGroup ? 'Lead to ' : '' }}{{ selected.line?.output.label }} {{ nodeWords(store.opened, nodeId) }}</h2>
      <p v-if="at.joint" class="soft small">Looked at: {{ jointWords(store.opened, at.joint.line, at.joint.joint) }}.</p>
      <PairForm :key="nodeId" :node-id="nodeId" />
    </section>
    <section v-for="group in apart" :key="group.id" class="group">
      <p><GradeTag grade="stop" words="Turned round" /></p>
      <p>{{ groupWords(group) }}</p>
      <LeaveReason @leave="leave(group, $event)" />
    </section>
    <section v-if="agree && agree.swaps.length > 0" class="swaps">
      <h2>{{ heading }}</h2>
      <button v-for="(correction, k) in agree.swaps" :key="k" class="offer" type="button" @click="swap(correction)">{{ swapWords(store.opened, correction) }}
        <span class="then">{{ turnsWords(correction.turns) }} Press once it is done.</span></button>
      <p class="soft small">{{ proof }} Amplifier off before any pair is changed.</p>
    </section>
    <p
      v-else-if="at.report && unknown.length === 0 && at.groups.every(g => g.is !== 'apart')"
      class="good">All that are heard together agree, as far as they are drawn or read.</p>
    <section v-if="absolute" class="swaps">
      <button
        class="act" type="button" :aria-expanded="showsAbsolute"
        @click="showsAbsolute = !showsAbsolute">all as marked, too: {{ absolute.swaps.length }} swaps</button>
      <template v-if="showsAbsolute">
        <button
          v-for="(correction, k) in absolute.swaps" :key="k" class="offer" type="button"
          @click="swap(correction)">{{ swapWords(store.opened, correction) }}
          <span class="then">{{ turnsWords(correction.turns) }}</span></button>
      </template>
    </section>
    <section v-if="nothingKnown.length + partKnown.length > 0">
      <h2>Not known yet</h2>
      <p v-if="nothingKnown.length > 0" class="soft small">Which way round they are nobody knows: {{ nothingKnown.map(g => g.name).join(', ') }}.</p>
      <p v-for="group in partKnown" :key="group.id" class="soft small">{{ groupWords(group) }}</p>
      <p class="soft small">Name the colours, or read it: a battery at the driver, a tap, never into a transformer or a tweeter;
        behind transformers by ear, or by a pulse and a tester.</p>
    </section>
    <section v-if="left.length > 0">
      <h2>Found and left</h2>
      <p v-for="l in left" :key="l.id" class="soft small">{{ l.nodeId ? nodeWords(store.opened, l.nodeId) : 'the line' }}: {{ l.reason }}
        <button class="act" type="button" @click="store.edit({ kind: 'leaving.withdraw', leavingId: l.id, withdrawn: true })">take that back</button></p>
    </section>
    <section>
      <h2>Why</h2>
      <p class="soft small">Two crossings cancel; one turns all behind it. What is drawn and what was read are kept apart: colours are a promise,
        a reading is proof. Polarity
        of the amplifiers’ inputs is not in it.</p>
    </section>
  </aside>
</template>

<style scoped>
.wire-pane { display: grid; gap: 16px; align-content: start; }
section { display: grid; gap: 7px; }
.about { border-bottom: 1px solid var(--rule); padding-bottom: 14px; }
.good { color: var(--good); }
</style>
