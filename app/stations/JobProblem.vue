<script setup lang="ts">
import { navigateTo } from '#imports'
import { useJobStore } from '~/stores/job'

/** A job that is not here, or cannot be read: why, and the ways out. Without the library's buttons: it is for when the server is away. */
const store = useJobStore()
</script>

<template>
  <section class="state" role="alert">
    <h2>{{ store.status === 'missing' ? 'This job is not here.' : 'The job cannot be read just now.' }}</h2>
    <p>{{ store.problem }}</p>
    <div class="choices">
      <button v-if="store.status === 'failed'" class="offer" type="button" @click="store.tryAgain()">Try again</button>
      <button class="offer" type="button" @click="navigateTo('/')">All jobs</button>
    </div>
  </section>
</template>

<style scoped>
.state { padding: 60px 22px; display: grid; gap: 14px; justify-items: start; max-width: 640px; }
.choices { display: flex; gap: 12px; }
</style>
