<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { KIND_WORDS } from '#core/check/words'
import type { ReadingValue } from '#core/job/schema'
import { factsOf } from '#core/job/sections/readings/kinds'
import { testKey, type NextTest } from '#core/trace/next/best'
import { muteIn, passesOf } from '#core/trace/next/passes'
import { isWalk, type WalkFound, type WalkKind } from '#core/trace/next/test'
import { WALKS } from '#core/trace/next/walk'
import { amplifierOf, laddersOf, toolFor } from '#core/trace/next/minutes'
import { answerSays, faultsSay, laddersSay, minutesSay, QUESTIONS, testTitle, TOOL_WORDS } from '#core/trace/words'
import { newId } from '~/api/ids'
import { useHold } from '~/composables/useHold'
import { whoHere } from '~/door/me'
import { useJobStore } from '~/stores/job'
import { useSelectionStore } from '~/stores/selection'
import { answerEdit, levelsEdit, walkEdit, type Answering } from './answered'
import { levelDraft } from './levelDrafts'
import { leftOutSays } from './leftOut'
import { otherTests } from './otherTests'
import { placeName } from './placeName'
import { shareText } from './shown'
import { useTraceStore } from './suspects'
import AtHand from './AtHand.vue'
import OhmAnswer from './OhmAnswer.vue'
import WalkEntry from './WalkEntry.vue'
import WalkLevels from './WalkLevels.vue'

/** What to read next: its answers are pressed, or typed, and each says what it would mean. */
const store = useJobStore()
const selected = useSelectionStore()
const trace = useTraceStore()
const nameOf = (nodeId: string | null) => placeName(store.job, nodeId)

const next = computed(() => trace.view?.next ?? null)
const at = ref(0)
watch(next, () => { at.value = 0 })
const test = computed((): NextTest | null => next.value?.tests[at.value] ?? null)
const others = computed(() => {
  const tests = next.value?.tests ?? []
  return otherTests(tests, at.value).map(k => ({ k, title: testTitle(tests[k]!, nameOf), minutes: tests[k]!.minutes }))
})
const isTyped = computed(() => test.value !== null && !isWalk(test.value.kind) && factsOf(test.value.kind).value === 'ohm')
const walk = computed((): WalkKind | null => test.value && isWalk(test.value.kind) ? test.value.kind : null)
/** What is seen to before it: a walk takes a reading of each. */
const before = computed(() => test.value ? KIND_WORDS[isWalk(test.value.kind) ? WALKS[test.value.kind].reads : test.value.kind].before : '')
const speakers = computed(() => selected.line?.speakers ?? [])
const told = computed(() => trace.telling.map(j => j.reading))
/** Those that a walk has before it, and whom it leaves out. */
const toPass = computed(() => {
  const ids = walk.value === null ? [] : passesOf(walk.value, speakers.value.map(s => s.id), told.value)
  return speakers.value.filter(s => ids.includes(s.id))
})
const leftOut = computed(() => {
  if (walk.value === null) return ''
  const [isMute, { reads }] = [muteIn(told.value), WALKS[walk.value]]
  return leftOutSays(speakers.value, id => isMute(reads, id))
})

const isMoreOpen = ref(false)
/** Answers that may well come; the others are one press further. */
const LIKELY = 0.02
const answers = computed(() => test.value?.answers.filter(a => a.chance >= LIKELY).map(a => ({
  of: a, key: JSON.stringify(a.answer), says: answerSays(a.answer, test.value!, nameOf), chance: shareText(a.chance),
  means: a.leaves[0] ? `${faultsSay(a.leaves[0].faults, nameOf)},` : '', sure: a.leaves[0] ? shareText(a.leaves[0].probability) : '',
})) ?? [])
const rare = computed(() => isTyped.value
  ? []
  : test.value?.answers.filter(a => a.chance < LIKELY).map(a => ({ of: a, says: answerSays(a.answer,
    test.value!, nameOf) })) ?? [])
