<script setup lang="ts">
import { ref, watch } from 'vue'
import type { Reach } from '#core/hands/reach'
import type { LineThrough, ReadingKind } from '#core/job/schema'
import { plannedWords } from '#core/check/gradeWords'
import type { LeadThere, MoveTo } from '#core/hands/many/many'
import ActionRow from '~/components/ActionRow.vue'
import TabRow from '~/components/form/TabRow.vue'
import GradeTag from '~/components/GradeTag.vue'
import KeyCap from '~/components/KeyCap.vue'
import type { Action, ActionTarget } from '~/composables/action'
import { useAfterPaint } from '~/composables/useAfterPaint'
import { useMatchPaneStore, type PaneMode } from '~/stations/match/pane'
import { useSelectionStore } from '~/stores/selection'
import { FindingsPane, ManyForm, MovePicker, OutputForm, PutPicker, ReadingPanel, SpeakerForm, SuspectsPanel, ThroughForm } from './parts'

/** What is said and can be done about the selection. */
const { moving, putting, actions, target } = defineProps<{
  moving: boolean
  putting: { kind: LineThrough['kind'], reaches: readonly Reach[] } | null
  actions: readonly Action[]
  target: ActionTarget
}>()
const emit = defineEmits<{
  mode: [mode: PaneMode]
  move: [to: MoveTo]
  moveToNew: []
  leave: []
  put: [kind: LineThrough['kind'], nodeIds: readonly string[]]
  again: []
  more: [event: MouseEvent]
  choose: [nodeIds: string[]]
  makeKind: []
  cableList: []
  newOutput: [nodeIds: string[]]
}>()
const kind = defineModel<ReadingKind>('kind', { required: true })
const leadThere = defineModel<LeadThere>('leadThere', { required: true })
const selected = useSelectionStore()
const matchPane = useMatchPaneStore()
const pane = ref<HTMLElement>()
/** Another form is another two hundred parts: it comes when the rail has followed the hand. */
const isMany = useAfterPaint(() => selected.isMany)

const MODES: { value: PaneMode, says: string }[] = [
  { value: 'findings', says: 'Findings' }, { value: 'change', says: 'Change' }, { value: 'check', says: 'Read' }, { value: 'trace', says: 'Trace' },
]
const KEYS: Record<PaneMode, string> = { findings: 'f', change: 'e', check: 'r', trace: 't' }
/** In a narrow window a mode that is asked for draws the sheet up. */
function show(mode: PaneMode): void {
  matchPane.drawn = 'up'
  emit('mode', mode)
}
// What is said of another thing, or in another way, is read from its beginning.
watch([() => selected.selection, () => matchPane.mode], () => { if (pane.value) pane.value.scrollTop = 0 }, { flush: 'post' })
</script>

<template>
  <aside ref="pane" class="pane" :class="`is-${matchPane.drawn}`" aria-label="About the selection">
    <template v-if="selected.line">
      <div class="head">
        <p class="subject">
          <GradeTag :grade="selected.line.grade" :words="plannedWords(selected.line.grade, selected.proof?.wrong ?? 0)" />
          <GradeTag v-if="(selected.proof?.wrong ?? 0) > 0" grade="stop" words="Reads wrong" />
          <span v-if="selected.isMany" class="about"><b>{{ selected.ids.length }} speakers</b> chosen</span>
          <span v-else class="about"><b>{{ `${selected.line.output.label} ${selected.line.output.name}`.trim() }}</b><template v-if="selected.speaker">,
            speaker {{ selected.speaker.label }}</template><template v-else-if="selected.throughGroup">,
            {{ selected.throughGroup.through.kind }} {{ selected.throughGroup.through.label }}</template></span>
        </p>
        <span class="narrow">
          <button class="act" type="button" :aria-expanded="matchPane.drawn === 'up'" @click="matchPane.drawn = matchPane.drawn === 'up' ? 'head' : 'up'">
            {{ matchPane.drawn === 'up' ? 'lower' : 'open' }}</button>
          <button class="act" type="button" aria-label="put this away" @click="matchPane.drawn = 'away'">✕</button>
        </span>
      </div>
      <ActionRow class="narrow" :actions="actions" :target="target" @more="emit('more', $event)" />
      <TabRow v-if="!selected.isMany" class="modes" label="About the selection" :tabs="MODES" :value="matchPane.mode" @choose="show">
        <template #default="{ tab }">{{ tab.says }} <KeyCap :of="KEYS[tab.value]" /></template>
      </TabRow>
      <div class="body">
        <MovePicker v-if="moving" v-model:lead-there="leadThere" @move="to => emit('move', to)" @move-to-new="emit('moveToNew')" @close="emit('leave')" />
        <PutPicker
          v-else-if="putting" :kind="putting.kind" :reaches="putting.reaches" @put="nodeIds => emit('put', putting!.kind, nodeIds)" @close="emit('leave')" />
        <ManyForm
          v-else-if="isMany" @make-kind="emit('makeKind')" @choose="emit('choose', $event)" @new-output="emit('newOutput', $event)" />
        <FindingsPane v-else-if="matchPane.mode === 'findings'" />
        <template v-else-if="matchPane.mode === 'change'">
          <SpeakerForm
            v-if="selected.speaker" :key="selected.speaker.id" :speaker="selected.speaker"
            @choose="emit('choose', $event)" @make-kind="emit('makeKind')" @new-output="emit('newOutput', $event)" />
          <ThroughForm
            v-else-if="selected.throughGroup" :key="selected.throughGroup.group.id" :group="selected.throughGroup.group"
            :through="selected.throughGroup.through" />
          <OutputForm v-else :key="selected.line.outputId" :output="selected.line.output" @cable-list="emit('cableList')" />
        </template>
        <ReadingPanel
          v-else-if="matchPane.mode === 'check'" v-model:kind="kind" :output="selected.line.output" :speaker="selected.speaker"
          @trace="emit('mode', 'trace')" />
        <SuspectsPanel v-else @again="emit('again')" />
      </div>
    </template>
    <p v-else class="soft">Choose a rail or a speaker with the arrow keys, or press it. What is said about it stands here.</p>
  </aside>
</template>

<style scoped>
.pane { background: var(--paper-raised); border-left: 1px solid var(--rule); padding: 16px 20px 30px; overflow-y: auto; display: grid; gap: 14px;
  align-content: start; }
.head { display: flex; gap: 10px; justify-content: space-between; align-items: baseline; }
.subject { display: flex; flex-wrap: wrap; gap: 4px 10px; align-items: baseline; }
.narrow { display: none; }
.body { display: grid; gap: 14px; min-width: 0; }
.modes :deep(.tabs) { gap: 0 14px; justify-content: space-between; flex-wrap: nowrap; }
.modes :deep(.tab) { font-size: 15px; }
/* Narrow: a sheet over the foot of the rails, its head alone or drawn up. */
@media (max-width: 1000px) {
  .pane { position: fixed; z-index: 7; left: 0; right: 0; bottom: 0; max-height: 64vh; border-left: 0; border-top: 2px solid var(--ink);
    padding: 6px 14px 12px; gap: 8px; }
  .pane.is-away { display: none; }
  .pane.is-head .modes :deep(.tabs) { border-bottom: 0; }
  .pane.is-head .body { display: none; }
  .narrow { display: flex; flex: none; }
  span.narrow { gap: 10px; }
  .narrow .act { padding: 0 6px; color: var(--ink); }
  span.narrow .act { justify-content: center; }
  .modes :deep(.keycap) { display: none; }
}
</style>
