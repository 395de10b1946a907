<script setup lang="ts">
import { ref, shallowRef, watch } from 'vue'
import Dialog from 'primevue/dialog'
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import InputText from 'primevue/inputtext'
import { USUAL_PORT, type Meter } from '#core/meter/meters'
import { api } from '~/api/client'
import { useAttempt } from '~/composables/useAttempt'
import { askMeter, chooseMeter, chosenMeter, readMeters, textOf } from './readByWire'

/** Bench meters that are reached by a wire: which this device reads with, and how one is added. */
const open = defineModel<boolean>('open', { required: true })
const { problem, attempt } = useAttempt()
const list = shallowRef<Meter[] | null>(null)
const chosen = ref(chosenMeter())
const typed = ref({ name: '', host: '', port: String(USUAL_PORT), fourWire: false })
/** What a try at a meter said, by its id. */
const said = ref<Record<string, string>>({})
const trying = ref('')

async function look(): Promise<void> {
  await attempt(async () => { list.value = await readMeters() })
  if (list.value && !list.value.some(m => m.id === chosen.value)) choose(null)
}
watch(open, (isOpen) => { if (isOpen) void look() }, { immediate: true })

function choose(id: string | null): void {
  chosen.value = id
  chooseMeter(id)
}
async function tryIt({ id }: Meter): Promise<void> {
  trying.value = id
  const { problem: why, attempt: tried } = useAttempt()
  await tried(async () => {
    const answer = await askMeter(id, null)
    said.value = { ...said.value, [id]: `${answer.meterName} reads ${textOf(answer)}${answer.value.is === 'ohm' ? ' Ω' : ''}.` }
  })
  if (why.value) said.value = { ...said.value, [id]: why.value }
  trying.value = ''
}
const add = () => attempt(async () => {
  const { name, host, port, fourWire } = typed.value
  const { id } = await api<{ id: string }>('/meters', { method: 'POST', body: { name: name.trim() || 'Bench meter', host: host.trim(), port: Number(port), fourWire } })
  typed.value = { name: '', host: '', port: String(USUAL_PORT), fourWire: false }
  choose(id)
  await look()
})
const remove = ({ id }: Meter) => attempt(async () => {
  await api(`/meters/${id}`, { method: 'DELETE' })
  await look()
})
</script>

<template>
  <Dialog v-model:visible="open" modal header="Bench meters by wire" :dismissable-mask="true" :style="{ width: 'min(680px, 97vw)' }">
    <div class="meters" data-form>
      <p class="soft small">A meter that speaks SCPI over the network fills a reading by one key. Its leads go on as ever, with the amplifier off: an
        ohmmeter on a driven line reads nonsense and may break.</p>
      <p v-if="list === null && !problem" class="soft" role="status">Reading…</p>
      <ul v-else-if="list && list.length > 0">
        <li v-for="meter in list" :key="meter.id">
          <label class="name"><input type="radio" name="meter" :checked="chosen === meter.id" @change="choose(meter.id)"> <b>{{ meter.name }}</b>
            <span class="soft small">{{ meter.isStandIn ? 'measures a copy of the demo, with faults in it' : `${meter.host}:${meter.port}` }}{{
              meter.fourWire ? ', four wires' : '' }}</span></label>
          <span class="acts">
            <button class="act" type="button" :disabled="trying !== ''" @click="tryIt(meter)">{{ trying === meter.id ? 'trying…' : 'try it' }}</button>
            <button v-if="!meter.isStandIn" class="act" type="button" :aria-label="`take ${meter.name} off the list`" @click="remove(meter)">take off</button>
          </span>
          <span v-if="said[meter.id]" class="said small" role="status">{{ said[meter.id] }}</span>
        </li>
      </ul>
      <p v-else-if="list" class="soft">None yet.</p>
      <form novalidate @submit.prevent="add">
        <h3>Add one</h3>
        <div class="fields">
          <label><span class="small soft">Called</span><InputText v-model="typed.name" size="small" maxlength="60" placeholder="Bench one" /></label>
          <label><span class="small soft">At the address</span><InputText
            v-model="typed.host" size="small" maxlength="100" placeholder="192.168.1.40" /></label>
          <label class="port"><span class="small soft">Port</span><InputText v-model="typed.port" size="small" inputmode="numeric" maxlength="5" /></label>
        </div>
        <label class="four"><Checkbox v-model="typed.fourWire" binary input-id="four-wire" />
          <span>with four wires: its leads are not in the reading</span></label>
        <p v-if="problem" class="error-words" role="alert">{{ problem }}</p>
        <Button type="submit" size="small" variant="outlined" label="Add it" :disabled="typed.host.trim() === ''" />
      </form>
    </div>
  </Dialog>
</template>

<style scoped>
.meters { display: grid; gap: 14px; }
ul { list-style: none; border-top: 1px solid var(--rule); }
li { display: flex; flex-wrap: wrap; gap: 2px 18px; justify-content: space-between; align-items: center; padding: 7px 0; border-bottom: 1px solid var(--rule); }
.name { display: inline-flex; flex-wrap: wrap; gap: 2px 8px; align-items: center; min-height: 32px; cursor: pointer; overflow-wrap: anywhere; min-width: 0; }
input[type=radio] { accent-color: var(--pen); width: 18px; height: 18px; margin: 0; }
.acts { display: flex; gap: 18px; }
.said { flex: 1 0 100%; }
form { display: grid; gap: 8px; justify-items: start; }
.fields { display: flex; flex-wrap: wrap; gap: 10px; width: 100%; }
.fields label { display: grid; gap: 2px; flex: 1 1 180px; min-width: 0; }
.fields .port { flex: 0 1 90px; }
.four { display: flex; gap: 10px; align-items: center; min-height: 32px; }
@media (pointer: coarse), (max-width: 760px) { .act, .name, .four { min-height: 44px; } }
</style>
