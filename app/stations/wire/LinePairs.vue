<script setup lang="ts">
import { computed } from 'vue'
import { writeConductor, type Conductor } from '#core/gear/conductor'
import { writeCable } from '#core/quantity/cable'
import { writeLength, type Units } from '#core/quantity/units'
import { isGroup } from '#core/network/tree'
import type { Speaker } from '#core/job/schema'
import { colourOf } from '~/drawing/conductorColours'
import { wiringText } from '~/drawing/speakerText'
import { CELL, endText, perRow, stateOf, whenceOf, type Cell, type Run } from './drawing'

/** The pairs of one line as they lie: base and stripe named, a crossing where it is, which way round each speaker comes out. */
const { runs, speakers, name, width, selectedId, part, units } = defineProps<{
  runs: readonly Run[]
  speakers: readonly Speaker[]
  name: string
  width: number
  selectedId: string | null
  part: 'start' | 'end'
  units: Units
}>()
const emit = defineEmits<{ select: [nodeId: string, part: 'start' | 'end'] }>()

const { plusY, minusY } = CELL
/** Runs with their cells laid into rows. */
const laid = computed(() => runs.map((run) => {
  const indent = Math.min(run.depth, 3) * 18
  const each = perRow(width - indent - 26)
  const cells = run.cells.map((cell, k) => ({
    cell, x: 26 + (k % each) * CELL.width, y: Math.floor(k / each) * CELL.height, isRowStart: k % each === 0 && k > 0, ...wordsOf(cell, run),
  }))
  return { run, indent, cells, width: 34 + Math.min(each, run.cells.length) * CELL.width, height: Math.ceil(run.cells.length / each) * CELL.height }
}))

function wordsOf(cell: Cell, run: Run) {
  const state = stateOf(cell)
  const lead = cell.lead === null ? '' : writeLength(cell.lead.lengthM, units)
  const size = cell.lead?.cable ? writeCable(cell.lead.cable) : ''
  const end = endText(cell, speakers)
  const joined = (is: boolean | null) => is === null ? 'not known' : is ? 'crossed' : 'straight'
  const colours = cell.upper && cell.lower ? `${writeConductor(cell.upper)} and ${writeConductor(cell.lower)}` : 'colours not known'
  return {
    state, lead, size, end, whence: state === null ? '' : whenceOf(cell), wiring: isGroup(cell.node) ? '' : wiringText(cell.node),
    spokenJoint: `${cell.splice.joint || (cell.isFirst ? 'the amplifier’s terminals' : `joint before ${end}`)}: ${joined(cell.startCrossed)}; then ${colours}`,
    spokenEnd: `${end}${isGroup(cell.node) ? '' : ` ${wiringText(cell.node)}`}, terminals ${joined(cell.endCrossed)}${state ? `, ${state.says}` : ''}${run.kind === 'series' ? ', in series' : ''}`,
  }
}

const CSS_ID = (text: string) => text.replace(/[^a-z0-9]/gi, c => `_${c.charCodeAt(0)}`)
/** Stripes that occur, each a pattern of bands. */
const stripes = computed(() => [...new Set(runs.flatMap(r => r.cells.flatMap(c => [c.upper, c.lower].flatMap(w => w && w.stripe !== '' ? [w.stripe] : []))))])
const fillOf = (wire: Conductor | null) => wire === null ? 'none' : colourOf(wire.base) ?? 'url(#odd-colour)'
/** Where the pair itself begins: at the amplifier there is no box where its terminals are straight. */
const from = (cell: Cell) => cell.isFirst && cell.startCrossed === false ? CELL.joint / 2 : CELL.joint
const pairWidth = (cell: Cell) => CELL.width - from(cell) - CELL.tag - 8
const cut = (text: string, most = 17) => [...text].length > most ? `${[...text].slice(0, most - 1).join('')}…` : text
/** A short wire through a joint, from one height to another. */
const through = (fromY: number, toY: number, endX: number) => `M0 ${fromY} C${endX / 2} ${fromY} ${endX / 2} ${toY} ${endX} ${toY}`
const isHere = (cell: Cell, which: 'start' | 'end') => cell.nodeIds.includes(selectedId ?? '') && part === which
const TAG_X = CELL.width - CELL.tag / 2 - 4
</script>

