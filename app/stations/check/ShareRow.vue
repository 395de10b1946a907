<script setup lang="ts">
import { computed } from 'vue'
import { MOST_NAME } from '#core/door/door'
import type { SharedRoom } from '#core/check/sharing'
import type { Sharer } from '#core/job/sections/shares/schema'
import { me, whoHere } from '~/door/me'
import { useDoorStore } from '~/stores/door'
import { useHereStore } from '~/stores/here'
import { useJobStore } from '~/stores/job'

/** Who walks this room: taken, given to another who is here, given back. Whoever goes on by himself stays in his own rooms while they have something open. */
const { room } = defineProps<{ room: SharedRoom }>()
const store = useJobStore()
const door = useDoorStore()
const here = useHereStore()

const mine = computed((): Sharer => ({ who: whoHere(), name: me.value?.name ?? 'the desk' }))
const sharer = computed(() => room.share && { who: room.share.who, name: room.share.name })
/** Others who have the job open; each once. */
const others = computed(() => [...new Set(here.others.map(o => o.who))].filter(who => who !== mine.value.who && who !== room.share?.who)
  .map((who): Sharer => ({ who, name: door.nameOf(who).slice(0, MOST_NAME) })))
function give(to: Sharer | null): void {
  const says = to === null ? `${room.name} is nobody’s in particular` : to.who === mine.value.who ? `${room.name} is yours` : `${room.name} goes to ${to.name}`
  if (store.edit({ kind: 'share.set', roomId: room.id, was: { sharer: sharer.value }, to: { sharer: to } })) store.say(says)
}
</script>

<template>
  <p class="share small">
    <span>{{ room.share === null ? 'Nobody in particular walks here.' : room.isMine ? 'You walk here.' : `${room.share.name} walks here.` }}</span>
    <button v-if="!room.isMine" class="act" type="button" @click="give(mine)">I walk here</button>
    <button v-for="other in others" :key="other.who ?? ''" class="act" type="button" @click="give(other)">give it to {{ other.name }}</button>
    <button v-if="room.share !== null" class="act" type="button" @click="give(null)">give it back</button>
  </p>
</template>

<style scoped>
.share { display: flex; flex-wrap: wrap; gap: 2px 18px; align-items: center; color: var(--ink-soft); }
@media (pointer: coarse), (max-width: 760px) { .act { min-height: 44px; } }
</style>
