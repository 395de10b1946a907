<script setup lang="ts">
import { navigateTo } from '#imports'
import Button from 'primevue/button'
import { useJobStore } from '~/stores/job'

/** A job that is not here, or cannot be read: why, and the ways out. */
const store = useJobStore()
</script>

<template>
  <section class="state" role="alert">
    <h2>{{ store.status === 'missing' ? 'This job is not here.' : 'The job cannot be read just now.' }}</h2>
    <p>{{ store.problem }}</p>
    <div class="choices">
      <Button v-if="store.status === 'failed'" label="Try again" @click="store.tryAgain()" />
      <Button variant="outlined" label="All jobs" @click="navigateTo('/')" />
    </div>
  </section>
</template>

<style scoped>
.state { padding: 60px 22px; display: grid; gap: 14px; justify-items: start; max-width: 640px; }
.choices { display: flex; gap: 12px; }
</style>
