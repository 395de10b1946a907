<script setup lang="ts">
import { useJobStore } from '~/stores/job'

/** What the server did not take, with what the person can do about it: in the page, above what it is about, and never over it. */
const store = useJobStore()
/** Refusals that the person can get over: by doing it on top of what stands there, once the job is brought back, or once more. */
const DOABLE = new Set(['changed-meanwhile', 'archived', 'id-taken'])
</script>

<template>
  <div v-if="store.refused.length > 0" class="notices" role="alert">
    <div v-for="refusal in store.refused" :key="refusal.stamped.id" class="notice">
      <p>
        <strong>Not done.</strong> {{ refusal.message }}
      </p>
      <span class="choices">
        <button
          v-if="refusal.code !== null && DOABLE.has(refusal.code)" class="act" type="button" @click="store.force(refusal.stamped.id)">do mine anyway</button>
        <button class="act" type="button" @click="store.dismiss(refusal.stamped.id)">leave it so</button>
      </span>
    </div>
  </div>
</template>

<style scoped>
.notices { display: grid; gap: 6px; padding: 8px 22px; }
.notice { background: var(--paper-raised); border: 1.5px solid var(--stop); padding: 8px 14px; display: flex; gap: 4px 16px; justify-content: space-between;
  align-items: baseline; flex-wrap: wrap; }
.choices { display: flex; gap: 16px; }
.choices .act { color: var(--ink); text-decoration: underline; }
@media (max-width: 760px) { .notices { padding: 6px 8px; } }
</style>
