<script setup lang="ts">
import { computed } from 'vue'
import { CONNECTOR_IDS, connectorFacts } from '#core/gear/connector'
import { crossAt, namePair, readJoint, readPair, runsOn, saySplice, spliceAt } from '#core/hands/splices'
import { stateCoils } from '#core/polarity/correct'
import { conductorWords, pairText, plusFirst, plusOf } from '#core/polarity/plus'
import { coilCount, placeOf } from '#core/job/tree'
import { isGroup } from '#core/network/tree'
import type { Pair, Turn } from '#core/job/schema'
import ChoiceRow from '~/components/form/ChoiceRow.vue'
import TextEntry from '~/components/form/TextEntry.vue'
import { useJobStore } from '~/stores/job'

/** Of one lead: its two conductors, the joint at its beginning, its terminals, the coils of its unit. */
const { nodeId } = defineProps<{ nodeId: string }>()
const store = useJobStore()

const splice = computed(() => spliceAt(store.opened, nodeId))
const node = computed(() => placeOf(store.opened, nodeId).branch.node)
const pair = computed(() => splice.value.pair === null ? '' : pairText(plusFirst(store.opened, splice.value.pair)))
const plus = computed(() => splice.value.pair === null ? null : plusOf(store.opened, splice.value.pair))
const plusWords = computed(() => plus.value === null || splice.value.pair === null
  ? 'Which of them is plus, neither the rule of this job nor an exception says: the first is taken.'
  : `${conductorWords(splice.value.pair[plus.value])} is plus on this job.`)
const coils = computed(() => isGroup(node.value) || node.value.load.kind === 'coil' ? 0 : coilCount(node.value.load))
/** A group without a control or a transformer has no terminals of its own. */
const hasTerminals = computed(() => !isGroup(node.value) || node.value.through !== undefined)

const TURNS: { value: string, says: string }[] = [{ value: 'straight', says: 'straight' }, { value: 'crossed', says: 'crossed' }, { value: 'not-known', says: 'not known' }]
const shown = (turn: Turn | null) => turn ?? 'not-known'
function say(at: 'start' | 'end', turn: string | undefined): void {
  if (turn !== undefined) store.edit(saySplice(store.opened, nodeId, { [at]: turn === 'not-known' ? null : turn as Turn }))
}
function endIn(id: string): void {
  store.edit(saySplice(store.opened, nodeId, { connector: CONNECTOR_IDS.find(c => c === id) ?? null }))
}
/** Kept with its plus first, as the job has it. */
function name(typed: Pair | null): void {
  store.edit(namePair(store.opened, nodeId, typed === null ? null : plusFirst(store.opened, typed)))
}
</script>

<template>
  <form class="pair-form" data-form @submit.prevent>
    <TextEntry label="Its pair" :text="pair" :read="readPair" hint="orange, orange/black" @commit="name" />
    <p v-if="splice.pair" class="soft small">{{ plusWords }}</p>
    <TextEntry
      label="The joint before it" :text="splice.joint" :read="readJoint" hint="roof junction"
      @commit="joint => store.edit(saySplice(store.opened, nodeId, { joint }))" />
    <p class="field"><span class="soft small">there it goes on</span>
      <ChoiceRow label="At its beginning" :choices="TURNS" :model-value="shown(splice.start)" @update:model-value="say('start', $event)" /></p>
    <p v-if="hasTerminals" class="field"><span class="soft small">on the terminals</span>
      <ChoiceRow label="At its terminals" :choices="TURNS" :model-value="shown(splice.end)" @update:model-value="say('end', $event)" /></p>
    <p v-if="hasTerminals" class="field"><span class="soft small">it ends in</span>
      <select :value="splice.connector ?? ''" aria-label="What it ends in" @change="endIn(($event.target as HTMLSelectElement).value)">
        <option value="">not known</option>
        <option v-for="id in CONNECTOR_IDS" :key="id" :value="id">{{ connectorFacts(id).says }}</option></select>
      <span v-if="splice.connector && connectorFacts(splice.connector).mind" class="soft small">{{ connectorFacts(splice.connector).mind }}</span></p>
    <div v-if="coils > 1" class="field"><span class="soft small">its {{ coils }} coils or drivers</span>
      <span v-if="splice.coils" class="coils">
        <button
          v-for="(turn, k) in splice.coils" :key="k" type="button" class="tap" :class="{ on: turn === 'crossed' }" :aria-pressed="turn === 'crossed'"
          @click="store.edit(crossAt(store.opened, { at: 'coil', nodeId, coil: k }))">{{ k + 1 }} {{ turn }}</button>
      </span>
      <button
        class="act" type="button"
        @click="store.edit(stateCoils(store.opened, nodeId, coils))">{{ splice.coils ? 'not known' : 'say how each is joined' }}</button></div>
    <button
      v-if="splice.pair" class="act" type="button"
      @click="store.edit(runsOn(store.opened, nodeId)) || store.sayNot('All behind it are named already.')">the same pair runs on behind it</button>
  </form>
</template>

<style scoped>
.pair-form { display: grid; gap: 9px; }
.field { display: grid; gap: 3px; }
select { font: inherit; color: inherit; background: var(--paper-raised); border: 1px solid var(--ink); padding: 3px 6px; min-height: 34px; max-width: 100%; }
.coils { display: flex; flex-wrap: wrap; gap: 4px; }
.coils .tap { min-height: 34px; }
</style>
