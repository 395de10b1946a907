<script setup lang="ts">
import { computed, ref } from 'vue'
import InputText from 'primevue/inputtext'
import { SPEAKER_BUILDS, type SpeakerModel } from '#core/gear/speaker'
import type { DrawerItem } from '#core/job/schema'
import { readingsOf } from '#core/bench/closing'
import { compared, type Side } from '#core/bench/compare'
import { levelWord } from '#core/bench/levelWord'
import { neededOhm, replaceReport, type Need } from '#core/bench/replace'
import { writtenOf, type Ticket } from '#core/bench/ticket'
import { wattSensitivityDb } from '#core/room/tap'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import Select from '~/components/form/choiceList'
import ChoiceRow from '~/components/form/ChoiceRow.vue'
import { useWholeLibrary } from '~/composables/useWholeLibrary'
import { useBenchStore } from '../benchStore'

/** What takes its place: what is needed, the drawer first, then the library; each refusal with its reason. */
const { ticket } = defineProps<{ ticket: Ticket }>()
const bench = useBenchStore()
const { models, problem: away, load } = useWholeLibrary('speaker')
const build = ref<string | null>(null)
const BUILDS = [{ id: '', says: 'of any build' }, ...SPEAKER_BUILDS.map(id => ({ id, says: id.replace('-', ' ') }))]
const source = ref('5')
const microfarad = ref('')
const capacitor = ref<'none' | 'kept' | 'changed' | 'taken-out' | undefined>('none')
const CAPACITOR = (['none', 'kept', 'changed', 'taken-out'] as const).map(value => ({ value, says: value === 'none' ? 'no capacitor in line' : `capacitor ${value.replace('-', ' ')}` }))
const MOST = 12
const most = ref(MOST)

const coilOf = (unit: 'this' | 'twin') => readingsOf(ticket, unit, 'coil').findLast(r => r.ohm !== null)?.ohm ?? null
const need = computed((): Need => {
  const { head } = ticket
  return {
    // A failed coil says nothing; its sound twin does.
    nominalOhm: head.labelOhm, dcrOhm: head.labelOhm === null ? coilOf('twin') ?? coilOf('this') : coilOf('this'),
    body: {
      build: (build.value || null) as SpeakerModel['build'], frameMm: head.frameMm, cutOutMm: head.cutOutMm, depthMm: head.depthMm, magnetMm: head.magnetMm, holes: head.holes, plusMark: head.plusMark, sensitivityDb: head.sensitivityDb,
      sensitivityAt: head.sensitivityDb === null ? null : '1 W', continuousW: head.labelW,
    },
  }
})
const needs = computed(() => neededOhm(need.value))
const isNothing = computed(() => need.value.nominalOhm === null && need.value.dcrOhm === null && ticket.head.frameMm === null && ticket.head.cutOutMm === null)
interface Found { model: SpeakerModel, item: DrawerItem | null, levelDb: number | null, minds: string[] }
function lookedThrough(list: readonly { model: SpeakerModel, item: DrawerItem | null }[]): { fit: Found[], refused: { name: string, why: string }[] } {
  if (isNothing.value || list.length === 0) return { fit: [], refused: [] }
  const { fit, refused } = replaceReport(need.value, list.map(l => l.model))
  return { fit: fit.map(({ name, levelDb, minds }) => ({ ...list.find(l => l.model.name === name)!, levelDb, minds })), refused }
}
const drawer = computed(() => lookedThrough(bench.drawer.filter(d => d.count > 0).map(item => ({ model: item.model, item }))))
const library = computed(() => lookedThrough((models.value ?? []).map(m => ({ model: m.body as SpeakerModel, item: null }))))
const rows = computed(() => [...drawer.value.fit, ...library.value.fit])
const refused = computed(() => [...drawer.value.refused, ...library.value.refused])
const fit = computed(() => writtenOf(ticket, 'fit').at(-1)?.what ?? null)

const sideOf = ({ model }: Found): Side => ({
  name: model.name, nominalOhm: model.nominalOhm, sensitivityDb: wattSensitivityDb(model), ratedW: model.continuousW, model,
})
const was = computed((): Side => ({ name: ticket.head.unit, nominalOhm: needs.value.ohm, sensitivityDb: ticket.head.sensitivityDb,
  ratedW: ticket.head.labelW }))
/** A figure with or without its unit; null for anything else. */
function number(text: string): number | null {
  const value = Number(text.replace(',', '.').replace(/[^\d.].*$/, ''))
  return value > 0 ? value : null
}
const beside = (row: Found) => compared(was.value, sideOf(row), { watts: number(source.value) ?? 5, ohm: 4 }, number(microfarad.value) === null
  ? null
  : number(microfarad.value)! * 1e-6)
const level = (db: number | null) => db === null ? 'not known' : `${writeNumber(db)} dB`
const corner = (hz: number | null) => hz === null ? '' : writeQuantity(hz, 'Hz')

