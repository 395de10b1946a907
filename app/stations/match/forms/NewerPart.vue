<script setup lang="ts">
import { computed, shallowRef, watch } from 'vue'
import type { GearKind, Model } from '#core/gear/models'
import type { GearModel } from '#core/gear/protocol'
import type { Edit } from '#core/job/edits'
import { newerThan } from '#core/job/origins'
import type { Origin } from '#core/job/schema'
import { differences } from '~/gear/list'
import { useGearStore } from '~/stores/gear'
import { useJobStore } from '~/stores/job'

/**
 * What the library says of the model that something in the job is of: a newer version, to be taken or passed over; and, with `marks`,
 * that it was set by hand otherwise than its model, to be taken back. `asModel` makes it that version.
 */
const { kind, from, asModel, marks = false } = defineProps<{
  kind: GearKind
  from: Origin | null
  asModel: (model: Model, origin: Origin) => Edit | null
  marks?: boolean
}>()
const emit = defineEmits<{ keep: [origin: Origin] }>()
const gear = useGearStore()
const store = useJobStore()

/** The library is asked once for each model; where it does not answer nothing is said of versions. */
const library = shallowRef<GearModel | null>(null)
watch(() => from?.modelId, async (modelId) => {
  library.value = null
  if (modelId === undefined) return
  const found = await gear.read(modelId).catch(() => null)
  if (found && from?.modelId === found.id) library.value = found
}, { immediate: true })
const had = computed(() => library.value?.versions.find(v => v.version === from?.version) ?? null)
const newer = computed(() => {
  const newest = library.value?.versions[0]
  const version = from && newest ? newerThan(from, { id: library.value!.id, version: newest.version }) : null
  if (version === null || !newest || !had.value) return null
  return { version, model: newest.body, differs: differences(kind, [had.value.body, newest.body]).map(d => d.column.label).join(', ') }
})
function take({ version, model }: { version: number, model: Model }): void {
  store.edit(asModel(model, { ...from!, version, passed: null }))
}
/** What would make it as its model again; null where it is. */
const again = computed(() => marks && from && had.value ? asModel(had.value.body, from) : null)
</script>

<template>
  <p v-if="newer !== null && from" class="small newer">The library has version {{ newer.version }} of it now; it differs in
    {{ newer.differs || 'nothing that is stated' }}.
    <button class="act" type="button" @click="take(newer)">take it</button>
    <button class="act" type="button" @click="emit('keep', { ...from, passed: newer.version })">keep what the job has</button></p>
  <p v-if="again" class="small again">≠ By hand otherwise than its model. <button class="act" type="button" @click="store.edit(again)">as the model
    again</button></p>
</template>
