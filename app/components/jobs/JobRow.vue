<script setup lang="ts">
import { nextTick, ref, useTemplateRef } from 'vue'
import InputText from 'primevue/inputtext'
import type { Grade } from '#core/check/verdict'
import GradeTag from '~/components/GradeTag.vue'
import type { JobSummary } from '#core/match/jobState'
import JobRails from './JobRails.vue'

const { job } = defineProps<{ job: JobSummary, grade: Grade }>()
const emit = defineEmits<{ copy: [], archive: [], rename: [name: string] }>()

const renaming = ref(false)
const name = ref('')
const row = useTemplateRef<HTMLElement>('row')

async function beginRename(): Promise<void> {
  name.value = job.name
  renaming.value = true
  await nextTick()
  row.value?.querySelector('input')?.select()
}

function finish(keep: boolean): void {
  if (!renaming.value) return
  renaming.value = false
  if (keep && name.value.trim() !== '' && name.value !== job.name) emit('rename', name.value.trim())
}
</script>

<template>
  <li ref="row" class="row" :class="{ away: job.archivedAt !== null }">
    <JobRails :lines="job.lines" class="drawing" />
    <div class="words">
      <InputText v-if="renaming" v-model="name" aria-label="Name of the job" maxlength="120" @keydown.enter="finish(true)" @keydown.esc="finish(false)" @blur="finish(true)" />
      <NuxtLink v-else :to="`/jobs/${job.id}`" class="open">{{ job.name }}</NuxtLink>
      <p class="soft"><GradeTag v-if="job.lines.length > 0" :grade="grade" /> {{ job.sentence }}</p>
    </div>
    <div class="acts">
      <button class="act" type="button" :aria-label="`rename ${job.name}`" @click="beginRename">rename</button>
      <button class="act" type="button" :aria-label="`duplicate ${job.name}`" @click="emit('copy')">duplicate</button>
      <a class="act" :href="`/api/jobs/${job.id}/file`" download :aria-label="`file of ${job.name}`">file out</a>
      <button class="act" type="button" :aria-label="`${job.archivedAt ? 'bring back' : 'archive'} ${job.name}`" @click="emit('archive')">{{ job.archivedAt ? 'bring back' : 'archive' }}</button>
    </div>
  </li>
</template>

<style scoped>
.row { display: grid; grid-template-columns: 190px minmax(0, 1fr) auto; gap: 6px 24px; align-items: center; padding: 14px 0; border-bottom: 1px solid var(--rule); }
.words { display: grid; gap: 3px; }
.open { font-weight: 700; font-size: 18px; text-decoration: none; }
.open:hover { text-decoration: underline; text-decoration-color: var(--copper); }
.acts { display: flex; gap: 14px; }
.away .drawing { opacity: .6; }
@media (max-width: 860px) {
  .row { grid-template-columns: minmax(0, 1fr); }
  .acts { flex-wrap: wrap; }
}
</style>
