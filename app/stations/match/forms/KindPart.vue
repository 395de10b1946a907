<script setup lang="ts">
import { computed, ref } from 'vue'
import Select from '~/components/form/choiceList'
import type { Model } from '#core/gear/models'
import type { SpeakerModel } from '#core/gear/speaker'
import { asKind, byHand, equalsOf, FOLLOWED_WORDS, giveKind, giveModel, kindOf, passVersion, speakersOfKind, takeVersion } from '#core/hands/kinds'
import type { Speaker } from '#core/job/schema'
import { newId } from '~/api/ids'
import GearPick from '~/components/gear/GearPick.vue'
import { useEvaluationStore } from '~/stores/evaluation'
import { useJobStore } from '~/stores/job'
import KindForm from './KindForm.vue'
import NewerPart from './NewerPart.vue'

/** The kind of one speaker, or of several: which, how many there are, what was set by hand; made, given, changed, given up. */
const { speakers } = defineProps<{ speakers: readonly Speaker[] }>()
const emit = defineEmits<{ make: [] }>()
const store = useJobStore()
const evaluation = useEvaluationStore()
const isOpen = ref(false)
const isPicking = ref(false)
/** Of no kind; an empty value would count as nothing chosen. */
const NONE = '-'

const kinds = computed(() => [...new Set(speakers.map(s => kindOf(store.opened, s)))])
const kind = computed(() => kinds.value.length === 1 ? kinds.value[0]! : null)
const count = computed(() => kind.value ? speakersOfKind(store.opened, kind.value.id).length : 0)
const ids = computed(() => speakers.map(s => s.id))
/** Who would become one kind: what is chosen, and with one alone all that are as it is. */
const equals = computed(() => speakers.length === 1 ? equalsOf(store.opened, speakers[0]!.id) : ids.value)
const options = computed(() => [
  ...(kind.value === null && kinds.value.length > 1 ? [] : [{ value: NONE, label: 'of no kind' }]),
  ...store.opened.kinds.map(k => ({ value: k.id, label: k.model.name })),
])
const differing = computed(() => {
  const fields = speakers.flatMap((s) => {
    const own = kindOf(store.opened, s)
    return own ? byHand(s, own) : []
  })
  return [...new Set(fields)].map(field => FOLLOWED_WORDS[field]).join(', ')
})

const lineVOf = (nodeId: string) => {
  const line = evaluation.lines.find(l => l.speakers.some(s => s.id === nodeId))
  return line?.kind === 'constant-voltage' ? line.lineV : null
}
/** What hangs there now says what fits: the volts of its line, its ohms. */
const here = computed(() => {
  const ohms = [...new Set(speakers.map(s => s.load.kind === 'nominal' ? s.load.nominalOhm : null))]
  return { lineV: lineVOf(ids.value[0] ?? ''), nominalOhm: ohms.length === 1 && kind.value !== null ? ohms[0]! : null }
})
const used = computed(() => store.opened.kinds.flatMap(k => k.from?.modelId ?? []))
function pick({ modelId, version, body }: { modelId: string, version: number, body: Model }): void {
  isPicking.value = false
  const model = body as SpeakerModel
  if (store.edit(giveModel(store.opened, ids.value, { modelId, version, model }, lineVOf, newId))) store.say(`${model.name}: ${ids.value.length} of it now`)
}

function give(kindId: string): void {
  store.edit(giveKind(store.opened, ids.value, kindId === NONE ? null : kindId, lineVOf))
}
</script>

<template>
  <fieldset class="kind">
    <legend class="soft small">Kind</legend>
    <div v-if="store.opened.kinds.length > 0" class="chosen">
      <Select
        aria-label="kind" :model-value="kind?.id ?? (kinds.length > 1 ? null : NONE)" :options="options" option-label="label" option-value="value" size="small"
        placeholder="they differ" @update:model-value="give" />
      <button v-if="kind && !isOpen" class="act change" type="button" @click="isOpen = true">change all {{ count }}</button>
    </div>
    <NewerPart
      v-if="kind" kind="speaker" :from="kind.from"
      :as-model="(model, { version }) => takeVersion(store.opened, kind!.id, version, model as SpeakerModel)"
      @keep="({ passed }) => store.edit(passVersion(store.opened, kind!.id, passed!))" />
    <KindForm v-if="kind && isOpen" :key="kind.id" :kind="kind" :count="count" @close="isOpen = false" />
    <p v-if="differing !== ''" class="small">≠ By hand otherwise than the kind: {{ differing }}. <button
      class="act" type="button" @click="store.edit(asKind(store.opened, ids))">as the kind again</button></p>
    <GearPick v-if="isPicking" kind="speaker" :used="used" :here="here" @pick="pick" @close="isPicking = false" />
    <button v-else class="act make library" type="button" @click="isPicking = true">
      {{ kind ? 'another model of the library' : 'a model of the library' }}</button>
    <button v-if="!kind" class="act make" type="button" @click="emit('make')">
      {{ equals.length > 1 ? `Make these ${equals.length} one kind` : 'Make a kind of it' }}</button>
    <p v-if="!kind && equals.length > 1" class="soft small">Then what they are, their taps and ratings are changed once for all of them.</p>
  </fieldset>
</template>

<style scoped>
.kind { border: 0; border-top: 1px solid var(--rule); margin: 0; padding: 8px 0 0; display: grid; gap: 6px; }
.chosen { display: grid; grid-template-columns: minmax(0, 1fr) auto; gap: 10px; align-items: center; }
.newer { border-left: 3px solid var(--tight); padding-left: 10px; }
.change, .make { color: var(--ink); text-decoration: underline; text-underline-offset: 3px; justify-self: start; }
</style>
