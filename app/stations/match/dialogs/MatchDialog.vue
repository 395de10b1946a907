<script setup lang="ts">
import { byId } from '#core/quantity/known'
import { timesPower } from '#core/amplifier/index'
import { computed, ref, useTemplateRef } from 'vue'
import Dialog from 'primevue/dialog'
import type { LineEvaluation } from '#core/line/evaluate'
import { solveOutput } from '#core/line/facts'
import { isReactive } from '#core/network/element'
import { matchSentence, PLAYED, powerMatch, type MatchVerdict } from '#core/advice/low/powerMatch'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import { bands, capabilityPaths, EDGE, matchScales, ohmTicks, spans, spanWidth, wattTicks } from '~/drawing/matchChart'
import { saveText, svgText } from '~/drawing/saveSvg'
import { useWidth } from '~/composables/useWidth'
import { useJobStore } from '~/stores/job'
import ChoiceRow from '~/components/form/ChoiceRow.vue'
import Slider from 'primevue/slider'

/** An output and its speakers on one scale: what it gives into which load, what they stand, what every school asks; what is played shifts the advice. */
const open = defineModel<boolean>('open', { required: true })
const { line } = defineProps<{ line: LineEvaluation }>()
const store = useJobStore()

const HEIGHT = 320
const frame = useTemplateRef<HTMLElement>('frame')
const svg = useTemplateRef<SVGSVGElement>('svg')
const width = useWidth(frame, 300)
const playedId = ref(PLAYED[0]!.id)
const played = computed(() => byId(PLAYED, playedId.value))
/** As if the output gave so many decibels more or less: looked at, not kept. */
const asIfDb = ref(0)
const shifted = computed(() => asIfDb.value === 0 ? line : solveOutput({ ...line.output, rating: timesPower(line.output.rating, 10 ** (asIfDb.value / 10)) }))
const match = computed(() => store.job ? powerMatch(shifted.value, store.job.practice, store.job.kinds, played.value) : null)
const scales = computed(() => match.value && matchScales(match.value, width.value, HEIGHT))
const paths = computed(() => match.value && scales.value ? capabilityPaths(scales.value, match.value) : null)
const isParted = computed(() => line.throughs.some(({ through }) => isReactive(through)))
const GRADES: Record<MatchVerdict, string> = { 'too-low': 'stop', 'over': 'tight', 'under': 'good', 'right': 'good', 'not-known': 'unknown' }
const at = computed(() => {
  const [m, s] = [match.value, scales.value]
  const watts = m?.at.mostW ?? null
  return m && s && watts !== null ? { x: s.x(m.at.loadOhm), y: s.y(watts) } : null
})
const W = (watts: number | null) => watts === null ? 'not known' : writeQuantity(watts, 'W')
</script>

