<script setup lang="ts">
import { useTemplateRef, watch } from 'vue'
import { spaceGrade } from '#core/advice/spaceWords'
import GradeTag from '~/components/GradeTag.vue'
import KeyCap from '~/components/KeyCap.vue'
import TabRow from '~/components/form/TabRow.vue'
import SpaceSays from './SpaceSays.vue'
import { SpaceForm } from './parts'
import { useSpaceStore, type SpaceMode } from './spaceStore'
import type { useSpaceActions } from './useSpaceActions'

/** What is said of a space and can be set of it. */
const { actions } = defineProps<{ actions: ReturnType<typeof useSpaceActions> }>()
const emit = defineEmits<{ draw: [], remove: [] }>()
const at = useSpaceStore()
const pane = useTemplateRef<HTMLElement>('pane')
watch([() => at.kept?.id, () => at.mode], () => { if (pane.value) pane.value.scrollTop = 0 }, { flush: 'post' })

const MODES: { value: SpaceMode, says: string }[] = [{ value: 'level', says: 'Level' }, { value: 'change', says: 'Change' }]
const KEYS: Record<SpaceMode, string> = { level: 'f', change: 'e' }
const GRADES = { good: 'Loud enough', tight: 'Too quiet', unknown: 'Not known' } as const
</script>

<template>
  <aside ref="pane" aria-label="About the space">
    <template v-if="at.kept && at.facts">
      <p class="subject"><GradeTag :grade="spaceGrade(at.facts)" :words="GRADES[spaceGrade(at.facts)]" />
        <span><b>{{ at.kept.name }}</b><template
          v-if="at.chosen.size > 0">, {{ at.chosen.size === 1 ? 'a place' : `${at.chosen.size} places` }}</template></span></p>
      <TabRow label="About the space" :tabs="MODES" :value="at.mode" @choose="at.mode = $event">
        <template #default="{ tab }">{{ tab.says }} <KeyCap :of="KEYS[tab.value]" /></template>
      </TabRow>
      <SpaceSays
        v-if="at.mode === 'level'" :usual="actions.usualLine()" @lay-out="actions.lay()" @tap="actions.tapAll" @hang="actions.hang"
        @lengths="actions.lengthsAgain()" />
      <SpaceForm v-else :key="at.kept.id" @set="actions.set" @draw="emit('draw')" @remove="emit('remove')" />
    </template>
  </aside>
</template>

<style scoped>
.pane { grid-template-columns: minmax(0, 1fr); background: var(--paper-raised); border-left: 1px solid var(--rule); padding: 16px 20px 30px;
  overflow-y: auto; display: grid; gap: 14px; align-content: start; }
.subject { display: flex; flex-wrap: wrap; gap: 4px 10px; align-items: baseline; }
@media (max-width: 1000px) { .pane { border-left: 0; border-top: 1px solid var(--rule); padding: 12px 14px 20px; } }
</style>
