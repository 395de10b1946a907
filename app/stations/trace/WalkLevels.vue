<script setup lang="ts">
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import ChoiceRow from '~/components/form/ChoiceRow.vue'
import type { Job, ReadingValue, Speaker } from '#core/job/schema'
import { writeNumber } from '#core/quantity/write'
import { levelTaken, levelTyped, SIGNAL_CHOICES, WEIGHTING_CHOICES } from '../check/levelTaken'
import { levelsTyped } from './answered'
import { levelDraft } from './levelDrafts'

/** A walk with the level meter: a figure under each speaker that is passed; Enter goes on to the next. What is typed stays until it is recorded. */
const { job, outputId, speakers, isHeld } = defineProps<{ job: Job, outputId: string, speakers: readonly Pick<Speaker, 'id' | 'label'>[], isHeld: boolean }>()
const emit = defineEmits<{ record: [values: ReadonlyMap<string, ReadingValue>], silence: [] }>()

const typed = computed(() => levelDraft(outputId))
const how = ref(levelTaken(job, outputId))
const volts = ref(how.value.headV === null ? '' : writeNumber(how.value.headV, 4))
const problem = ref('')
const fields = ref<HTMLElement | null>(null)

const filled = computed(() => speakers.filter(s => (typed.value.get(s.id) ?? '').trim() !== ''))
const says = computed(() => filled.value.length === 1 ? 'Record one level' : `Record ${filled.value.length} levels`)

function next(event: KeyboardEvent): void {
  const all = [...fields.value?.querySelectorAll('input') ?? []]
  const at = all.indexOf(event.target as HTMLInputElement)
  if (at < all.length - 1) all[at + 1]!.focus()
  else record()
}
function record(): void {
  const levels = levelsTyped(filled.value, id => levelTyped(typed.value.get(id) ?? '', volts.value))
  problem.value = typeof levels === 'string' ? levels : ''
  if (typeof levels === 'string' || levels.size === 0) return
  emit('record', new Map([...levels].map(([id, level]) => [id, { is: 'level', ...level, weighting: how.value.weighting, signal: how.value.signal }])))
}
</script>

<template>
  <div data-form class="levels">
    <p class="small">The same signal and the same knob all the way, the meter held alike under each. Those like it are what each is held against.</p>
    <div ref="fields" class="fields" role="group" aria-label="Level under each speaker, dB">
      <label v-for="s in speakers" :key="s.id"><span>{{ s.label }}</span>
        <InputText
          :model-value="typed.get(s.id) ?? ''" size="small" inputmode="decimal" maxlength="12" :aria-label="`Level under ${s.label}, dB`"
          @update:model-value="typed.set(s.id, $event ?? '')" @keydown.enter.prevent="next" /></label>
    </div>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <ChoiceRow v-model="how.weighting" label="Weighted" before="weighted" :choices="WEIGHTING_CHOICES" />
    <ChoiceRow v-model="how.signal" label="Of which signal" before="of" :choices="SIGNAL_CHOICES" />
    <div class="deeds">
      <Button size="small" :label="says" :disabled="isHeld || filled.length === 0" @click="record" />
      <label class="small"><InputText v-model="volts" size="small" inputmode="decimal" maxlength="12" aria-label="Volts at the rack" placeholder="not read"
        /> V at the rack</label>
    </div>
    <p class="small">Nothing comes out anywhere? <button class="act" type="button" :disabled="isHeld" @click="emit('silence')">Record: all silent</button></p>
  </div>
</template>

<style scoped>
.levels { display: grid; grid-template-columns: minmax(0, 1fr); gap: 9px; }
.fields { display: grid; grid-template-columns: repeat(auto-fill, minmax(112px, 1fr)); gap: 6px 12px; max-width: 520px; }
.fields label { display: grid; grid-template-columns: minmax(0, 1fr) 72px; gap: 6px; align-items: center; }
.fields span { text-align: end; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.fields :deep(input), .deeds :deep(input) { width: 72px; min-height: 40px; }
.deeds { display: flex; flex-wrap: wrap; gap: 8px 14px; align-items: center; }
.problem { color: var(--stop); }
.act { text-decoration: underline; text-underline-offset: 3px; color: var(--ink); min-height: 44px; }
</style>
