<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'
import { navigateTo, useRoute } from '#imports'
import { disagreementsOn } from '#core/check/disagree'
import { outputsOf } from '#core/job/tree'
import { STATIONS } from '~/stations'
import { addressOf } from '~/stations/station'
import { whoHere } from '~/door/me'
import { useDoorStore } from '~/stores/door'
import { useHereStore } from '~/stores/here'
import { useJobStore } from '~/stores/job'
import { useSelectionStore } from '~/stores/selection'
import { disagreementWords, hereWords, newsWords, type Contradiction } from './togetherWords'

/** Several people on one job: who is here, what the others did, and where two of them cannot both be right. Nothing where one is alone. */
const { ticketId = undefined } = defineProps<{
  /** At the bench: the ticket that is open, null for none; undefined: on a job. */
  ticketId?: string | null
}>()
const store = useJobStore()
const here = useHereStore()
const door = useDoorStore()
const route = useRoute()
const isBench = computed(() => ticketId !== undefined)
const stationNow = () => isBench.value ? 'bench' : STATIONS.find(s => addressOf(store.id, s) === route.path)?.name.toLowerCase() ?? ''
let stop = () => {}
onMounted(() => { stop = isBench.value ? here.begin(stationNow, () => ({ outputId: ticketId ?? null, nodeId: null })) : here.begin(stationNow) })
onBeforeUnmount(() => stop())

const opened = ref(false)
/** Several windows of one device are several windows. */
const nameOf = (who: string | null) => who === whoHere() ? 'another window here' : door.nameOf(who)
const job = computed(() => store.job)
const present = computed(() => job.value ? hereWords(job.value, here.others, nameOf) : [])
const news = computed(() => newsWords(store.news, nameOf))
const contradictions = computed((): Contradiction[] => {
  const of = job.value
  return of ? outputsOf(of).flatMap(output => disagreementsOn(of, output)).map(d => disagreementWords(of, d, door.nameOf)) : []
})
/** Readings of many places may contradict each other; the first of them are enough to begin with. */
const MOST = 3
async function go({ outputId, nodeId }: Contradiction): Promise<void> {
  useSelectionStore().select(outputId, nodeId)
  await navigateTo({ path: `/jobs/${store.id}/check`, query: { line: outputId, ...nodeId ? { speaker: nodeId } : {} } })
}
</script>

<template>
  <section
    v-if="present.length + news.length + contradictions.length > 0" class="together" :aria-label="isBench ? 'Others at the bench'
    : 'Others on this job'">
    <div v-for="one in contradictions.slice(0, MOST)" :key="one.key" class="otherwise" role="alert">
      <p><b>Two readings that cannot both be right.</b> {{ one.says }} <span class="soft">The last one stands until it is read once more, together.</span></p>
      <button class="act" type="button" @click="go(one)">to it</button>
    </div>
    <p v-if="contradictions.length > MOST" class="small">{{ contradictions.length - MOST }} more of these.</p>
    <p v-if="present.length + news.length > 0" class="line small">
      <span v-if="present.length > 0" class="who"><span class="soft">Here too:</span> {{ present.join(', ') }}</span>
      <button v-if="news.length > 0" class="act" type="button" :aria-expanded="opened" @click="opened = !opened">
        {{ news[0]!.name }}: {{ news[0]!.last }}</button>
    </p>
    <ul v-if="opened" class="small">
      <li v-for="item in [...store.news].reverse()" :key="item.id"><b>{{ nameOf(item.who) }}</b> {{ item.says }}</li>
    </ul>
  </section>
</template>

<style scoped>
.together { padding: 4px 22px; border-bottom: 1px solid var(--rule); display: grid; gap: 4px; }
.otherwise { border: 1.5px solid var(--stop); background: var(--paper-raised); padding: 7px 12px; display: flex; flex-wrap: wrap; gap: 4px 16px;
  justify-content: space-between; align-items: baseline; }
.otherwise p { flex: 1 1 300px; }
.otherwise .act { color: var(--ink); text-decoration: underline; }
.line { display: flex; gap: 4px 22px; align-items: baseline; min-width: 0; }
.who { flex: 0 1 auto; min-width: 0; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.line .act { flex: 0 9 auto; min-width: 0; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; text-align: left; display: block;
  color: var(--ink-soft); }
ul { list-style: none; max-height: 40vh; overflow-y: auto; }
li { padding: 3px 0; border-top: 1px solid var(--rule); }
@media (max-width: 760px) { .together { padding: 2px 8px; } }
/* Sideways there is room for one row: what two disagree about. */
@media (max-height: 560px) and (max-width: 1000px) { .line, .together:not(:has(.otherwise)) { display: none; } }
</style>
