<script setup lang="ts">
import { useJobStore } from '~/stores/job'

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
  <span class="hidden-label" role="status">{{ store.said }}</span>
</template>

<style scoped>
.notices { position: fixed; left: 50%; bottom: 46px; translate: -50%; z-index: 20; width: min(680px, 94vw); display: grid; gap: 6px; }
.notice { background: var(--paper-raised); border: 1.5px solid var(--stop); padding: 10px 14px; display: flex; gap: 16px; justify-content: space-between;
  align-items: baseline; flex-wrap: wrap; }
.choices { display: flex; gap: 16px; }
.choices .act { color: var(--ink); text-decoration: underline; }
</style>