<template>
  <Dialog v-model:visible="open" modal :header="`${line.output.label}: amplifier and speakers`" :dismissable-mask="true" :style="{ width: 'min(860px, 96vw)' }">
    <p v-if="!match">Nothing to match: a load of ohms, with speakers on it, is what this shows.</p>
    <template v-else-if="scales && paths">
      <div class="top">
        <ChoiceRow v-model="playedId" label="what is played" :choices="PLAYED.map(p => ({ value: p.id, says: p.name }))" />
        <button class="act" type="button" @click="svg && saveText(svgText(svg), `${line.output.label} match.svg`, 'image/svg+xml')">save as a picture</button>
      </div>
      <p class="verdict" :class="`is-${GRADES[match.verdict]}`" role="status">{{ matchSentence(match, played) }}</p>
      <figure ref="frame" class="chart">
        <svg ref="svg" :viewBox="`0 0 ${width} ${HEIGHT}`" :width="width" :height="HEIGHT" role="img" :aria-label="matchSentence(match, played)">
          <g v-for="band in bands(scales, match)" :key="band.says">
            <rect
              :x="EDGE.left" :y="band.top" :width="scales.right - EDGE.left" :height="Math.max(0, band.bottom - band.top)"
              :class="`band rank${band.rank}`" />
            <line :x1="EDGE.left" :x2="scales.right" :y1="band.top" :y2="band.top" class="edge" />
            <text :x="scales.right - 4" :y="band.top + 14" class="says end">{{ band.says }}</text>
          </g>
          <g v-for="ohm in ohmTicks(scales)" :key="`x${ohm}`">
            <line :x1="scales.x(ohm)" :x2="scales.x(ohm)" :y1="HEIGHT - EDGE.bottom" :y2="HEIGHT - EDGE.bottom + 5" class="tickline" />
            <text :x="scales.x(ohm)" :y="HEIGHT - 12" class="tick">{{ ohm }}</text>
          </g>
          <text :x="EDGE.left - 6" :y="HEIGHT - 12" class="tick end">Ω</text>
          <g v-for="watts in wattTicks(scales)" :key="`y${watts}`">
            <line :x1="EDGE.left" :x2="scales.right" :y1="scales.y(watts)" :y2="scales.y(watts)" class="grid" />
            <text :x="EDGE.left - 6" :y="scales.y(watts) + 4" class="tick end">{{ writeNumber(watts, 5) }} W</text>
          </g>
          <g v-if="match.floorOhm !== null && scales.x(match.floorOhm) > EDGE.left">
            <rect :x="EDGE.left" :y="EDGE.top" :width="scales.x(match.floorOhm) - EDGE.left" :height="HEIGHT - EDGE.bottom - EDGE.top" class="under" />
            <line :x1="scales.x(match.floorOhm)" :x2="scales.x(match.floorOhm)" :y1="EDGE.top" :y2="HEIGHT - EDGE.bottom" class="floor" />
            <text
              :x="scales.x(match.floorOhm) + (scales.x(match.floorOhm) - EDGE.left > 100 ? -5 : 5)" :y="EDGE.top + 14" class="says"
              :class="{ end: scales.x(match.floorOhm) - EDGE.left > 100 }">not under {{ writeQuantity(match.floorOhm, 'Ω') }}</text>
          </g>
          <path v-if="paths.between" :d="paths.between" class="between" />
          <path :d="paths.line" class="gives" />
          <line :x1="scales.x(match.at.loadOhm)" :x2="scales.x(match.at.loadOhm)" :y1="EDGE.top" :y2="HEIGHT - EDGE.bottom" class="load" />
          <circle v-if="at" :cx="at.x" :cy="at.y" r="7" class="at" />
          <g v-for="span in spans(scales, match)" :key="span.number">
            <rect
              :x="span.x" :y="span.top" :width="spanWidth(width) - 6" :height="Math.max(3, span.bottom - span.top)" class="span"
              :class="{ chosen: span.isChosen }" />
            <text :x="span.x + (spanWidth(width) - 6) / 2" :y="HEIGHT - 12" class="tick" :class="{ strong: span.isChosen }">{{ span.number }}</text>
          </g>
        </svg>
      </figure>
      <div class="asif"><span class="small">As if it gave {{ match.at.mostW === null ? 'more or less' : W(match.at.mostW) }}</span>
        <Slider
          v-model="asIfDb" :min="-10" :max="10" :step="0.5"
          :pt="{ handle: { 'aria-label': 'as if it gave more or less', 'aria-valuetext': `${asIfDb} dB against its rating` } }" />
        <button v-if="asIfDb !== 0" class="act" type="button" @click="asIfDb = 0">as it is rated</button></div>
      <div class="wide" tabindex="0" role="group" aria-label="can be scrolled sideways">
        <table>
          <thead><tr><th>speaker</th><th class="number">at full output</th><th class="number">on average, {{ played.name }}</th><th
            class="number">rated</th><th class="number">at 1 m</th></tr></thead>
          <tbody>
            <tr v-for="m in match.members" :key="m.nodeId">
              <td>{{ m.label }}<span v-if="match.weakest?.nodeId === m.nodeId" class="small soft"> reaches its limit first</span></td>
              <td class="number figure">{{ W(m.fullW) }}</td>
              <td class="number figure" :class="{ over: m.averageW !== null && m.continuousW !== null && m.averageW > m.continuousW }">{{ W(m.averageW) }}</td>
              <td class="number figure">{{ W(m.continuousW) }}<span v-if="m.isBelieved" class="small soft"> believed</span></td><td
                class="number figure">{{ m.levelDb === null ? 'not known' : `${m.levelDb.toFixed(1)} dB` }}</td>
            </tr>
          </tbody>
          <tfoot v-if="match.levelDb !== null && match.members.length > 1"><tr><td colspan="4">all together, powers added</td><td
            class="number figure">{{ match.levelDb.toFixed(1) }} dB</td></tr></tfoot>
        </table>
      </div>
      <ol v-if="match.schools.length > 0" class="schools">
        <li v-for="s in match.schools" :key="s.id" :class="{ strong: s.isChosen }"><b>{{ s.name }}</b>, <span
          class="figure">{{ s.fromW === 0 ? `up to ${W(s.toW)}` : s.toW / s.fromW < 1.02
          ? W(s.fromW) : `${W(s.fromW)} to ${W(s.toW)}` }}</span>: <span class="soft">{{ s.risks }}</span></li>
      </ol>
      <p class="soft small">Within a decibel or two of its limit a coil is hot: at 200 K above room its resistance is 1.8 times as much, and 2.5 dB
        are lost. More power is then no more
        sound. {{ played.name.charAt(0).toUpperCase() + played.name.slice(1) }} is taken with {{ played.crestDb }} dB from average to peak, the
          amplifier just not clipping.<template v-if="isParted"> Capacitors and coils part the band here: watts
        are of programme with equal power in every octave.</template></p>
    </template>
  </Dialog>
