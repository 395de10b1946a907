<script setup lang="ts">
import { computed, ref } from 'vue'
import Select from '~/components/form/choiceList'
import { setSpeaker, setTap, ungroup } from '#core/hands/intents'
import { addLike } from '#core/hands/many/many'
import type { Speaker, SpeakerLoad } from '#core/job/schema'
import { speakerFields } from '#core/job/sections/wiring/schema'
import { findPlace } from '#core/job/tree'
import { isGroup, nominalOhmOf } from '#core/network/tree'
import { writeLength } from '#core/quantity/units'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import TextEntry from '~/components/form/TextEntry.vue'
import { newId } from '~/api/ids'
import { countOf, lengthOrNot, quantityOf, quantityOrNot, tapsOf, textOf, within, withinOrNot, writeOrNot } from '~/components/form/readers'
import { useUnits } from '~/composables/useUnits'
import { useJobStore } from '~/stores/job'
import { ALIKE, allAlike, type AlikeBy } from '~/stores/choice'
import { useSelectionStore } from '~/stores/selection'
import CabinetPart from './CabinetPart.vue'
import CoilPart from './CoilPart.vue'
import CurvePart from './CurvePart.vue'
import KindPart from './KindPart.vue'
import ZonePart from './ZonePart.vue'
import LeadPart from './LeadPart.vue'
import { usualCableOf } from './usualCable'
import { MEANS_WORDS, membersFrom, membersText, WIRED_AS, wiredAs } from './wiredAs'
import type { Choice } from '~/components/form/choice'
import ChoiceRow from '~/components/form/ChoiceRow.vue'
import { tapChoices } from '~/components/form/tapChoices'

const { speaker } = defineProps<{ speaker: Speaker }>()
const emit = defineEmits<{ choose: [nodeIds: string[]], makeKind: [], newOutput: [nodeIds: string[]] }>()
const store = useJobStore()
const selected = useSelectionStore()

/** The lead that a place in the tree hangs by: its own, and for a member of a group the group's too. */
const leads = computed(() => {
  const place = selected.place
  if (!place || !store.job) return []
  const own = [{ nodeId: speaker.id, says: place.parent.kind === 'chain' && place.index > 0 ? 'from the speaker before' : 'to here' }]
  const group = findPlace(store.job, place.parent.id)?.branch.node
  if (!group || !isGroup(group)) return own
  return [...own, { nodeId: group.id, says: `to the ${group.through ? group.through.kind : group.kind === 'series' ? 'series' : 'group'}` }]
})
const inGroup = computed(() => store.job && selected.place ? findPlace(store.job, selected.place.parent.id)?.branch.node ?? null : null)
const load = computed(() => speaker.load)

function set(to: Partial<Omit<Speaker, 'kind' | 'id'>>): void {
  store.edit(setSpeaker(speaker, to))
}

function setNominal(nominalOhm: number): void {
  if (load.value.kind === 'nominal' || load.value.kind === 'motional' || load.value.kind === 'curve') set({ load: { ...load.value, nominalOhm } })
}

function setMotional(to: Partial<Extract<SpeakerLoad, { kind: 'motional' }>>): void {
  if (load.value.kind === 'motional') set({ load: { ...load.value, ...to } })
}

const usualCable = computed(() => usualCableOf(store.opened, [speaker.id]))

// More of the same: how many, how far apart.
const count = ref(1)
const { units } = useUnits()
const apartM = ref<number | null>(null)
const ownLengthM = computed(() => selected.place?.branch.lead?.lengthM ?? null)
function addMore(): void {
  if (!store.job) return
  const { edit, nodeIds } = addLike(store.job, speaker.id, count.value, apartM.value, usualCable.value, newId)
  if (!store.edit(edit)) return
  store.say(`${count.value} more like ${speaker.label}: its name, tap, ratings${apartM.value === null ? ' and cable' : ''} taken over`)
  emit('choose', nodeIds)
}
const alikeWays = computed(() => Object.entries(ALIKE)
  .map(([by, { says }]) => ({ says, ids: store.job ? allAlike(store.job, speaker, by as AlikeBy, null) : [] })))
const JOINED: Choice<'parallel' | 'series'>[] = [{ value: 'parallel', says: 'in parallel' }, { value: 'series', says: 'in series' }]
</script>

