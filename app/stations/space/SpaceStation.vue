<script setup lang="ts">
import { countOf } from '#core/quantity/write'
import { computed, onBeforeUnmount, onMounted, ref, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from '#imports'
import Button from '~/components/form/laterButton'
import type { Place } from '#core/room/outline'
import { nudge } from '#core/hands/spaces'
import ActionRow from '~/components/ActionRow.vue'
import KeyCap from '~/components/KeyCap.vue'
import type { ActionTarget } from '~/composables/action'
import { useKeys } from '~/composables/useKeys'
import { useUnits } from '~/composables/useUnits'
import { useJobKeys } from '~/stations/useJobKeys'
import { useJobStore } from '~/stores/job'
import { spaceActions, SPACE_MOUSE_WORDS } from './keys'
import SpacePlan from './SpacePlan.vue'
import { planScale } from './floorPlan'
import { useSpaceActions } from './useSpaceActions'
import { useSpaceStore } from './spaceStore'
import { elementOf, focused } from '~/composables/elements'
import { NARROW, useMedia } from '~/composables/useMedia'
import FindBox from '~/components/shell/FindBox.vue'
import { KeysDialog } from '~/components/shell/opened'
import { ActionMenu, AmplifierDialog, FloorDialog, MeasureForm, SpacePane, TapPlanDialog, WhatIfDialog } from './parts'

const store = useJobStore()
const at = useSpaceStore()
const actions = useSpaceActions()
const { common, keysOpen, findOpen } = useJobKeys()
const { units, toggle } = useUnits()
const route = useRoute()
const router = useRouter()

if (typeof route.query.space === 'string') at.look(route.query.space)
watch(() => at.kept?.id, (id) => { if (id && route.query.space !== id) void router.replace({ query: { ...route.query, space: id } }) })

/** Spaces by their storeys, in the order of the job. */
const storeys = computed(() => {
  const byFloor = new Map<string, typeof at.spaces>()
  for (const space of at.spaces) byFloor.set(space.floor, [...byFloor.get(space.floor) ?? [], space])
  return [...byFloor].map(([floor, spaces]) => ({ floor, spaces }))
})

const room = useTemplateRef<HTMLElement>('room')
const isNarrow = useMedia(NARROW)
const size = ref({ width: 700, height: 480, below: false })
let observer: ResizeObserver | undefined
/** Room that the legend takes beside the plan, or below it. */
const BESIDE_PX = 168
const BELOW_PX = 84
const measure = () => {
  if (!room.value) return
  const [width, height] = [Math.floor(room.value.clientWidth) - 22, room.value.clientHeight - 12]
  if (isNarrow.value) return void (size.value = { width: Math.max(200, width + 18), height: 420, below: false })
  // What is said of it stands beside a deep floor, below a long one: wherever the plan comes out larger.
  const outline = at.kept?.outline ?? []
  const beside = { width: Math.max(240, width - BESIDE_PX), height: Math.max(240, height), below: false }
  const below = { width, height: Math.max(220, height - BELOW_PX), below: true }
  const scaleOf = (s: typeof below) => outline.length === 0 ? 0 : planScale(outline, s.width, s.height).pxPerM
  size.value = scaleOf(below) > scaleOf(beside) ? below : beside
}
watch(() => at.kept?.outline, measure)
onMounted(() => {
  observer = new ResizeObserver(measure)
})
watch(room, (element, before) => {
  if (before) observer?.unobserve(before)
  if (element) observer?.observe(element)
}, { flush: 'post' })
onBeforeUnmount(() => observer?.disconnect())

const tapsOpen = ref(false)
const amplifiersOpen = ref(false)
const whatIfOpen = ref(false)
const drawOpen = ref(false)
// Fetched after the plan: nobody asks for the menu before there is a place.
const menu = useTemplateRef<{ show: (event: Event) => void }>('menu')
const target = computed((): ActionTarget => at.chosen.size > 1 ? 'places' : at.chosen.size === 1 ? 'place' : 'space')
const bindings = [...spaceActions({
  addSpace: actions.add, otherSpace: actions.other, beside: actions.beside, all: actions.all, arrow: actions.arrow,
  addPlace: actions.addPlace, takeOff: actions.off,
  layOut: () => actions.lay(), turn: actions.turn, tap: actions.tap, hang: () => actions.hang(),
  planTaps: () => { tapsOpen.value = true },
  findAmplifiers: () => { amplifiersOpen.value = true },
  whatIf: () => { whatIfOpen.value = true },
  measure: actions.measure,
  show: (mode) => { at.mode = mode }, toSheet: actions.toSheet, drawFloor: () => { drawOpen.value = true }, leave: actions.leave,
}), ...common]
useKeys(() => bindings, () => target.value)

function choose(spotId: string, too: boolean): void {
  if (!too) return at.choose([spotId])
  const next = new Set(at.chosen)
  if (!next.delete(spotId)) next.add(spotId)
  at.choose([...next])
}
/** In a narrow window the same list has a field to look in. */
function showMore(event: Event): void {
  if (isNarrow.value) findOpen.value = true
  else menu.value?.show(event)
}
/** The menu is of what was pressed: of the places chosen where it was one of them. */
function askAt(event: MouseEvent, spotId: string | null): void {
  if (spotId === null) at.choose([])
  else if (!at.chosen.has(spotId)) at.choose([spotId])
  menu.value?.show(event)
}
function putCross(place: Place): void {
  at.choose([])
  at.cross = place
}
function moved(by: Place): void {
  if (at.kept && !store.edit(nudge(at.kept, [...at.chosen], by))) store.sayNot('That is beside the floor.')
}
/** The next space is looked at by its level: its own key for taking it away does not come to lie under the hand. */
function removeSpace(): void {
  const { kept } = at
  if (!kept || !store.edit({ kind: 'space.remove', spaceId: kept.id, was: kept })) return
  at.mode = 'level'
  store.say(`${kept.name} is removed${kept.spots.length > 0 ? `, and its ${countOf(kept.spots.length, 'place')}` : ''}; undo brings it back`)
}
function leavePane(event: KeyboardEvent): void {
  if (event.key === 'Escape' && !elementOf(event)?.closest('[role=listbox]')) focused()?.blur()
}
</script>

<template>
  <div>
    <main v-if="at.spaces.length === 0" class="empty" aria-label="Spaces">
      <p>No space drawn yet. Begin with the room: what it is for, its floor and its height say which speakers, how many, and how loud.</p>
      <Button label="Add a space" @click="actions.add()" />
      <p class="soft">A job without rooms is fine too: the <NuxtLink :to="`/jobs/${route.params.id}`">run sheet</NuxtLink> needs none.</p>
    </main>
    <template v-else>
      <nav class="spaces" aria-label="Spaces">
        <span v-for="storey in storeys" :key="storey.floor" class="storey">
          <span v-if="storey.floor" class="soft small floor">{{ storey.floor }}</span>
          <button
            v-for="s in storey.spaces" :key="s.id" type="button" class="space" :class="{ on: s.id === at.kept?.id }" :aria-current="s.id === at.kept?.id"
            @click="at.look(s.id)">{{ s.name }}</button>
        </span>
        <button class="act" type="button" @click="actions.add()">+ space <KeyCap of="A" /></button>
        <button
          class="act units" type="button" :title="units === 'metric' ? 'read in feet' : 'read in metres'"
          @click="toggle()">{{ units === 'metric' ? 'metres' : 'feet' }}</button>
      </nav>
      <div v-if="at.kept && at.facts" class="body">
        <main ref="room" class="room" :aria-label="at.kept.name">
          <SpacePlan v-bind="size" @choose="choose" @cross="putCross" @moved="moved" @menu="askAt" />
          <MeasureForm v-if="actions.isMeasuring.value" @done="actions.isMeasuring.value = false" />
        </main>
        <SpacePane class="pane" :actions="actions" @draw="drawOpen = true" @remove="removeSpace" @keydown="leavePane" />
      </div>
      <footer class="foot space-foot"><ActionRow class="grow" :actions="bindings" :target="target" @more="showMore" />
        <button class="act find" type="button" @click="findOpen = true">find <KeyCap of="/" /></button></footer>
    </template>
    <TapPlanDialog v-if="tapsOpen" v-model:open="tapsOpen" />
    <AmplifierDialog v-if="amplifiersOpen" v-model:open="amplifiersOpen" />
    <WhatIfDialog v-if="whatIfOpen" v-model:open="whatIfOpen" />
    <FloorDialog v-if="drawOpen && at.kept" v-model:open="drawOpen" :space="at.kept" @drawn="actions.set({ outline: $event })" />
    <ActionMenu ref="menu" :actions="bindings" :target="target" />
    <FindBox v-model:open="findOpen" :actions="bindings" :target="target" />
    <KeysDialog v-model:open="keysOpen" :bindings="bindings" :mouse="SPACE_MOUSE_WORDS" />
  </div>
</template>

<style scoped>
.empty { padding: 50px 30px; display: grid; gap: 14px; justify-items: start; max-width: 560px; }
.spaces { display: flex; flex-wrap: wrap; gap: 2px 18px; align-items: baseline; padding: 7px 22px 0; border-bottom: 1px solid var(--rule); }
.storey { display: flex; flex-wrap: wrap; gap: 0 14px; align-items: baseline; }
.floor::after { content: ':'; }
.space { border: 0; background: none; cursor: pointer; padding: 3px 0 5px; color: var(--ink-soft); border-bottom: 3px solid transparent; }
.space.on { color: var(--ink); font-weight: 700; border-bottom-color: var(--ink); }
.units { margin-left: auto; }
.body { display: grid; grid-template-columns: minmax(0, 1fr) 366px; height: calc(100vh - 50px - 51px - 40px - 41px); }
.room { padding: 8px 4px 4px 14px; overflow: hidden auto; position: relative; }
.grow { flex: 1; }
.foot { display: flex; align-items: center; gap: 4px 22px; height: 40px; border-top: 1px solid var(--rule); padding: 0 22px; font-size: 14px;
  color: var(--ink-soft); }
@media (max-width: 1000px) {
  .spaces { padding: 6px 12px 0; flex-wrap: nowrap; overflow-x: auto; white-space: nowrap; }
  .storey { flex-wrap: nowrap; }
  .storey, .space, .units { flex: none; }
  .body { grid-template-columns: minmax(0, 1fr); height: auto; }
  .room { overflow: visible; padding: 8px 4px; }
  /* One row that is drawn along by the thumb: two rows of it hid a sixth of a phone. */
  .foot { height: auto; padding: 6px 12px 10px; position: sticky; bottom: 0; background: var(--paper); overflow-x: auto; }
  .foot :deep(.action-row) { flex-wrap: nowrap; }
}
/* There “more” leads to the same field. */
@media (max-width: 1000px) { .find { display: none; } }
</style>

<style>
/* What is scrolled to stands above the row at the foot. */
@media (max-width: 1000px) { html:has(.space-foot) { scroll-padding-bottom: 76px; } }
</style>
