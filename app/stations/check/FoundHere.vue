<script setup lang="ts">
import { computed } from 'vue'
import { checkKey } from '#core/check/proof'
import { driverAsRead } from '#core/check/driverAsRead'
import type { Edit } from '#core/job/edits'
import { addAfter, removeNode, setTap } from '#core/hands/intents'
import type { Output, Speaker } from '#core/job/schema'
import { writeLength } from '#core/quantity/units'
import { writeQuantity } from '#core/quantity/write'
import { newId } from '~/api/ids'
import TextEntry from '~/components/form/TextEntry.vue'
import { lengthExample, lengthOf } from '~/components/form/readers'
import { useEvaluationStore } from '~/stores/evaluation'
import { useJobStore } from '~/stores/job'
import { useSelectionStore } from '~/stores/selection'
import { useHold } from '~/composables/useHold'
import { useUnits } from '~/composables/useUnits'
import ChoiceRow from '~/components/form/ChoiceRow.vue'
import { tapChoices } from '~/components/form/tapChoices'

const { units } = useUnits()

/** What stands on the ladder otherwise than it is drawn: each thing is taken into the plan by one press. */
const { output, speaker } = defineProps<{ output: Output, speaker: Speaker }>()
const store = useJobStore()
const evaluation = useEvaluationStore()
const selected = useSelectionStore()

const lead = computed(() => selected.place?.branch.lead ?? null)
/** The next one along the rail leads from here too: its cable is of the same size. */
const usualCable = computed(() => selected.place?.parent.children.find(b => b.lead?.cable)?.lead?.cable ?? null)
const asRead = computed(() => driverAsRead(speaker, evaluation.proofs.get(output.id)?.standing.get(checkKey('coil-dcr', speaker.id)) ?? null))

function take(edit: Edit | null, says: string): void {
  if (store.edit(edit)) store.say(`${says}: in the plan now`)
}
const { isHeld, hold } = useHold()
function another(): void {
  const added = addAfter(store.opened, speaker.id, newId)
  if (added) take(added.edit, `one more behind ${speaker.label}, like it`)
  hold()
}
function gone(): void {
  take(removeNode(store.opened, speaker.id), `${speaker.label} taken off`)
  selected.select(output.id)
  hold()
}
</script>

<template>
  <fieldset class="found">
    <legend class="soft small">Found otherwise? Into the plan by one press</legend>
    <button v-if="asRead" class="offer" type="button" @click="take(asRead.edit, `${speaker.label}: a driver of ${asRead.labelOhm} Ω`)">
      It is a driver of {{ writeQuantity(asRead.labelOhm, 'Ω') }}: it reads as one</button>
    <ChoiceRow
      v-if="speaker.load.kind === 'tap'" :model-value="speaker.load.tapW" label="Tap found" before="Its tap" :choices="tapChoices(speaker.load.tapsW)"
      @update:model-value="tapW => tapW !== undefined && take(setTap(speaker, tapW), `${speaker.label} on ${tapW === 0 ? 'off' : writeQuantity(tapW, 'W')}`)" />
    <TextEntry
      class="length" label="Cable to here"
      :text="lead ? writeLength(lead.lengthM, units, 6) : ''" :read="lengthOf(units)" :hint="lengthExample(units)"
      @commit="take({ kind: 'lead.set', nodeId: speaker.id, was: lead, to: { cable: lead?.cable ?? usualCable, lengthM: $event } }, 'the cable')" />
    <p class="acts">
      <button class="act" type="button" :disabled="isHeld" @click="another">one more hangs behind it</button>
      <button class="act" type="button" :disabled="isHeld" @click="gone">it is not there</button>
    </p>
  </fieldset>
</template>

<style scoped>
.found { border: 0; border-top: 1px solid var(--rule); margin: 10px 0 0; padding: 8px 0 0; display: grid; gap: 8px; }
.length { max-width: 200px; }
.acts { display: flex; flex-wrap: wrap; gap: 2px 20px; }
</style>