<template>
  <div class="pairs" role="group" :aria-label="name">
    <div v-for="{ run, indent, cells, width: w, height } in laid" :key="run.key" class="run" :style="{ marginLeft: `${indent}px` }">
      <p v-if="run.from" class="soft small from">{{ run.from }}</p>
      <svg :width="w" :height="height" :viewBox="`0 0 ${w} ${height}`" role="group" :aria-label="run.from || name">
        <defs>
          <pattern id="odd-colour" width="6" height="6" patternUnits="userSpaceOnUse"><path d="M0 6 L6 0" class="odd" /></pattern>
          <pattern
            v-for="stripe in stripes" :id="`stripe-${CSS_ID(stripe)}`" :key="stripe" width="13" height="10" patternUnits="userSpaceOnUse"
            patternTransform="skewX(-30)">
            <rect width="6" height="10" :fill="colourOf(stripe) ?? 'var(--ink)'" />
          </pattern>
        </defs>
        <g v-if="run.depth === 0" class="poles" aria-hidden="true"><text x="14" :y="plusY + 5">+</text><text x="14" :y="minusY + 5">−</text></g>
        <g
          v-for="{ cell, x, y, isRowStart, state, lead, size, end, whence, wiring, spokenJoint, spokenEnd } in cells" :key="cell.nodeId"
          :transform="`translate(${x} ${y})`">
          <path v-if="isRowStart" class="turn" :d="`M-14 ${plusY} h8 M-14 ${minusY} h8`" />
          <!-- The pair itself. -->
          <g v-for="[wire, at] in [[cell.upper, plusY], [cell.lower, minusY]] as const" :key="at">
            <rect
              :x="from(cell)" :y="at - 5" :width="pairWidth(cell)" height="10" :fill="fillOf(wire)"
              class="wire" :class="{ unknown: wire === null }" />
            <rect
              v-if="wire && wire.stripe !== ''" :x="from(cell)" :y="at - 5" :width="pairWidth(cell)" height="10"
              :fill="`url(#stripe-${CSS_ID(wire.stripe)})`" class="bands" />
          </g>
          <text :x="CELL.joint + 4" :y="plusY - 11" class="colour">{{ cell.upper ? cut(writeConductor(cell.upper)) : 'not named' }}</text>
          <text :x="CELL.joint + 4" :y="minusY + 20" class="colour">{{ cell.lower ? cut(writeConductor(cell.lower)) : '' }}</text>
          <text :x="CELL.width - CELL.tag - 12" :y="plusY - 11" class="length">{{ lead }}</text>
          <text :x="CELL.width - CELL.tag - 12" :y="minusY + 20" class="length">{{ size }}</text>

          <g
            class="joint" :class="{ on: isHere(cell, 'start'), crossed: cell.startCrossed, open: cell.startCrossed === null }" role="button"
            :tabindex="isHere(cell, 'start') ? 0 : -1" :data-joint="cell.nodeId" :aria-label="spokenJoint" :aria-pressed="isHere(cell, 'start')"
            @click="emit('select', cell.nodeId, 'start')">
            <rect x="-2" :y="plusY - 16" :width="CELL.joint + 4" :height="minusY - plusY + 32" class="hit" />
            <rect v-if="!cell.isFirst || cell.startCrossed !== false" x="2" :y="plusY - 12" :width="CELL.joint - 4" :height="minusY - plusY + 24" class="box" />
            <template v-if="cell.startCrossed !== null">
              <path :d="through(plusY, cell.startCrossed ? minusY : plusY, from(cell))" class="through" />
              <path :d="through(minusY, cell.startCrossed ? plusY : minusY, from(cell))" class="through" />
            </template>
            <text v-else :x="CELL.joint / 2" :y="(plusY + minusY) / 2 + 6" class="ask">?</text>
          </g>
          <text v-if="cell.splice.joint || cell.startCrossed" :x="CELL.joint / 2" :y="minusY + 36" class="joint-name">{{ cell.splice.joint }}</text>
          <text v-if="cell.startCrossed" :x="CELL.joint / 2" :y="minusY + (cell.splice.joint ? 51 : 36)" class="joint-name strong">crossed</text>

          <g
            class="tag" :class="{ on: isHere(cell, 'end') }" role="button" :tabindex="isHere(cell, 'end') ? 0 : -1" :data-end="cell.nodeId"
            :aria-label="spokenEnd"
            :aria-pressed="isHere(cell, 'end')" @click="emit('select', cell.nodeId, 'end')">
            <path v-if="cell.nodeIds.length > 1" :d="`M${TAG_X - 19} 19 h44 v46`" class="behind" />
            <path v-if="!isGroup(cell.node)" :d="`M${TAG_X - 22} 22 h44 v44 l-22 14 l-22 -14 z`" class="outline" :class="state?.is" />
            <rect :x="TAG_X - 23" y="20" width="46" height="60" class="hit" />
            <rect v-if="isGroup(cell.node)" :x="TAG_X - 22" y="26" width="44" height="40" class="outline" />
            <text :x="TAG_X" :y="wiring ? 42 : 51" class="label" :class="{ long: end.length > 5 }">{{ end }}</text>
            <text v-if="wiring" :x="TAG_X" y="60" class="figure wiring">{{ wiring }}</text>
          </g>
          <path v-if="cell.endCrossed" :d="`M${TAG_X - 36} ${plusY} l12 ${minusY - plusY} M${TAG_X - 36} ${minusY} l12 ${plusY - minusY}`" class="through" />
          <template v-if="state">
            <text :x="CELL.width - 4" y="98" class="state" :class="state.is">{{ state.says }}</text>
            <text :x="CELL.width - 4" y="114" class="whence">{{ whence }}</text>
          </template>
        </g>
      </svg>
    </div>
  </div>
