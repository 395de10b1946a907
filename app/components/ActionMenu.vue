<script setup lang="ts">
import { computed, ref } from 'vue'
import ContextMenu from 'primevue/contextmenu'
import { actionsFor, GROUP_WORDS, keysShown, runAction, type Action, type ActionTarget } from '~/composables/action'
import KeyCap from '~/components/KeyCap.vue'

/** Everything that can be done to what was pressed, with its keys. */
const { actions, target } = defineProps<{ actions: readonly Action[], target: ActionTarget }>()
const menu = ref<InstanceType<typeof ContextMenu>>()

const items = computed(() => {
  const offered = actionsFor(actions, target)
  return [...new Set(offered.map(a => a.group))].flatMap((group, k) => [
    ...k > 0 ? [{ separator: true }] : [],
    ...offered.filter(a => a.group === group).map(action => ({ label: action.says, keys: keysShown(action).slice(0, 1), command: () => runAction(action) })),
  ])
})
const name = computed(() => `What can be done here: ${[...new Set(actionsFor(actions, target).map(a => GROUP_WORDS[a.group].toLowerCase()))].join(', ')}`)
defineExpose({ show: (event: Event) => menu.value?.show(event) })
</script>

<template>
  <ContextMenu ref="menu" :model="items" :aria-label="name">
    <template #item="{ item, props }">
      <a v-bind="props.action" class="entry"><span>{{ item.label }}</span> <KeyCap v-for="key in item.keys" :key="key" :of="key" /></a>
    </template>
  </ContextMenu>
</template>

<style scoped>
.entry { display: flex; justify-content: space-between; gap: 26px; align-items: center; }
</style>
