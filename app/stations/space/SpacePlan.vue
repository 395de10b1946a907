<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, useTemplateRef, watch } from 'vue'
import type { D3DragEvent } from 'd3-drag'
import type { Spot } from '#core/job/schema'
import { sure } from '#core/quantity/known'
import { areaM2, boxOf, contains, type Place } from '#core/room/outline'
import { spaceGrade, wattsText } from '#core/advice/spaceWords'
import { writeArea, writeLength } from '#core/quantity/units'
import { dragging } from '~/composables/dragging'
import { useMenuPress } from '~/composables/useMenuPress'
import { useMedia } from '~/composables/useMedia'
import { useTheme } from '~/composables/useTheme'
import { useUnits } from '~/composables/useUnits'
import { walkOrder } from '#core/room/walls'
import { useEvaluationStore } from '~/stores/evaluation'
import { contourPath, EDGE, legendRows, planScale, rulerMarks, SHADE_MOST, shadeCells, shadeRange, snapped, TAG_ROOM, wayPath } from './floorPlan'
import { useSpaceStore } from './spaceStore'
import { elementOf } from '~/composables/elements'

/** A space from above, to scale: its level as a shade, its speakers as tags, the line along which it is as loud as it is to be. */
const { width, height, below } = defineProps<{ width: number, height: number, below: boolean }>()
const emit = defineEmits<{
  choose: [spotId: string, too: boolean]
  cross: [place: Place]
  moved: [by: Place]
  menu: [event: MouseEvent, spotId: string | null]
}>()
const at = useSpaceStore()
const evaluation = useEvaluationStore()
const space = computed(() => sure(at.space, 'space to draw'))
const kept = computed(() => sure(at.kept, 'space to draw'))
const { units } = useUnits()
const { night } = useTheme()
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
const svg = useTemplateRef<SVGSVGElement>('svg')

const box = computed(() => boxOf(space.value.outline))
/** A tag that would lie over its own arrow hangs the other way. */
const isUp = ({ aim }: Spot) => aim !== null && Math.sin(aim.turnDeg * Math.PI / 180) > 0.2
const scale = computed(() => planScale(space.value.outline, width, height, kept.value.spots.some(isUp) ? TAG_ROOM : EDGE.top))
const walls = computed(() => space.value.outline.map(p => `${scale.value.x(p.xM).toFixed(1)},${scale.value.y(p.yM).toFixed(1)}`).join(' '))
const wallsCss = computed(() => space.value.outline.map(p => `${scale.value.x(p.xM).toFixed(1)}px ${scale.value.y(p.yM).toFixed(1)}px`).join(', '))
/** The building's own plan, as large as its scale says. */
const picturePx = computed(() => {
  const { widthPx, heightPx, mPerPx } = space.value.picture ?? { widthPx: 0, heightPx: 0, mPerPx: 0 }
  return { width: widthPx * mPerPx * scale.value.pxPerM, height: heightPx * mPerPx * scale.value.pxPerM }
})
const along = computed(() => rulerMarks(box.value.lengthM, scale.value.pxPerM, units.value))
const across = computed(() => rulerMarks(box.value.widthM, scale.value.pxPerM, units.value))
const unit = computed(() => units.value === 'metric' ? 'm' : 'ft')

/** Tags shrink where they would hide each other: first their watts go, then their labels. */
const nearestPx = computed(() => {
  const spots = space.value.spots
  let nearest = Infinity
  for (const [k, a] of spots.entries()) for (const b of spots.slice(k + 1)) nearest = Math.min(nearest, Math.max(Math.abs(a.xM - b.xM), Math.abs(a.yM - b.yM)))
  return nearest * scale.value.pxPerM
})
const size = computed(() => nearestPx.value >= 46 ? 'full' : nearestPx.value >= 27 ? 'label' : 'dot')
const tags = computed(() => at.facts!.spots.map(({ spot, speaker, tapW, powerW }, k) => ({
  id: spot.id, x: scale.value.x(spot.xM), y: scale.value.y(spot.yM), label: speaker?.label ?? `${k + 1}`, hangs: speaker !== null, watts: wattsText(tapW),
  aim: spot.aim, up: isUp(spot), isChosen: at.chosen.has(spot.id),
  spoken: [`Place ${k + 1}`, speaker ? `speaker ${speaker.label}` : 'no speaker yet', tapW === null ? '' : `tap ${wattsText(tapW)}`, powerW === null ? '' : `gets ${powerW.toFixed(1)} W`,
    `${writeLength(spot.xM, units.value)} along, ${writeLength(spot.yM, units.value)} across`].filter(Boolean).join(', '),
})))
const circle = computed(() => at.facts?.circleM && nearestPx.value >= 20 ? at.facts.circleM / 2 * scale.value.pxPerM : null)

