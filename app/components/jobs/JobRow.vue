<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import InputText from 'primevue/inputtext'
import { DELETED_KEPT_DAYS } from '#core/job/protocol'
import type { JobSummary } from '#core/line/jobSummary'
import { plannedWords } from '#core/check/gradeWords'
import { gradeOf, sumOf } from '#core/line/jobState'
import GradeTag from '~/components/GradeTag.vue'
import { STATIONS } from '~/stations'
import { space } from '~/stations/space/station'
import { addressOf } from '~/stations/station'
import JobRails from './JobRails.vue'

const { job } = defineProps<{ job: JobSummary }>()
const emit = defineEmits<{ copy: [], archive: [], bringBack: [], remove: [], recover: [], rename: [name: string] }>()

const renaming = ref(false)
const name = ref('')
const row = useTemplateRef<HTMLElement>('row')
/** Deleting is asked twice: whether, and whether really. */
const asked = ref<0 | 1 | 2>(0)

// What was read wrong comes before what is tight on paper.
const readsWrong = computed(() => job.state === 'wrong')
const grade = computed(() => readsWrong.value ? 'stop' : gradeOf(job.lines))
const words = computed(() => readsWrong.value ? 'Reads wrong' : plannedWords(grade.value, sumOf(job.lines, 'wrong')))
const canDelete = computed(() => job.deletedAt === null && (job.archivedAt !== null || (job.lines.length === 0 && job.spaces === 0)))
const proved = computed(() => job.lines.reduce((sum, l) => sum + l.proved, 0))
/** The stations beside the run sheet, which the name itself leads to; of rooms the list knows nothing. */
const further = computed(() => STATIONS.filter(s => s.path !== '' && s !== space).map(station => ({ name: station.name, to: addressOf(job.id, station), state: station.state(job.lines, null) })))
const when = computed(() => new Date(job.deletedAt ?? job.updatedAt).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' }))
const lastDay = computed(() => new Date(Date.parse(job.deletedAt ?? job.updatedAt) + DELETED_KEPT_DAYS * 86_400_000).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' }))

/** The day that somebody is to come again: told before it, and louder once it is there. */
const again = computed(() => {
  if (!job.again || job.deletedAt) return null
  const isDue = job.again <= new Date().toISOString().slice(0, 10)
  const day = new Date(`${job.again}T12:00:00Z`).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })
  return { isDue, says: isDue ? `to be checked again since ${day}` : `check again ${day}` }
})

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

function remove(): void {
  if (asked.value < 2) asked.value++
  else {
    asked.value = 0
    emit('remove')
  }
}
</script>

<template>
  <li ref="row" class="row" :class="{ away: job.archivedAt !== null || job.deletedAt !== null }">
    <JobRails :lines="job.lines" class="drawing" />
    <div class="words">
      <InputText
        v-if="renaming" v-model="name" aria-label="Name of the job" maxlength="120" @keydown.enter="finish(true)" @keydown.esc="finish(false)"
        @blur="finish(true)" />
      <span v-else-if="job.deletedAt" class="open">{{ job.name }}</span>
      <NuxtLink v-else :to="`/jobs/${job.id}`" class="open">{{ job.name }}</NuxtLink>
      <p class="soft">
        <GradeTag v-if="job.lines.length > 0" :grade="grade" :words="words" /> {{ job.sentence }}
        <span v-if="again" class="small again" :class="{ due: again.isDue }">{{ again.says }}</span>
        <span class="small when">{{ job.deletedAt ? `deleted ${when}, can be brought back until ${lastDay}` : when }}</span>
        <span v-if="!job.deletedAt && job.lines.length > 0" class="small further">
          <NuxtLink
            v-for="station in further" :key="station.name" :to="station.to" class="act" :title="station.state"
            :aria-label="`${station.name} of ${job.name}: ${station.state}`"
          >
            {{ station.name.toLowerCase() }}
          </NuxtLink>
        </span>
      </p>
    </div>
    <div v-if="asked > 0" class="acts sure" role="group" :aria-label="`delete ${job.name}`">
      <span>{{ asked === 1 ? `Delete “${job.name.slice(0, 40)}”?` : proved > 0 ? `Its ${proved} proved readings go with it. Really?` : 'Really?' }} <span
        class="soft small">It can be brought back for {{ DELETED_KEPT_DAYS }} days.</span></span>
      <button class="act danger" type="button" @click="remove">{{ asked === 1 ? 'delete it' : 'yes, delete it' }}</button>
      <button class="act" type="button" @click="asked = 0">no</button>
    </div>
    <div v-else-if="job.deletedAt" class="acts">
      <button class="act" type="button" :aria-label="`bring back ${job.name}`" @click="emit('recover')">bring back</button>
    </div>
    <div v-else class="acts">
      <button v-if="!job.archivedAt" class="act" type="button" :aria-label="`rename ${job.name}`" @click="beginRename">rename</button>
      <button class="act" type="button" :aria-label="`duplicate ${job.name}`" @click="emit('copy')">duplicate</button>
      <a class="act" :href="`/api/jobs/${job.id}/file`" download :aria-label="`file out: ${job.name}`">file out</a>
      <button v-if="job.archivedAt" class="act" type="button" :aria-label="`bring back ${job.name}`" @click="emit('bringBack')">bring back</button>
      <button v-else class="act" type="button" :aria-label="`archive ${job.name}`" @click="emit('archive')">archive</button>
      <button v-if="canDelete" class="act" type="button" :aria-label="`delete ${job.name}`" @click="remove">delete</button>
    </div>
  </li>
</template>

<style scoped>
.row { display: grid; grid-template-columns: 190px minmax(0, 1fr) auto; gap: 6px 24px; align-items: center; padding: 14px 0;
  border-bottom: 1px solid var(--rule); }
.words { display: grid; gap: 3px; }
.open { font-weight: 700; font-size: 18px; text-decoration: none; overflow-wrap: anywhere; }
@media (pointer: coarse), (max-width: 760px) { a.open { display: block; min-height: 44px; align-content: center; } }
a.open:hover { text-decoration: underline; text-decoration-color: var(--ink); }
.when, .again { white-space: nowrap; padding-left: 6px; }
.due { color: var(--stop); font-weight: 600; }
.further { display: inline-flex; gap: 10px; padding-left: 12px; }
.acts { display: flex; gap: 14px; align-items: baseline; }
.sure { max-width: 340px; flex-wrap: wrap; gap: 4px 14px; }
.danger { color: var(--stop); }
.away .drawing { opacity: .6; }
@media (max-width: 860px) {
  .row { grid-template-columns: minmax(0, 1fr); }
  .acts { flex-wrap: wrap; }
}
</style>
