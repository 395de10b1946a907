<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { navigateTo, useHead, useRoute, useRouter } from '#imports'
import Button from '~/components/form/laterButton'
import type { JobSummary } from '#core/line/jobSummary'
import { writeQuantity } from '#core/quantity/write'
import { ApiError } from '~/api/client'
import GradeTag from '~/components/GradeTag.vue'
import KeyCap from '~/components/KeyCap.vue'
import { listKeys } from '~/components/jobs/keys'
import JobRow from '~/components/jobs/JobRow.vue'
import ListChoice from '~/components/jobs/ListChoice.vue'
import WaitingEdits from '~/components/jobs/WaitingEdits.vue'
import PageTurner from '~/components/jobs/PageTurner.vue'
import { LINE_WORDS, SAID_EXAMPLES } from '~/components/quick/examples'
import QuickError from '~/components/quick/QuickError.vue'
import QuickInput from '~/components/quick/QuickInput.vue'
import AppHeader from '~/components/shell/AppHeader.vue'
import CommonActions from '~/components/shell/CommonActions.vue'
import { useAttempt } from '~/composables/useAttempt'
import { useKeys } from '~/composables/useKeys'
import { useQuick } from '~/composables/useQuick'
import { useTheme } from '~/composables/useTheme'
import { useUnits } from '~/composables/useUnits'
import { useOutboxStore } from '~/stores/outbox'
import { useJobsStore, USUAL_QUERY } from '~/stores/jobs'
import { fieldOf } from '~/composables/elements'
import { DevicesDialog, KeptHere, WaitingGear } from '~/components/jobs/parts'
import FindBox from '~/components/shell/FindBox.vue'
import { KeysDialog } from '~/components/shell/opened'
import { InputError } from '#core/quantity/inputError'
import { isQueue } from '#core/window/queueFile'
import { MOST_ARCHIVE_BYTES } from '#core/format/archiveSize'
import { codeLater } from '~/composables/fetchedLater'

const store = useJobsStore()
const route = useRoute()
const router = useRouter()
const line = ref(typeof route.query.line === 'string' ? route.query.line : '')
const { shown, error } = useQuick(line)
const field = useTemplateRef<InstanceType<typeof QuickInput>>('field')
const choice = useTemplateRef<InstanceType<typeof ListChoice>>('choice')
const file = useTemplateRef<HTMLInputElement>('file')
const list = useTemplateRef<HTMLElement>('list')
const keysOpen = ref(false)
const findOpen = ref(false)
const phonesOpen = ref(false)
const { problem, attempt } = useAttempt()
/** What was just done to a job, with what takes it back in one press. */
const done = shallowRef<{ says: string, undo: () => Promise<unknown> } | null>(null)
/** A file that came in with remarks: they are read before its job is opened. */
const told = shallowRef<{ id: string, remarks: string[] } | null>(null)

useHead({ title: 'Jobs · Plain Match' })
let stop = () => {}
onMounted(() => {
  stop = store.watchLive()
  void useOutboxStore().send()
})
onBeforeUnmount(() => stop())
// The address carries the line: a reload keeps what was typed.
watch(line, text => void router.replace({ query: text === '' ? {} : { line: text } }))

const jobs = computed(() => store.list.jobs)
const isPlain = computed(() => store.query.search === '' && store.query.state === null)

const begin = () => attempt(async () => navigateTo(`/jobs/${(await store.create({ from: 'nothing', name: 'New job', units: useUnits().units.value })).id}?rename=1`))
const copy = (job: JobSummary) => attempt(async () => {
  await store.create({ from: 'copy', of: job.id })
  await store.refresh()
})
function undoable(says: string, act: () => Promise<unknown>, undo: () => Promise<unknown>): Promise<void> {
  return attempt(async () => {
    await act()
    done.value = { says, undo }
  })
}
const archive = (job: JobSummary) => undoable(`“${job.name}” is archived.`, () => store.archive(job.id, true), () => store.archive(job.id, false))
const remove = (job: JobSummary) => undoable(`“${job.name}” is deleted.`, () => store.remove(job.id), () => store.recover(job.id))
const takeBack = () => attempt(async () => {
  const last = done.value
  done.value = null
  await last?.undo()
})

