<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import type { KeptJob } from '#core/window/keptJob'
import { whyNotOffline } from '~/composables/offline'
import { keptJobs, pinJob } from '~/storage/keptJobs'

/** Jobs that this device has for when there is no way to the server: opened from here while it is away, and kept for good where a person wants it. */
const { isAway } = defineProps<{ isAway: boolean }>()
const list = shallowRef<KeptJob[]>([])
const promise = ref<boolean | null>(null)
const opened = ref(false)

const look = async () => { list.value = [...await keptJobs()].sort((a, b) => Number(b.isPinned) - Number(a.isPinned) || b.keptAt - a.keptAt) }
onMounted(() => void look())
watch(() => isAway, () => void look())
async function pin({ jobId, isPinned }: KeptJob): Promise<void> {
  promise.value = await pinJob(jobId, !isPinned)
  await look()
}
const isOpen = computed(() => isAway || opened.value)
const when = (at: number) => new Date(at).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })
const count = computed(() => `${list.value.length} ${list.value.length === 1 ? 'job' : 'jobs'} on this device`)
</script>

<template>
  <section v-if="list.length > 0 || isAway" class="kept-here" aria-label="On this device">
    <p v-if="isAway"><b>{{ list.length === 0 ? 'No job is on this device.' : 'These jobs are on this device.' }}</b>
      <span class="soft then-words">{{ list.length === 0
        ? 'One that was opened here is.' : 'Work on: what you do is kept here and sent when the server is back.' }}
        Not here without it: other jobs, the library, photos that were not looked at, files out.</span></p>
    <p v-else><button class="act" type="button" :aria-expanded="opened" @click="opened = !opened">{{ count }}, for when there is no reception</button></p>
    <ul v-if="isOpen && list.length > 0">
      <li v-for="job in list" :key="job.jobId"><NuxtLink :to="`/jobs/${job.jobId}`" class="open">{{ job.name }}</NuxtLink>
        <span class="soft small">as of {{ when(job.keptAt) }}</span>
        <button class="tap" type="button" :class="{ on: job.isPinned }" :aria-pressed="job.isPinned" @click="pin(job)">{{
          job.isPinned ? 'stays here' : 'keep it here' }}</button></li>
    </ul>
    <p v-if="promise === false" class="soft small" role="status">The browser does not promise it: when this device runs short of room it
      may clear it away.
      What waits to be sent is at the same risk. Install the page, or look in its settings for storage.</p>
    <p v-if="whyNotOffline" class="soft small">{{ whyNotOffline }}</p>
    <p v-if="promise === true" class="soft small" role="status">The browser promises to keep it.</p>
  </section>
</template>

<style scoped>
.kept-here { display: grid; gap: 6px; padding: 10px 0 14px; }
ul { list-style: none; border-top: 1px solid var(--rule); }
li { display: flex; flex-wrap: wrap; gap: 4px 16px; align-items: center; padding: 6px 0; border-bottom: 1px solid var(--rule); }
.open { font-weight: 700; font-size: 17px; overflow-wrap: anywhere; min-height: 30px; display: inline-flex; align-items: center; }
.tap { margin-left: auto; }
.act { padding-left: 0; }
.then-words { margin-left: 8px; }
@media (pointer: coarse), (max-width: 760px) { .open, .tap { min-height: 44px; } }
</style>