<template>
  <form class="form" @submit.prevent>
    <KindPart :speakers="[speaker]" @make="emit('makeKind')" />
    <div class="two">
      <TextEntry label="Label" :text="speaker.label" :read="textOf(speakerFields.label, 'label')" @commit="set({ label: $event })" />
      <TextEntry label="What it is" :text="speaker.name" :read="textOf(speakerFields.name, 'name')" hint="not stated" @commit="set({ name: $event })" />
    </div>
    <div class="field">
      <label for="load-kind" class="soft small">Wired as</label>
      <Select
        input-id="load-kind" :model-value="load.kind" :options="WIRED_AS" option-label="label" option-value="value" size="small"
        @update:model-value="kind => kind !== load.kind && set(wiredAs(speaker, kind, selected.line?.lineV ?? null))" />
    </div>

    <template v-if="load.kind === 'tap'">
      <ChoiceRow
        :model-value="load.tapW" label="Tap" :after="`W at ${writeNumber(load.ratedV, 4)} V`" :choices="tapChoices(load.tapsW)"
        @update:model-value="tapW => tapW !== undefined && store.edit(setTap(speaker, tapW))" />
      <div class="two wide-first">
        <TextEntry label="Its taps" :text="load.tapsW.join(', ')" :read="tapsOf" @commit="set({ load: { ...load, tapsW: $event } })" />
        <TextEntry
          label="Printed for, V" :text="writeNumber(load.ratedV, 5)" :read="within(1, 1000, 'A line voltage', ' V')"
          @commit="load.kind === 'tap' && set({ load: { ...load, ratedV: $event } })" />
      </div>
      <div class="two">
        <TextEntry
          label="Its loss, dB" :text="load.insertionDb === null ? '' : writeNumber(load.insertionDb, 4)" :read="withinOrNot(0, 12, 'A loss', ' dB')"
          hint="not stated" @commit="load.kind === 'tap' && set({ load: { ...load, insertionDb: $event } })" />
        <div class="field">
          <label for="tap-means" class="soft small">Its watts are</label>
          <Select
            input-id="tap-means" :model-value="load.tapMeans ?? 'not-stated'" :options="MEANS_WORDS" option-label="says" option-value="value" size="small"
            @update:model-value="means => load.kind === 'tap' && set({ load: { ...load, tapMeans: means === 'not-stated' ? null : means } })" />
        </div>
      </div>
      <div class="two">
        <TextEntry
          label="Driver behind it" :text="writeOrNot(speaker.driverOhm, 'Ω')" :read="quantityOrNot('resistance')" hint="not known"
          @commit="set({ driverOhm: $event })" />
        <TextEntry
          label="Continuous rating" :text="writeOrNot(speaker.continuousW, 'W')" :read="quantityOrNot('power')" hint="not known"
          @commit="set({ continuousW: $event })" />
      </div>
    </template>
    <div v-else class="two">
      <TextEntry
        v-if="load.kind === 'members'" label="Each, Ω" :text="membersText(load)" :read="membersFrom(load)" hint="4, 4"
        @commit="load.kind === 'members' && set({ load: { ...load, members: $event } })" />
      <p v-else-if="load.kind === 'cabinet' || load.kind === 'coil'" class="soft small now">{{ writeQuantity(nominalOhmOf(load), 'Ω') }} as it is plugged</p>
      <TextEntry v-else label="Nominal" :text="writeQuantity(load.nominalOhm, 'Ω', 6)" :read="quantityOf('resistance')" @commit="setNominal($event)" />
      <TextEntry
        label="Continuous rating" :text="writeOrNot(speaker.continuousW, 'W')" :read="quantityOrNot('power')" hint="not known"
        @commit="set({ continuousW: $event })" />
    </div>
    <ChoiceRow
      v-if="load.kind === 'members'" :model-value="load.joined" label="Joined" :choices="JOINED"
      :after="`${writeQuantity(nominalOhmOf(load), 'Ω')} together, one thing with one pair of terminals`"
      @update:model-value="joined => joined !== undefined && load.kind === 'members' && set({ load: { ...load, joined } })" />
    <div v-if="load.kind === 'motional'" class="three">
      <TextEntry label="Re" :text="writeQuantity(load.reOhm, 'Ω', 6)" :read="quantityOf('resistance')" @commit="setMotional({ reOhm: $event })" />
      <TextEntry label="Le, mH" :text="writeNumber(load.leH * 1000, 6)" :read="within(0, 1000, 'Le', ' mH')" @commit="setMotional({ leH: $event / 1000 })" />
      <TextEntry label="fs" :text="writeQuantity(load.fsHz, 'Hz', 6)" :read="quantityOf('frequency')" @commit="setMotional({ fsHz: $event })" />
      <TextEntry label="Qms" :text="writeNumber(load.qms, 6)" :read="within(0.01, 1000, 'Qms')" @commit="setMotional({ qms: $event })" />
      <TextEntry label="Qes" :text="writeNumber(load.qes, 6)" :read="within(0.01, 1000, 'Qes')" @commit="setMotional({ qes: $event })" />
    </div>

    <CurvePart v-if="load.kind === 'curve'" :label="speaker.label" :name="speaker.name" :load="load" @set="to => set({ load: to })" />
    <CabinetPart v-if="load.kind === 'cabinet'" :load="load" @set="to => set({ load: to })" />
    <CoilPart v-if="load.kind === 'coil'" :load="load" @set="to => set({ load: to })" />
    <ZonePart :speakers="[speaker]" @choose="emit('choose', $event)" @new-output="emit('newOutput', $event)" />
    <LeadPart v-for="{ nodeId, says } in leads" :key="nodeId" :node-id="nodeId" :says="says" />
    <button
      v-if="inGroup && isGroup(inGroup) && !inGroup.through" class="act" type="button"
      @click="store.edit(ungroup(store.opened, inGroup.id))">Open this {{ inGroup.kind === 'series' ? 'series' : 'group' }}: hang its members on the
      rail</button>
    <fieldset class="lead">
      <legend class="soft small">More like this</legend>
      <div class="more-like">
        <div class="steps">
          <TextEntry label="How many" :text="String(count)" :read="countOf" @commit="count = $event" />
          <button
            v-for="by in [-1, 1, 5]" :key="by" class="tap" type="button" :aria-label="`${Math.abs(by)} ${by < 0 ? 'fewer' : 'more'}`"
            @click="count = Math.max(1, Math.min(100, count + by))">
            {{ by < 0 ? '−' : '+' }}{{ Math.abs(by) === 1 ? '' : by }}</button>
        </div>
        <TextEntry
          label="So far apart" :text="apartM === null ? '' : writeLength(apartM, units, 6)" :read="lengthOrNot(units)"
          :hint="ownLengthM === null ? 'not stated' : `${writeLength(ownLengthM, units, 6)}, as this one`" @commit="apartM = $event" />
      </div>
      <button class="act more" type="button" @click="addMore">Add {{ count }} like {{ speaker.label }} behind it</button>
    </fieldset>
    <fieldset class="lead">
      <legend class="soft small">Choose all on every rail that are</legend>
      <button v-for="way in alikeWays" :key="way.says" class="act" type="button" :disabled="way.ids.length < 2" @click="emit('choose', way.ids)">
        {{ way.says }} ({{ way.ids.length }})</button>
    </fieldset>
  </form>
</template>

<style scoped>
.form { display: grid; gap: 12px; }
.two { display: grid; grid-template-columns: minmax(0, 2fr) minmax(0, 3fr); gap: 10px; align-items: start; }
.wide-first { grid-template-columns: minmax(0, 3fr) minmax(0, 2fr); }
.three { display: grid; grid-template-columns: repeat(3, minmax(0, 1fr)); gap: 10px; }
.field { display: grid; gap: 2px; }
.now { align-self: center; }
/* A count that a thumb can set. */
.more-like { display: flex; flex-wrap: wrap; gap: 8px 10px; align-items: start; }
.more-like > * { flex: 1 1 120px; }
.steps { display: grid; grid-template-columns: minmax(58px, 1fr) auto auto auto; gap: 4px; align-items: end; flex: 1 1 180px; }
.steps .tap { height: 34px; padding: 0 5px; }
.more { color: var(--ink); text-decoration: underline; text-underline-offset: 3px; }
.lead { border: 0; border-top: 1px solid var(--rule); margin: 0; padding: 8px 0 0; display: grid; gap: 4px; }
</style>
