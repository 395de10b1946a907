<script setup lang="ts" generic="V extends string, T extends { value: V, says: string }">
import Tab from 'primevue/tab'
import TabList from 'primevue/tablist'
import Tabs from 'primevue/tabs'

/** Faces of one thing side by side: the library's tabs (arrows go along them, Enter chooses), in our dress. One that is chosen already is told, too. */
const { label, tabs, value } = defineProps<{ label: string, tabs: readonly T[], value: V | null }>()
const emit = defineEmits<{ choose: [value: V] }>()

// What it names to be controlled by a tab are panels of the library's own, which are not used here; a line that slides under the chosen one neither.
const LIST = { tabList: { 'class': 'tabs', 'aria-label': label }, activeBar: { style: { display: 'none' } } }
const TAB = { root: { 'aria-controls': undefined } }
</script>

<template>
  <Tabs :value="value ?? ''" unstyled>
    <TabList unstyled :pt="LIST">
      <Tab
        v-for="tab in tabs" :key="tab.value" unstyled :value="tab.value" :pt="TAB" class="tab" :class="{ on: tab.value === value }"
        @click="emit('choose', tab.value)"><slot :tab="tab">{{ tab.says }}</slot></Tab>
    </TabList>
  </Tabs>
</template>

<style>
.tabs { display: flex; flex-wrap: wrap; gap: 0 18px; border-bottom: 1px solid var(--rule); }
.tab { border: 0; background: none; padding: 3px 0 6px; cursor: pointer; color: var(--ink-soft); min-width: 24px;
  border-bottom: 3px solid transparent; white-space: nowrap; }
.tab.on { color: var(--ink); font-weight: 700; border-bottom-color: var(--ink); }
</style>
