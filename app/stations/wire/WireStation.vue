<script setup lang="ts">
import { computed, nextTick, onMounted, ref, useTemplateRef, watch } from 'vue'
import { navigateTo, useRoute, useRouter } from '#imports'
import { isGroup } from '#core/network/tree'
import { branchesOf, coilCount, outputsOf, speakersOf } from '#core/job/tree'
import { crossAt, likeLine, runsOn, saySplice } from '#core/hands/splices'
import { UNSTATED_SPLICE } from '#core/job/sections/splices/schema'
import { stateCoils } from '#core/polarity/correct'
import { stripeSchool } from '#core/schools/stripe'
import ActionRow from '~/components/ActionRow.vue'
import KeyCap from '~/components/KeyCap.vue'
import FindBox from '~/components/shell/FindBox.vue'
import { KeysDialog } from '~/components/shell/opened'
import type { ActionTarget } from '~/composables/action'
import { goInto } from '~/composables/fetchedLater'
import { focused } from '~/composables/elements'
import { useKeys } from '~/composables/useKeys'
import { NARROW, useMedia } from '~/composables/useMedia'
import { useUnits } from '~/composables/useUnits'
import { useWidth } from '~/composables/useWidth'
import { addressOf } from '~/stations/station'
import { check } from '~/stations/check/station'
import { match } from '~/stations/match/station'
import { useJobKeys } from '~/stations/useJobKeys'
import { useJobStore } from '~/stores/job'
import { useSelectionStore } from '~/stores/selection'
import { runsOf } from './drawing'
import { wireActions, WIRE_MOUSE_WORDS } from './keys'
import LinePairs from './LinePairs.vue'
import { ActionMenu, BareRunDialog, HarnessDialog, PlusDialog, RackDialog, ScheduleDialog, WirePane } from './parts'
import { useWireStore } from './wireStore'

const store = useJobStore()
const selected = useSelectionStore()
const at = useWireStore()
const route = useRoute()
const router = useRouter()
const { units } = useUnits()
const { common, keysOpen, findOpen } = useJobKeys()
const scheduleOpen = ref(false)
const plusOpen = ref(false)
const bareOpen = ref(false)
const rackOpen = ref(false)
/** Of which amplifier a harness is asked for; null: of the one of the line that is looked at. */
const harnessOf = ref<string | null>(null)
const harnessOpen = ref(false)
const menu = useTemplateRef<{ show: (event: Event) => void }>('menu')
const sheet = useTemplateRef<HTMLElement>('sheet')
const width = useWidth(sheet)
const isNarrow = useMedia(NARROW)

const lines = computed(() => outputsOf(store.opened).filter(o => o.wiring.children.length > 0).map((output) => {
  const leaves = at.report?.leaves.filter(leaf => leaf.line.output === output) ?? []
  const open = new Set([selected.selection.nodeId ?? ''])
  return { output, runs: runsOf(store.opened, { output, leaves }, open), speakers: speakersOf(output.wiring), name: `${output.label} ${output.name}`.trim() }
}))
onMounted(() => {
  const wanted = selected.asked(route.query.line)
  if (wanted !== null && selected.selection.outputId === null) selected.select(wanted)
})
watch(() => selected.selection, ({ outputId }) => {
  if (outputId !== null && route.query.line !== outputId) void router.replace({ query: { line: outputId } })
})

const nodeId = computed(() => selected.place ? selected.selection.nodeId : null)
const target = computed((): ActionTarget => nodeId.value === null ? 'rail' : selected.speaker ? 'speaker' : 'control')
function choose(outputId: string, id: string | null, part: 'start' | 'end' = 'start'): void {
  selected.select(outputId, id)
  at.part = part
  // On a phone what is said of it stands above the pairs.
  if (isNarrow.value && id !== null) void nextTick(() => document.querySelector('.wire-pane')?.scrollIntoView({ block: 'start' }))
}
async function follow(): Promise<void> {
  await goInto('.on[tabindex="0"]')
}

