<script setup lang="ts">
import type { NuxtError } from '#app'
import { clearError } from '#imports'

const { error } = defineProps<{ error: NuxtError }>()
</script>

<template>
  <main class="lost">
    <h1>{{ error.statusCode === 404 ? 'There is no such page.' : 'Something went wrong on this page.' }}</h1>
    <p class="soft">
      {{ error.statusCode === 404 ? 'The address may be mistyped.' : 'Nothing of your jobs is lost. Going back to the jobs reads them anew.' }}
    </p>
    <button class="offer" type="button" @click="clearError({ redirect: '/' })">
      To the jobs
    </button>
  </main>
</template>

<style scoped>
.lost { max-width: 520px; margin: 12vh auto; padding: 0 20px; display: grid; gap: 14px; }
</style>
