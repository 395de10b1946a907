<script setup lang="ts">
import { computed, ref } from 'vue'
import Dialog from 'primevue/dialog'
import { BEFORE_WIRING, cableSchedule, cutList, scheduleRows } from '#core/advice/cableSchedule'
import { USUAL_SLACK } from '#core/advice/cableList'
import { writeCable } from '#core/quantity/cable'
import { writeLength } from '#core/quantity/units'
import TabRow from '~/components/form/TabRow.vue'
import { useCopied } from '~/composables/useCopied'
import { useUnits } from '~/composables/useUnits'
import { useJobStore } from '~/stores/job'

/** Every cable with both its ends, what is cut from which drum, and the tags for both ends. */
const open = defineModel<boolean>('open', { required: true })
const store = useJobStore()
const { units } = useUnits()
const DRUM_M = 100
const TABS = [{ value: 'runs', says: 'runs' }, { value: 'cuts', says: 'cut list' }, { value: 'tags', says: 'tags' }] as const
const tab = ref<typeof TABS[number]['value']>('runs')
const runs = computed(() => cableSchedule(store.opened, USUAL_SLACK))
const rows = computed(() => scheduleRows(runs.value, units.value))
const drums = computed(() => cutList(runs.value, DRUM_M))
const missing = computed(() => runs.value.filter(run => run.lengthM === null).length)

const copied = useCopied()
const copy = () => copied(rows.value.map(row => row.map(cell => cell.replace(/[\t\r\n]+/g, ' ')).join('\t')).join('\n'), 'schedule')
</script>

<template>
  <Dialog v-model:visible="open" modal header="Cable schedule" :dismissable-mask="true" :style="{ width: 'min(1120px, 97vw)' }">
    <ul class="before small"><li v-for="text in BEFORE_WIRING" :key="text">{{ text }}</li></ul>
    <TabRow label="What of it" :tabs="TABS" :value="tab" @choose="tab = $event" />
    <div v-if="tab === 'runs'" class="wide" tabindex="0" role="group" aria-label="can be scrolled sideways">
      <table>
        <thead><tr><th v-for="head in rows[0]" :key="head">{{ head }}</th></tr></thead>
        <tbody><tr v-for="(row, k) in rows.slice(1)" :key="k"><td v-for="(cell, c) in row" :key="c" :class="{ tag: c === 0 }">{{ cell }}</td></tr></tbody>
      </table>
    </div>
    <div v-else-if="tab === 'cuts'" class="drums">
      <p v-if="drums.length === 0" class="soft">No length of cable is stated yet.</p>
      <section v-for="(drum, k) in drums" :key="k"><h3>{{ writeCable(drum.cable) }}, {{ writeLength(drum.drumM, units) }}</h3>
        <p>{{ drum.cuts.map(cut => `${cut.tag} ${writeLength(cut.lengthM, units)}`).join(' · ') }}<span
          class="soft"> · {{ writeLength(drum.leftM, units) }} left</span></p></section>
      <p
        v-if="missing > 0"
        class="soft">{{ missing }} {{ missing === 1 ? 'run has' : 'runs have' }} no length yet and {{ missing === 1 ? 'is' : 'are' }} in no drum.</p>
    </div>
    <ul v-else class="tags"><li v-for="run in runs" :key="run.tag"><b class="figure">{{ run.tag }}</b><span>{{ run.from }} → {{ run.to }}</span></li></ul>
    <p class="foot-acts"><button class="act" type="button" @click="copy">copy the table</button>
      <NuxtLink class="act" :to="`/jobs/${store.id}/paper`">print it</NuxtLink>
      <span class="soft small">With a tenth on top where no plan of a space has its own slack; drums of
        {{ writeLength(DRUM_M, units) }}; few of them, not proven to be the fewest.</span></p>
  </Dialog>
</template>

<style scoped>
.before { padding: 0 0 10px 18px; }
.wide { overflow-x: auto; max-height: 58vh; }
table { border-collapse: collapse; font-size: 14px; width: 100%; }
th { text-align: left; font-weight: 600; color: var(--ink-soft); white-space: nowrap; }
th, td { padding: 4px 12px 4px 0; border-bottom: 1px solid var(--rule); vertical-align: top; }
.tag { font-family: var(--mono); white-space: nowrap; font-weight: 600; }
.drums { display: grid; gap: 10px; padding-top: 8px; }
.tags { list-style: none; padding-top: 8px; columns: 2 300px; }
.tags li { display: flex; gap: 12px; border: 1px dashed var(--rule-strong); margin-bottom: 5px; padding: 4px 9px; break-inside: avoid; font-size: 14px; }
.foot-acts { display: flex; flex-wrap: wrap; gap: 4px 18px; align-items: baseline; padding-top: 10px; }
</style>
