<script setup lang="ts">
import { computed, ref, useTemplateRef } from 'vue'
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import { InputError } from '#core/quantity/inputError'
import { areaM2, boxOf, type Place } from '#core/room/outline'
import { floorOfCorners } from '#core/room/sides'
import type { Space } from '#core/job/schema'
import { lengthIn, LENGTH_UNIT, writeArea, writeLength } from '#core/quantity/units'
import { useUnits } from '~/composables/useUnits'
import { GRID_COUNT, gridFor, gridOf, onGrid, pressed, RATIO, takenBack, wallLengths, type Drawn } from './floorDraw'

/** A floor drawn corner after corner on a grid, by mouse, thumb or arrow keys. */
const open = defineModel<boolean>('open', { required: true })
const { space } = defineProps<{ space: Space }>()
const emit = defineEmits<{ drawn: [outline: Place[]] }>()
const { units } = useUnits()

const box = boxOf(space.outline)
const size = ref(gridFor(box.lengthM, box.widthM, units.value))
const grid = computed(() => gridOf(size.value, units.value))
const drawn = ref<Drawn>({ corners: [], isClosed: false })
const pen = ref<Place>({ xM: 0, yM: 0 })
const isPenShown = ref(false)
const problem = ref('')
const svg = useTemplateRef<SVGSVGElement>('svg')

/** Units of the picture across it. */
const WIDTH = 800
const HEIGHT = WIDTH * RATIO
/** Room about the grid for corners and lengths that stand on its edge. */
const EDGE = 26
const px = computed(() => WIDTH / grid.value.spanM)
const lines = computed(() => {
  const count = Math.floor(grid.value.spanM / grid.value.stepM + 1e-9)
  return Array.from({ length: count + 1 }, (_, k) => ({ at: k * grid.value.stepM * px.value, isMain: k % 4 === 0 }))
})
const points = computed(() => drawn.value.corners.map(c => `${(c.xM * px.value).toFixed(1)},${(c.yM * px.value).toFixed(1)}`).join(' '))
const lengths = computed(() => wallLengths(drawn.value, isPenShown.value ? pen.value : null, units.value))
const penSays = computed(() => `${writeLength(pen.value.xM, units.value)} along, ${writeLength(pen.value.yM, units.value)} across`)
const floor = computed((): Place[] | null => {
  if (!drawn.value.isClosed) return null
  try {
    return floorOfCorners(drawn.value.corners)
  }
  catch (error) {
    if (error instanceof InputError) return null
    throw error
  }
})
const says = computed(() => {
  const { corners, isClosed } = drawn.value
  if (problem.value !== '') return problem.value
  if (corners.length === 0) return 'Press the first corner.'
  if (floor.value) return `${writeArea(areaM2(floor.value), units.value)} with ${floor.value.length} walls.`
  return isClosed ? '' : corners.length < 3 ? 'Press the next corner.' : 'Press the next corner; the first one closes the floor.'
})

function placeOf(event: MouseEvent): Place {
  const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.value!.getScreenCTM()!.inverse())
  return onGrid({ xM: x / px.value, yM: y / px.value }, grid.value)
}
function setCorner(place: Place): void {
  pen.value = place
  isPenShown.value = true
  drawn.value = pressed(drawn.value, place)
  problem.value = ''
  if (!drawn.value.isClosed) return
  try {
    floorOfCorners(drawn.value.corners)
  }
  catch (error) {
    if (!(error instanceof InputError)) throw error
    problem.value = `${error.message} Take a corner back.`
  }
}
function hover(event: MouseEvent): void {
  pen.value = placeOf(event)
  isPenShown.value = true
}
function back(): void {
  drawn.value = takenBack(drawn.value)
  problem.value = ''
}
function beginAgain(): void {
  drawn.value = { corners: [], isClosed: false }
  problem.value = ''
}
const ARROWS: Record<string, readonly [number, number]> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }
function key(event: KeyboardEvent): void {
  const arrow = ARROWS[event.key]
  if (arrow) {
    const step = grid.value.stepM * (event.shiftKey ? 4 : 1)
    pen.value = onGrid({ xM: pen.value.xM + arrow[0] * step, yM: pen.value.yM + arrow[1] * step }, grid.value)
    isPenShown.value = true
  }
  else if (event.key === 'Enter' && floor.value) take()
  else if (event.key === 'Enter' || event.key === ' ') setCorner(pen.value)
  else if (event.key === 'Backspace') back()
  else return
  event.preventDefault()
  event.stopPropagation()
}
function zoom(by: 1 | -1): void {
  size.value = Math.max(0, Math.min(GRID_COUNT - 1, size.value + by))
  pen.value = onGrid(pen.value, grid.value)
}
function take(): void {
  if (!floor.value) return
  emit('drawn', floor.value)
  open.value = false
}
</script>

