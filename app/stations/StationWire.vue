<script setup lang="ts">
/** The order of the work as a wire with stations. */
interface Station { name: string, to: string | { path: string, query?: Record<string, string> }, says: string, here: boolean, done: boolean }
defineProps<{ stations: Station[] }>()
</script>

<template>
  <nav class="stations" aria-label="Stations of the work">
    <NuxtLink
      v-for="station in stations" :key="station.name" :to="station.to" class="station" :class="{ here: station.here, done: station.done }"
      :aria-current="station.here ? 'page' : undefined">
      <span class="knot" aria-hidden="true" />
      <span class="name">{{ station.name }}</span>
      <span class="says soft">{{ station.says }}</span>
    </NuxtLink>
  </nav>
</template>

<style scoped>
.stations { display: grid; grid-auto-flow: column; grid-auto-columns: 1fr; position: relative; border-bottom: 1px solid var(--rule); padding: 0 22px; }
.stations::before { content: ''; position: absolute; left: 22px; right: 22px; top: 15px; height: 3px; background: var(--copper-pale); }
.station { position: relative; display: grid; grid-template-columns: auto auto; gap: 0 12px; justify-content: center; padding: 26px 6px 3px;
  text-decoration: none; font-size: 15px; }
.knot { position: absolute; top: 10px; left: 50%; width: 13px; height: 13px; translate: -50%; border-radius: 50%; border: 2px solid var(--copper);
  background: var(--paper); }
.done .knot { background: var(--copper); }
.here .knot { background: var(--copper); outline: 4px solid var(--copper); outline-offset: -3px; }
.here .name { font-weight: 700; }
.says { white-space: nowrap; overflow: hidden; text-overflow: ellipsis; }
/* Beside its name a state was cut here. */
@media (max-width: 1000px) {
  .station { grid-template-columns: minmax(0, auto); justify-items: center; }
}
@media (max-width: 760px), (max-height: 560px) and (max-width: 1000px) {
  .stations { padding: 0 8px; }
  .stations::before { top: 9px; }
  .knot { top: 4px; }
  .station { grid-template-columns: auto; justify-items: center; padding: 20px 4px 3px; font-size: 14px; min-height: 44px; }
  .says { display: none; }
}
</style>