const image = computed(() => ({ cells: at.field!.cells, grid: at.grid }))
/** Where the picture of the cells lies: a cell is as large as its step. */
const laid = computed(() => {
  const { cells } = image.value
  const px = cells.stepM * scale.value.pxPerM
  return { left: `${scale.value.x(cells.from.xM) - px / 2}px`, top: `${scale.value.y(cells.from.yM) - px / 2}px`, width: `${cells.columns * px}px`, height: `${cells.rows * px}px` }
})
/** The slate of what is neither good nor bad, as light or dark as the theme has it, or the system whose colours are forced. */
const INK = { day: [62, 74, 92], night: [190, 202, 222] } as const
const isForced = useMedia('(forced-colors: active)')
const isSystemDark = useMedia('(prefers-color-scheme: dark)')
const shadeInk = computed(() => (isForced.value ? isSystemDark.value : night.value) ? INK.night : INK.day)
const range = computed(() => shadeRange(at.facts?.level ?? null, at.facts?.targetDb ?? null))
let pixels: ImageData | null = null
function shade(): void {
  const element = canvas.value
  const { cells, grid } = image.value
  if (!element) return
  if (element.width !== cells.columns || element.height !== cells.rows || !pixels) {
    element.width = cells.columns
    element.height = cells.rows
    pixels = new ImageData(cells.columns, cells.rows)
  }
  shadeCells(grid, { offsetDb: at.offsetDb, range: range.value, ink: shadeInk.value }, pixels.data)
  element.getContext('2d')!.putImageData(pixels, 0, 0)
}
watch([image, range, () => at.offsetDb, shadeInk], shade, { flush: 'post' })

/** Lines of equal level: as wanted, and 3 dB to either side. */
const lines = computed(() => at.grid.length === 0
  ? []
  : [0, -3, 3].map(off => ({ off, path: contourPath(at.field!.cells, at.grid, at.aboutDb + off - at.offsetDb, scale.value) })).filter(l => l.path !== ''))
const legend = computed(() => legendRows(range.value, at.aboutDb))
/** What is wanted lies beyond the shades: it is said how far. */
const beyond = computed(() => legend.value.some(row => row.isAbout) ? '' : `${Math.round(at.aboutDb)} dB wanted, ${at.aboutDb < range.value.fromDb ? 'below' : 'above'} all of this`)
const ink = computed(() => shadeInk.value.join(' '))

/** The way of the cable: line by line in the order of the rail for those that hang, in walking order for those that do not yet. */
const ways = computed(() => {
  const { entry, spots } = space.value
  const bySpeaker = new Map(spots.flatMap(s => s.nodeId === null ? [] : [[s.nodeId, s] as const]))
  const hung = evaluation.lines.map(line => line.speakers.flatMap(s => bySpeaker.get(s.id) ?? [])).filter(places => places.length > 0)
  const free = at.facts!.spots.filter(s => s.speaker === null).map(s => s.spot)
  const planned = free.length === 0 || at.held ? [] : [walkOrder(free, entry).map(k => free[k]!)]
  return [...hung, ...planned].map(places => wayPath(entry, places, scale.value))
})

/** What the level is under the mouse, else at the cross. */
const pointer = ref<Place | null>(null)
const read = computed(() => {
  const place = pointer.value ?? at.cross
  const db = place && contains(space.value.outline, place) ? at.levelAt(place) : null
  return place && contains(space.value.outline, place) ? { place, says: db === null ? 'level not known' : `${db.toFixed(1)} dB` } : null
})
/** The place whose tag, or the floor about it that a finger may press for it, this is. */
const spotOf = (element: Element | null | undefined): string | null =>
  element?.closest<SVGElement>('[data-spot]')?.dataset.spot ?? element?.closest<SVGElement>('[data-reach]')?.dataset.reach?.slice('spot-'.length) ?? null
function placeOf(event: MouseEvent): Place {
  const { left, top } = svg.value!.getBoundingClientRect()
  return scale.value.placeAt(event.clientX - left, event.clientY - top)
}
function pressFloor(event: MouseEvent): void {
  if (spotOf(elementOf(event))) return
  const place = placeOf(event)
  if (contains(space.value.outline, place)) emit('cross', snapped(place, units.value))
}

