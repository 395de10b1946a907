<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { navigateTo, useHead, useRoute, useRouter } from '#imports'
import Button from '~/components/form/laterButton'
import { otherWays, waysOf, wiredOtherwise, withWay, type Way } from '#core/quick/answer'
import { UndecidedError } from '#core/quick/parse'
import { isBad } from '#core/line/finding'
import { findingWords } from '#core/line/words'
import { ApiError } from '~/api/client'
import GradeTag from '~/components/GradeTag.vue'
import KeyCap from '~/components/KeyCap.vue'
import AppHeader from '~/components/shell/AppHeader.vue'
import CommonActions from '~/components/shell/CommonActions.vue'
import { quickKeys } from '~/components/quick/keys'
import LadderDrawing from '~/components/quick/LadderDrawing.vue'
import QuickBuilder from '~/components/quick/QuickBuilder.vue'
import QuickError from '~/components/quick/QuickError.vue'
import { LINE_WORDS, SAID_EXAMPLES } from '~/components/quick/examples'
import QuickInput from '~/components/quick/QuickInput.vue'
import QuickNumbers from '~/components/quick/QuickNumbers.vue'
import QuickWays from '~/components/quick/QuickWays.vue'
import { SchoolScale } from '~/components/quick/parts'
import { useKeys } from '~/composables/useKeys'
import { useQuick } from '~/composables/useQuick'
import { useTheme } from '~/composables/useTheme'
import { useJobsStore } from '~/stores/jobs'
import FindBox from '~/components/shell/FindBox.vue'
import { KeysDialog } from '~/components/shell/opened'

const EXAMPLES = [...SAID_EXAMPLES, '8 + 8', '(8 + 8) || (8 + 8)', '(4 + 4) || (4 + 4) on 300 W at 4, 180 W at 8, from 2', '12 x 5 W + 2 x 20 W on 70 V 120 W', '16 || 16 on valve 50 W at 4/8/16', '20 x 6 W on 100 V 250 W']

const route = useRoute()
const router = useRouter()
const text = ref(typeof route.query.line === 'string' ? route.query.line : '')
const { shown, error, next } = useQuick(text)
const field = useTemplateRef<InstanceType<typeof QuickInput>>('field')
const building = ref(false)
const keysOpen = ref(false)
const findOpen = ref(false)
const keeping = ref(false)
const problem = shallowRef('')

useHead({ title: 'Quick match · Plain Match' })
onMounted(() => field.value?.focus())
// The address carries the line: it can be sent on, and a reload keeps it.
watch(text, line => void router.replace({ query: line === '' ? {} : { line } }))

const line = computed(() => shown.value?.evaluation ?? null)
const said = computed(() => line.value?.findings.map(f => ({ finding: f, ...findingWords(f) })) ?? [])
const lead = computed(() => said.value[0])
const rest = computed(() => said.value.slice(1))
const others = computed(() => shown.value ? otherWays(shown.value) : [])
/** The line leaves open how they are wired: every way is answered. */
const open = computed(() => {
  if (!(error.value instanceof UndecidedError)) return []
  const { count, item, line: { rating, over } } = error.value
  return waysOf(count, item, rating, over)
})
function take(way: Way): void {
  if (error.value instanceof UndecidedError) text.value = withWay(error.value, way)
  else if (shown.value) text.value = wiredOtherwise(shown.value, way)
  field.value?.focus()
}
const stale = computed(() => error.value !== null && line.value !== null)

async function keep(): Promise<void> {
  if (error.value || keeping.value) return
  keeping.value = true
  problem.value = ''
  try {
    const { id } = await useJobsStore().create({ from: 'line', line: text.value })
    await navigateTo(`/jobs/${id}`)
  }
  catch (failure) {
    if (!(failure instanceof ApiError)) throw failure
    problem.value = failure.message
  }
  finally {
    keeping.value = false
  }
}

const bindings = quickKeys({
  keep: () => void keep(), toLine: () => field.value?.focus(), find: () => { findOpen.value = true }, toJobs: () => void navigateTo('/'), build: () => { building.value = !building.value },
  toggleNight: () => useTheme().toggle(), showKeys: () => { keysOpen.value = true },
})
useKeys(() => bindings)
</script>

