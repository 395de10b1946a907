<script setup lang="ts">
import { computed, ref } from 'vue'
import { navigateTo } from '#imports'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { writeCode } from '#core/practice/code'
import { EXERCISES } from '#core/practice/exercises'
import type { PlayFile } from '#core/practice/files'
import { playOf, sumOf } from '#core/practice/game'
import { actSays, leftSays, MISTAKE_WORDS, pathSays, scoreSays, stepSays, testSays } from '#core/practice/gameWords'
import { lostAt } from '#core/practice/path'
import { nameIn } from '#core/practice/places'
import { sealOf } from '#core/practice/rig'
import { faultsSay } from '#core/trace/words'
import KeyCap from '~/components/KeyCap.vue'
import { me } from '~/door/me'
import { newSeed } from './newSeed'
import PathChart from './PathChart.vue'
import { usePracticeStore } from './practiceStore'

/** Afterwards: against the best, what was learned, the way that was gone, and from where it can be gone once more. */
const emit = defineEmits<{ again: [upTo: number] }>()
const practice = usePracticeStore()
const output = computed(() => practice.rig!.output)
const play = computed(() => practice.play!)
const sum = computed(() => sumOf(play.value))
const hidden = computed(() => faultsSay(practice.rig!.faults, nameIn(output.value)))
const score = computed(() => practice.best ? scoreSays(sum.value, practice.best, 'exercise' in practice.source! ? practice.source.exercise.counts : 'minutes') : null)
const lost = computed(() => practice.path ? lostAt(practice.path) : null)
const bestTests = computed(() => practice.best?.by === 'exact' ? practice.best.best.here.tests.map(t => testSays(t, output.value)) : [])
const tracersActs = computed(() => practice.best?.by === 'tracer' ? playOf(practice.rig!, practice.best.acts).steps.map(s => `${actSays(s.act, output.value)}. ${stepSays(s, output.value)}`) : [])
const notNulled = computed(() => play.value.steps.some(s => s.mistake === 'not-nulled'))
const level = computed(() => 'code' in practice.source! ? EXERCISES.indexOf(practice.rig!.exercise) + 1 : null)
const copied = ref<'' | 'copied' | 'cannot'>('')
async function copy(code: string): Promise<void> {
  try {
    await navigator.clipboard.writeText(code)
    copied.value = 'copied'
  }
  catch {
    copied.value = 'cannot'
  }
}
const who = ref(me.value?.name ?? '')
const another = () => void navigateTo(`/practice/${writeCode({ level: level.value!, seed: newSeed() })}`)
const following = () => void navigateTo(`/practice/${writeCode({ level: level.value! + 1, seed: newSeed() })}`)
/** For whoever gave the exercise out. */
const file = computed(() => {
  const of: PlayFile = { format: 'plain-match-play', version: 2, code: practice.rig!.code, exercise: 'exercise' in practice.source! ? practice.source.exercise : null, who: who.value.trim().slice(0, 80), at: new Date().toISOString(), acts: [...practice.acts] }
  return `data:application/json;charset=utf-8,${encodeURIComponent(JSON.stringify(of, null, 1))}`
})
</script>

