<script setup lang="ts">
import { computed } from 'vue'
import { navigateTo, useRoute } from '#imports'
import { DOOR_WORDS } from '#core/door/refusals'
import { atDoor, me } from './me'

/** The server does not let this device in: said on every page, with what happens to what is kept. */
const route = useRoute()
const isShown = computed(() => atDoor.value !== null && route.path !== '/let-in')
const words = computed(() => atDoor.value && DOOR_WORDS[atDoor.value])
</script>

<template>
  <p v-if="isShown" class="door-notice" role="alert">
    <b>{{ words }}</b> <template v-if="atDoor === 'taken-back'">What you did{{ me ? ` as “${me.name}”` : '' }} and was not sent stays here: it goes out when the
      device is let in again, or as a file from the list of jobs.</template>
    <button class="act" type="button" @click="navigateTo('/let-in')">let it in by a code</button>
  </p>
</template>

<style scoped>
.door-notice { padding: 8px 22px; border-bottom: 1.5px solid var(--stop); background: var(--paper-raised); }
.act { color: var(--ink); text-decoration: underline; }
</style>