useMenuPress(svg, (event) => {
  emit('menu', event, spotOf(elementOf(event)))
  return true
})

type Dragged = D3DragEvent<SVGSVGElement, unknown, { x: number, y: number, spotId: string }>
const CLICK_PX = 4
onMounted(async () => {
  shade()
  const { drag, select } = await dragging()
  if (!svg.value) return
  const behaviour = drag<SVGSVGElement, unknown, { x: number, y: number, spotId: string }>()
    .clickDistance(CLICK_PX)
    .filter((event: MouseEvent) => !event.button && !event.ctrlKey && spotOf(elementOf(event)) !== null)
    .container(() => document.documentElement)
    .subject((event: Dragged) => {
      const { clientX: x, clientY: y, target } = event.sourceEvent as MouseEvent
      return { x: x ?? event.x, y: y ?? event.y, spotId: spotOf(target as Element)! }
    })
    .on('drag', ({ subject, x, y }: Dragged) => {
      if (!at.held && Math.hypot(x - subject.x, y - subject.y) < CLICK_PX) return
      if (!at.chosen.has(subject.spotId)) at.choose([subject.spotId])
      at.held = snapped({ xM: (x - subject.x) / scale.value.pxPerM, yM: (y - subject.y) / scale.value.pxPerM }, units.value)
    })
    .on('end', () => {
      const by = at.held
      at.held = null
      if (by) emit('moved', by)
    })
  select(svg.value).call(behaviour)
})
onBeforeUnmount(() => { at.held = null })
const spokenPlan = computed(() => {
  const f = at.facts!
  return `Plan of ${space.value.name}, ${writeLength(box.value.lengthM, units.value)} by ${writeLength(box.value.widthM, units.value)}, ${f.spots.length} places${f.level ? `, ${f.level.meanDb.toFixed(1)} dB on average` : ''}`
})
/** A small luggage tag, its point on the place. */
const outline = (w: number, h: number) => `M0 0 L${-w / 2} 6 V${h} H${w / 2} V6 Z`
</script>