<template>
  <div class="after">
    <section class="score" role="status">
      <h2>{{ sum.isFound ? sum.isNamed ? 'Found' : 'Put right' : 'Not found' }}: {{ hidden }}</h2>
      <p v-if="score"><b>{{ score }}</b></p>
      <p v-else class="soft">The best play is being worked out{{ practice.bestActs > 0 ? `: the tracer plays it, ${practice.bestActs} acts so far` : '' }}…</p>
      <p v-if="sum.risks > 0" class="error-words">{{ sum.risks === 1 ? 'Once' : `${sum.risks} times` }} it could have hurt somebody or broken something.</p>
      <p v-if="notNulled">{{ MISTAKE_WORDS['not-nulled'] }}</p>
      <p class="taken"><b>To take along:</b> {{ practice.rig!.exercise.after }} <span class="soft">{{ practice.rig!.exercise.before }}</span></p>
      <p v-if="bestTests.length > 0" class="soft small">The best play here: {{ bestTests.join('; then ') }}; then open it.</p>
      <p v-else-if="practice.best?.by === 'exact'" class="soft small">The best play here tests nothing: opening the likeliest place is as quick.</p>
      <details v-if="tracersActs.length > 0" class="small">
        <summary>How the tracer goes about it here</summary>
        <ol class="tracers soft"><li v-for="(says, k) in tracersActs" :key="k">{{ says }}</li></ol>
      </details>
      <p class="acts">
        <Button v-if="level !== null && level < EXERCISES.length && sum.isFound" size="small" :label="`Next: ${EXERCISES[level]!.name}`" @click="following" />
        <Button v-if="level !== null" size="small" variant="outlined" label="The same with another fault" @click="another" />
        <button class="act" type="button" @click="emit('again', 0)">this rig once more <KeyCap of="r" /></button>
        <button class="act" type="button" @click="copy(practice.rig!.code)">{{ copied === 'copied' ? 'its code is copied'
          : `${copied === 'cannot' ? 'choose and copy it by hand:' : 'copy its code'} ${practice.rig!.code}` }}</button>
      </p>
    </section>
    <section aria-label="The way that was gone">
      <h2>The way that was gone</h2>
      <p v-if="practice.problem" class="error-words" role="alert">{{ practice.problem }}</p>
      <p v-if="practice.lookedBack !== null" class="soft" role="status">Looking back: {{ Math.round(100 * practice.lookedBack) }} of 100…</p>
      <template v-if="practice.path && practice.path.length > 0">
        <p v-if="lost !== null"><b>The lead was lost at {{ lost + 1 }}.</b> {{ pathSays(practice.path[lost]!, output) || 'Little spoke for that place.' }}</p>
        <p v-else>No lead was lost worth speaking of.</p>
        <PathChart :path="practice.path" :lost="lost" />
        <ol class="steps">
          <li v-for="(step, k) in play.steps" :key="k" :class="{ lost: k === lost }">
            <span class="figure soft">{{ k + 1 }}</span>
            <span><b>{{ actSays(step.act, output) }}</b> {{ stepSays(step, output) }}<br>
              <span v-if="practice.path[k]" class="soft small">{{ pathSays(practice.path[k]!, output) }} {{ leftSays(practice.path[k]!, output) }}</span></span>
            <button v-if="k > 0" class="act small" type="button" @click="emit('again', k)">go on from before it</button>
          </li>
        </ol>
      </template>
      <p v-else-if="play.steps.length <= 1" class="soft">Nothing was read: there is no way to look back on.</p>
    </section>
    <section class="give" aria-label="For a teacher">
      <label><span>Your name, for whoever gave it out</span><InputText v-model="who" size="small" maxlength="80" /></label>
      <a class="act" :href="file" :download="`play-${practice.rig!.code}.json`">play as a file</a>
      <span class="soft small">Sealed as {{ sealOf(practice.rig!) }}: what was hidden follows from the code.</span>
    </section>
  </div>
</template>

<style scoped>
.after { display: grid; gap: 22px; grid-template-columns: minmax(0, 1fr); }
.score { border: 1.5px solid var(--ink); background: var(--paper-raised); padding: 12px 16px; display: grid; gap: 7px; }
.score h2 { font-size: 18px; }
.acts { display: flex; flex-wrap: wrap; gap: 8px 16px; align-items: center; }
section { display: grid; gap: 8px; grid-template-columns: minmax(0, 1fr); }
.steps { list-style: none; border-top: 1px solid var(--rule); }
.steps li { display: grid; grid-template-columns: 26px minmax(0, 1fr) auto; gap: 2px 10px; align-items: baseline;
  border-bottom: 1px solid var(--rule); padding: 6px 0; }
.steps li.lost { border-left: 4px solid var(--stop); padding-left: 8px; }
.tracers { padding-left: 28px; margin-bottom: 5px; }
.give { display: flex; flex-wrap: wrap; gap: 8px 18px; align-items: end; border-top: 1px solid var(--rule); padding-top: 10px; }
.give label { display: grid; gap: 2px; }
.give label > span { font-size: 13.5px; color: var(--ink-soft); }
@media (max-width: 760px) { .steps li { grid-template-columns: 22px minmax(0, 1fr); } .steps .act { grid-column: 2; } }
</style>