const stands = computed(() => {
  const { atId, isUp } = trace.standing
  const tool = test.value ? toolFor(test.value) : null
  return [
    test.value ? minutesSay(test.value.minutes) : '', atId === null ? 'you stand at the rack' : `you ${isUp ? 'are up' : 'stand'} at ${nameOf(atId)}`,
    tool && TOOL_WORDS[tool], test.value && laddersSay(test.value ? laddersOf(test.value, trace.standing, trace.order) : 0),
  ].filter(Boolean).join(' · ')
})

const { isHeld, hold } = useHold()
function record(value: ReadingValue): void {
  if (!test.value || !selected.line || isHeld.value) return
  if (isWalk(test.value.kind)) return
  if (store.edit(answerEdit(test.value.kind, test.value.nodeId, value, answering(selected.line.outputId)))) hold()
}
const answering = (outputId: string): Answering => ({ outputId, who: whoHere(), at: new Date().toISOString(), newId })
function recordWalk(upToId: string, odd: ReadonlyMap<string, WalkFound>): void {
  if (!selected.line || isHeld.value || walk.value === null || walk.value === 'level-walk') return
  const edit = walkEdit(walk.value, toPass.value.map(s => s.id), upToId, odd, answering(selected.line.outputId))
  if (edit && store.edit(edit)) hold()
}
function recordLevels(values: ReadonlyMap<string, ReadingValue>): void {
  if (!selected.line || isHeld.value) return
  const edit = levelsEdit(values, answering(selected.line.outputId))
  if (!edit || !store.edit(edit)) return
  levelDraft(selected.line.outputId).clear()
  hold()
}
/** Who comes with the meter to a line of which nothing plays notes that. */
function recordSilence(): void {
  const ids = toPass.value.map(s => s.id)
  if (!selected.line || isHeld.value || ids.length === 0) return
  const edit = walkEdit('walk', ids, ids.at(-1)!, new Map(ids.map(id => [id, 'silent'])), answering(selected.line.outputId))
  if (edit && store.edit(edit)) hold()
}
/** While the answers have the keys: each by its number, up and down between them. */
function onKey(event: KeyboardEvent): void {
  const list = [...(event.currentTarget as HTMLElement).querySelectorAll<HTMLButtonElement>('button.answer')]
  const at = list.indexOf(document.activeElement as HTMLButtonElement)
  const isTyping = event.target instanceof HTMLInputElement || event.target instanceof HTMLSelectElement
  const number = isTyping ? 0 : Number(event.key)
  const next = event.key === 'ArrowDown' ? list[at + 1] : event.key === 'ArrowUp' ? list[at - 1] : undefined
  if (isTyping && event.key.startsWith('Arrow')) return
  if (number >= 1 && number <= list.length) list[number - 1]!.click()
  else if (next && at >= 0) next.focus()
  else return
  event.preventDefault()
  event.stopPropagation()
}
function cannot(): void {
  if (test.value) trace.cannot = [...trace.cannot, testKey(test.value)]
}
</script>

