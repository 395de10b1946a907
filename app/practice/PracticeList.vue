<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, useTemplateRef } from 'vue'
import { navigateTo, useHead } from '#imports'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { writeCode } from '#core/practice/code'
import { EXERCISES } from '#core/practice/exercises'
import { codeOfExercise, readExercise, readPlay } from '#core/practice/files'
import { playCameBack, type CameBack } from '#core/practice/gameWords'
import { InputError } from '#core/quantity/inputError'
import { minutesSay } from '#core/trace/words'
import AppHeader from '~/components/shell/AppHeader.vue'
import CommonActions from '~/components/shell/CommonActions.vue'
import FindBox from '~/components/shell/FindBox.vue'
import { KeysDialog } from '~/components/shell/opened'
import KeyCap from '~/components/KeyCap.vue'
import { fieldOf } from '~/composables/elements'
import { useKeys } from '~/composables/useKeys'
import { useTheme } from '~/composables/useTheme'
import { practiceListKeys } from './keys'
import { standingWith } from './kept'
import { newSeed } from './newSeed'
import { MakeExercise } from './parts'
import { usePracticeStore } from './practiceStore'
import { rigOfCode, sourceOf } from './source'
import WorldNote from './WorldNote.vue'

/** Fifteen exercises in the order of the trade, how far one has come with each; a code that was given; exercises of one's own. */
const practice = usePracticeStore()
useHead({ title: 'Practice · Plain Match' })
onMounted(() => void practice.pull())
const code = ref('')
const problem = ref('')
const making = ref(false)
const cameBack = shallowRef<CameBack[]>([])
const list = useTemplateRef<HTMLElement>('list')
const file = useTemplateRef<HTMLInputElement>('file')
const keysOpen = ref(false)
const findOpen = ref(false)
const rows = computed(() => EXERCISES.map((exercise, k) => ({
  exercise, level: k + 1, stands: standingWith(practice.results, k + 1),
})))
type Row = (typeof rows.value)[number]
function standsSay({ stands: { plays, found, minutes, bestMinutes, isClean } }: Row): string {
  if (plays === 0) return 'not tried yet'
  if (found === 0) return plays === 1 ? 'tried once, not found' : `tried ${plays} times, not found`
  return `found ${found} of ${plays}, ${minutesSay(minutes!)}${bestMinutes === null ? '' : ` where ${minutesSay(bestMinutes)} is the best`}${isClean ? '' : ', never without a risk'}`
}
const begin = (level: number) => navigateTo(`/practice/${writeCode({ level, seed: newSeed() })}`)
/** The first that was not found yet. */
const next = computed(() => rows.value.find(r => r.stands.found === 0) ?? rows.value.at(-1)!)

function told(act: () => void): void {
  problem.value = ''
  try {
    act()
  }
  catch (error) {
    if (!(error instanceof InputError)) throw error
    problem.value = error.message
  }
}
const go = () => told(() => {
  const typed = code.value.trim()
  sourceOf(typed, practice.exercises)
  void navigateTo(`/practice/${typed.toUpperCase()}`)
})
/** An exercise that was given out, or plays that came back. */
async function filesIn(event: Event): Promise<void> {
  const input = fieldOf(event)
  const all = [...input?.files ?? []]
  const texts = await Promise.all(all.map(async f => ({ name: f.name, text: f.size > 2_000_000 ? '' : await f.text() })))
  for (const { name, text } of texts) {
    try {
      if (text.includes('"plain-match-play"')) cameBack.value = [...cameBack.value, playCameBack(readPlay(text, rigOfCode))]
      else practice.addExercise(readExercise(text))
    }
    catch (error) {
      if (!(error instanceof InputError)) throw error
      problem.value = `${name}: ${error.message}`
    }
  }
  if (input) input.value = ''
}
function made(of: string): void {
  making.value = false
  void navigateTo(`/practice/${of}`)
}
function step(by: 1 | -1): void {
  const all = [...list.value?.querySelectorAll<HTMLElement>('button.go') ?? []]
  const at = all.findIndex(b => b === document.activeElement)
  all[Math.max(0, Math.min(all.length - 1, at + by))]?.focus()
}
const bindings = practiceListKeys({
  toCode: () => document.querySelector<HTMLElement>('.code input')?.focus(), step, make: () => { making.value = true }, fileIn: () => file.value?.click(), toJobs: () => void navigateTo('/'),
  find: () => { findOpen.value = true }, toggleNight: () => useTheme().toggle(), showKeys: () => { keysOpen.value = true },
})
useKeys(() => bindings)
</script>

