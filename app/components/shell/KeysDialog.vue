<script setup lang="ts">
import { computed } from 'vue'
import Dialog from 'primevue/dialog'
import { ACTION_GROUPS, GROUP_WORDS, keysShown, type Action } from '~/composables/action'
import KeyCap from '~/components/KeyCap.vue'

/** All keys of a page, by what one is doing; what the mouse does besides. */
const { bindings, mouse = [], words = [] } = defineProps<{
  bindings: readonly Action[]
  mouse?: readonly (readonly [string, string])[]
  /** What a typed line understands, an example each. */
  words?: readonly (readonly [string, string])[]
}>()
const open = defineModel<boolean>('open', { required: true })
const groups = computed(() => ACTION_GROUPS.map(group => ({ says: GROUP_WORDS[group], actions: bindings.filter(b => b.group === group) }))
  .filter(g => g.actions.length > 0))
</script>

<template>
  <Dialog
    v-model:visible="open" modal header="Keys" :dismissable-mask="true" :pt="{ content: { 'tabindex': 0, 'role': 'region', 'aria-label': 'all keys' } }"
    :style="{ width: 'min(1080px, 96vw)' }">
    <div class="groups">
      <section v-for="group in groups" :key="group.says" class="group">
        <h3>{{ group.says }}</h3>
        <dl class="keys">
          <template v-for="action in group.actions" :key="action.keys.join()">
            <dt><KeyCap v-for="key in keysShown(action)" :key="key" :of="key" /></dt>
            <dd>{{ action.says }}</dd>
          </template>
        </dl>
      </section>
      <section v-if="words.length > 0" class="group words">
        <h3>What the line understands</h3>
        <dl class="said">
          <template v-for="[text, means] in words" :key="text">
            <dt class="figure">{{ text }}</dt>
            <dd>{{ means }}</dd>
          </template>
        </dl>
      </section>
      <section v-if="mouse.length > 0" class="group">
        <h3>With the mouse or a finger</h3>
        <dl class="keys mouse">
          <template v-for="[press, does] in mouse" :key="press">
            <dt><KeyCap :of="press" /></dt>
            <dd>{{ does }}</dd>
          </template>
        </dl>
      </section>
    </div>
  </Dialog>
</template>

<style scoped>
.said dt { padding-top: 4px; }
.said dd { margin: 0 0 2px 14px; color: var(--ink-soft); }
.groups { columns: 3 300px; column-gap: 30px; }
.group { break-inside: avoid; padding-bottom: 16px; }
.keys { display: grid; grid-template-columns: 112px 1fr; gap: 5px 12px; margin: 6px 0 0; }
dt { display: flex; flex-wrap: wrap; gap: 4px; align-items: flex-start; padding-top: 2px; }
dd { margin: 0; font-size: 15px; }
.mouse { grid-template-columns: 150px 1fr; }
</style>