<template>
  <div class="plan" :class="{ below }">
    <div class="drawing" :style="{ width: `${scale.width}px`, height: `${scale.height}px` }">
      <div class="clip" :style="{ clipPath: `polygon(${wallsCss})` }" aria-hidden="true"><canvas ref="canvas" class="shade" :style="laid" /></div>
      <svg
        ref="svg" :width="scale.width" :height="scale.height" role="group" :aria-label="spokenPlan" @mousemove="pointer = placeOf($event)"
        @mouseleave="pointer = null" @click="pressFloor">
        <clipPath id="sheet"><rect :width="scale.width" :height="scale.height" /></clipPath>
        <g v-if="space.picture" clip-path="url(#sheet)" aria-hidden="true">
          <image
            class="picture" :href="`/api/photos/${space.picture.hash}`" :width="picturePx.width" :height="picturePx.height"
            :x="-picturePx.width / 2" :y="-picturePx.height / 2" :opacity="space.picture.fade" preserveAspectRatio="none"
            :transform="`translate(${scale.x(space.picture.xM)} ${scale.y(space.picture.yM)}) rotate(${space.picture.turnDeg})`" />
        </g>
        <g class="ruler" aria-hidden="true">
          <g v-for="mark in along" :key="`x${mark.m}`" :transform="`translate(${scale.x(box.fromXM + mark.m)} ${scale.height - EDGE.bottom})`">
            <path d="M0 0 V6" /><text y="19">{{ mark.text }}</text>
          </g>
          <g v-for="mark in across" :key="`y${mark.m}`" :transform="`translate(${EDGE.left} ${scale.y(box.fromYM + mark.m)})`">
            <path d="M0 0 H-6" /><text x="-10" y="4" class="end">{{ mark.text }}</text>
          </g>
          <text class="end" :x="EDGE.left - 10" :y="scale.height - 11">{{ unit }}</text>
        </g>
        <clipPath id="floor"><polygon :points="walls" /></clipPath>
        <g clip-path="url(#floor)" aria-hidden="true">
          <path v-for="line in lines" :key="line.off" :d="line.path" class="contour" :class="{ wanted: line.off === 0 }" />
          <g v-if="circle && at.chosen.size > 0" class="circles">
            <template v-for="tag in tags" :key="tag.id">
              <circle v-if="tag.isChosen && !tag.aim" :cx="tag.x" :cy="tag.y" :r="circle" />
            </template>
          </g>
        </g>
        <path v-for="(d, k) in ways" :key="`way${k}`" :d="d" class="way" aria-hidden="true" />
        <polygon :points="walls" class="walls" />
        <g
          class="entry"
          :transform="`translate(${scale.x(space.entry.xM)} ${scale.y(space.entry.yM)})`">
          <title>the cable comes in here</title><path d="M-7 0 H7 M0 -7 V7" /><circle r="4" />
        </g>
        <g v-for="m in space.measured" :key="m.id" class="measured" :transform="`translate(${scale.x(m.xM)} ${scale.y(m.yM)})`">
          <path d="M-5 -5 L5 5 M-5 5 L5 -5" /><text x="8" y="4">{{ m.db.toFixed(1) }}</text>
        </g>
        <g class="reach" aria-hidden="true">
          <circle
            v-for="tag in tags" :key="tag.id" :cx="tag.x" :cy="tag.y + (size === 'dot' ? 0 : (tag.up ? -14 : 14))" r="22"
            :data-reach="`spot-${tag.id}`" @click="emit('choose', tag.id, false)" />
        </g>
        <g
          v-for="tag in tags" :id="`spot-${tag.id}`" :key="tag.id" class="spot" :class="[size, { chosen: tag.isChosen, free: !tag.hangs }]"
          :data-spot="tag.id" :transform="`translate(${tag.x} ${tag.y})`" role="button" :tabindex="tag.isChosen ? 0 : -1" :aria-label="tag.spoken"
          :aria-pressed="tag.isChosen" @click="emit('choose', tag.id, $event.ctrlKey || $event.metaKey)">
          <path v-if="tag.aim" class="aim" d="M0 0 H22 M16 -5 L22 0 L16 5" :transform="`rotate(${tag.aim.turnDeg})`" />
          <template v-if="size === 'dot'"><circle r="13" class="hit" /><circle r="5.5" class="outline" /></template>
          <template v-else>
            <path :d="outline(size === 'full' ? 40 : 25, size === 'full' ? 38 : 23)" class="outline" :transform="tag.up ? 'scale(1 -1)' : undefined" />
            <circle :cy="tag.up ? -5 : 5" r="1.8" class="hole" />
            <text :y="tag.up ? (size === 'full' ? -24 : -10) : 19" class="label">{{ tag.label }}</text>
            <text v-if="size === 'full'" aria-hidden="true" :y="tag.up ? -10 : 33" class="figure watts">{{ tag.watts }}</text>
          </template>
        </g>
        <g v-if="at.cross" class="cross" :transform="`translate(${scale.x(at.cross.xM)} ${scale.y(at.cross.yM)})`" aria-hidden="true">
          <path d="M-11 0 H-3 M3 0 H11 M0 -11 V-3 M0 3 V11" />
        </g>
      </svg>
    </div>
    <div class="beside">
      <p class="soft small">{{ writeArea(areaM2(space.outline), units) }}, from above<template
        v-if="space.spots.length > 0">; {{ writeArea(areaM2(space.outline) / space.spots.length, units) }} a speaker, for who goes by that rule</template></p>
      <p class="reading" role="status">
        <template v-if="read"><b class="read figure">{{ read.says }}</b> <span
          class="soft small">at {{ writeLength(read.place.xM - box.fromXM, units) }}, {{ writeLength(read.place.yM - box.fromYM, units) }}</span></template>
        <span v-else class="soft small">Press the floor: what is heard there.</span>
      </p>
      <div v-if="at.grid.length > 0" class="legend" :aria-label="`Shades about ${Math.round(at.aboutDb)} dB`">
        <p v-for="row in legend" :key="row.db" class="row small">
          <span class="swatch" :style="{ background: `rgb(${ink} / ${row.shade * SHADE_MOST})` }" />
          <span class="figure">{{ row.db }}</span>
          <span v-if="row.isAbout" class="soft">{{ spaceGrade(at.facts!) === 'unknown' ? 'dB average' : 'dB wanted' }}</span>
        </p>
      </div>
      <p v-if="at.grid.length > 0 && beyond" class="soft small key">{{ beyond }}</p>
      <p v-if="lines.length > 0" class="soft small key"><span class="dash" aria-hidden="true" /> thick: as wanted; thin: 3 dB to either side</p>
    </div>
  </div>
</template>