</template>

<style scoped>
.from { border-left: 2px solid var(--rule-strong); padding-left: 8px; margin-bottom: 4px; }
svg { display: block; overflow: visible; max-width: 100%; }
.poles text { font-size: 17px; font-weight: 700; text-anchor: middle; }
.wire { stroke: var(--ink); stroke-width: .8; }
.wire.unknown { stroke-dasharray: 4 3; stroke: var(--ink-soft); fill: none; }
.bands { pointer-events: none; }
.odd { stroke: var(--ink-soft); stroke-width: 1; }
.colour { font-size: 13px; }
.length { font-size: 13px; text-anchor: end; fill: var(--ink-soft); }
.joint, .tag { cursor: pointer; outline: none; }
.hit { fill: transparent; }
.box { fill: var(--paper-raised); stroke: var(--rule-strong); stroke-width: 1.2; }
.crossed .box, .open .box { stroke: var(--ink); }
.open .box { stroke-dasharray: 4 3; }
.through { fill: none; stroke: var(--copper); stroke-width: 3; }
.ask { font-size: 19px; font-weight: 700; text-anchor: middle; fill: var(--ink-soft); }
.joint-name { font-size: 13px; text-anchor: middle; fill: var(--ink-soft); paint-order: stroke; stroke: var(--paper); stroke-width: 4px; }
.joint-name.strong { font-weight: 700; fill: var(--ink); }
.outline { fill: var(--paper-raised); stroke: var(--ink); stroke-width: 1.3; }
.outline.open { stroke-dasharray: 5 3; }
.outline.turned { stroke-width: 2.6; }
.behind { fill: none; stroke: var(--ink); stroke-width: 1.1; }
.label { font-size: 13.5px; text-anchor: middle; }
.label.long { font-size: 10.5px; }
.wiring { font-size: 12.5px; text-anchor: middle; font-weight: 600; }
.state { font-size: 13.5px; font-weight: 700; text-anchor: end; }
.state.turned { fill: var(--stop); }
.state.right { fill: var(--good); }
.state.open { fill: var(--unknown); }
.whence { font-size: 12.5px; text-anchor: end; fill: var(--ink-soft); }
.turn { stroke: var(--copper-pale); stroke-width: 2; }
.joint.on .box, .tag.on .outline { stroke: var(--pen); stroke-width: 3; stroke-dasharray: none; }
.joint.on .hit { stroke: var(--pen); stroke-width: 2; }
:is(.joint, .tag):focus-visible :is(.hit, .outline) { stroke: var(--pen); stroke-width: 3.4; }
</style>
