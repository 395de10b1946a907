<script setup lang="ts">
import { ref } from 'vue'
import { navigateTo, useRoute } from '#imports'
import { readJob } from '#core/job/readJob'
import type { OpenedJob } from '#core/job/protocol'
import { findOutput } from '#core/job/tree'
import { checkExercise } from '#core/practice/files'
import { InputError } from '#core/quantity/inputError'
import { api, ApiError } from '~/api/client'
import { windowId } from '~/api/ids'
import { keptJob } from '~/storage/keptJobs'
import AppHeader from '~/components/shell/AppHeader.vue'
import { newSeed } from './newSeed'
import { ownExercise } from './ownExercise'
import { usePracticeStore } from './practiceStore'
import WorldNote from './WorldNote.vue'

/** A fault is hidden in a copy of one's own line. The job is read, and nothing is written to it. */
const route = useRoute()
const practice = usePracticeStore()
const problem = ref('')
const text = (value: unknown) => typeof value === 'string' ? value : ''
const jobId = text(route.query.job)

async function opened(): Promise<OpenedJob> {
  try {
    return await api<OpenedJob>(`/jobs/${encodeURIComponent(jobId)}?by=${windowId()}`)
  }
  catch (error) {
    const kept = error instanceof ApiError && error.isAway ? await keptJob(jobId) : null
    if (kept) return kept
    throw error
  }
}
async function begin(): Promise<void> {
  problem.value = ''
  try {
    const job = readJob((await opened()).job)
    const found = findOutput(job, text(route.query.line))
    if (!found) throw new InputError('This line is not in the job any more.', 0, [])
    const exercise = ownExercise(job.name, found.output, newSeed())
    checkExercise(exercise)
    await navigateTo(`/practice/${practice.addExercise(exercise)}`, { replace: true })
  }
  catch (error) {
    if (!(error instanceof InputError || error instanceof ApiError)) throw error
    problem.value = error.message
  }
}
void begin()
</script>

<template>
  <div>
    <AppHeader title="Practice" />
    <main class="own">
      <WorldNote />
      <p v-if="problem" class="error-words" role="alert">{{ problem }} <button class="act" type="button" @click="begin">try again</button>
        <NuxtLink class="act" :to="`/jobs/${jobId}`">back to the job</NuxtLink></p>
      <p v-else class="soft" role="status">A fault is being hidden in a copy of your line…</p>
    </main>
  </div>
</template>

<style scoped>
.own { max-width: 760px; margin: 0 auto; padding: 16px 20px; display: grid; gap: 14px; }
</style>
