<script setup lang="ts">
import { computed, shallowRef, watch } from 'vue'
import type { GearKind, Model } from '#core/gear/models'
import type { GearModel } from '#core/gear/protocol'
import { newerThan } from '#core/job/origins'
import type { Origin } from '#core/job/schema'
import { differences } from '~/gear/list'
import { useGearStore } from '~/stores/gear'

/** Where the library has a newer version of what something in the job is made by: what differs, to be taken or passed over. */
const { kind, from } = defineProps<{ kind: GearKind, from: Origin | null }>()
const emit = defineEmits<{ take: [model: Model, origin: Origin], keep: [origin: Origin] }>()
const gear = useGearStore()

/** The library is asked once for each model; where it does not answer nothing is said of versions. */
const library = shallowRef<GearModel | null>(null)
watch(() => from?.modelId, async (modelId) => {
  library.value = null
  if (modelId === undefined) return
  const found = await gear.read(modelId).catch(() => null)
  if (found && from?.modelId === found.id) library.value = found
}, { immediate: true })
const newer = computed(() => {
  const newest = library.value?.versions[0]
  const version = from && newest ? newerThan(from, { id: library.value!.id, version: newest.version }) : null
  const had = library.value?.versions.find(v => v.version === from?.version)
  if (version === null || !newest || !had) return null
  return { version, model: newest.body, differs: differences(kind, [had.body, newest.body]).map(d => d.column.label).join(', ') }
})
</script>

<template>
  <p v-if="newer !== null && from" class="small newer">The library has version {{ newer.version }} of it now; it differs in
    {{ newer.differs || 'nothing that is stated' }}.
    <button class="act" type="button" @click="emit('take', newer.model, { ...from, version: newer.version, passed: null })">take it</button>
    <button class="act" type="button" @click="emit('keep', { ...from, passed: newer.version })">keep what the job has</button></p>
</template>
