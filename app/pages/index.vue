<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, onMounted, ref, shallowRef, useTemplateRef } from 'vue'
import { navigateTo, useHead } from '#imports'
import Button from 'primevue/button'
import type { JobSummary } from '#core/match/jobState'
import { worstGrade } from '#core/match/finding'
import { writeQuantity } from '#core/quantity/write'
import { ApiError } from '~/api/client'
import GradeTag from '~/components/GradeTag.vue'
import KeyCap from '~/components/KeyCap.vue'
import JobRow from '~/components/jobs/JobRow.vue'
import QuickError from '~/components/quick/QuickError.vue'
import QuickInput from '~/components/quick/QuickInput.vue'
import AppHeader from '~/components/shell/AppHeader.vue'
import CommonActions from '~/components/shell/CommonActions.vue'
import KeysDialog from '~/components/shell/KeysDialog.vue'
import { useKeys, type KeyBinding } from '~/composables/useKeys'
import { useQuick } from '~/composables/useQuick'
import { useTheme } from '~/composables/useTheme'
import { useJobsStore } from '~/stores/jobs'

const store = useJobsStore()
const line = ref('')
const { shown, error } = useQuick(line)
const field = useTemplateRef<InstanceType<typeof QuickInput>>('field')
const file = useTemplateRef<HTMLInputElement>('file')
const list = useTemplateRef<HTMLElement>('list')
const keysOpen = ref(false)
const archivedOpen = ref(false)
const problem = shallowRef('')
/** What was just put away, to take it back in one press. */
const putAway = shallowRef<JobSummary | null>(null)

useHead({ title: 'Jobs · Plain Match' })
let stop = () => {}
onMounted(() => { stop = store.watchLive() })
onBeforeUnmount(() => stop())

const active = computed(() => store.jobs.filter(j => j.archivedAt === null))
const archived = computed(() => store.jobs.filter(j => j.archivedAt !== null))
const gradeOf = (job: JobSummary) => worstGrade(job.lines.map(l => l.grade))

/** Does something that can fail; what went wrong is said at the top. */
async function attempt(run: () => Promise<unknown>): Promise<void> {
  problem.value = ''
  try {
    await run()
  }
  catch (failure) {
    if (!(failure instanceof ApiError)) throw failure
    problem.value = failure.where ? `${failure.message} (at ${failure.where})` : failure.message
  }
}

const begin = () => attempt(async () => navigateTo(`/jobs/${await store.create({ from: 'nothing', name: 'New job' })}?rename=1`))
const copy = (job: JobSummary) => attempt(async () => {
  await store.create({ from: 'copy', of: job.id })
  await store.refresh()
})
const archive = (job: JobSummary, away: boolean) => attempt(async () => {
  await store.archive(job.id, away)
  putAway.value = away ? job : null
})

async function takeFile(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const chosen = input.files?.[0]
  if (!chosen) return
  await attempt(async () => {
    if (chosen.size > 20_000_000) throw new ApiError(`${chosen.name}: larger than 20 MB, too large for a job.`, 413)
    const text = await chosen.text()
    try {
      await navigateTo(`/jobs/${await store.create({ from: 'file', text })}`)
    }
    catch (failure) {
      if (failure instanceof ApiError) throw new ApiError(`${chosen.name}: ${failure.message}`, failure.status)
      throw failure
    }
  })
  input.value = ''
}

/** Moves the focus along the list. */
function step(by: number): void {
  const links = [...list.value?.querySelectorAll<HTMLElement>('a.open') ?? []]
  const at = links.findIndex(l => l.closest('li')?.contains(document.activeElement))
  void nextTick(() => links[Math.max(0, Math.min(links.length - 1, at + by))]?.focus())
}

const bindings = computed((): KeyBinding[] => [
  { keys: ['/'], says: 'to the quick line', run: () => field.value?.focus() },
  { keys: ['q'], says: 'quick match', run: () => void navigateTo('/quick') },
  { keys: ['ArrowDown'], says: 'next job', run: () => step(1) },
  { keys: ['ArrowUp'], says: 'job before', run: () => step(-1) },
  { keys: ['c'], says: 'new job', run: () => void begin() },
  { keys: ['i'], says: 'file in', run: () => file.value?.click() },
  { keys: ['u'], says: 'bring back what was just archived', run: () => { if (putAway.value) void archive(putAway.value, false) } },
  { keys: ['n'], says: 'night or day', run: () => useTheme().toggle() },
  { keys: ['?'], says: 'these keys', run: () => { keysOpen.value = true } },
])
useKeys(() => bindings.value)
</script>

