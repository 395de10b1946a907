<script setup lang="ts">
import { computed, ref, useTemplateRef } from 'vue'
import type { ImpedanceCurve } from '#core/advice/low/impedance'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import { EDGE, hertzTicks, impedanceScales, pathOf, phasePath, placeLabels, sampleAt, stepped, valueTicks } from '~/drawing/impedanceChart'
import { saveText, svgText } from '~/drawing/saveSvg'
import { useWidth } from '~/composables/useWidth'

/** Magnitude and phase over frequency, log by log, with what it is read against; a cursor by mouse, finger and keys. */
const { curve, watts = null, members = [], floorOhm = null, permittedOhm = null, lowest = null, dcr = null, meter = null, what } = defineProps<{
  curve: ImpedanceCurve
  /** Watts over frequency instead of ohms. */
  watts?: (number | null)[] | null
  members?: { label: string, curve: ImpedanceCurve }[]
  floorOhm?: number | null
  permittedOhm?: number | null
  lowest?: { ohm: number, frequencyHz: number } | null
  dcr?: { low: number | null, high: number | null } | null
  meter?: { hz: number, ohm: number } | null
  what: string
}>()
const HEIGHT = 300
const frame = useTemplateRef<HTMLElement>('frame')
const svg = useTemplateRef<SVGSVGElement>('svg')
const width = useWidth(frame)
const at = ref(Math.floor(curve.hz.length / 2))

const inSight = computed(() => watts
  ? watts.filter(w => w !== null)
  : [...curve.ohm, ...members.flatMap(m => [...m.curve.ohm]), ...[floorOhm, permittedOhm, dcr?.low ?? null, dcr?.high ?? null].filter(v => v !== null)])
const scales = computed(() => impedanceScales(inSight.value, width.value, HEIGHT))
const bottom = HEIGHT - EDGE.bottom
const right = computed(() => width.value - EDGE.right)
const path = computed(() => pathOf(scales.value, curve.hz, watts ?? curve.ohm))
const memberPaths = computed(() => watts ? [] : members.map(m => ({ label: m.label, d: pathOf(scales.value, m.curve.hz, m.curve.ohm) })))
const y = (value: number) => Math.max(EDGE.top, Math.min(bottom, scales.value.y(value)))
/** Words on the chart, each where no curve strikes it through. */
const drawn = computed(() => [
  { hz: curve.hz, at: y, values: curve.ohm }, ...members.map(m => ({ hz: m.curve.hz, at: y, values: m.curve.ohm })),
  { hz: curve.hz, at: scales.value.phase, values: curve.deg },
])
const labels = computed(() => placeLabels(scales.value, drawn.value, [
  ...floorOhm !== null && y(floorOhm) < bottom ? [{ says: `not under ${writeQuantity(floorOhm, 'Ω')}`, ys: [y(floorOhm) + 15], nearX: EDGE.left }] : [],
  ...permittedOhm !== null ? [{ says: `four fifths of its label, ${writeQuantity(permittedOhm, 'Ω')}`, ys: [y(permittedOhm) + 15, y(permittedOhm) - 5], nearX: EDGE.left }] : [],
  ...dcr && dcr.low !== null && dcr.high !== null
    ? [{ says: `ohmmeter ${writeNumber(dcr.low)} to ${writeNumber(dcr.high)} Ω`, ys: [y(dcr.high) - 5, y(dcr.low) + 15], nearX: EDGE.left + 6 }]
    : [],
  ...lowest
    ? [{
        says: `${writeQuantity(lowest.ohm, 'Ω')} at ${writeQuantity(lowest.frequencyHz, 'Hz')}`, ys: [28, -8, -26, -44].map(by => y(lowest.ohm) + by),
        midX: scales.value.x(lowest.frequencyHz),
      }]
    : [],
]))
const value = computed(() => (watts ?? curve.ohm)[at.value] ?? null)
const unit = computed(() => watts ? 'W' as const : 'Ω' as const)
const says = computed(() => {
  const hz = writeQuantity(curve.hz[at.value]!, 'Hz')
  if (value.value === null) return `${hz}: not allowed`
  return watts ? `${hz}: ${writeQuantity(value.value, 'W')}` : `${hz}: ${writeQuantity(value.value, 'Ω')}, ${phaseText(curve.deg[at.value]!)}`
})
const phaseText = (deg: number) => `${deg < -0.05 ? '−' : ''}${writeNumber(Math.abs(deg), 3)}°`
const membersSay = computed(() => members.map(m => `${m.label} ${writeQuantity(m.curve.ohm[at.value]!, 'Ω')}`).join(', '))
const shortHz = (hz: number) => hz >= 1000 ? `${hz / 1000}k` : String(hz)

function point(event: PointerEvent): void {
  const box = svg.value!.getBoundingClientRect()
  at.value = sampleAt(scales.value, curve.hz, event.clientX - box.left)
}
function onKey(event: KeyboardEvent): void {
  const to = stepped(at.value, event.key, curve.hz.length, event.shiftKey)
  if (to === null) return
  event.preventDefault()
  event.stopPropagation()
  at.value = to
}
defineExpose({ save: (name: string) => saveText(svgText(svg.value!), name, 'image/svg+xml') })
</script>

