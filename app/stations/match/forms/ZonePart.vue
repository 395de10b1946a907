<script setup lang="ts">
import { computed } from 'vue'
import Select from '~/components/form/choiceList'
import { partsOf, together } from '#core/job/edits'
import { applyEdit } from '#core/job/apply'
import type { Speaker } from '#core/job/schema'
import { zoneFields } from '#core/job/sections/zones/schema'
import { putBefore, throughLabel, unknownControl } from '#core/hands/throughs'
import { giveZone, makeZone, removeZone, zoneOf } from '#core/hands/zones'
import { stretchesOf, zoneFacts, zoneWays, type ZoneWay } from '#core/advice/zones'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import { newId } from '~/api/ids'
import TextEntry from '~/components/form/TextEntry.vue'
import { textOf } from '~/components/form/readers'
import { useLibraryRows } from '~/composables/useLibraryRows'
import { controlFor } from '~/gear/prices'
import { useEvaluationStore } from '~/stores/evaluation'
import { useJobStore } from '~/stores/job'
import { useSelectionStore } from '~/stores/selection'

/** The zone of what is chosen: which, what gives it its level, and what the three ways to give it one would take. */
const { speakers } = defineProps<{ speakers: readonly Speaker[] }>()
const emit = defineEmits<{ choose: [nodeIds: string[]], newOutput: [nodeIds: string[]] }>()
const store = useJobStore()
const evaluation = useEvaluationStore()
const selected = useSelectionStore()
const NONE = '-'

const ids = computed(() => speakers.map(s => s.id))
const zones = computed(() => [...new Set(speakers.map(s => zoneOf(store.opened, s)))])
const zone = computed(() => zones.value.length === 1 ? zones.value[0]! : null)
const facts = computed(() => zone.value ? zoneFacts(store.opened, evaluation.lines).find(z => z.zoneId === zone.value!.id) ?? null : null)
const controls = useLibraryRows('control', () => zone.value !== null)
const ways = computed(() => facts.value ? zoneWays(store.opened, evaluation.lines, facts.value) : [])
const options = computed(() => [
  ...(zones.value.length > 1 ? [] : [{ value: NONE, label: 'in no zone' }]), ...store.opened.zones.map(z => ({ value: z.id, label: z.name })),
])

const MEANS = {
  output: (labels: string[]) => `Its level is that of ${labels.join(' and ')}, all its own.`,
  control: (labels: string[]) => `Its level is that of ${labels.join(' and ')}.`,
  taps: () => 'Nothing gives it a level of its own but the taps of its speakers.',
}
const means = computed(() => facts.value ? MEANS[facts.value.means.kind](facts.value.means.kind === 'taps' ? [] : facts.value.means.labels) : '')

const lineV = computed(() => selected.line?.kind === 'constant-voltage' ? selected.line.lineV : null)
const W = (watts: number) => writeQuantity(watts, 'W')
function saysOf(way: ZoneWay): { does: string, parts: string, keeps: string } {
  switch (way.kind) {
    case 'output': return {
      does: 'An output of its own', keeps: 'Level, and source where the amplifier allows it, at the rack; nothing is lost on the way.',
      parts: `One output${way.needsW === null ? '' : ` of at least ${W(way.needsW[0]!)} by the rule chosen`}, and a cable from the rack. Price not known.`,
    }
    case 'control': {
      const found = way.needsW?.map(needsW => controlFor(controls.value, needsW, lineV.value)) ?? []
      const price = found.length > 0 && found.every(f => f !== null) ? found.reduce((sum, f) => sum + f.price, 0) : null
      const names = [...new Set(found.map(f => f?.name ?? 'none of the library'))].join(', ')
      return {
        does: way.parts === 1 ? 'A control of its own' : `${way.parts} controls`,
        keeps: `Level in steps at the wall, by whoever stands there${way.parts > 1 ? ', each stretch by itself' : ''}; the loss of the control.`,
        parts: way.needsW === null
          ? 'What hangs behind is not known.'
          : `${way.needsW.map(W).join(' and ')} behind ${way.parts === 1 ? 'it' : 'them'}. ${price === null ? 'Price not known' : `${price.toFixed(2)} by the library (${names})`}.`,
      }
    }
    case 'taps': return {
      does: 'Taps of its own', parts: 'No part at all.',
      keeps: way.stepsDb === null
        ? 'Its speakers have no taps to choose.'
        : `Only by hand at each speaker: together ${writeNumber(way.stepsDb.down, 2)} dB down, ${writeNumber(way.stepsDb.up, 2)} dB up from now.`,
    }
  }
}

