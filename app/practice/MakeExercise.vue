<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { EXERCISES } from '#core/practice/exercises'
import { checkExercise, codeOfExercise, type ExerciseFile } from '#core/practice/files'
import { FAULT_WORDS } from '#core/check/faultWords'
import { faultAt } from '#core/faults/fault'
import { kindsAt, nodeOfKind, placesOf, PRACTICE_TOOLS } from '#core/practice/places'
import type { FaultKind } from '#core/job/schema'
import { InputError } from '#core/quantity/inputError'
import { TOOL_WORDS } from '#core/trace/words'
import Select from '~/components/form/choiceList'
import CheckLine from '~/components/form/CheckLine.vue'
import ChoiceRow from '~/components/form/ChoiceRow.vue'
import { newSeed } from './newSeed'
import { usePracticeStore } from './practiceStore'

/** A teacher's exercise: a line, what is hidden on it, what is told, which tools are at hand. Given out as a file; whoever has the file has the code, too. */
const emit = defineEmits<{ made: [code: string], close: [] }>()
const practice = usePracticeStore()
/** A line of the fifteen, or of an exercise that is here: one's own line comes in from its job. */
const lines = computed(() => [
  ...EXERCISES.map((e, k) => ({ id: `${k}`, says: `${k + 1}. ${e.name}`, line: e.line })),
  ...practice.exercises.map((e, k) => ({ id: `own ${k}`, says: e.name, line: e.line })),
])
const lineId = ref('6')
const line = computed(() => (lines.value.find(l => l.id === lineId.value) ?? lines.value[0]!).line)
const places = computed(() => placesOf(line.value).map(p => ({ id: p.id ?? 'rack', says: p.is === 'rack' ? 'the rack, or the whole line' : p.name })))
const nameOf = (id: string) => placesOf(line.value).find(p => (p.id ?? 'rack') === id)?.name ?? ''
const typed = reactive({ name: '', before: '', after: '' })
interface Hidden { place: string, kind: FaultKind | null }
const hidden = ref<Hidden[]>([{ place: 'rack', kind: null }])
watch(line, () => { hidden.value = hidden.value.map(() => ({ place: 'rack', kind: null })) })
const own = computed(() => ({ line: line.value, kinds: null }))
const idOf = (place: string) => place === 'rack' ? null : place
const kinds = (place: string) => kindsAt(own.value, idOf(place)).map(id => ({ id, says: FAULT_WORDS[id].at(nameOf(place)) }))
const told = ref<'kinds' | 'nothing' | undefined>('nothing')
const TOLD = [{ value: 'nothing' as const, says: 'only that something is hidden' }, { value: 'kinds' as const, says: 'of which kind it is' }]
const counts = ref<ExerciseFile['counts'] | undefined>('minutes')
const COUNTS = [{ value: 'minutes' as const, says: 'minutes' }, { value: 'tests' as const, says: 'tests' }]
type Tool = typeof PRACTICE_TOOLS[number]
const without = ref<Tool[]>([])
const problem = ref('')
function toggle(tool: Tool, isHere: boolean): void {
  without.value = isHere ? without.value.filter(t => t !== tool) : [...without.value, tool]
}
function made(): ExerciseFile | null {
  problem.value = ''
  try {
    if (typed.name.trim() === '') throw new InputError('An exercise has a name.', 0, [])
    const chosen = hidden.value.filter(h => h.kind !== null)
    if (chosen.length < hidden.value.length) throw new InputError('What is hidden is not chosen yet: a place, and what is wrong there.', 0, [])
    const faults = chosen.map(h => faultAt(h.kind!, nodeOfKind(own.value, idOf(h.place), h.kind!)))
    const file: ExerciseFile = {
      format: 'plain-match-exercise', version: 1, name: typed.name.trim(), before: typed.before.trim(), after: typed.after.trim(), line: line.value, hidden: faults,
      faults: faults.length === 2 ? 2 : 1, kinds: told.value === 'kinds' ? [...new Set(faults.map(f => f.kind))] : null, without: without.value, counts: counts.value ?? 'minutes', seed: newSeed(),
    }
    checkExercise(file)
    return file
  }
  catch (error) {
    if (!(error instanceof InputError)) throw error
    problem.value = error.message
    return null
  }
}
function keep(): void {
  const file = made()
  if (file) emit('made', practice.addExercise(file))
}
function fileOut(): void {
  const file = made()
  if (!file) return
  practice.addExercise(file)
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([JSON.stringify(file, null, 1)], { type: 'application/json' }))
  link.download = `exercise-${codeOfExercise(file)}.json`
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000)
}
</script>