<template>
  <section v-if="test" class="next" data-form aria-label="What to read next" @keydown="onKey">
    <p v-if="next!.isMendNext" class="open-now">No test saves time any more: open the likeliest place. To be surer before that:</p>
    <p v-else class="soft small">{{ next!.minutesInAll < 1 ? 'Nearly there.'
      : `About ${minutesSay(next!.minutesInAll)} until it is right, mending included.` }}</p>
    <h2>{{ testTitle(test, nameOf) }}</h2>
    <p class="soft small">{{ at === 0 ? 'Tells most for its time' : 'Another way' }}: {{ stands }}.</p>
    <p class="amplifier" :class="amplifierOf(test.kind)"><b>Amplifier {{ amplifierOf(test.kind) === 'on' ? 'ON' : 'OFF' }}</b> {{ before }}</p>
    <h3>{{ QUESTIONS[test.kind] ?? 'What does the meter show?' }}</h3>
    <OhmAnswer v-if="isTyped" :key="testKey(test)" :is-held="isHeld" @record="record" />
    <WalkLevels
      v-else-if="walk === 'level-walk' && selected.line && store.job" :key="selected.line.outputId" :job="store.job" :output-id="selected.line.outputId"
        :speakers="toPass"
      :is-held="isHeld" @record="recordLevels" @silence="recordSilence" />
    <WalkEntry v-else-if="walk" :key="walk" :kind="walk" :speakers="toPass" :left-out="leftOut" :is-held="isHeld" @record="recordWalk" />
    <ul class="answers">
      <li v-for="(row, k) in answers" :key="row.key">
        <button v-if="'value' in row.of.answer" type="button" class="answer" :disabled="isHeld" @click="record(row.of.answer.value)">
          <b><span class="figure key" aria-hidden="true">{{ k + 1 }}</span> {{ row.says }}</b>
          <span class="means">{{ row.means }} <span class="sure">{{ row.sure }}</span></span>
        </button>
        <p v-else class="answer range">
          <b class="figure">{{ row.says }}</b> <span class="means">{{ row.means }} <span class="sure">{{ row.sure }}</span></span>
        </p>
      </li>
      <li><button type="button" class="answer cannot" @click="cannot"><b>I can’t do that</b> <span class="means">{{ others[0]
        ? `then: ${others[0].title}` : 'then nothing is left to read' }}</span></button></li>
    </ul>
    <p v-if="rare.length > 0" class="small rare">or
      <template v-for="(row, k) in rare" :key="row.says">{{ k > 0 ? ', '
        : '' }}<button
          class="act" type="button" :disabled="isHeld" @click="'value' in row.of.answer && record(row.of.answer.value)">{{ row.says }}</button></template></p>
    <AtHand v-model:open="isMoreOpen" :others="others" @choose="at = $event" />
  </section>
  <section v-else-if="next && next.tests.length === 0" class="next" aria-label="What to read next">
    <p class="soft small">Nothing that can be read {{ trace.mayBeOn ? '' : 'with the amplifier off ' }}would part these any further. Open the likeliest place.
      <button
        v-if="trace.cannot.length > 0 || trace.without.length > 0" class="act" type="button"
        @click="trace.cannot = []; trace.without = []">Ask again for all tests</button></p>
  </section>
</template>

<style scoped>
.next { display: grid; grid-template-columns: minmax(0, 1fr); gap: 8px; align-content: start; padding-bottom: 12px; border-bottom: 1px solid var(--rule); }
h3 { font-size: 15px; }
.amplifier { border-left: 5px solid var(--ink); padding: 2px 0 2px 10px; font-size: 15px; }
.amplifier b { font-size: 17px; margin-right: 6px; }
.amplifier.on { border-left-color: var(--copper); }
.answers { list-style: none; margin: 0; padding: 0; display: grid; gap: 6px; }
.answer { width: 100%; min-height: 44px; display: flex; justify-content: space-between; align-items: baseline; gap: 14px; text-align: left;
  padding: 9px 12px; background: var(--paper-raised); border: 1px solid var(--ink); color: var(--ink);
  font-size: 15px; line-height: 1.3; }
.answer b { flex: 0 0 auto; max-width: 50%; }
.answer .key { color: var(--pen); margin-right: 5px; }
.open-now { font-weight: 600; }
.answer .means { text-align: right; font-size: 13.5px; color: var(--ink-soft); min-width: 0; overflow-wrap: anywhere; }
.sure { white-space: nowrap; }
.answer.range { border: 0; border-bottom: 1px solid var(--rule); background: none; padding: 6px 0; min-height: 0; }
.answer.cannot { border-style: dashed; background: none; }
.act { text-decoration: underline; text-underline-offset: 3px; color: var(--ink); min-height: 32px; text-align: left; }
</style>
