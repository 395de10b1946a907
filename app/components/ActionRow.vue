<script setup lang="ts">
import { computed } from 'vue'
import { actionsFor, keysShown, runAction, type Action, type ActionTarget } from '~/composables/action'
import KeyCap from '~/components/KeyCap.vue'

/** What can be done to the selection, in words; all of it behind “more”. */
const { actions, target, hasMenu = true } = defineProps<{ actions: readonly Action[], target: ActionTarget, hasMenu?: boolean }>()
const emit = defineEmits<{ more: [event: MouseEvent] }>()
const shown = computed(() => actionsFor(actions, target, true))
</script>

<template>
  <div class="action-row" role="toolbar" aria-label="What can be done to the selection">
    <span class="words">
      <button v-for="action in shown" :key="action.row" class="act" type="button" :title="action.says" @click="runAction(action)">
        {{ action.row }} <KeyCap :of="keysShown(action)[0]!" />
      </button>
    </span>
    <button v-if="hasMenu" class="act" type="button" aria-haspopup="menu" @click="emit('more', $event)">more</button>
  </div>
</template>

<style scoped>
.action-row { display: flex; gap: 0 15px; align-items: center; min-width: 0; }
/* What finds no room is not cut in half: it goes to a second line, which is not shown; “more” has all of it. */
.words { display: flex; flex-wrap: wrap; gap: 0 15px; height: 38px; overflow: clip; min-width: 0; }
.words .act { height: 38px; }
.act { gap: 5px; font-size: 14px; color: var(--ink); padding: 6px 1px; }
@media (max-width: 1350px) { .action-row :deep(.keycap) { display: none; } }
@media (max-width: 1000px) {
  /* One row, drawn along by the thumb: three of it took a third of a phone. All that can be done stays at its end. */
  .action-row { gap: 5px; }
  .words { flex: 1 1 auto; flex-wrap: nowrap; gap: 5px; height: auto; overflow: auto hidden; scrollbar-width: none; padding: 2px; }
  .words .act { height: auto; }
  .action-row > .act { flex: none; }
  .act { min-height: 44px; padding: 0 11px; border: 1px solid var(--rule); border-radius: 2px; background: var(--paper); font-size: 15px; }
}
</style>
