<script setup lang="ts">
import { ref } from 'vue'

/** `says`: how the job stands; `kept`: what is on the server and what is not, which is always in sight. */
defineProps<{ title: string, says?: string, kept?: string }>()
/** In a narrow window all but what is wanted at any time stands in a menu. */
const open = ref(false)

function leave(event: FocusEvent): void {
  if (!(event.currentTarget as HTMLElement).contains(event.relatedTarget as Node | null)) open.value = false
}
</script>

<template>
  <header class="head">
    <NuxtLink to="/" class="brand" aria-label="Plain Match, all jobs">plain<b>match</b></NuxtLink>
    <h1 class="title" :title="title">
      {{ title }}
    </h1>
    <p v-if="says || kept" class="line soft small">
      <span class="says" :title="says">{{ says }}</span><span v-if="kept" class="kept">{{ says ? ' · ' : '' }}{{ kept }}</span>
    </p>
    <nav class="actions" aria-label="Actions">
      <slot name="first" />
      <span class="rest" @focusout="leave" @keydown.esc="open = false">
        <button class="act menu" type="button" :aria-expanded="open" @click="open = !open">menu</button>
        <span class="items" :class="{ open }" @click="open = false"><slot /></span>
      </span>
    </nav>
  </header>
</template>

<style scoped>
.head { display: flex; align-items: center; gap: 18px; min-height: 50px; padding: 0 22px; border-bottom: 1px solid var(--rule); position: relative; }
.brand { font-weight: 700; text-decoration: none; font-size: 17px; flex: none; }
.brand b { color: var(--copper); }
/* What is kept and what is not is always in sight: a long name gives way first, then how the job stands. */
.title { white-space: nowrap; overflow: hidden; text-overflow: ellipsis; min-width: 60px; flex: 0 9 auto; }
.line { flex: 1 1 auto; min-width: min(200px, 30%); display: flex; white-space: nowrap; }
.says { overflow: hidden; text-overflow: ellipsis; min-width: 0; flex: 0 1 auto; }
.kept { flex: 0 1 auto; white-space: pre; overflow: hidden; text-overflow: ellipsis; }
.says { flex-shrink: 99; }
.actions, .items { display: flex; gap: 16px; flex: none; }
.actions { margin-left: auto; }
.menu { display: none; }
@media (max-width: 1100px) {
  .menu { display: inline-flex; }
  .items { display: none; }
  .items.open { display: grid; gap: 0; position: absolute; z-index: 12; right: 8px; top: 100%; background: var(--paper);
    border: 1.5px solid var(--ink); padding: 4px 14px; min-width: 180px; }
  .items :deep(.act) { min-height: 44px; color: var(--ink); }
  .actions :deep(.keycap) { display: none; }
}
@media (max-width: 760px) {
  .head { padding: 0 14px; gap: 0 12px; flex-wrap: wrap; min-height: 44px; }
  .title { flex: 1 1 0; font-size: 16px; }
  .line { flex: 1 1 100%; min-width: 0; order: 3; font-size: 13px; line-height: 1.3; padding-bottom: 3px; }
  .kept { white-space: pre-wrap; overflow: visible; }
  .actions { gap: 11px; }
  .actions :deep(.act) { min-height: 44px; }
}
</style>
