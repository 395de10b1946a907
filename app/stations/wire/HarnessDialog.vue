<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import Dialog from 'primevue/dialog'
import { readCell, writeCell } from '#core/gear/cells'
import { writeConductor } from '#core/gear/conductor'
import type { HarnessModel, Way } from '#core/gear/harness'
import { columnsOf, unstatedModel } from '#core/gear/models'
import { nameText } from '#core/quantity/fields'
import { mapOf, putMap, waysTo } from '#core/polarity/harness'
import Button from '~/components/form/laterButton'
import CheckLine from '~/components/form/CheckLine.vue'
import TabRow from '~/components/form/TabRow.vue'
import TextEntry from '~/components/form/TextEntry.vue'
import { textOf } from '~/components/form/readers'
import { useWholeLibrary } from '~/composables/useWholeLibrary'
import ConductorBar from '~/drawing/ConductorBar.vue'
import { useGearStore } from '~/stores/gear'
import { useJobStore } from '~/stores/job'

/** The map of a harness or a printed list of terminals: taken from the library or typed, and put to an amplifier; or made of one and kept in the library. */
const open = defineModel<boolean>('open', { required: true })
const { amplifierId } = defineProps<{ amplifierId: string | null }>()
const store = useJobStore()
const gear = useGearStore()
const { models, problem, load } = useWholeLibrary('harness')

const amplifiers = computed(() => store.opened.amplifiers.filter(a => a.outputs.length > 0))
const ofId = ref(amplifierId ?? amplifiers.value[0]?.id ?? null)
const amplifier = computed(() => amplifiers.value.find(a => a.id === ofId.value) ?? amplifiers.value[0] ?? null)

/** The map that is looked at. */
const map = ref<Pick<HarnessModel, 'name' | 'ways'> | null>(null)
const to = ref<(string | null)[]>([])
const goesOn = ref(true)
watch([map, amplifier], () => { to.value = map.value && amplifier.value ? waysTo(amplifier.value, map.value) : [] })

const lead = (k: number, outputId: string) => { to.value = to.value.map((id, j) => j === k ? outputId || null : id) }

const WAYS = columnsOf('harness').find(c => c.key === 'ways')!
const readWays = (typed: string) => readCell(WAYS, typed) as Way[]
const typedText = computed(() => map.value?.name === '' ? writeCell(WAYS, map.value.ways) : '')
const edit = computed(() => map.value ? putMap(store.opened, map.value, to.value, goesOn.value) : null)
function put(): void {
  if (!store.edit(edit.value)) return
  store.say(`Named by ${map.value!.name || 'what was typed'}: drawn so, not read yet.`)
  open.value = false
}
/** What is drawn here, as a map. */
const drawn = computed(() => amplifier.value ? mapOf(store.opened, amplifier.value) : null)
const kept = ref('')
function keep(name: string): void {
  const ways = map.value?.name === '' ? map.value.ways : drawn.value?.ways
  if (name === '' || !ways) return
  gear.add({ kind: 'harness', body: { ...unstatedModel('harness', name), ways } })
  kept.value = name
}
const nameOf = (typed: string) => typed.trim() === '' ? '' : textOf(nameText, 'name')(typed)
</script>