/** A control before each stretch of it; one edit. */
function putControls(): void {
  const job = store.opened
  let current = job
  const edits = stretchesOf(job, facts.value!.speakers).flatMap((stretch) => {
    const made = putBefore(current, stretch.map(s => s.id), { ...unknownControl(throughLabel(current, 'control')), lineV: lineV.value }, newId)
    if (made === null || typeof made === 'string') return []
    current = applyEdit(current, made.edit).job
    return partsOf(made.edit)
  })
  if (store.edit(together(edits))) store.say('A control stands before them; choose which one it is')
}
function take(way: ZoneWay): void {
  const all = facts.value!.speakers.map(s => s.id)
  if (way.kind === 'output') emit('newOutput', all)
  else if (way.kind === 'control') putControls()
  else emit('choose', all)
}
const nameOrNone = (typed: string) => typed === '' ? '' : textOf(zoneFields.name, 'name')(typed)
function make(name: string): void {
  // Enter takes it, and the field that goes away then is left too.
  if (name !== '' && !zone.value && store.edit(makeZone(store.opened, ids.value, name, newId))) store.say(`zone ${name}: ${ids.value.length} in it`)
}
function rename(name: string): void {
  store.edit({ kind: 'zone.set', zoneId: zone.value!.id, was: { name: zone.value!.name }, to: { name } })
}
</script>

<template>
  <fieldset class="zone">
    <legend class="soft small">Zone: one level of its own</legend>
    <Select
      v-if="store.opened.zones.length > 0" aria-label="zone" :model-value="zone?.id ?? (zones.length > 1 ? null : NONE)" :options="options"
      option-label="label" option-value="value" size="small" placeholder="they differ"
      @update:model-value="id => store.edit(giveZone(store.opened, ids, id === NONE ? null : id))" />
    <TextEntry v-if="zone" :key="zone.id" label="Its name" :text="zone.name" :read="textOf(zoneFields.name, 'name')" @commit="rename" />
    <TextEntry v-else key="new" label="A new zone, named" text="" :read="nameOrNone" hint="Shop" @commit="make" />
    <template v-if="facts && zone">
      <p class="small">{{ facts.speakers.length }} on {{ facts.outputs.join(', ') }}<template v-if="facts.drawW !== null">, {{ W(facts.drawW) }}</template>.
        {{ means }}</p>
      <div v-for="way in ways" :key="way.kind" class="way">
        <p><b>{{ saysOf(way).does }}</b><template v-if="way.has"> · as it is</template></p>
        <p class="soft small">{{ saysOf(way).parts }} {{ saysOf(way).keeps }}</p>
        <button v-if="!way.has || way.kind === 'taps'" class="act" type="button" @click="take(way)">
          {{ way.kind === 'output' ? 'move it to a new output' : way.kind === 'control' ? 'put it there' : 'choose all of it' }}</button>
      </div>
      <button class="act" type="button" @click="store.edit(removeZone(store.opened, zone.id))">give up this zone</button>
    </template>
  </fieldset>
</template>

<style scoped>
.zone { border: 0; border-top: 1px solid var(--rule); margin: 0; padding: 8px 0 0; display: grid; gap: 8px; }
.way { border-left: 3px solid var(--rule-strong); padding-left: 10px; display: grid; gap: 1px; }
.act { justify-self: start; }
</style>
