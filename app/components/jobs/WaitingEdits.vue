<script setup lang="ts">
import SetAside from '~/components/shell/SetAside.vue'
import { codeLater } from '~/composables/fetchedLater'
import { useOutboxStore } from '~/stores/outbox'

/** What waits on this device, what was not taken, and what cannot be read. Nothing of it goes without the person's word. */
const outbox = useOutboxStore()

const queue = codeLater(() => import('~/storage/queue'))
async function out(): Promise<void> {
  const text = await (await queue()).queueText()
  const url = URL.createObjectURL(new Blob([text], { type: 'application/json' }))
  Object.assign(document.createElement('a'), { href: url, download: 'waiting.plainmatch-queue.json' }).click()
  setTimeout(() => URL.revokeObjectURL(url), 10_000)
}
const named = (jobName: string) => jobName === '' ? 'a job' : `“${jobName}”`
const edits = (count: number) => count === 1 ? '1 edit' : `${count} edits`
</script>

<template>
  <section v-if="outbox.waiting.length + outbox.notTaken.length + outbox.unreadable.length > 0" class="waiting" aria-label="Kept on this device">
    <p v-for="item in outbox.waiting" :key="item.jobId" role="status">
      <b>{{ edits(item.count) }} of {{ named(item.jobName) }} {{ item.count === 1 ? 'waits' : 'wait' }} on this device.</b>
      <span class="soft">{{ outbox.isAway ? 'The server is away; they are sent when it is back.' : 'Being sent…' }}</span>
      <button v-if="outbox.isAway" class="act" type="button" @click="outbox.send()">try now</button>
    </p>
    <p v-if="outbox.waiting.length > 0 && outbox.isAway">
      <button class="act" type="button" @click="out">all that waits, as a file for another device</button></p>
    <p v-if="outbox.isUnkept && outbox.waiting.length > 0" class="error-words" role="alert">This device cannot keep them (its storage is full or
      closed): they live only until this page is left.</p>
    <p v-for="item in outbox.notTaken" :key="item.editId" role="alert">
      <b>Not done in {{ named(item.jobName) }}: {{ item.what }}.</b> <span class="soft">{{ item.message }}</span>
      <NuxtLink class="act" :to="`/jobs/${item.jobId}`">open the job to decide</NuxtLink>
      <button class="act" type="button" @click="outbox.dismiss(item)">leave it so</button>
    </p>
    <SetAside v-for="item in outbox.unreadable" :key="item.key" :text="item.text" file="kept-edit.json" @throw-away="outbox.throwAway(item)" />
  </section>
</template>

<style scoped>
.waiting { border: 1.5px solid var(--ink); background: var(--paper-raised); padding: 9px 14px; margin-bottom: 18px; display: grid; gap: 6px; }
.waiting :deep(p) { display: flex; flex-wrap: wrap; gap: 2px 14px; align-items: baseline; }
.waiting :deep(.act) { text-decoration: underline; color: var(--ink); }
.waiting :deep(.soft) { overflow-wrap: anywhere; min-width: 0; }
</style>
