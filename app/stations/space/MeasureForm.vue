<script setup lang="ts">
import { newId } from '~/api/ids'
import TextEntry from '~/components/form/TextEntry.vue'
import { within } from '~/components/form/readers'
import { useJobStore } from '~/stores/job'
import { nextInstant } from '~/stores/instant'
import { useSpaceStore } from './spaceStore'

/** A level that was measured at the cross, typed in over the plan. */
const emit = defineEmits<{ done: [] }>()
const store = useJobStore()
const at = useSpaceStore()
const dB = within(0, 150, 'A level', ' dB')

function note(db: number): void {
  emit('done')
  if (!at.kept || !at.cross) return
  const measured = { id: newId(), ...at.cross, db, at: new Date(nextInstant()).toISOString(), note: '' }
  store.edit({ kind: 'measured.add', spaceId: at.kept.id, index: at.kept.measured.length, measured })
}
</script>

<template>
  <form class="measure" @submit.prevent>
    <TextEntry label="Measured at the cross, with the system playing" text="" :read="dB" hint="71.5 dB" @commit="note" />
    <button class="act" type="button" @click="emit('done')">not now</button>
  </form>
</template>

<style scoped>
.measure { position: absolute; left: 60px; bottom: 50px; background: var(--paper-raised); border: 1.5px solid var(--ink); padding: 10px 14px; display: grid;
  gap: 6px; width: 300px; }
@media (max-width: 1000px) { .measure { position: static; width: auto; } }
</style>