<template>
  <figure ref="frame" class="chart">
    <svg
      ref="svg" :viewBox="`0 0 ${width} ${HEIGHT}`" :width="width" :height="HEIGHT" tabindex="0" role="slider" :aria-label="`${what}, cursor`"
      aria-orientation="horizontal" :aria-valuemin="20" :aria-valuemax="20000" :aria-valuenow="Math.round(curve.hz[at]!)" :aria-valuetext="says"
        @keydown="onKey"
      @pointermove="point" @pointerdown="point">
      <g v-for="hz in hertzTicks(scales)" :key="`x${hz}`">
        <line :x1="scales.x(hz)" :x2="scales.x(hz)" :y1="EDGE.top" :y2="bottom" class="grid" />
        <text :x="scales.x(hz)" :y="HEIGHT - 12" class="tick">{{ shortHz(hz) }}{{ hz === 20 ? ' Hz' : '' }}</text>
      </g>
      <g v-for="ohm in valueTicks(scales)" :key="`y${ohm}`">
        <line :x1="EDGE.left" :x2="right" :y1="scales.y(ohm)" :y2="scales.y(ohm)" class="grid" />
        <text :x="EDGE.left - 6" :y="scales.y(ohm) + 4" class="tick end">{{ writeNumber(ohm) }} {{ unit }}</text>
      </g>
      <template v-if="!watts">
        <text
          v-for="deg in [-90, -45, 0, 45, 90]" :key="deg" :x="right + 6" :y="scales.phase(deg) + (deg === 90 ? 10 : deg === -90 ? -2 : 4)"
          class="tick start">{{
          deg < 0 ? `−${-deg}` : deg }}°</text>
        <g v-if="floorOhm !== null && y(floorOhm) < bottom">
          <rect :x="EDGE.left" :y="y(floorOhm)" :width="right - EDGE.left" :height="bottom - y(floorOhm)" class="under" />
          <line :x1="EDGE.left" :x2="right" :y1="y(floorOhm)" :y2="y(floorOhm)" class="floor" />
        </g>
        <g v-if="permittedOhm !== null">
          <line :x1="EDGE.left" :x2="right" :y1="y(permittedOhm)" :y2="y(permittedOhm)" class="permitted" />
        </g>
        <g v-if="dcr && dcr.low !== null && dcr.high !== null">
          <line :x1="EDGE.left + 3" :x2="EDGE.left + 3" :y1="y(dcr.low)" :y2="y(dcr.high)" class="dcr" />
        </g>
        <path :d="phasePath(scales, curve)" class="phase" />
      </template>
      <path v-for="member in memberPaths" :key="member.label" :d="member.d" class="member" />
      <path :d="path" class="curve" />
      <template v-if="!watts">
        <g v-if="lowest">
          <path :d="`M ${scales.x(lowest.frequencyHz)} ${y(lowest.ohm) + 3} l -6 10 h 12 z`" class="mark" />
        </g>
        <text v-for="label in labels" :key="label.says" :x="label.x" :y="label.y" class="says">{{ label.says }}</text>
        <circle v-if="meter" :cx="scales.x(meter.hz)" :cy="y(meter.ohm)" r="6" class="meter" />
      </template>
      <g v-if="value !== null">
        <line :x1="scales.x(curve.hz[at]!)" :x2="scales.x(curve.hz[at]!)" :y1="EDGE.top" :y2="bottom" class="cursor" />
        <circle :cx="scales.x(curve.hz[at]!)" :cy="y(value)" r="4" class="here" />
      </g>
    </svg>
    <figcaption class="figure" aria-live="off">{{ says }}<span v-if="membersSay && !watts" class="soft"> · {{ membersSay }}</span></figcaption>
  </figure>
</template>

<style scoped>
.chart { min-width: 0; margin: 0; }
svg { display: block; max-width: 100%; touch-action: pan-y; }
svg:focus-visible { outline: 2px solid var(--ink); outline-offset: 2px; }
.grid { stroke: var(--rule); stroke-width: 1; }
.tick { font-size: 12.5px; fill: var(--ink-soft); text-anchor: middle; }
.end { text-anchor: end; }
.start { text-anchor: start; }
.mid { text-anchor: middle; }
.curve { fill: none; stroke: var(--copper); stroke-width: 2.4; stroke-linejoin: round; }
.member { fill: none; stroke: var(--ink); stroke-width: 1; }
.phase { fill: none; stroke: var(--ink-soft); stroke-width: 1.3; stroke-dasharray: 2 4; }
.under { fill: var(--stop); fill-opacity: 0.1; }
.floor { stroke: var(--stop); stroke-width: 1.5; }
.permitted { stroke: var(--ink); stroke-width: 1.2; stroke-dasharray: 7 4; }
.dcr { stroke: var(--ink); stroke-width: 4; }
.mark { fill: var(--ink); }
.meter { fill: none; stroke: var(--ink); stroke-width: 1.6; }
.cursor { stroke: var(--ink); stroke-width: 1; stroke-dasharray: 1 3; }
.here { fill: var(--ink); }
.says { font-size: 12.5px; fill: var(--ink); paint-order: stroke; stroke: var(--paper-raised); stroke-width: 4px; }
figcaption { min-height: 24px; padding: 2px 0 0 50px; }
@media (max-width: 760px) { figcaption { padding-left: 0; } }
</style>