<template>
  <div>
    <AppHeader title="What do I get if…">
      <template #first><NuxtLink class="act" to="/">jobs <KeyCap of="j" /></NuxtLink></template>
      <CommonActions has-find @find="findOpen = true" @keys="keysOpen = true" />
    </AppHeader>
    <main class="quick">
      <QuickInput ref="field" v-model="text" large hint="how the speakers are wired, on which amplifier" :error="error" @enter="keep" />
      <p class="hint soft">
        <b>+</b> in series <b>||</b> in parallel <b>12 x 5 W on 70 V</b> a transformer line <b>on</b> an amplifier ·
        <button
          class="act inline" type="button" :aria-expanded="building"
          @click="building = !building">{{ building ? 'put the taps away' : 'build it by tapping' }}</button>
      </p>
      <QuickBuilder v-if="building" :next="next" @insert="field?.insert($event)" @back="field?.back()" @clear="text = ''" />

      <QuickError
        v-if="error && text.trim() !== ''" class="error" :error="error" :calm="open.length > 0" @insert="field?.insert($event, error.position)"
        @mend="text = $event" />
      <QuickWays v-if="open.length > 0" class="open" :ways="open" caption="Each way that they can be wired, on this output:" @take="take" />

      <section v-if="!line && open.length === 0" class="empty">
        <p>Type how the speakers are wired and, after <b>on</b>, the amplifier. The answer comes while you type.</p>
        <ul class="examples">
          <li v-for="example in EXAMPLES" :key="example">
            <button class="act figure" type="button" @click="text = example">{{ example }}</button>
          </li>
        </ul>
      </section>

      <section v-else-if="line && open.length === 0" class="answer" :class="{ stale }" :aria-label="stale ? 'The last line that could be read' : 'The answer'">
        <div class="left">
          <LadderDrawing :line="line" />
          <QuickNumbers :line="line" />
        </div>
        <div class="right" aria-live="polite">
          <GradeTag :grade="line.grade" large />
          <div v-if="lead" class="verdict">
            <p class="what">{{ lead.what }}</p>
            <p class="soft">{{ [lead.why, lead.todo].filter(Boolean).join(' ') }}</p>
          </div>
          <details v-if="rest.length > 0" class="more" :open="rest.some(r => isBad(r.finding))">
            <summary class="soft">{{ rest.length }} more to know</summary>
            <ul>
              <li v-for="(item, k) in rest" :key="k">
                <GradeTag :grade="item.finding.grade" /> <span>{{ item.what }}</span> <span class="soft">{{ item.why }} {{ item.todo }}</span>
              </li>
            </ul>
          </details>
          <QuickWays v-if="others.length > 0 && !stale" :ways="others" caption="The same speakers, wired otherwise:" @take="take" />
          <SchoolScale :line="line" />
          <Button class="keep" variant="outlined" :disabled="error !== null || keeping" @click="keep">
            <span class="words"><b>{{ keeping ? 'Keeping…' : 'Keep as a job' }}</b><span class="small">with
              {{ line.speakers.length === 1 ? 'this speaker' : `these ${line.speakers.length} speakers` }} and this amplifier, to wire and to
              check</span></span>
            <KeyCap of="Enter" />
          </Button>
          <p v-if="problem" class="error-words" role="alert">{{ problem }}</p>
        </div>
      </section>
    </main>
    <FindBox v-model:open="findOpen" :actions="bindings" />
    <KeysDialog v-model:open="keysOpen" :words="LINE_WORDS" :bindings="bindings" />
  </div>
</template>

<style scoped>
.quick { max-width: 1200px; margin: 0 auto; padding: 26px 20px 40px; }
.hint { padding: 8px 0 0; font-size: 15.5px; }
.hint b { color: var(--ink); margin-left: 2px; }
.inline { text-decoration: underline; color: var(--ink); padding: 0; }
.error { margin-top: 14px; }
.open { margin-top: 22px; }
.empty { padding: 46px 0; display: grid; gap: 14px; }
.examples { list-style: none; display: grid; gap: 6px; justify-items: start; }
.examples .act { font-size: 17px; white-space: normal; color: var(--ink); }
.answer { display: grid; grid-template-columns: minmax(0, 600px) minmax(400px, 1fr); gap: 24px 44px; padding-top: 30px; }
.stale { opacity: .45; }
.left, .right { display: grid; gap: 20px; align-content: start; }
.right { justify-items: start; }
.right > figure, .keep, .more { width: 100%; }
.verdict { display: grid; gap: 4px; }
.what { font-size: 17px; }
.more ul { list-style: none; display: grid; gap: 8px; padding-top: 8px; font-size: 15px; }
.more summary { cursor: pointer; }
.keep { justify-content: space-between; align-items: flex-start; padding: 8px 11px; background: var(--paper-raised); border-width: 1.5px; }
.words { display: grid; text-align: left; font-weight: 400; }
.words .small { color: var(--ink-soft); }
@media (max-width: 1000px) {
  .answer { grid-template-columns: minmax(0, 1fr); padding-top: 20px; justify-items: start; }
  .quick { padding: 14px 14px 40px; }
  /* The verdict first, then the drawing and its numbers. */
  .left, .right { display: contents; }
  .left > * { order: 2; width: 100%; }
  .right > * { order: 3; }
  .right > .tag, .right > .verdict { order: 1; }
}
</style>
