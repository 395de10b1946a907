<script setup lang="ts">
import { useJobsStore } from '~/stores/jobs'

const store = useJobsStore()
</script>

<template>
  <nav v-if="store.pages > 1" class="turner" aria-label="Pages of the list">
    <button class="act" type="button" :disabled="store.query.page === 0" @click="store.ask({ page: store.query.page - 1 })">earlier page</button>
    <span class="figure">{{ store.query.page + 1 }} of {{ store.pages }}</span>
    <button class="act" type="button" :disabled="store.query.page >= store.pages - 1" @click="store.ask({ page: store.query.page + 1 })">next page</button>
  </nav>
</template>

<style scoped>
.turner { display: flex; gap: 18px; padding: 14px 0; justify-content: center; align-items: baseline; }
</style>