<template>
  <Dialog v-model:visible="open" modal header="A harness, or a printed list" :dismissable-mask="true" :style="{ width: 'min(860px, 97vw)' }">
    <div class="harness" data-form>
      <p v-if="!amplifier" class="soft">No amplifier with an output yet.</p>
      <template v-else>
        <TabRow
          v-if="amplifiers.length > 1" label="Of which device" :tabs="amplifiers.map(a => ({ value: a.id, says: a.name }))" :value="amplifier.id"
          @choose="ofId = $event" />
        <p v-else class="soft small">Of {{ amplifier.name }}.</p>
        <section>
          <h3>From the library</h3>
          <p v-if="problem" class="error-words" role="alert">{{ problem }} <button class="act" type="button" @click="load()">try again</button></p>
          <p v-else-if="models === null" class="soft" role="status">Reading the library…</p>
          <p v-else-if="models.length === 0" class="soft small">No map in it yet.</p>
          <div v-else class="maps">
            <button
              v-for="m in models" :key="m.id" type="button" class="tap" :class="{ on: map?.name === m.body.name }" :aria-pressed="map?.name === m.body.name"
              @click="map = m.body">{{ m.body.name }}</button>
          </div>
          <TextEntry
            label="Or typed: each way with its terminals and its conductors, the plus first" :text="typedText" :read="readWays"
            hint="front left [1 2] = white, white/black; front right = grey, grey/black" @commit="ways => { map = { name: '', ways } }" />
        </section>
        <section v-if="map">
          <table>
            <thead><tr><th>way</th><th>terminals</th><th>conductors, plus first</th><th>leads to</th></tr></thead>
            <tbody><tr v-for="(way, k) in map.ways" :key="way.name">
              <td>{{ way.name }}</td>
              <td class="printed">{{ way.terminals?.join(' ') ?? '–' }}</td>
              <td><template v-if="way.pair"><span v-for="(wire, w) in way.pair" :key="w" class="wire"><ConductorBar :wire="wire" :width="44" />
                {{ writeConductor(wire) }}</span></template>
                <span v-else class="soft">not said</span></td>
              <td><select :value="to[k] ?? ''" :aria-label="`${way.name} leads to`" @change="lead(k, ($event.target as HTMLSelectElement).value)">
                <option value="">nothing here</option>
                <option v-for="o in amplifier.outputs" :key="o.id" :value="o.id">{{ o.label }} {{ o.name }}</option></select></td>
            </tr></tbody>
          </table>
          <p class="then"><CheckLine v-model="goesOn">the same pair goes on along each line</CheckLine>
            <Button label="Name these pairs" size="small" :disabled="edit === null" @click="put" />
            <span v-if="edit === null" class="soft small">All of it is said here already, or nothing is chosen.</span></p>
          <p class="soft small">A map is a promise: plus lies on plus at the amplifier, the speakers are still to be read.</p>
        </section>
        <section v-if="drawn || map?.name === ''">
          <h3>Into the library</h3>
          <p v-if="kept" class="good" role="status">Kept as “{{ kept }}”.</p>
          <TextEntry
            v-else :label="map?.name === '' ? 'Keep what was typed as' : `Keep what is drawn at ${amplifier.name} as`" text="" :read="nameOf"
            hint="its name: what it is the harness of"
            @commit="keep" />
        </section>
      </template>
    </div>
  </Dialog>
</template>

<style scoped>
.harness, section { display: grid; gap: 9px; }
.harness { gap: 16px; }
.maps { display: flex; flex-wrap: wrap; gap: 6px; }
.maps .tap { min-height: 34px; white-space: normal; text-align: left; }
table { border-collapse: collapse; font-size: 15px; width: 100%; }
th { text-align: left; font-weight: 600; color: var(--ink-soft); }
th, td { padding: 5px 12px 5px 0; border-bottom: 1px solid var(--rule); vertical-align: top; }
.printed { font-family: var(--mono); font-weight: 600; }
.wire { display: flex; gap: 8px; align-items: center; }
.then { display: flex; flex-wrap: wrap; gap: 8px 20px; align-items: center; }
.good { color: var(--good); }
select { max-width: 220px; min-height: 34px; font: inherit; color: inherit; background: var(--paper-raised); border: 1px solid var(--ink); padding: 3px 6px; }
@media (pointer: coarse), (max-width: 760px) {
  select, .maps .tap { min-height: 44px; }
  thead { display: none; }
  tr { display: grid; grid-template-columns: 1fr 1fr; padding: 6px 0; border-bottom: 1px solid var(--rule); }
  td { border: 0; padding: 2px 8px 2px 0; }
  td:nth-child(3), td:nth-child(4) { grid-column: 1 / -1; }
}
</style>
