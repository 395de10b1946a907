<script setup lang="ts">
import { computed, ref } from 'vue'
import type { JobMessage } from '~/stores/job'

/**
 * `says`: how the job stands; `kept`: what is on the server and what is not, which is always in sight; `message`: what was done last, or why it was not,
 * for a while. It lies over words of the header and of the stations: nothing is pressed there next.
 */
const { kept = '' } = defineProps<{ title: string, says?: string, kept?: string, message?: JobMessage | null }>()
/** In a narrow window all but what is wanted at any time stands in a menu. */
const open = ref(false)
/** Longer than beside the name on a phone: a row of its own. */
const isLong = computed(() => kept.length > 12)

function leave(event: FocusEvent): void {
  if (!(event.currentTarget as HTMLElement).contains(event.relatedTarget as Node | null)) open.value = false
}
</script>

<template>
  <header class="head" :class="{ long: isLong }">
    <NuxtLink to="/" class="brand" aria-label="plainmatch, all jobs"><span class="word">plain<b>match</b></span><svg
      class="mark" viewBox="0 0 32 32" width="30" height="30" aria-hidden="true">
      <path d="M2 9h28" class="wire" /><path d="M16 9v4M8 28V17l8-5 8 5v11z" class="house" /><circle cx="16" cy="18" r="1.6" class="house" />
    </svg></NuxtLink>
    <h1 class="title" :title="title">
      {{ title }}
    </h1>
    <p v-if="says || kept" class="line soft small">
      <span class="says" :title="says">{{ says }}</span><span v-if="kept" class="kept"><span class="dot">{{ says ? ' · ' : '' }}</span>{{ kept }}</span>
    </p>
    <nav class="actions" aria-label="Actions">
      <slot name="first" />
      <span class="rest" @focusout="leave" @keydown.esc="open = false">
        <button class="act menu" type="button" :aria-expanded="open" @click="open = !open">menu</button>
        <span class="items" :class="{ open }" @click="open = false"><slot /></span>
      </span>
    </nav>
    <p class="said" :class="{ shown: message && message.tone !== 'read', refusal: message?.tone === 'not-done' }" role="status">
      <b v-if="message?.tone === 'not-done'">Not done.</b> {{ message?.words ?? '' }}</p>
  </header>
</template>

<style scoped>
.head { display: flex; align-items: center; gap: 18px; min-height: 50px; padding: 0 22px; border-bottom: 1px solid var(--rule); position: relative;
  background: var(--paper); }
.brand { font-weight: 700; text-decoration: none; font-size: 17px; flex: none; display: inline-flex; align-items: center; min-height: 44px; }
.brand b { color: var(--copper); }
.mark { display: none; fill: none; stroke: var(--ink); stroke-width: 2; }
.mark .wire { stroke: var(--copper); stroke-width: 3; }
/* What is kept and what is not is always in sight: a long name gives way first, then how the job stands. */
.title { white-space: nowrap; overflow: hidden; text-overflow: ellipsis; min-width: 60px; flex: 0 9 auto; }
.line { flex: 1 1 auto; min-width: min(200px, 30%); display: flex; white-space: nowrap; }
.says { overflow: hidden; text-overflow: ellipsis; min-width: 0; flex: 0 1 auto; }
.kept { flex: 0 1 auto; white-space: pre; overflow: hidden; text-overflow: ellipsis; }
.says { flex-shrink: 99; }
.actions, .items { display: flex; gap: 16px; flex: none; }
.actions { margin-left: auto; }
.menu { display: none; }
.said { position: absolute; z-index: 19; left: 22px; top: calc(100% + 5px); max-width: min(760px, calc(100% - 44px)); padding: 8px 14px; background: var(--ink);
  color: var(--paper); font-size: 15px; pointer-events: none; opacity: 0; }
.said.shown { opacity: 1; }
.said.refusal { background: var(--paper-raised); color: var(--ink); outline: 2px solid var(--stop); }
.said b { color: var(--stop); }
@media (forced-colors: active) { .said { forced-color-adjust: none; background: Canvas; color: CanvasText; outline: 2px solid CanvasText; } }
@media (max-width: 1100px) {
  .menu { display: inline-flex; }
  .items { display: none; }
  .items.open { display: grid; gap: 0; position: absolute; z-index: 12; right: 8px; top: 100%; background: var(--paper);
    border: 1.5px solid var(--ink); padding: 4px 14px; min-width: 180px; max-height: calc(100dvh - 60px); overflow-y: auto; }
  .items :deep(.act) { min-height: 44px; color: var(--ink); }
  .actions :deep(.keycap) { display: none; }
}
/* A phone: the name, and under it what is kept; how the job stands is at its stations. */
@media (max-width: 760px), (max-height: 560px) and (max-width: 1000px) {
  .head { padding: 0 8px; gap: 0 6px; min-height: 48px; display: grid; grid-template-columns: 44px minmax(0, 1fr) auto; align-items: center; }
  .brand { justify-content: center; grid-row: 1 / 3; }
  .word { display: none; }
  .mark { display: block; }
  .title { font-size: 15.5px; line-height: 20px; grid-column: 2; align-self: end; }
  .title:nth-last-child(3) { grid-row: 1 / 3; align-self: center; }
  .line { grid-column: 2; min-width: 0; align-self: start; font-size: 13px; line-height: 16px; padding-bottom: 3px; }
  .says, .dot { display: none; }
  .kept { white-space: normal; overflow: visible; }
  .long .line { grid-column: 1 / -1; grid-row: 3; padding: 0 8px 4px; }
  .long .title { grid-row: 1 / 3; align-self: center; }
  .actions { gap: 2px; grid-row: 1 / 3; grid-column: 3; }
  .actions :deep(.act) { min-height: 44px; padding: 0 5px; justify-content: center; }
  .said { left: 8px; max-width: calc(100% - 16px); top: calc(100% + 2px); }
}
</style>