function put({ model, item }: Found): void {
  const what = { is: 'fit' as const, name: model.name, nominalOhm: model.nominalOhm, drawerId: item?.id ?? null, capacitor: capacitor.value ?? 'none', note: '' }
  bench.write(ticket.id, [what], item ? [{ kind: 'drawer.set', drawerId: item.id, was: { count: item.count }, to: { count: item.count - 1 } }] : [])
}
</script>

<template>
  <div class="pane">
    <p v-if="fit" class="told" role="status"><b>{{ fit.name }}</b> goes in. Its coil is read and its plus proved on the bench before it does.</p>
    <p><b>Needed:</b> {{ needs.says }}<template v-if="ticket.head.frameMm !== null">; frame {{ writeNumber(ticket.head.frameMm) }} mm</template>. <span
      class="soft">What is not measured is not compared: frame, depth and magnet stand at “Complaint”.</span></p>
    <div class="fields">
      <Select v-model="build" aria-label="Built as" :options="BUILDS" option-label="says" option-value="id" size="small" placeholder="of any build" />
      <ChoiceRow v-model="capacitor" label="The capacitor in line" :choices="CAPACITOR" />
      <label><span>source, watts at 4 Ω</span><InputText v-model="source" size="small" maxlength="8" inputmode="decimal" class="short" /></label>
      <label v-if="capacitor !== 'none'"><span>capacitor, µF</span><InputText
        v-model="microfarad" size="small" maxlength="8" inputmode="decimal"
        class="short" /></label>
    </div>
    <p v-if="away" class="error-words" role="alert">{{ away }} The drawer is looked through all the same. <button class="act" type="button" @click="load">try
      again</button></p>
    <p v-if="isNothing" class="warn">Nothing is known of the old one: neither its label, nor a coil, nor its frame. Read its sound twin, or measure the
      frame.</p>
    <template v-else>
      <p role="status">{{ rows.length === 0 ? 'Nothing in the drawer or the library takes its place.'
        : `${drawer.fit.length} in the drawer and ${library.fit.length} of the library could take its place.` }}</p>
      <ul v-if="rows.length > 0" class="rows">
        <li v-for="row in rows.slice(0, most)" :key="`${row.item?.id ?? 'library'} ${row.model.name}`" class="row">
          <span class="name"><b>{{ row.model.name }}</b> <span class="soft">{{ row.item ? `${row.item.count} in the drawer` : 'of the library' }}</span></span>
          <span>{{ row.levelDb === null ? 'level not known' : `${levelWord(row.levelDb)} at the same volts` }}</span>
          <span class="soft small">{{ row.minds.length === 0 ? 'nothing to mind' : row.minds.join('; ') }}</span>
          <details class="small"><summary>Is it worth changing?</summary>
            <p>{{ beside(row).says }}</p>
            <table><thead><tr><th /><th>by the source, 1 m</th><th>at its own rating, 1 m</th><th v-if="corner(beside(row).cornerHz[1])">corner of the
              capacitor</th></tr></thead>
              <tbody><tr v-for="(side, k) in [ticket.head.unit, row.model.name]" :key="k"><th>{{ side }}</th><td class="figure">{{
                level(beside(row).bySourceDb[k]!) }}</td><td class="figure">{{ level(beside(row).mostDb[k]!) }}</td>
                <td v-if="corner(beside(row).cornerHz[1])" class="figure">{{ corner(beside(row).cornerHz[k]!) }}</td></tr></tbody></table>
          </details>
          <button class="tap" type="button" @click="put(row)">it goes in</button>
        </li>
      </ul>
      <button v-if="rows.length > most" class="act" type="button" @click="most += 40">{{ rows.length - most }} more</button>
      <details v-if="refused.length > 0"><summary>{{ refused.length }} do not, and why</summary><ul class="rows"><li
        v-for="(one, k) in refused.slice(0,
        200)" :key="k"><b>{{ one.name }}</b> <span class="soft">{{ one.why }}</span></li></ul></details>
    </template>
    <p class="soft small">Hold the new one against the hole, magnet and terminals too. A mark at a terminal is its maker’s word: prove plus before it goes
      in, and listen before closing.</p>
  </div>
</template>

<style scoped>
.row { display: grid; grid-template-columns: minmax(0, 2fr) minmax(0, 2fr) minmax(0, 3fr) auto; gap: 3px 14px; align-items: baseline; }
.row details { grid-column: 1 / -2; grid-row: 2; }
.row > .tap { grid-column: -2; grid-row: 1; }
.short { width: 110px; }
table { border-collapse: collapse; }
th, td { text-align: left; padding: 2px 14px 2px 0; font-weight: 400; border-bottom: 1px solid var(--rule); }
@media (max-width: 760px) {
  .row { grid-template-columns: minmax(0, 1fr) auto; }
  .row > span, .row details { grid-column: 1 / -1; grid-row: auto; }
  .row > .name { grid-column: 1; grid-row: 1; }
}
</style>
