<script setup lang="ts">
import { computed } from 'vue'
import { lineKindOf, ratedW } from '#core/amplifier/index'
import type { LineEvaluation } from '#core/line/evaluate'
import { countOf, writeNumber, writeQuantity } from '#core/quantity/write'
import { drawLadder, RADIUS } from '~/drawing/ladder'
import { nominalOhmOf } from '#core/network/tree'

const { line } = defineProps<{ line: LineEvaluation }>()

const BOX = { width: 84, pad: 14 }
const drawing = computed(() => drawLadder(line.output.wiring))
const left = BOX.width + 26
const width = computed(() => left + drawing.value.width + (line.drops.some(d => beside(d.nodeId) !== '') ? 34 : 10))
const height = computed(() => Math.max(150, drawing.value.height + 70))
const top = computed(() => (height.value - drawing.value.height) / 2)
const facts = computed(() => new Map(line.drops.map(d => [d.nodeId, d])))

const amplifier = computed(() => {
  const { rating } = line.output
  const powerW = ratedW(rating)
  return powerW !== null ? writeQuantity(powerW, 'W') : lineKindOf(rating) === null ? '?' : '? W'
})

const inside = (id: string) => {
  const { load } = facts.value.get(id)!.speaker
  return load.kind === 'tap' ? `${writeNumber(load.tapW)} W` : writeNumber(nominalOhmOf(load))
}
const beside = (id: string) => {
  const drop = facts.value.get(id)!
  return drop.powerW !== null && drop.speaker.load.kind !== 'tap' ? writeQuantity(drop.powerW, 'W') : ''
}
const spoken = computed(() => `${countOf(line.speakers.length, 'speaker')} on ${amplifier.value === '?' ? 'an amplifier that is not known' : amplifier.value}`)
</script>

<template>
  <svg class="ladder" :viewBox="`0 0 ${width} ${height}`" :style="{ maxWidth: `${width * 1.35}px` }" role="img" :aria-label="spoken">
    <rect x="6" :y="top - 20" :width="BOX.width - 12" :height="drawing.height + 40" class="box" :class="{ dashed: lineKindOf(line.output.rating) === null }" />
    <text :x="BOX.width / 2" :y="top + 5" class="sign">+</text>
    <text :x="BOX.width / 2" :y="top + drawing.height + 5" class="sign">−</text>
    <text :x="BOX.width / 2" :y="height / 2 + 5" class="figure power">{{ amplifier }}</text>
    <g class="signal">
      <polyline :points="`${BOX.width - 6},${top} ${left + drawing.width - 48},${top}`" />
      <polyline :points="`${BOX.width - 6},${top + drawing.height} ${left + drawing.width - 48},${top + drawing.height}`" />
      <g :transform="`translate(${left} ${top})`"><polyline v-for="(wire, k) in drawing.wires" :key="k" :points="wire" /></g>
    </g>
    <g v-for="unit in drawing.units" :key="unit.speaker.id" :transform="`translate(${left + unit.x} ${top + unit.y})`">
      <circle :r="RADIUS" class="unit" />
      <text y="5" class="figure inside" :class="{ narrow: inside(unit.speaker.id).length > 3 }">{{ inside(unit.speaker.id) }}</text>
      <text :x="RADIUS + 7" y="5" class="figure beside">{{ beside(unit.speaker.id) }}</text>
      <text v-if="unit.count > 1" :x="RADIUS + 5" :y="-RADIUS + 8" class="count">× {{ unit.count }}</text>
    </g>
  </svg>
</template>

<style scoped>
.ladder { width: 100%; height: auto; max-height: 360px; display: block; }
.box { fill: var(--paper-raised); stroke: var(--ink); stroke-width: 1.3; }
.dashed { stroke-dasharray: 5 4; }
.sign, .power, .inside { text-anchor: middle; }
.power { font-weight: 600; font-size: 15px; }
.inside { font-weight: 600; font-size: 15px; }
.narrow { font-size: 12px; letter-spacing: -.5px; }
.beside { font-size: 13px; fill: var(--ink-soft); }
.count { font-size: 15px; font-weight: 700; }
.signal polyline { fill: none; stroke: var(--copper); stroke-width: 3; stroke-linecap: square; }
.unit { fill: var(--paper-raised); stroke: var(--ink); stroke-width: 1.6; }
</style>