</template>

<style scoped>
.top { display: flex; flex-wrap: wrap; justify-content: space-between; gap: 4px 16px; }
.verdict { padding: 8px 0; font-size: 17px; }
.is-stop { color: var(--stop); font-weight: 700; }
.is-tight { color: var(--tight); }
.chart { margin: 0; min-width: 0; }
svg { display: block; max-width: 100%; }
.grid { stroke: var(--rule); stroke-width: 1; }
.tickline { stroke: var(--ink-soft); }
.tick { font-size: 12.5px; fill: var(--ink-soft); text-anchor: middle; }
.end { text-anchor: end; }
.strong { font-weight: 700; }
text.strong { fill: var(--ink); }
.says { font-size: 12.5px; fill: var(--ink); paint-order: stroke; stroke: var(--paper-raised); stroke-width: 3px; }
.band { fill: var(--ink); stroke: none; }
.rank1 { fill-opacity: 0.03; }
.rank2 { fill-opacity: 0.08; }
.rank3 { fill-opacity: 0.15; }
.edge { stroke: var(--ink-soft); stroke-width: 1; stroke-dasharray: 2 3; }
.under { fill: var(--stop); fill-opacity: 0.12; }
.floor { stroke: var(--stop); stroke-width: 1.5; }
.gives { fill: none; stroke: var(--copper); stroke-width: 2.6; }
.between { fill: var(--copper); fill-opacity: 0.18; }
.load { stroke: var(--ink); stroke-width: 1; stroke-dasharray: 1 3; }
.at { fill: var(--paper-raised); stroke: var(--ink); stroke-width: 2.5; }
.span { fill: none; stroke: var(--ink-soft); stroke-width: 1.2; }
.span.chosen { fill: var(--ink); stroke: var(--ink); }
.asif { display: flex; flex-wrap: wrap; align-items: center; gap: 4px 12px; padding: 4px 0 8px; }
.asif :deep(.p-slider) { width: min(300px, 60vw); }
.wide { overflow-x: auto; max-height: 230px; overflow-y: auto; }
table { border-collapse: collapse; width: 100%; }
th { text-align: left; font-weight: 400; font-size: 13.5px; color: var(--ink-soft); }
th, td { padding: 4px 12px 4px 0; border-bottom: 1px solid var(--rule); }
td.number, th:first-child { white-space: nowrap; }
th.number, td.number { text-align: right; }
.over { color: var(--stop); font-weight: 700; }
.schools { padding: 8px 0 0 22px; font-size: 14px; display: grid; gap: 1px; }
</style>
