<script setup lang="ts">
import { computed } from 'vue'
import { ANSWERS, QUESTIONS, type Question } from '#core/job/sections/tickets/schema'
import type { Written } from '#core/job/schema'
import { writtenOf, type Ticket } from '#core/bench/ticket'
import { ANSWER_WORDS, CAUSE_WORDS, STANDS, whichOne } from '#core/bench/whichOne'
import KeyCap from '~/components/KeyCap.vue'
import { useBenchStore } from '../benchStore'

/** Which one is it: one question, its answers, and what may still be wrong after those that were given. */
const { ticket } = defineProps<{ ticket: Ticket }>()
const bench = useBenchStore()
const of = computed(() => whichOne(ticket))
const standing = computed(() => of.value.causes.filter(c => c.chance >= STANDS))
const out = computed(() => of.value.causes.filter(c => c.chance < STANDS))
const given = computed(() => writtenOf(ticket, 'answer'))
const rest = computed(() => QUESTIONS.filter(q => q !== of.value.next && !given.value.some(g => g.what.to === q)))
const percent = (chance: number) => chance >= 0.995 ? 'over 99 in 100' : `${Math.round(100 * chance)} in 100`
const say = (to: Question, answer: string) => bench.write(ticket.id, [{ is: 'answer', to, answer } as Extract<Written, { is: 'answer' }>])
</script>

<template>
  <div class="pane">
    <p v-if="of.notYet" class="warn" role="status">{{ of.notYet }}</p>
    <section v-if="of.next" class="ask">
      <p class="asks">{{ ANSWER_WORDS[of.next].asks }}</p>
      <p class="soft">{{ ANSWER_WORDS[of.next].how }}</p>
      <div class="answers">
        <button v-for="(answer, k) in ANSWERS[of.next]" :key="answer" class="tap" type="button" @click="say(of.next, answer)">{{
          ANSWER_WORDS[of.next].answers[answer] }} <KeyCap :of="`${k + 1}`" /></button>
      </div>
    </section>
    <p v-else>All that is asked without ohms is answered. What is left is told apart by reading: coil, lead, contact.</p>
    <section>
      <h2>What it may be</h2>
      <ul class="rows">
        <li v-for="{ cause, chance } in standing" :key="cause" class="cause">
          <span class="share"><span class="bar" :style="{ width: `${100 * chance}%` }" /></span>
          <span><b>{{ CAUSE_WORDS[cause].says }}</b> <span class="soft figure">{{ percent(chance) }}</span><br><span class="soft">{{ CAUSE_WORDS[cause].look
            }}</span></span>
        </li>
      </ul>
      <p v-if="out.length > 0" class="soft small">Hardly any more: {{ out.map(c => CAUSE_WORDS[c.cause].says).join('; ') }}.</p>
      <p v-if="ticket.head.folklore" class="soft">Everybody says: “{{ ticket.head.folklore }}”. The tests decide.</p>
      <p class="soft small">How common each is, and what each answer is worth, is common practice and no source: a guide to what to look at next.</p>
    </section>
    <section v-if="given.length > 0">
      <h2>Answered</h2>
      <ul class="rows">
        <li v-for="entry in given" :key="entry.id" class="given"><span class="soft">{{ ANSWER_WORDS[entry.what.to].asks }}</span> <b>{{
          ANSWER_WORDS[entry.what.to].answers[entry.what.answer] }}</b>
          <button class="act small" type="button" @click="bench.withdraw(entry.id)">take back</button></li>
      </ul>
    </section>
    <details v-if="rest.length > 0"><summary>Other questions</summary>
      <section v-for="question in rest" :key="question" class="other">
        <p>{{ ANSWER_WORDS[question].asks }} <span class="soft">{{ ANSWER_WORDS[question].how }}</span></p>
        <div class="taps"><button v-for="answer in ANSWERS[question]" :key="answer" class="tap" type="button" @click="say(question, answer)">{{
          ANSWER_WORDS[question].answers[answer] }}</button></div>
      </section>
    </details>
  </div>
</template>

<style scoped>
.ask { display: grid; gap: 6px; }
.cause { display: grid; grid-template-columns: 84px minmax(0, 1fr); gap: 12px; align-items: start; }
.share { display: block; height: 10px; margin-top: 7px; border: 1px solid var(--rule-strong); }
.bar { display: block; height: 100%; background: var(--unknown); }
.given { display: flex; flex-wrap: wrap; gap: 2px 10px; align-items: baseline; }
.other { display: grid; gap: 5px; padding: 8px 0; }
</style>