/** What waited on another device: it waits here now, and is sent from here. */
const queue = codeLater(() => import('~/storage/queue'))
const cameIn = ref('')
async function takenAsQueue(file: File): Promise<boolean> {
  if (!isQueue(await file.slice(0, 200).text())) return false
  const { edits, photos } = await (await queue()).takeQueue(await file.text())
  cameIn.value = `${edits} ${edits === 1 ? 'edit' : 'edits'} and ${photos} ${photos === 1 ? 'photo' : 'photos'} of another device wait here now. Photos go out when their job is opened.`
  void useOutboxStore().send()
  return true
}
/** An archive is taken apart by code that is fetched when one comes. */
const archiveIn = codeLater(() => import('~/photos/archiveIn'))
async function takeFile(event: Event): Promise<void> {
  const input = fieldOf(event)
  if (!input) return
  const chosen = input.files?.[0]
  if (!chosen) return
  await attempt(async () => {
    const isArchive = /\.zip$/i.test(chosen.name)
    if (chosen.size > (isArchive ? MOST_ARCHIVE_BYTES : 20_000_000)) throw new ApiError(`${chosen.name}: larger than ${isArchive ? MOST_ARCHIVE_BYTES / 1e6 : 20} MB, too large for a job.`, 413)
    try {
      if (!isArchive && await takenAsQueue(chosen)) return
      const text = isArchive ? await (await archiveIn()).takeArchive(new Uint8Array(await chosen.arrayBuffer())) : await chosen.text()
      const { id, remarks } = await store.create({ from: 'file', text })
      if (remarks.length === 0) await navigateTo(`/jobs/${id}`)
      else told.value = { id, remarks }
    }
    catch (failure) {
      if (failure instanceof ApiError) throw new ApiError(`${chosen.name}: ${failure.message}`, failure.status)
      if (failure instanceof InputError) throw new ApiError(`${chosen.name}: ${failure.message}`, 422)
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
function turn(by: number): void {
  const page = store.query.page + by
  if (page >= 0 && page < store.pages) void store.ask({ page })
}
function showAll(): void {
  choice.value?.empty()
  void store.ask({ ...USUAL_QUERY, place: store.query.place })
}

const bindings = listKeys({
  toLine: () => field.value?.focus(), toQuick: () => void navigateTo('/quick'), toGear: () => void navigateTo('/gear'), toBench: () => void navigateTo('/bench'), toPractice: () => void navigateTo('/practice'), toSearch: () => choice.value?.focus(), find: () => { findOpen.value = true }, phones: () => { phonesOpen.value = true }, step, turn,
  begin: () => void begin(), fileIn: () => file.value?.click(), takeBack: () => void takeBack(),
  toggleNight: () => useTheme().toggle(), showKeys: () => { keysOpen.value = true },
})
useKeys(() => bindings)
</script>

<template>
  <div>
    <AppHeader title="Jobs">
      <template #first><button class="act" type="button" @click="begin">new job <KeyCap of="c" /></button></template>
      <button class="act" type="button" @click="navigateTo('/bench')">bench <KeyCap of="b" /></button>
      <button class="act" type="button" @click="navigateTo('/practice')">practice <KeyCap of="t" /></button>
      <button class="act" type="button" @click="navigateTo('/gear')">gear <KeyCap of="g" /></button>
      <button class="act" type="button" @click="file?.click()">file in <KeyCap of="i" /></button>
      <button class="act" type="button" @click="phonesOpen = true">phones <KeyCap of="p" /></button>
      <CommonActions has-find @find="findOpen = true" @keys="keysOpen = true" />
    </AppHeader>
    <main class="jobs">
      <section class="quickline" aria-label="Quick match">
        <QuickInput ref="field" v-model="line" hint="What do I get if…" :error="error" @enter="navigateTo({ path: '/quick', query: line ? { line } : {} })" />
        <p v-if="line.trim() === ''" class="soft small hint">Type it as you would say it: <button
          v-for="example in SAID_EXAMPLES" :key="example" class="act said" type="button" @click="line = example">{{ example }}</button> The answer comes while
          you type; Enter, or <KeyCap of="q" /> at any time, opens the whole of it.</p>
        <QuickError v-else-if="error" :error="error" class="under" @insert="field?.insert($event, error.position)" @mend="line = $event" />
        <p v-else-if="shown" class="under">
          <GradeTag :grade="shown.evaluation.grade" />
          {{ shown.evaluation.loadOhm === null ? '' : writeQuantity(shown.evaluation.loadOhm, 'Ω') }}<template
            v-if="shown.evaluation.tapsW !== null">, {{ writeQuantity(shown.evaluation.tapsW, 'W') }} of taps</template>
          <button class="act" type="button" @click="navigateTo({ path: '/quick', query: { line } })">the whole answer <KeyCap of="Enter" /></button>
        </p>
      </section>
      <input
        ref="file" class="hidden-label" type="file" accept=".json,.zip,application/json,application/zip" tabindex="-1" aria-label="Job file to read in"
        @change="takeFile">
      <p v-if="problem" class="error-words problem" role="alert">{{ problem }} <button class="act" type="button" @click="problem = ''">all right</button></p>
      <p v-if="cameIn" class="problem" role="status">{{ cameIn }} <button class="act" type="button" @click="cameIn = ''">all right</button></p>
      <p v-if="done" class="problem" role="status">{{ done.says }} <button class="act" type="button" @click="takeBack">bring it back <KeyCap of="u"
        /></button></p>
      <section v-if="told" class="told" role="status" aria-label="The file came in, with remarks">
        <p><b>The file came in.</b> Not all of it counts:</p>
        <ul><li v-for="remark in told.remarks" :key="remark">{{ remark }}</li></ul>
        <Button size="small" label="Open the job" @click="navigateTo(`/jobs/${told.id}`)" />
      </section>
      <WaitingEdits />
      <WaitingGear class="waiting-gear" />

      <KeptHere v-if="store.status === 'failed'" is-away />
      <p v-if="store.status === 'loading'" class="soft state" role="status">Reading the jobs…</p>
      <section v-else-if="store.status === 'failed'" class="state" role="alert">
        <p>{{ store.problem }} Tried again by itself.</p>
        <Button variant="outlined" label="Try now" @click="store.refresh()" />
      </section>
      <template v-else>
        <ListChoice ref="choice" />
        <p v-if="store.problem" class="error-words stale" role="alert">{{ store.problem }} The list is as it last was.</p>
        <section v-if="jobs.length === 0" class="state">
          <template v-if="!isPlain"><p>No job is like that here.</p><Button variant="outlined" label="Show all" @click="showAll" /></template>
          <template v-else-if="store.query.place === 'active'"><p>No job in hand. Type a line above and keep it, or begin with an empty one.</p><Button
            variant="outlined" label="New job" @click="begin" /></template>
          <p v-else>Nothing here.</p>
        </section>
        <ul v-else ref="list" class="list">
          <JobRow
            v-for="job in jobs" :key="job.id" :job="job" @copy="copy(job)" @archive="archive(job)" @bring-back="attempt(() => store.archive(job.id,
              false))" @remove="remove(job)"
            @recover="attempt(() => store.recover(job.id))" @rename="attempt(() => store.rename(job, $event))"
          />
        </ul>
        <PageTurner />
        <KeptHere :is-away="store.problem !== ''" />
      </template>
    </main>
    <DevicesDialog v-if="phonesOpen" v-model:open="phonesOpen" />
    <FindBox v-model:open="findOpen" :actions="bindings" />
    <KeysDialog v-model:open="keysOpen" :words="LINE_WORDS" :bindings="bindings" />
  </div>
</template>

<style scoped>
.jobs { max-width: 1120px; margin: 0 auto; padding: 26px 20px 60px; }
.quickline { margin-bottom: 26px; }
.hint { padding-top: 7px; }
.said { color: var(--ink); text-decoration: underline; text-underline-offset: 3px; white-space: normal; margin-right: 10px; }
.under { padding-top: 7px; display: flex; flex-wrap: wrap; gap: 4px 10px; align-items: center; }
.state { padding: 40px 0; display: grid; gap: 14px; justify-items: start; }
.problem { padding: 0 0 14px; }
.list { list-style: none; border-top: 1px solid var(--rule); }
.told { border: 1.5px solid var(--ink); background: var(--paper-raised); padding: 10px 14px; margin-bottom: 18px; display: grid; gap: 6px;
  justify-items: start; }
.told ul { padding-left: 20px; overflow-wrap: anywhere; }
.stale { padding-bottom: 8px; }
@media (max-width: 760px) { .jobs { padding: 14px 14px 60px; } }
</style>