<template>
  <div>
    <AppHeader title="Jobs">
      <button class="act" type="button" @click="begin">new job <KeyCap of="c" /></button>
      <button class="act" type="button" @click="file?.click()">file in <KeyCap of="i" /></button>
      <CommonActions @keys="keysOpen = true" />
    </AppHeader>
    <main class="jobs">
      <section class="quickline" aria-label="Quick match">
        <QuickInput ref="field" v-model="line" hint="What do I get if…" :error="error" @enter="navigateTo({ path: '/quick', query: line ? { line } : {} })" />
        <p v-if="line.trim() === ''" class="soft small hint">Type <span class="figure">(8 + 8) || (8 + 8)</span> or <span class="figure">12 x 5 W + 2 x 20 W on 70 V</span>; the answer comes while you type, Enter opens the whole of it.</p>
        <QuickError v-else-if="error" :error="error" class="under" @insert="field?.insert($event)" />
        <p v-else-if="shown" class="under">
          <GradeTag :grade="shown.evaluation.grade" />
          {{ shown.evaluation.loadOhm === null ? '' : writeQuantity(shown.evaluation.loadOhm, 'Ω') }}<template v-if="shown.evaluation.tapsW !== null">, {{ writeQuantity(shown.evaluation.tapsW, 'W') }} of taps</template>
          <button class="act" type="button" @click="navigateTo({ path: '/quick', query: { line } })">the whole answer <KeyCap of="Enter" /></button>
        </p>
      </section>
      <input ref="file" class="hidden-label" type="file" accept=".json,application/json" tabindex="-1" aria-label="Job file to read in" @change="takeFile">
      <p v-if="problem" class="error-words problem" role="alert">{{ problem }} <button class="act" type="button" @click="problem = ''">all right</button></p>
      <p v-if="putAway" class="problem" role="status">“{{ putAway.name }}” is archived. <button class="act" type="button" @click="archive(putAway, false)">bring it back <KeyCap of="u" /></button></p>

      <p v-if="store.status === 'loading'" class="soft state" role="status">Reading the jobs…</p>
      <section v-else-if="store.status === 'failed'" class="state" role="alert">
        <p>{{ store.problem }}</p>
        <Button variant="outlined" label="Try again" @click="store.refresh()" />
      </section>
      <section v-else-if="active.length === 0" class="state">
        <p>No job in hand. Type a line above and keep it, or begin with an empty one.</p>
        <Button variant="outlined" label="New job" @click="begin" />
      </section>
      <ul v-else ref="list" class="list">
        <JobRow
          v-for="job in active" :key="job.id" :job="job" :grade="gradeOf(job)"
          @copy="copy(job)" @archive="archive(job, true)" @rename="attempt(() => store.rename(job, $event))"
        />
      </ul>
      <section v-if="archived.length > 0" class="archived">
        <button class="act" type="button" :aria-expanded="archivedOpen" @click="archivedOpen = !archivedOpen">
          {{ archivedOpen ? 'Hide' : 'Show' }} {{ archived.length }} archived
        </button>
        <ul v-if="archivedOpen" class="list">
          <JobRow v-for="job in archived" :key="job.id" :job="job" :grade="gradeOf(job)" @copy="copy(job)" @archive="archive(job, false)" @rename="attempt(() => store.rename(job, $event))" />
        </ul>
      </section>
    </main>
    <KeysDialog v-model:open="keysOpen" :bindings="bindings" />
  </div>
</template>

<style scoped>
.jobs { max-width: 1120px; margin: 0 auto; padding: 26px 20px 60px; }
.quickline { margin-bottom: 26px; }
.hint { padding-top: 7px; }
.under { padding-top: 7px; display: flex; flex-wrap: wrap; gap: 4px 10px; align-items: center; }
.state { padding: 40px 0; display: grid; gap: 14px; justify-items: start; }
.problem { padding: 0 0 14px; }
.list { list-style: none; border-top: 1px solid var(--rule); }
.archived { padding-top: 22px; display: grid; gap: 8px; }
@media (max-width: 760px) { .jobs { padding: 14px 14px 60px; } }
</style>
