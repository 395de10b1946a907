<script setup lang="ts">
import { onBeforeUnmount, ref, watch } from 'vue'
import { useJobStore } from '~/stores/job'

const store = useJobStore()
/** Refusals that the person can get over: by doing it on top of what stands there, once the job is brought back, or once more. */
const DOABLE = new Set(['changed-meanwhile', 'archived', 'id-taken'])

/** What is said to a screen reader is shown to all, as long as it takes to read; then it is gone, so that the same can be said again. */
const shownMs = (said: string) => Math.max(4000, 70 * said.length)
const shown = ref(false)
let timer: ReturnType<typeof setTimeout> | undefined
watch(() => store.said, (said) => {
  shown.value = said !== ''
  clearTimeout(timer)
  timer = setTimeout(() => { store.said = '' }, shownMs(said))
})
onBeforeUnmount(() => clearTimeout(timer))
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
  <p class="said" :class="{ shown }" role="status">{{ store.said }}</p>
</template>

<style scoped>
.notices { position: fixed; left: 50%; bottom: 46px; translate: -50%; z-index: 20; width: min(680px, 94vw); display: grid; gap: 6px; }
.notice { background: var(--paper-raised); border: 1.5px solid var(--stop); padding: 10px 14px; display: flex; gap: 16px; justify-content: space-between;
  align-items: baseline; flex-wrap: wrap; }
.said { position: fixed; left: 22px; bottom: 52px; z-index: 19; max-width: min(520px, 80vw); padding: 7px 12px; background: var(--ink); color: var(--paper);
  font-size: 15px; pointer-events: none; opacity: 0; transition: opacity .15s; }
.said.shown { opacity: 1; }
.choices { display: flex; gap: 16px; }
.choices .act { color: var(--ink); text-decoration: underline; }
</style>