<template>
  <form class="make" aria-label="Make an exercise" @submit.prevent="keep" @keydown.esc.stop="emit('close')">
    <label><span>Name</span><InputText v-model="typed.name" size="small" maxlength="120" placeholder="The quiet corner" /></label>
    <label><span>Told before</span><InputText v-model="typed.before" size="small" maxlength="500" placeholder="Guests hear nothing at the window" /></label>
    <label><span>To take along, told after</span><InputText v-model="typed.after" size="small" maxlength="500" placeholder="Read the head first" /></label>
    <label><span>Line</span><Select v-model="lineId" :options="lines" option-label="says" option-value="id" size="small" aria-label="Line" /></label>
    <div v-for="(one, k) in hidden" :key="k" class="hidden">
      <label><span>Hidden at</span><Select
        v-model="one.place" :options="places" option-label="says" option-value="id" size="small" :aria-label="`Place ${k + 1}`" @update:model-value="one.kind
          = null" /></label>
      <label><span>what is wrong there</span><Select
        v-model="one.kind" :options="kinds(one.place)" option-label="says" option-value="id" size="small" :aria-label="`What is wrong ${k + 1}`"
          placeholder="choose" /></label>
      <button v-if="k === 1" class="act" type="button" @click="hidden.splice(1, 1)">not a second one</button>
    </div>
    <button v-if="hidden.length === 1" class="act" type="button" @click="hidden.push({ place: 'rack', kind: null })">hide a second one</button>
    <ChoiceRow v-model="told" label="What is told" before="Told is" :choices="TOLD" />
    <ChoiceRow v-model="counts" label="What counts" before="What counts:" :choices="COUNTS" />
    <p class="tools"><span class="soft">At hand:</span> <CheckLine
      v-for="tool in PRACTICE_TOOLS" :key="tool" :model-value="!without.includes(tool)"
      @update:model-value="toggle(tool, $event)">{{
      TOOL_WORDS[tool] }}</CheckLine></p>
    <p v-if="problem" class="error-words" role="alert">{{ problem }}</p>
    <p class="acts"><Button size="small" type="submit" label="Make it" /><Button
      size="small" type="button" variant="outlined" label="As a file, to give out"
      @click="fileOut" />
      <button class="act" type="button" @click="emit('close')">leave it</button></p>
  </form>
</template>

<style scoped>
.make { display: grid; gap: 9px; border: 1.5px solid var(--ink); background: var(--paper-raised); padding: 12px 14px; max-width: 760px;
  grid-template-columns: minmax(0, 1fr); justify-items: start; }
label { display: grid; gap: 2px; }
.make > label { width: 100%; max-width: 520px; }
label > span { font-size: 13.5px; color: var(--ink-soft); }
label :deep(input), label :deep(.p-select) { width: 100%; }
.hidden { display: flex; flex-wrap: wrap; gap: 8px 14px; align-items: end; }
.hidden label { min-width: 220px; }
.tools { display: flex; flex-wrap: wrap; gap: 4px 16px; align-items: center; }
.acts { display: flex; flex-wrap: wrap; gap: 10px 18px; align-items: center; }
</style>
