<script setup lang="ts">
import { ref } from 'vue'
import type { ReadingKind } from '#core/job/schema'
import ReadingPanel from '~/stations/check/ReadingPanel.vue'
import { plannedWords } from '#core/check/words'
import GradeTag from '~/components/GradeTag.vue'
import KeyCap from '~/components/KeyCap.vue'
import SuspectsPanel from '~/stations/trace/SuspectsPanel.vue'
import { useMatchPaneStore, type PaneMode } from '~/stations/match/pane'
import { useSelectionStore } from '~/stores/selection'
import FindingsPane from './FindingsPane.vue'
import MovePicker from './MovePicker.vue'
import OutputForm from './OutputForm.vue'
import SpeakerForm from './SpeakerForm.vue'

/** What is said and can be done about the selection. */
const { moving } = defineProps<{ moving: boolean }>()
const emit = defineEmits<{ mode: [mode: PaneMode], move: [outputId: string], leave: [], again: [] }>()
const kind = defineModel<ReadingKind>('kind', { required: true })
const selected = useSelectionStore()
const matchPane = useMatchPaneStore()
const pane = ref<HTMLElement>()

const MODES: { mode: PaneMode, says: string, key: string }[] = [
  { mode: 'findings', says: 'Findings', key: 'f' }, { mode: 'change', says: 'Change', key: 'e' }, { mode: 'check', says: 'Read', key: 'r' }, { mode: 'trace', says: 'Trace', key: 't' },
]
defineExpose({ pane })
</script>

<template>
  <aside ref="pane" class="pane" aria-label="About the selection">
    <template v-if="selected.line">
      <p class="subject">
        <GradeTag :grade="selected.line.grade" :words="plannedWords(selected.line.grade, selected.proof?.wrong ?? 0)" />
        <GradeTag v-if="(selected.proof?.wrong ?? 0) > 0" grade="stop" words="Reads wrong" />
        <span class="about"><b>{{ selected.line.output.label }} {{ selected.line.output.name }}</b><template v-if="selected.speaker">,
          speaker {{ selected.speaker.label }}</template></span>
      </p>
      <div role="tablist" aria-label="About the selection" class="modes">
        <button
          v-for="m in MODES" :key="m.mode" type="button" role="tab" class="mode" :class="{ on: matchPane.mode === m.mode }"
          :aria-selected="matchPane.mode === m.mode" @click="emit('mode', m.mode)">
          {{ m.says }} <KeyCap :of="m.key" />
        </button>
      </div>
      <MovePicker v-if="moving" @move="emit('move', $event)" @close="emit('leave')" />
      <FindingsPane v-else-if="matchPane.mode === 'findings'" />
      <template v-else-if="matchPane.mode === 'change'">
        <SpeakerForm v-if="selected.speaker" :key="selected.speaker.id" :speaker="selected.speaker" />
        <OutputForm v-else :key="selected.line.outputId" :output="selected.line.output" />
      </template>
      <ReadingPanel
v-else-if="matchPane.mode === 'check'" v-model:kind="kind" :output="selected.line.output" :speaker="selected.speaker"
        @trace="emit('mode', 'trace')"
        />
      <SuspectsPanel v-else @again="emit('again')" />
    </template>
    <p v-else class="soft">Choose a rail or a speaker with the arrow keys, or press it. What is said about it stands here.</p>
  </aside>
</template>

<style scoped>
.pane { background: var(--paper-raised); border-left: 1px solid var(--rule); padding: 16px 20px 30px; overflow-y: auto; display: grid; gap: 14px;
  align-content: start; }
.subject { display: flex; gap: 10px; align-items: baseline; }
.modes { display: flex; gap: 14px; border-bottom: 1px solid var(--rule); justify-content: space-between; }
.mode { border: 0; background: none; padding: 3px 0 6px; cursor: pointer; color: var(--ink-soft); border-bottom: 3px solid transparent; white-space: nowrap;
  font-size: 15px; }
.mode.on { color: var(--ink); font-weight: 700; border-bottom-color: var(--copper); }
</style>
