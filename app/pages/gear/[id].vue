<script setup lang="ts">
import { computed, nextTick, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { navigateTo, useHead, useRoute } from '#imports'
import Button from 'primevue/button'
import Select from '~/components/form/choiceList'
import { choicesOf, readCell, writeCell } from '#core/gear/cells'
import { headOf } from '#core/gear/csv'
import { columnsOf, GEAR_WORDS, type Column, type Model } from '#core/gear/models'
import type { GearModel } from '#core/gear/protocol'
import { remarksOn } from '#core/gear/remarks'
import TextEntry from '~/components/form/TextEntry.vue'
import WaitingGear from '~/components/gear/WaitingGear.vue'
import KeyCap from '~/components/KeyCap.vue'
import AppHeader from '~/components/shell/AppHeader.vue'
import CommonActions from '~/components/shell/CommonActions.vue'
import type { Action } from '~/composables/action'
import { useAttempt } from '~/composables/useAttempt'
import { useKeys } from '~/composables/useKeys'
import { useTheme } from '~/composables/useTheme'
import { timeOf } from '~/drawing/times'
import { differences } from '~/gear/list'
import { PART_WORDS, partsOf, type Part } from '~/gear/parts'
import { useGearKept } from '~/gear/useGearKept'
import { useGearStore } from '~/stores/gear'
import { useGearChangesStore } from '~/stores/gearChanges'
import { KeysDialog } from '~/components/shell/opened'

const store = useGearStore()
const route = useRoute()
const id = String(route.params.id)
const changes = useGearChangesStore()
const kept = useGearKept()
const served = shallowRef<GearModel | null>(null)
/** With what was done here and has not reached the server. */
const model = computed(() => store.shown(id, served.value))
const { problem, status, attempt } = useAttempt()
const keysOpen = ref(false)
const form = useTemplateRef<HTMLElement>('form')

const newest = computed(() => model.value?.versions[0] ?? null)
const columns = computed(() => model.value ? columnsOf(model.value.kind) : [])
const parts = computed(() => partsOf(columns.value))
/** What a new model lacks is not looked for: nothing of it is folded away. */
const isNew = route.query.rename !== undefined
const isFolded = (part: Part) => !isNew && part !== 'name'
/** What a folded part states, in its order. */
const statedIn = (all: readonly Column[]) => {
  const stated = all.filter(c => c.key !== 'name').flatMap((c) => {
    const text = writeCell(c, valueOf(c))
    return text === '' ? [] : [`${c.label} ${text}${c.unit ? ` ${c.unit}` : ''}`]
  })
  return stated.length === 0 ? 'nothing stated' : stated.slice(0, 4).map(t => t.length > 44 ? `${t.slice(0, 43)}…` : t).join(', ') + (stated.length > 4 ? `, ${stated.length - 4} more` : '')
}
const remarks = computed(() => model.value && newest.value ? remarksOn(model.value.kind, newest.value.body, model.value.versions[1]?.body ?? null) : [])
useHead({ title: computed(() => `${newest.value?.body.name ?? 'Gear'} · Plain Match`) })

const read = () => attempt(async () => { served.value = await store.read(id) })
watch(() => changes.news, () => void read())
onMounted(async () => {
  await read()
  await nextTick()
  if (route.query.rename) form.value?.querySelector<HTMLInputElement>('input')?.select()
})

const valueOf = (column: Column) => (newest.value!.body as unknown as Record<string, unknown>)[column.key]
function set(column: Column, value: unknown): void {
  store.set(id, newest.value!.body.name, { [column.key]: valueOf(column) }, { [column.key]: value }, model.value!.kind)
}
/** An older version made the newest again: a version more, none is taken away. */
function backTo(body: Model): void {
  const { kind } = model.value!
  const fields = differences(kind, [newest.value!.body, body]).map(d => d.column.key)
  const picked = (from: Model) => Object.fromEntries(fields.map(field => [field, (from as unknown as Record<string, unknown>)[field]]))
  store.set(id, body.name, picked(newest.value!.body), picked(body), kind)
}
const retire = () => store.retire(id, newest.value!.body.name, !model.value!.isRetired)
function duplicate(): void {
  const { body } = newest.value!
  const copyId = store.add({ kind: model.value!.kind, body: { ...body, name: `${body.name.slice(0, 110)} (copy)` } })
  void navigateTo(`/gear/${copyId}?rename=1`)
}
const toTable = () => void navigateTo(`/gear?kind=${model.value?.kind ?? 'speaker'}`)

const isChoice = ({ cell }: Column) => cell === 'choice' || cell === 'flag'
const NOT_STATED = { value: 'null', label: 'not stated' }
const optionsOf = (column: Column) => column.cell === 'flag'
  ? [NOT_STATED, { value: 'yes', label: 'yes' }, { value: 'no', label: 'no' }]
  : [NOT_STATED, ...choicesOf(column.schema).map(value => ({ value, label: value.replace('-', ' ') }))]
/** What two neighbouring versions differ in. */
const changesOf = (k: number) => {
  const { versions, kind } = model.value!
  return versions[k + 1] ? differences(kind, [versions[k]!.body, versions[k + 1]!.body]).map(d => d.column.label).join(', ') : 'as it came'
}

const bindings: Action[] = [
  { keys: ['e'], says: 'to the first field', group: 'change', run: () => form.value?.querySelector('input')?.focus() },
  { keys: ['d'], says: 'duplicate', group: 'change', run: () => { if (model.value) duplicate() } },
  { keys: ['x'], says: 'retire, or offer again', group: 'change', run: () => { if (model.value) retire() } },
  { keys: ['u'], says: 'take back what was just done', group: 'change', run: store.takeBack },
  { keys: ['Escape', 'g'], says: 'to the table', group: 'about', run: toTable },
  { keys: ['n'], says: 'night or day', group: 'job', run: () => useTheme().toggle() },
  { keys: ['?'], says: 'these keys', group: 'job', run: () => { keysOpen.value = true } },
]
useKeys(() => bindings)
</script>

<template>
  <div>
    <AppHeader
      :title="newest?.body.name ?? 'Gear'" :kept="kept"
      :says="model ? `${GEAR_WORDS[model.kind].one}, version ${newest!.version}${model.isRetired ? ', retired' : ''}` : ''">
      <template #first><button class="act" type="button" @click="toTable">to the table <KeyCap of="g" /></button></template>
      <button class="act" type="button" :disabled="!model" @click="duplicate">duplicate <KeyCap of="d" /></button>
      <button class="act" type="button" :disabled="!model" @click="retire">{{ model?.isRetired ? 'offer again' : 'retire' }} <KeyCap of="x" /></button>
      <CommonActions @keys="keysOpen = true" />
    </AppHeader>
    <main class="model">
      <p v-if="problem && model" class="error-words wide" role="alert">{{ problem }} <button class="act" type="button" @click="read">read it anew</button></p>
      <WaitingGear class="wide" />
      <p v-if="store.done" class="wide small" role="status">{{ store.done.says }}. <button
        class="act" type="button" @click="store.takeBack">take it back <KeyCap of="u" /></button></p>
      <section v-if="!model" class="wide state" role="status">
        <p v-if="problem === ''" class="soft">Reading the model…</p>
        <template v-else><p>{{ problem }}</p><Button v-if="status !== 404" variant="outlined" label="Try now" @click="read" /></template>
      </section>
      <template v-else>
        <form ref="form" class="sheet" aria-label="The model" @submit.prevent>
          <details v-for="(part, k) in parts" :key="part.part" class="part" :open="k < 2 || !isFolded(part.part)">
            <summary><h2>{{ PART_WORDS[part.part] }}</h2><span class="soft small">{{ statedIn(part.columns) }}</span></summary>
            <div class="fields">
              <div v-for="column in part.columns" :key="column.key" :class="{ broad: column.cell !== 'number' && !isChoice(column) }">
                <template v-if="isChoice(column)">
                  <label class="soft label" :for="`f-${column.key}`">{{ headOf(column) }}</label>
                  <Select
                    :input-id="`f-${column.key}`" :model-value="writeCell(column, valueOf(column)) || 'null'" :options="optionsOf(column)" option-label="label"
                    option-value="value" size="small" @update:model-value="set(column, readCell(column, $event === 'null' ? '' : $event))" />
                </template>
                <TextEntry
                  v-else :label="headOf(column)" :text="writeCell(column, valueOf(column))" :read="typed => readCell(column, typed)" hint="not stated"
                  @commit="set(column, $event)" />
              </div>
            </div>
          </details>
        </form>
        <aside class="beside">
          <section aria-label="What does not agree">
            <h2>{{ remarks.length === 0 ? 'Its figures agree' : 'Does not agree' }}</h2>
            <p v-if="remarks.length === 0" class="soft small">as far as they are stated.</p>
            <ul v-else class="remarks"><li v-for="remark in remarks" :key="remark.code + remark.says">{{ remark.says }}</li></ul>
            <p v-if="remarks.length > 0" class="soft small">Remarks stop nothing: sheets err, and so do rules of thumb.<template
              v-if="model.kind === 'speaker'"> Where you trust another figure, write it as <b>rating I believe</b>.</template></p>
          </section>
          <section aria-label="Where it is used">
            <h2>{{ model.usedIn.length === 0 ? 'In no job' : `In ${model.usedIn.length} ${model.usedIn.length === 1 ? 'job' : 'jobs'}` }}</h2>
            <ul class="plain"><li v-for="use in model.usedIn" :key="use.jobId + use.version"><NuxtLink
              class="act" :to="`/jobs/${use.jobId}`">{{ use.name }}</NuxtLink>
              <span class="soft small">version {{ use.version }}</span></li></ul>
          </section>
          <section aria-label="Versions">
            <h2>Versions</h2>
            <ol class="plain">
              <li v-for="(version, k) in model.versions" :key="version.version">
                <span class="figure">{{ version.version }}</span> <span class="soft small">{{ timeOf(Date.parse(version.at)) }} · {{ changesOf(k) }}</span>
                <button v-if="k > 0" class="act small" type="button" @click="backTo(version.body)">make it the newest</button>
              </li>
            </ol>
          </section>
        </aside>
      </template>
    </main>
    <KeysDialog v-model:open="keysOpen" :bindings="bindings" />
  </div>
</template>

<style scoped>
.model { display: grid; grid-template-columns: minmax(0, 1fr) 340px; gap: 14px 40px; max-width: 1240px; margin: 0 auto; padding: 18px 22px 60px; }
.wide { grid-column: 1 / -1; }
.sheet { display: grid; gap: 4px; align-content: start; }
.part { border-top: 1px solid var(--rule); padding: 8px 0 12px; }
.part summary { cursor: pointer; }
.part summary h2 { display: inline; margin-right: 14px; }
.part[open] summary .soft { display: none; }
.part .fields { padding-top: 10px; }
.fields { display: grid; grid-template-columns: repeat(auto-fill, minmax(170px, 1fr)); gap: 12px 14px; align-content: start; align-items: start; }
.fields > div { display: grid; min-width: 0; }
.broad { grid-column: span 2; }
.label { font-size: 13.5px; }
.beside { display: grid; gap: 22px; align-content: start; }
.beside h2 { font-size: 16px; }
.remarks { padding-left: 18px; display: grid; gap: 6px; }
.plain { list-style: none; display: grid; gap: 3px; padding: 0; }
.plain li { display: flex; flex-wrap: wrap; gap: 0 10px; align-items: baseline; }
.remarks + p { padding-top: 6px; }
.state { padding: 40px 0; display: grid; gap: 14px; justify-items: start; }
@media (max-width: 900px) { .model { grid-template-columns: minmax(0, 1fr); } }
@media (max-width: 480px) { .model { padding: 12px 14px 60px; } .broad { grid-column: 1 / -1; } }
</style>
