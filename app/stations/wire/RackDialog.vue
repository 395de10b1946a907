<script setup lang="ts">
import { computed, ref } from 'vue'
import Dialog from 'primevue/dialog'
import { rackOf, type RackOutput } from '#core/advice/rack'
import { CONNECTOR_IDS, connectorFacts, type Connector } from '#core/gear/connector'
import { writeConductor } from '#core/gear/conductor'
import { terminalText } from '#core/gear/harness'
import { addInput, addMixer } from '#core/hands/inputs'
import type { Amplifier, Output, Terminals } from '#core/job/schema'
import { newId } from '~/api/ids'
import KeyCap from '~/components/KeyCap.vue'
import InputPart from '~/components/rack/InputPart.vue'
import ChoiceRow from '~/components/form/ChoiceRow.vue'
import TextEntry from '~/components/form/TextEntry.vue'
import { textOf } from '~/components/form/readers'
import ConductorBar from '~/drawing/ConductorBar.vue'
import { useJobStore } from '~/stores/job'

/** The rack as it stands: what comes in at which input of which device, and which conductor lies on which of its terminals. */
const open = defineModel<boolean>('open', { required: true })
const emit = defineEmits<{ map: [amplifierId: string] }>()
const store = useJobStore()
const rack = computed(() => rackOf(store.opened))
/** The device whose inputs, or the output whose terminals, are changed. */
const changed = ref<{ id: string, at: number | null } | null>(null)
const isChanged = (id: string) => changed.value?.id === id
const change = (id: string, at: number | null = null) => { changed.value = isChanged(id) && changed.value?.at === at ? null : { id, at } }

function setTerminals({ id, terminals }: Output, to: Partial<Terminals>): void {
  const now = { plus: '', minus: '', connector: null, ...terminals, ...to }
  const isNone = now.plus === '' && now.minus === '' && now.connector === null
  store.edit({ kind: 'output.set', outputId: id, was: { terminals }, to: { terminals: isNone ? null : now } })
}
function more(amplifier: Amplifier): void {
  if (store.edit(addInput(store.opened, amplifier.id))) changed.value = { id: amplifier.id, at: amplifier.inputs.length }
  else store.sayNot('It has as many inputs as are kept.')
}
/** "A plug-in screw terminal latches, does not lock: relieve the strain.", each once. */
const minds = (outputs: readonly RackOutput[]) => [...new Set(outputs.flatMap(o => o.mind === '' ? [] : [`${o.connector.charAt(0).toUpperCase()}${o.connector.slice(1)}: ${o.mind}.`]))]
function mixer(): void {
  const { edit, amplifierId } = addMixer(store.opened, newId)
  if (store.edit(edit)) changed.value = { id: amplifierId, at: 0 }
}
const CONNECTORS: { value: Connector | null, says: string }[] = [...CONNECTOR_IDS.map(value => ({ value, says: connectorFacts(value).says.replace(/^an? /, '') })), { value: null, says: 'not known' }]
</script>