<style scoped>
.plan { display: flex; gap: 18px; align-items: flex-start; }
.drawing { position: relative; flex: none; }
.clip { position: absolute; inset: 0; pointer-events: none; }
.shade { position: absolute; }
svg { position: relative; display: block; overflow: visible; touch-action: pan-y; }
.picture { pointer-events: none; }
.ruler path { stroke: var(--rule-strong); }
.ruler text { font-size: 12.5px; fill: var(--ink-soft); text-anchor: middle; }
.ruler .end { text-anchor: end; }
.walls { fill: transparent; stroke: var(--ink); stroke-width: 2.4; stroke-linejoin: miter; }
.contour { fill: none; stroke: var(--ink); stroke-width: 1; stroke-dasharray: 2 4; pointer-events: none; }
.contour.wanted { stroke-width: 2.2; stroke-dasharray: none; }
.circles circle { fill: none; stroke: var(--pen); stroke-width: 1.4; stroke-dasharray: 5 4; pointer-events: none; }
.way { fill: none; stroke: var(--copper); stroke-width: 1.3; stroke-opacity: .75; pointer-events: none; }
.entry path { stroke: var(--copper); stroke-width: 3; }
.entry circle { fill: var(--copper); }
.measured path { stroke: var(--ink); stroke-width: 2; }
.measured text { font-size: 12.5px; font-weight: 700; paint-order: stroke; stroke: var(--paper); stroke-width: 4px; }
.spot { cursor: grab; outline: none; }
.spot text { text-anchor: middle; }
.outline { fill: var(--paper-raised); stroke: var(--ink); stroke-width: 1.3; }
.free .outline { stroke-dasharray: 3 2.5; }
.hole { fill: var(--paper); stroke: var(--ink); stroke-width: 1; }
.hit { fill: transparent; }
/* Under the tags, so that where two are close the one that is pressed is the one that is seen. */
.reach { display: none; fill: transparent; }
@media (pointer: coarse), (max-width: 760px) { .reach { display: inline; } }
.label { font-size: 12.5px; font-weight: 600; }
.watts { font-size: 11.5px; fill: var(--ink-soft); }
.aim { fill: none; stroke: var(--ink); stroke-width: 2; }
.spot.chosen .outline { fill: var(--ink); }
.spot.chosen .label, .spot.chosen .watts { fill: var(--paper); }
.spot:focus-visible .outline { stroke: var(--pen); stroke-width: 3.2; }
@media (forced-colors: active) {
  .clip, .swatch { forced-color-adjust: none; }
  .spot.chosen .outline { forced-color-adjust: none; fill: Highlight; }
  .spot.chosen text { forced-color-adjust: none; fill: HighlightText; }
}
.cross path { stroke: var(--pen); stroke-width: 2; pointer-events: none; }
.beside { display: grid; gap: 4px; min-width: 128px; max-width: 170px; padding-top: 8px; }
.below { flex-direction: column; gap: 0; }
.below .beside { display: flex; flex-wrap: wrap; max-width: none; gap: 2px 16px; align-items: baseline; padding: 2px 0 0 40px; }
.reading { min-height: 62px; }
.read { display: block; font-size: 22px; line-height: 32px; }
.legend { padding-top: 10px; }
.below .legend { display: flex; flex-wrap: wrap; gap: 0 10px; padding: 0; }
.below .reading { min-height: 34px; min-width: 290px; }
.below .read { display: inline; }
.row { display: flex; gap: 8px; align-items: center; line-height: 20px; }
.swatch { width: 22px; height: 20px; border-left: 1px solid var(--rule-strong); border-right: 1px solid var(--rule-strong); }
.row:first-child .swatch { border-top: 1px solid var(--rule-strong); }
.row:last-child .swatch { border-bottom: 1px solid var(--rule-strong); }
.below .swatch, .below .row:first-child .swatch, .below .row:last-child .swatch { width: 20px; height: 15px; border: 1px solid var(--rule-strong); }
.key { padding-top: 6px; }
@media (max-width: 1000px) {
  .plan { flex-direction: column; gap: 4px; }
  .beside { max-width: none; grid-template-columns: repeat(3, auto); align-items: baseline; gap: 2px 14px; padding: 0 6px; justify-content: start; }
  .legend { display: flex; flex-wrap: wrap; gap: 0 8px; grid-column: 1 / -1; padding: 0; }
  .swatch, .row:first-child .swatch, .row:last-child .swatch { width: 18px; height: 14px; border: 1px solid var(--rule-strong); }
  .key { grid-column: 1 / -1; }
}
</style>