<template>
  <Dialog v-model:visible="open" modal :header="`The floor of ${space.name}`" :style="{ width: 'min(880px, 96vw)' }">
    <div class="draw" data-form>
      <p class="soft small">Corner after corner on the grid. By keys: arrows (with ⇧ a square), Enter for a corner, Backspace takes one back.</p>
      <svg
        ref="svg" :viewBox="`-${EDGE} -${EDGE} ${WIDTH + 2 * EDGE} ${HEIGHT + 2 * EDGE}`" tabindex="0" autofocus role="application"
        :aria-label="`Grid, ${grid.says}. The pen is at ${penSays}.`"
        @click="setCorner(placeOf($event))" @mousemove="hover" @mouseleave="isPenShown = false" @keydown="key">
        <g class="grid" aria-hidden="true">
          <line v-for="l in lines" :key="`v${l.at}`" :x1="l.at" :x2="l.at" y1="0" :y2="HEIGHT" :class="{ main: l.isMain }" />
          <template v-for="l in lines" :key="`h${l.at}`">
            <line v-if="l.at <= HEIGHT + 0.5" :y1="l.at" :y2="l.at" x1="0" :x2="WIDTH" :class="{ main: l.isMain }" />
          </template>
        </g>
        <polygon v-if="drawn.isClosed" :points="points" class="floor" :class="{ wrong: !floor }" />
        <polyline v-else :points="points" class="walls" />
        <line
          v-if="!drawn.isClosed && isPenShown && drawn.corners.length > 0" class="next" :x1="drawn.corners.at(-1)!.xM * px"
          :y1="drawn.corners.at(-1)!.yM * px" :x2="pen.xM * px" :y2="pen.yM * px" />
        <circle
          v-for="(c, k) in drawn.corners" :key="k" :cx="c.xM * px" :cy="c.yM * px" :r="k === 0 && !drawn.isClosed ? 8 : 4.5" class="corner"
          :class="{ first: k === 0 && !drawn.isClosed }" />
        <text v-for="(l, k) in lengths" :key="`l${k}`" :x="l.xM * px" :y="l.yM * px - 5" class="length">{{ l.text }}</text>
        <path v-if="isPenShown" class="pen" :transform="`translate(${pen.xM * px} ${pen.yM * px})`" d="M-9 0 H9 M0 -9 V9" />
      </svg>
      <p class="foot"><span class="says" role="status" :class="{ 'error-words': problem }">{{ says }}</span>
        <span v-if="isPenShown && !floor" class="soft small figure">{{ lengthIn(pen.xM, units).toFixed(2) }}, {{
          lengthIn(pen.yM, units).toFixed(2) }} {{ LENGTH_UNIT[units] }}</span></p>
      <div class="acts">
        <Button label="Use this floor" :disabled="!floor" @click="take" />
        <button class="act" type="button" :disabled="drawn.corners.length === 0" @click="back">take a corner back</button>
        <button class="act" type="button" :disabled="drawn.corners.length === 0" @click="beginAgain">begin again</button>
        <span class="zoom"><span class="soft small">{{ grid.says }}</span>
          <button class="act" type="button" :disabled="size === 0" @click="zoom(-1)">smaller</button>
          <button class="act" type="button" :disabled="size === GRID_COUNT - 1" @click="zoom(1)">larger</button></span>
      </div>
    </div>
  </Dialog>
</template>

<style scoped>
.draw { display: grid; gap: 8px; }
/* The button below it stays in sight. */
svg { width: 100%; height: auto; max-height: max(240px, calc(100vh - 340px)); display: block;
  background: var(--paper-raised); border: 1px solid var(--rule-strong); cursor: crosshair;
  touch-action: pan-y; }
svg:focus-visible { outline: 2.5px solid var(--pen); outline-offset: 2px; }
.grid line { stroke: var(--rule); stroke-width: 0.6; }
.grid .main { stroke: var(--rule-strong); stroke-width: 0.8; }
.walls { fill: none; stroke: var(--ink); stroke-width: 2.4; }
.floor { fill: color-mix(in srgb, var(--pen) 14%, transparent); stroke: var(--ink); stroke-width: 2.4; }
.floor.wrong { fill: none; stroke-dasharray: 6 4; }
.next { stroke: var(--pen); stroke-width: 1.6; stroke-dasharray: 5 4; }
.corner { fill: var(--ink); }
.corner.first { fill: var(--paper); stroke: var(--copper); stroke-width: 3; }
.length { font-size: 15px; text-anchor: middle; paint-order: stroke; stroke: var(--paper-raised); stroke-width: 4px; }
.pen { stroke: var(--pen); stroke-width: 2; pointer-events: none; }
.foot { display: flex; justify-content: space-between; gap: 12px; min-height: 26px; }
.acts { display: flex; flex-wrap: wrap; gap: 8px 18px; align-items: center; }
.zoom { margin-left: auto; display: flex; flex-wrap: wrap; gap: 4px 12px; align-items: center; }
@media (max-width: 760px) { .zoom { margin-left: 0; } .length { font-size: 34px; stroke-width: 8px; } }
</style>
