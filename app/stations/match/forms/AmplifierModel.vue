<script setup lang="ts">
import { computed, ref } from 'vue'
import type { AmplifierModel } from '#core/gear/amplifier'
import type { Model } from '#core/gear/models'
import { asAmplifierModel } from '#core/hands/amplifierModel'
import { setting } from '#core/job/edits'
import type { Amplifier, Origin } from '#core/job/schema'
import { newId } from '~/api/ids'
import GearPick from '~/components/gear/GearPick.vue'
import { useJobStore } from '~/stores/job'
import NewerPart from './NewerPart.vue'

/** The model of the library that an amplifier is, said before its fields: chosen, changed, brought up to a newer version. */
const { amplifier } = defineProps<{ amplifier: Amplifier }>()
const store = useJobStore()
const isPicking = ref(false)
const used = computed(() => store.opened.amplifiers.flatMap(a => a.from?.modelId ?? []))
const asModel = (body: Model, from: Origin) => asAmplifierModel(store.opened, amplifier.id, body as AmplifierModel, from, newId)
function become(model: Model, from: Origin): void {
  isPicking.value = false
  const { edit, beyond } = asModel(model, from)
  const kept = beyond.length === 0 ? '' : `; it has no ${beyond.join(', ')}, which stay as they are`
  if (store.edit(edit)) store.say(`${model.name}: ratings taken over${kept}`)
}
const keep = (from: Origin) => store.edit({ kind: 'amplifier.set', amplifierId: amplifier.id, ...setting<Pick<Amplifier, 'from'>, Pick<Amplifier, 'from'>>(amplifier, { from }) })
</script>

<template>
  <div class="model">
    <p class="chosen"><b>{{ amplifier.name }}</b> <button v-if="!isPicking" class="act" type="button" @click="isPicking = true">{{
      amplifier.from ? 'another model of the library' : 'a model of the library' }}</button></p>
    <NewerPart kind="amplifier" :from="amplifier.from" marks :as-model="(model, from) => asModel(model, from).edit" @keep="keep" />
    <GearPick
      v-if="isPicking" kind="amplifier" :used="used" @pick="({ modelId, version, body }) => become(body, { modelId, version, passed: null })"
      @close="isPicking = false" />
  </div>
</template>

<style scoped>
.model { display: grid; gap: 8px; }
.chosen { display: flex; flex-wrap: wrap; gap: 2px 14px; align-items: baseline; }
.act { color: var(--ink); text-decoration: underline; text-underline-offset: 3px; }
</style>