<template>
  <Dialog v-model:visible="open" modal header="The rack" :dismissable-mask="true" :style="{ width: 'min(1060px, 97vw)' }">
    <p class="soft small before">Off and disconnected before anything is changed here. Terminals of a line can shock while it
      plays; the mains side is a licensed person’s.</p>
    <p v-if="rack.length === 0" class="soft">No amplifier yet: it is added on the run sheet.</p>
    <section v-for="{ amplifier, inputs, outputs } in rack" :key="amplifier.id" class="device" :aria-label="amplifier.name">
      <h3>{{ amplifier.name }} <span v-if="amplifier.place" class="soft">{{ amplifier.place }}</span></h3>
      <div class="sides">
        <div class="in">
          <ul v-if="inputs.length > 0">
            <li v-for="input in inputs" :key="input.at">
              <button type="button" class="row" :aria-expanded="isChanged(amplifier.id) && changed?.at === input.at" @click="change(amplifier.id, input.at)">
                <span class="socket" :class="{ fed: input.source !== null }" aria-hidden="true" />
                <span><b>{{ input.name }}</b><span v-if="input.takes" class="soft"> for {{ input.takes }}</span><br>
                  <template v-if="input.source">{{ input.source }}</template><span v-else class="soft">nothing comes in</span>
                  <span v-for="says in input.says" :key="says" class="says soft"> · {{ says }}</span></span>
              </button>
              <InputPart v-if="isChanged(amplifier.id) && changed?.at === input.at" :amplifier="amplifier" :at="input.at" class="form" />
            </li>
          </ul>
          <p v-else class="soft small">What comes in is not stated.</p>
          <p><button class="act" type="button" @click="more(amplifier)">an input more</button></p>
        </div>
        <div v-if="outputs.length > 0" class="out">
          <ul>
            <li v-for="{ output, plus, minus, connector, pair } in outputs" :key="output.id">
              <button type="button" class="row wide" :aria-expanded="isChanged(output.id)" @click="change(output.id)">
                <span class="name"><b>{{ output.label }}</b> {{ output.name }}</span>
                <span v-for="(printed, k) in [plus, minus]" :key="k" class="terminal">
                  <span class="pole" :class="{ soft: printed === '' }">{{ printed || (k === 0 ? '+' : '−') }}</span>
                  <ConductorBar :wire="pair?.[k] ?? null" />
                  <span :class="{ soft: pair === null }">{{ pair ? writeConductor(pair[k]!) : 'not known' }}</span>
                </span>
                <span v-if="connector" class="soft small">{{ connector }}</span>
              </button>
              <form v-if="isChanged(output.id)" class="form terminals" data-form @submit.prevent>
                <TextEntry
                  label="Printed at plus" :text="plus" :read="textOf(terminalText, 'text')" hint="1+"
                  @commit="to => setTerminals(output, { plus: to })" />
                <TextEntry
                  label="Printed at minus" :text="minus" :read="textOf(terminalText, 'text')" hint="COM"
                  @commit="to => setTerminals(output, { minus: to })" />
                <ChoiceRow
                  class="ends" :model-value="output.terminals?.connector ?? null" label="What the pair ends in" before="ends in" :choices="CONNECTORS"
                  @update:model-value="to => to !== undefined && setTerminals(output, { connector: to })" />
              </form>
            </li>
          </ul>
          <p v-for="mind in minds(outputs)" :key="mind" class="soft small">{{ mind }}</p>
          <p><button class="act" type="button" @click="emit('map', amplifier.id)">its harness, or its printed list <KeyCap of="H" /></button></p>
        </div>
        <p v-else class="out soft small">No speaker hangs on it.</p>
      </div>
    </section>
    <p class="foot-acts"><button class="act" type="button" @click="mixer">a mixer more</button>
      <span class="soft small">Amplifiers are added on the run sheet.</span></p>
  </Dialog>
</template>

<style scoped>
.before { padding-bottom: 8px; }
.device { border-top: 1.5px solid var(--ink); padding: 8px 0 14px; }
.sides { display: grid; grid-template-columns: minmax(0, 5fr) minmax(0, 6fr); gap: 8px 34px; padding-top: 4px; }
ul { list-style: none; padding: 0; margin: 0; }
.row { width: 100%; border: 0; border-bottom: 1px solid var(--rule); background: none; text-align: left; cursor: pointer; padding: 5px 4px; display: grid;
  grid-template-columns: 18px minmax(0, 1fr); gap: 8px; align-items: start; font-size: 15px; }
.row.wide { grid-template-columns: minmax(0, 1fr); gap: 2px; }
.row[aria-expanded='true'] { background: var(--wash); box-shadow: inset 3px 0 var(--pen); }
.socket { width: 14px; height: 14px; border: 1.5px solid var(--ink); border-radius: 50%; margin-top: 4px; }
.socket.fed { background: radial-gradient(var(--copper) 0 45%, transparent 50%); }
.terminal { display: grid; grid-template-columns: 62px 60px minmax(0, 1fr); gap: 10px; align-items: center; font-size: 14.5px; }
.pole { font-family: var(--mono); font-weight: 600; text-align: right; overflow-wrap: anywhere; }
.says { font-size: 14px; }
.form { padding: 6px 0 8px 12px; border-left: 3px solid var(--pen); }
.terminals { display: grid; grid-template-columns: 1fr 1fr; gap: 8px; }
.ends { grid-column: 1 / -1; }
.act { padding-left: 0; }
.foot-acts { display: flex; flex-wrap: wrap; gap: 4px 18px; align-items: baseline; border-top: 1.5px solid var(--ink); padding-top: 8px; }
@media (max-width: 760px) {
  .sides { grid-template-columns: minmax(0, 1fr); }
  .row { min-height: 44px; }
}
</style>
