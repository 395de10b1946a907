<script setup lang="ts">
import SetAside from '~/components/shell/SetAside.vue'
import { useAttempt } from '~/composables/useAttempt'
import { useGearChangesStore } from '~/stores/gearChanges'
import ProgressBar from 'primevue/progressbar'

/** What was done to the library and waits on this device, was not taken, or cannot be read. Nothing of it goes without the person's word. */
const changes = useGearChangesStore()
const { problem, attempt } = useAttempt()
</script>

<template>
  <section
    v-if="(changes.isAway && changes.waiting.length > 0) || changes.refused.length + changes.unreadable.length > 0 || changes.sentPart !== null"
    class="waiting" aria-label="Changes of the library kept on this device">
    <p v-if="changes.isAway && changes.waiting.length > 0" role="status">
      <b>{{ changes.waiting.length === 1 ? '1 change of the library waits' : `${changes.waiting.length} changes of the library wait` }} on this device.</b>
      <span class="soft">The server is away; {{ changes.waiting.length === 1 ? 'it is' : 'they are' }} sent when it is back.</span>
      <button class="act" type="button" @click="changes.tryAgain">try now</button>
    </p>
    <div v-else-if="changes.sentPart !== null" role="status">
      <b>{{ changes.waiting[0]?.says }}:</b>
      <ProgressBar
        class="bar" aria-label="How far it has come" :mode="changes.sentPart < 1 ? 'determinate' : 'indeterminate'" :value="100 * changes.sentPart"
        :show-value="false" />
      <span class="soft">{{ changes.sentPart < 1 ? 'on its way to the server' : 'being written; all of it or nothing' }}</span>
    </div>
    <p v-for="kept in changes.refused" :key="kept.id" role="alert">
      <b>Not done in the library: {{ kept.says }}.</b> <span class="soft">{{ kept.refused?.message }}</span>
      <button
        v-if="kept.act.do === 'set' && kept.refused?.code === 'changed-meanwhile'" class="act" type="button"
        @click="attempt(() => changes.force(kept))">do mine anyway</button>
      <button class="act" type="button" @click="changes.dismiss(kept.id)">leave it so</button>
    </p>
    <p v-if="problem" class="error-words" role="alert">{{ problem }}</p>
    <SetAside v-for="item in changes.unreadable" :key="item.key" :text="item.text" file="kept-change.json" @throw-away="changes.throwAway(item.key)" />
  </section>
</template>

<style scoped>
.waiting { border: 1.5px solid var(--ink); background: var(--paper-raised); padding: 9px 14px; display: grid; gap: 6px; }
.waiting :deep(:is(p, div[role=status])) { display: flex; flex-wrap: wrap; gap: 2px 14px; align-items: baseline; }
.waiting :deep(.act) { text-decoration: underline; color: var(--ink); }
.waiting :deep(.soft) { overflow-wrap: anywhere; min-width: 0; }
.bar { width: 160px; align-self: center; }
</style>