function along(by: 1 | -1): void {
  const line = lines.value.find(l => l.output.id === selected.selection.outputId) ?? lines.value[0]
  if (!line) return
  const ids = branchesOf(line.output.wiring).map(b => b.node.id)
  const next = nodeId.value === null ? (by === 1 ? ids[0] : ids.at(-1)) : ids[ids.indexOf(nodeId.value) + by]
  if (next !== undefined) choose(line.output.id, next, at.part)
  void follow()
}
function otherLine(by: 1 | -1): void {
  const k = lines.value.findIndex(l => l.output.id === selected.selection.outputId)
  const next = lines.value[Math.max(0, Math.min(lines.value.length - 1, k + by))]
  if (next) choose(next.output.id, null)
}
/** What needs a lead says so. */
function withLead(run: (id: string) => void): () => void {
  return () => nodeId.value === null ? store.sayNot('Choose a lead first: press its joint or its tag, or go there by the arrows.') : run(nodeId.value)
}
const cross = withLead(() => {
  const { joint } = at
  if (joint) store.edit(crossAt(store.opened, joint.joint))
})
const deeds = {
  along, otherLine, cross,
  otherEnd: withLead(() => { at.part = at.part === 'start' ? 'end' : 'start' }),
  name: withLead(() => void goInto('.pair-form input')),
  runOn: withLead((id) => { if (!store.edit(runsOn(store.opened, id))) store.sayNot('Name its pair first; or all behind it are named already.') }),
  likeLine: () => {
    const k = lines.value.findIndex(l => l.output.id === selected.selection.outputId)
    const [before, here] = [lines.value[k - 1], lines.value[k]]
    if (!before || !here) return store.sayNot('There is no line before this one.')
    if (!store.edit(likeLine(store.opened, before.output.id, here.output.id))) store.sayNot('Nothing that is not said here already, or the two are not built alike.')
  },
  coils: withLead((id) => {
    const { speaker } = selected
    if (!speaker || speaker.load.kind === 'coil' || coilCount(speaker.load) < 2) return store.sayNot('It has one coil.')
    store.edit(stateCoils(store.opened, id, coilCount(speaker.load)))
  }),
  forget: withLead((id) => { if (!store.edit(saySplice(store.opened, id, UNSTATED_SPLICE))) store.sayNot('Nothing is said of it.') }),
  read: withLead(() => goTo(check.path === '' ? match : check)),
  bareRun: () => { bareOpen.value = true },
  schedule: () => { scheduleOpen.value = true },
  rack: () => { rackOpen.value = true },
  harness: () => openHarness(ofLine()),
  practice: () => { plusOpen.value = true },
  toSheet: () => goTo(match),
  leave: () => {
    focused()?.blur()
    selected.select(selected.selection.outputId)
  },
}
const ofLine = () => store.opened.amplifiers.find(a => a.outputs.some(o => o.id === selected.selection.outputId))?.id ?? null
function openHarness(amplifierId: string | null): void {
  rackOpen.value = false
  harnessOf.value = amplifierId
  harnessOpen.value = true
}
function goTo(station: typeof match): void {
  const { outputId, nodeId: id } = selected.selection
  const query = { ...(outputId ? { line: outputId } : {}), ...(id && selected.speaker ? { speaker: id, ...(station === check ? { read: 'polarity' } : {}) } : {}) }
  void navigateTo({ path: addressOf(String(route.params.id), station), query })
}
const bindings = [...wireActions(deeds), ...common]
useKeys(() => bindings, () => target.value)
const rule = computed(() => stripeSchool(store.opened.practice.stripe).says)
</script>

