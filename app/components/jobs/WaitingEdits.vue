<script setup lang="ts">
import { ref } from 'vue'
import { useOutboxStore, type Unreadable } from '~/stores/outbox'

/** What waits on this device, what was not taken, and what cannot be read. Nothing of it goes without the person's word. */
const outbox = useOutboxStore()
const doubting = ref('')

const named = (jobName: string) => jobName === '' ? 'a job' : `“${jobName}”`
const edits = (count: number) => count === 1 ? '1 edit' : `${count} edits`

/** As a file, so that it can be kept and shown to somebody who knows. */
function fileOf({ text }: Unreadable): string {
  return `data:application/json;charset=utf-8,${encodeURIComponent(text)}`
}
function throwAway(item: Unreadable): void {
  if (doubting.value !== item.key) doubting.value = item.key
  else void outbox.throwAway(item)
}
</script>

<template>
  <section v-if="outbox.waiting.length + outbox.notTaken.length + outbox.unreadable.length > 0" class="waiting" aria-label="Kept on this device">
    <p v-for="item in outbox.waiting" :key="item.jobId" role="status">
      <b>{{ edits(item.count) }} of {{ named(item.jobName) }} {{ item.count === 1 ? 'waits' : 'wait' }} on this device.</b>
      <span class="soft">{{ outbox.isAway ? 'The server is away; they are sent when it is back.' : 'Being sent…' }}</span>
      <button v-if="outbox.isAway" class="act" type="button" @click="outbox.send()">try now</button>
    </p>
    <p v-if="outbox.isUnkept && outbox.waiting.length > 0" class="error-words" role="alert">This device cannot keep them (its storage is full or
      closed): they live only until this page is left.</p>
    <p v-for="item in outbox.notTaken" :key="item.editId" role="alert">
      <b>Not done in {{ named(item.jobName) }}: {{ item.what }}.</b> <span class="soft">{{ item.message }}</span>
      <NuxtLink class="act" :to="`/jobs/${item.jobId}`">open the job to decide</NuxtLink>
      <button class="act" type="button" @click="outbox.dismiss(item)">leave it so</button>
    </p>
    <p v-for="item in outbox.unreadable" :key="item.key" role="alert">
      <b>Something kept on this device cannot be read.</b> <span class="soft">It is set aside, not sent: {{ item.text.slice(0, 80) }}</span>
      <a class="act" :href="fileOf(item)" download="kept-edit.json">save it as a file</a>
      <button class="act" type="button" @click="throwAway(item)">{{ doubting === item.key ? 'really throw it away' : 'throw it away' }}</button>
    </p>
  </section>
</template>

<style scoped>
.waiting { border: 1.5px solid var(--ink); background: var(--paper-raised); padding: 9px 14px; margin-bottom: 18px; display: grid; gap: 6px; }
.waiting p { display: flex; flex-wrap: wrap; gap: 2px 14px; align-items: baseline; }
.waiting .act { text-decoration: underline; color: var(--ink); }
.waiting .soft { overflow-wrap: anywhere; min-width: 0; }
</style>
