<script setup lang="ts">
defineProps<{ title: string, says?: string }>()
</script>

<template>
  <header class="head">
    <NuxtLink to="/" class="brand" aria-label="Plain Match, all jobs">plain<b>match</b></NuxtLink>
    <h1 class="title" :title="title">
      {{ title }}
    </h1>
    <p v-if="says" class="says soft small" :title="says">
      {{ says }}
    </p>
    <nav class="actions" aria-label="Actions">
      <slot />
    </nav>
  </header>
</template>

<style scoped>
.head { display: flex; align-items: center; gap: 18px; min-height: 50px; padding: 0 22px; border-bottom: 1px solid var(--rule); }
.brand { font-weight: 700; text-decoration: none; font-size: 17px; flex: none; }
.brand b { color: var(--copper); }
/* What is kept and what is not is always in sight: a long name gives way first. */
.title { white-space: nowrap; overflow: hidden; text-overflow: ellipsis; min-width: 60px; flex: 0 9 auto; }
.says { flex: 1 1 auto; min-width: min(260px, 30%); white-space: nowrap; overflow: hidden; text-overflow: ellipsis; }
.actions { margin-left: auto; display: flex; gap: 16px; flex: none; }
@media (max-width: 760px) {
  .head { padding: 3px 14px; gap: 0 12px; flex-wrap: wrap; min-height: 44px; }
  .title { flex: 1 1 0; font-size: 16px; }
  .says { flex-basis: 100%; min-width: 0; order: 3; font-size: 13px; line-height: 1.3; }
  .actions { gap: 13px; }
  .actions :deep(.desk) { display: none; }
  .actions :deep(.keycap) { display: none; }
}
</style>
