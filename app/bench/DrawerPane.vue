<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { unstatedModel } from '#core/gear/models'
import { speakerModelSchema, type SpeakerModel } from '#core/gear/speaker'
import { InputError } from '#core/quantity/inputError'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import type { DrawerItem } from '#core/job/schema'
import { newId } from '~/api/ids'
import Select from '~/components/form/choiceList'
import { millimetresOrNot, quantityOrNot, withinOrNot } from '~/components/form/readers'
import { useWholeLibrary } from '~/composables/useWholeLibrary'
import { useJobStore } from '~/stores/job'
import { useBenchStore } from './benchStore'

/** What lies in the drawer, and how many of each. */
const bench = useBenchStore()
const jobs = useJobStore()
const { models } = useWholeLibrary('speaker')
const drivers = computed(() => (models.value ?? []).map(m => ({ id: m.id, name: m.body.name })).sort((a, b) => a.name.localeCompare(b.name)))
const empty = () => ({ name: '', ohm: '', frame: '', depth: '', watt: '', db: '', plus: '' })
const typed = reactive(empty())
const problem = ref('')

function change(item: DrawerItem, by: 1 | -1): void {
  const count = item.count + by
  if (count >= 0) jobs.edit({ kind: 'drawer.set', drawerId: item.id, was: { count: item.count }, to: { count } })
}
const takeOut = (item: DrawerItem) => jobs.edit({ kind: 'drawer.remove', drawerId: item.id, was: item })
const put = (model: SpeakerModel) => jobs.edit({ kind: 'drawer.add', index: bench.drawer.length, item: { id: newId(), count: 1, model } })
function fromLibrary(id: string): void {
  const model = models.value?.find(m => m.id === id)?.body
  if (model) put(model)
}
function add(): void {
  problem.value = ''
  try {
    const model = {
      ...unstatedModel('speaker', typed.name.trim()) as SpeakerModel, build: 'driver' as const, nominalOhm: quantityOrNot('resistance')(typed.ohm), frameMm: millimetresOrNot('A frame')(typed.frame),
      depthMm: millimetresOrNot('A depth')(typed.depth), continuousW: quantityOrNot('power')(typed.watt), sensitivityDb: withinOrNot(40, 130, 'A sensitivity', ' dB')(typed.db), plusMark: typed.plus.trim(),
    }
    const read = speakerModelSchema.safeParse({ ...model, sensitivityAt: model.sensitivityDb === null ? null : '1 W' })
    if (!read.success) problem.value = `Its ${String(read.error.issues[0]!.path[0])} ${read.error.issues[0]!.message}.`
    else if (put(read.data)) Object.assign(typed, empty())
  }
  catch (error) {
    if (!(error instanceof InputError)) throw error
    problem.value = error.message
  }
}
const sheetOf = ({ nominalOhm, frameMm, continuousW, sensitivityDb }: SpeakerModel) => [
  nominalOhm === null ? 'ohms not known' : writeQuantity(nominalOhm, 'Ω'), frameMm === null ? 'frame not known' : `frame ${writeNumber(frameMm)} mm`,
  continuousW === null ? '' : writeQuantity(continuousW, 'W'), sensitivityDb === null ? '' : `${writeNumber(sensitivityDb)} dB`,
].filter(Boolean).join(' · ')
</script>

<template>
  <section class="drawer" aria-label="The drawer">
    <p v-if="bench.drawer.length === 0" class="soft">The drawer is empty. Put in what lies there: it is looked through first when something has to be
      replaced.</p>
    <ul v-else class="items">
      <li v-for="item in bench.drawer" :key="item.id">
        <span class="name"><b>{{ item.model.name }}</b> <span class="soft small">{{ sheetOf(item.model) }}</span></span>
        <span class="count" role="group" :aria-label="`How many of ${item.model.name}`">
          <button class="tap" type="button" :aria-label="`one less of ${item.model.name}`" :disabled="item.count === 0" @click="change(item, -1)">−</button>
          <span class="figure">{{ item.count }}</span>
          <button class="tap" type="button" :aria-label="`one more of ${item.model.name}`" @click="change(item, 1)">+</button>
        </span>
        <button class="act small" type="button" @click="takeOut(item)">take it out</button>
      </li>
    </ul>
    <form class="add" aria-label="Put something in the drawer" @submit.prevent="add">
      <h2>Put in</h2>
      <Select
        v-if="drivers.length > 0" class="library" aria-label="One of the library" :model-value="null" :options="drivers" option-label="name"
          option-value="id" size="small"
        placeholder="one of the library" filter @update:model-value="fromLibrary" />
      <label class="wide"><span>or by its name</span><InputText v-model="typed.name" size="small" maxlength="120" placeholder="Driver 36, 32 Ω" /></label>
      <label><span>ohms</span><InputText v-model="typed.ohm" size="small" maxlength="20" placeholder="32" inputmode="decimal" /></label>
      <label><span>frame, mm</span><InputText v-model="typed.frame" size="small" maxlength="12" inputmode="decimal" /></label>
      <label><span>depth, mm</span><InputText v-model="typed.depth" size="small" maxlength="12" inputmode="decimal" /></label>
      <label><span>watts</span><InputText v-model="typed.watt" size="small" maxlength="12" inputmode="decimal" /></label>
      <label><span>dB at 1 W</span><InputText v-model="typed.db" size="small" maxlength="12" inputmode="decimal" /></label>
      <label><span>plus marked by</span><InputText v-model="typed.plus" size="small" maxlength="40" placeholder="red dot" /></label>
      <Button size="small" type="submit" label="Into the drawer" :disabled="typed.name.trim() === ''" />
    </form>
    <p v-if="problem" class="error-words" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped>
.drawer { display: grid; gap: 14px; }
.items { list-style: none; border-top: 1px solid var(--rule); }
li { display: flex; flex-wrap: wrap; gap: 4px 18px; align-items: center; border-bottom: 1px solid var(--rule); padding: 7px 2px; }
.name { flex: 1 1 300px; min-width: 0; }
.count { display: inline-flex; gap: 8px; align-items: center; }
.count .figure { min-width: 2ch; text-align: center; }
.add { display: flex; flex-wrap: wrap; gap: 8px 12px; align-items: end; }
h2 { flex-basis: 100%; }
label { display: grid; gap: 2px; width: 104px; }
label > span { font-size: 13.5px; color: var(--ink-soft); }
label :deep(input) { width: 100%; }
.wide, .library { width: 230px; }
</style>