<template>
  <div>
    <AppHeader title="Practice">
      <button class="act" type="button" @click="making = true">make an exercise <KeyCap of="c" /></button>
      <button class="act" type="button" @click="file?.click()">file in <KeyCap of="i" /></button>
      <CommonActions has-find @find="findOpen = true" @keys="keysOpen = true" />
    </AppHeader>
    <main class="practice">
      <WorldNote />
      <p class="lead">Something is hidden on a line. Find it with what you would have on a ladder, and see afterwards where the lead was lost. No clock runs:
        minutes are what it would take.</p>
      <div class="begin">
        <button class="offer" type="button" @click="begin(next.level)">{{ next.level }}. {{ next.exercise.name }}<span class="then">{{
          next.stands.plays === 0 ? 'the next one' : 'once more' }}</span></button>
        <form class="code" @submit.prevent="go">
          <label><span>A code that you were given</span><InputText
            v-model="code" size="small" maxlength="20" placeholder="R4-07-0002A" autocapitalize="characters" autocomplete="off" /></label>
          <Button size="small" type="submit" variant="outlined" label="Open it" :disabled="code.trim() === ''" />
        </form>
      </div>
      <input
        ref="file" class="hidden-label" type="file" accept=".json,application/json" multiple tabindex="-1" aria-label="Exercise or plays to read in"
        @change="filesIn">
      <p v-if="problem" class="error-words" role="alert">{{ problem }}</p>
      <MakeExercise v-if="making" @made="made" @close="making = false" />
      <section v-if="cameBack.length > 0" aria-label="What came back">
        <h2>Came back</h2>
        <p class="soft small">Each was played again here: nothing in it is taken on trust.</p>
        <ul class="rows"><li v-for="(one, k) in cameBack" :key="k"><b>{{ one.who || 'nobody said who' }}</b> <span class="soft">{{ one.of }}</span><br>{{
          one.says }}</li></ul>
      </section>
      <section v-if="practice.exercises.length > 0" aria-label="Exercises on this device">
        <h2>Made here, or read in</h2>
        <ul class="rows"><li v-for="one in practice.exercises" :key="codeOfExercise(one)"><NuxtLink :to="`/practice/${codeOfExercise(one)}`"><b>{{ one.name
          }}</b></NuxtLink> <span class="soft figure">{{ codeOfExercise(one) }}</span></li></ul>
      </section>
      <ol ref="list" class="list" aria-label="Exercises">
        <li v-for="row in rows" :key="row.level">
          <button class="go" type="button" @click="begin(row.level)">
            <span class="figure soft">{{ row.level }}</span>
            <span><b>{{ row.exercise.name }}</b><br><span class="soft">{{ row.exercise.before }}</span></span>
            <span class="stands" :class="{ found: row.stands.found > 0 }">{{ standsSay(row) }}</span>
          </button>
        </li>
      </ol>
    </main>
    <FindBox v-model:open="findOpen" :actions="bindings" />
    <KeysDialog v-model:open="keysOpen" :bindings="bindings" />
  </div>
</template>

<style scoped>
.practice { max-width: 960px; margin: 0 auto; padding: 16px 20px 60px; display: grid; gap: 16px; grid-template-columns: minmax(0, 1fr); }
.lead { max-width: 640px; }
.begin { display: flex; flex-wrap: wrap; gap: 14px 30px; align-items: end; }
.begin .offer { flex: 0 1 340px; }
.code { display: flex; gap: 8px; align-items: end; }
.code :deep(button) { white-space: nowrap; }
.code label { display: grid; gap: 2px; }
.code label > span { font-size: 13.5px; color: var(--ink-soft); }
.list { list-style: none; border-top: 1px solid var(--rule); }
.go { display: grid; grid-template-columns: 30px minmax(0, 3fr) minmax(0, 2fr); gap: 2px 14px; width: 100%; text-align: left; border: 0; background: none;
  border-bottom: 1px solid var(--rule); padding: 9px 2px; cursor: pointer; }
.go:hover { background: var(--paper-raised); }
.stands { color: var(--ink-soft); text-align: right; }
.stands.found { color: var(--ink); }
.rows { list-style: none; border-top: 1px solid var(--rule); }
.rows li { border-bottom: 1px solid var(--rule); padding: 6px 0; }
@media (max-width: 760px) {
  .practice { padding: 10px 12px 60px; }
  .begin .offer, .code, .code label { flex: 1 1 100%; }
  .go { grid-template-columns: 24px minmax(0, 1fr); }
  .stands { grid-column: 2; text-align: left; font-size: 14px; }
}
</style>