<template>
  <div>
    <main v-if="lines.length === 0" class="nothing" aria-label="Wires">
      <p>No line with a speaker yet: nothing to wire.</p>
      <NuxtLink class="act" :to="`/jobs/${route.params.id}`">to the run sheet <KeyCap of="v" /></NuxtLink>
      <button class="act" type="button" @click="rackOpen = true">the rack <KeyCap of="R" /></button>
    </main>
    <template v-else>
      <div class="body">
        <main ref="sheet" class="sheet" aria-label="Pairs as they lie">
          <p class="soft small rule">On this job {{ rule }}. <button class="act" type="button" @click="plusOpen = true">change</button></p>
          <section
            v-for="{ output, runs, speakers, name } in lines" :key="output.id" class="line"
            :class="{ on: output.id === selected.selection.outputId }" :data-output="output.id">
            <h2><button
              class="head" type="button" :aria-pressed="output.id === selected.selection.outputId && nodeId === null"
              @click="choose(output.id, null)">{{ name }}</button></h2>
            <LinePairs
              :runs="runs" :speakers="speakers" :name="name" :width="width" :selected-id="nodeId" :part="at.part" :units="units"
              @select="(id, part) => choose(output.id, id, part)" />
          </section>
        </main>
        <WirePane class="pane" :node-id="nodeId" :is-group="selected.place ? isGroup(selected.place.branch.node) : false" />
      </div>
      <footer class="foot"><ActionRow class="grow" :actions="bindings" :target="target" @more="menu?.show($event)" />
        <button class="act find" type="button" @click="findOpen = true">find <KeyCap of="/" /></button></footer>
    </template>
    <ScheduleDialog v-if="scheduleOpen" v-model:open="scheduleOpen" />
    <RackDialog v-if="rackOpen" v-model:open="rackOpen" @map="openHarness" />
    <HarnessDialog v-if="harnessOpen" v-model:open="harnessOpen" :amplifier-id="harnessOf" />
    <BareRunDialog v-if="bareOpen" v-model:open="bareOpen" />
    <PlusDialog v-if="plusOpen" v-model:open="plusOpen" />
    <ActionMenu ref="menu" :actions="bindings" :target="target" />
    <FindBox v-model:open="findOpen" :actions="bindings" :target="target" />
    <KeysDialog v-model:open="keysOpen" :bindings="bindings" :mouse="WIRE_MOUSE_WORDS" />
  </div>
</template>

<style scoped>
.nothing { padding: 50px 22px; display: grid; gap: 12px; justify-items: start; }
.body { display: grid; grid-template-columns: minmax(0, 1fr) 366px; height: calc(100vh - 50px - 51px - 41px); }
.sheet { overflow: hidden auto; padding: 10px 14px 20px 22px; }
.rule { padding-bottom: 6px; }
.rule .act { padding: 0 0 0 8px; text-decoration: underline; text-decoration-color: var(--rule-strong); }
.line { border-top: 1px solid var(--rule); padding: 8px 0 4px 10px; border-left: 4px solid transparent; margin-left: -14px; }
.line.on { border-left-color: var(--pen); }
.head { border: 0; background: none; padding: 2px 0; min-width: 44px; min-height: 28px; font-weight: 700; cursor: pointer; text-align: left; }
.pane { overflow: hidden auto; border-left: 1px solid var(--rule); background: var(--paper-raised); padding: 14px 18px 24px; }
.grow { flex: 1; }
.foot { display: flex; align-items: center; gap: 4px 22px; height: 40px; border-top: 1px solid var(--rule); padding: 0 22px; font-size: 14px;
  color: var(--ink-soft); }
@media (pointer: coarse), (max-width: 760px) { .head { min-height: 44px; } }
@media (max-width: 1000px) {
  .body { grid-template-columns: minmax(0, 1fr); height: auto; }
  .sheet { overflow: visible; padding: 8px 12px; }
  .line { margin-left: 0; }
  .pane { order: -1; border-left: 0; border-bottom: 2px solid var(--ink); }
  .foot { height: auto; padding: 6px 12px 10px; position: sticky; bottom: 0; background: var(--paper); overflow-x: auto; }
  .foot :deep(.action-row) { flex-wrap: nowrap; }
  .find { display: none; }
}
</style>
