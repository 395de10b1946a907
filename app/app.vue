<script setup lang="ts">
import { onMounted, watch } from 'vue'
import { navigateTo, preloadRouteComponents, useRouter } from '#imports'
import { STATIONS } from '~/stations'
import { addressOf } from '~/stations/station'
import { fetchAllBehind, fetchedLater, isPartMissing } from '~/composables/fetchedLater'
import { beginOffline, takeNewer } from '~/composables/offline'
import { atDoor, me } from '~/door/me'
import { useTheme } from '~/composables/useTheme'

/** Pages are fetched before they are wanted: between them one must be able to go while the server is away. */
const PAGES = ['/', '/quick', ...STATIONS.map(station => addressOf('any', station)), '/jobs/any/paper', '/gear', '/gear/any', '/gear/in', '/bench', '/bench/any', '/practice', '/practice/any', '/practice/own', '/let-in']

/** Said on every page where the server does not let this device in. */
const DoorNotice = fetchedLater(() => import('~/door/DoorNotice.vue'))

useTheme().begin()
// Who comes for the first time has nothing here to be kept from: to the door at once.
watch(atDoor, (why) => { if (why === 'not-let-in' && me.value === null) void navigateTo('/let-in') })
// A page was asked for that had not been fetched, and the server is away or newer. Loading the whole anew would show the browser’s own error page.
useRouter().onError(() => { isPartMissing.value = true })
onMounted(async () => {
  // At once: a second later the server may be away. From here on nothing is of the first page (benchmarks/firstLoad.ts).
  performance.mark('others')
  // What waits on this device, and what gear is made of, are not wanted for the first picture.
  void import('~/stores/outbox').then(({ useOutboxStore }) => useOutboxStore().begin())
  void import('~/stores/door').then(({ useDoorStore }) => useDoorStore().begin())
  void import('~/stores/gearChanges').then(({ useGearChangesStore }) => useGearChangesStore().begin())
  await fetchAllBehind(PAGES.map(page => () => preloadRouteComponents(page)))
  // From here on all can be done without the server.
  performance.mark('fetched')
  // Not while the first keys are pressed: what starts the page is a few megabytes.
  setTimeout(beginOffline, 4000)
})
</script>

<template>
  <p v-if="isPartMissing" class="page-missing" role="alert">
    That cannot be fetched: the server is away, or has a newer version. What you do is kept, and sent when it is back; if it is back already, read
    this page anew.
    <button class="act" type="button" @click="isPartMissing = false">all right</button>
  </p>
  <DoorNotice v-if="atDoor" />
  <p v-if="takeNewer" class="page-newer" role="status">A newer version is here. What waits to be sent stays.
    <button class="act" type="button" @click="takeNewer()">take it now</button>
    <button class="act" type="button" @click="takeNewer = null">later</button></p>
  <NuxtPage />
</template>

<style scoped>
.page-newer { padding: 6px 22px; border-bottom: 1px solid var(--rule-strong); background: var(--paper-raised); }
.page-missing { padding: 8px 22px; border-bottom: 1.5px solid var(--stop); background: var(--paper-raised); }
</style>
