<script setup lang="ts">
import { computed } from 'vue'
import { checkKey, type LineProof } from '#core/check/proof'
import { marksAt } from '#core/check/marks'
import { plannedWords } from '#core/check/gradeWords'
import { byHand, FOLLOWED_WORDS } from '#core/hands/kinds'
import type { Kind, Practice } from '#core/job/schema'
import { branchesOf } from '#core/job/tree'
import type { LineEvaluation } from '#core/line/evaluate'
import { isBad } from '#core/line/finding'
import { headFigures } from '#core/line/headFigures'
import { roomFor, roomWords } from '#core/advice/headroom'
import { foldLabel } from '#core/job/labels'
import { writeCable } from '#core/quantity/cable'
import { writeLength } from '#core/quantity/units'
import { countOf, writeDb, writeNumber, writeQuantity } from '#core/quantity/write'
import GradeTag from '~/components/GradeTag.vue'
import { rangeText } from '~/stations/match/rail/folds'
import { drawRail, TAG, wiringPx } from '~/stations/match/rail/rail'
import { THROUGH_NAMES, shortLabel, throughText, throughWords, wattText, wiringText } from '~/drawing/speakerText'
import ReserveScale from './ReserveScale.vue'
import { useUnits } from '~/composables/useUnits'
import { elementOf } from '~/composables/elements'

const { units } = useUnits()

/** One output and its rail, drawn from the wiring. */
const { line, proof, width, practice, kinds, zones, spaceOf, spaces, selectedId, chosen, suspects, folds, foldState } = defineProps<{
  line: LineEvaluation
  proof: LineProof
  width: number
  practice: Practice
  /** The job's kinds by their ids. */
  kinds: ReadonlyMap<string, Kind>
  /** Names of its zones by their ids. */
  zones: ReadonlyMap<string, string>
  /** The space that each speaker of the job hangs in; names of spaces by their ids. */
  spaceOf: ReadonlyMap<string, string>
  spaces: ReadonlyMap<string, string>
  /** Selected speaker; "" for the line itself; null when the selection is elsewhere. */
  selectedId: string | null
  /** All that are chosen, where they are several. */
  chosen: ReadonlySet<string>
  /** Equals that are drawn as one, and whether the rail has any. */
  folds: readonly string[][]
  foldState: 'folded' | 'open' | 'none'
  /** Rank of suspected places while the line is traced. */
  suspects: ReadonlyMap<string, { rank: number, chosen: boolean, inCable: boolean }> | null
}>()
/** How a press means it: this one alone, up to this one, this one too. */
type How = 'alone' | 'to' | 'too'
const emit = defineEmits<{ select: [nodeId: string | null, how: How], fold: [] }>()
const howOf = (event: MouseEvent): How => event.shiftKey ? 'to' : event.ctrlKey || event.metaKey ? 'too' : 'alone'
/** The focus that a key or a screen reader brings looks at a tag; a press says for itself what it means. */
function onFocus(event: FocusEvent, nodeId: string | null): void {
  if ((nodeId ?? '') !== selectedId && elementOf(event)?.matches(':focus-visible')) emit('select', nodeId, 'alone')
}

const facts = computed(() => new Map(line.drops.map(d => [d.nodeId, d])))
/** A line that plays in one space is of its name; where it plays in several they are marked. */
const ownSpaces = computed(() => new Set(line.speakers.map(s => spaceOf.get(s.id) ?? null)))
const drawing = computed(() => drawRail(line.output.wiring, facts.value, width, folds, ownSpaces.value.size > 1 ? spaceOf : undefined))

const name = computed(() => line.output.name || (line.kind === 'constant-voltage' ? 'distributed line' : 'low-impedance line'))
const cables = computed(() => {
  const used = new Set(branchesOf(line.output.wiring).flatMap(b => b.lead ? [b.lead.cable ? writeCable(b.lead.cable) : 'cable of no stated size'] : []))
  return used.size === 0 ? 'cable not stated' : used.size > 2 ? `${used.size} cables` : [...used].join(', ')
})
const figures = computed(() => headFigures(line))
/** What a speaker gets; of a line that asks for more than there is, it is not to be said. */
const wattsOf = (nodeId: string) => figures.value.isOver ? null : facts.value.get(nodeId)!.powerW
/** What is left for growth, for one more like the one looked at, else like the last. */
const room = computed(() => {
  const like = line.speakers.find(s => s.id === selectedId) ?? line.speakers.at(-1)
  return like ? roomWords(roomFor(line, practice, like), like) : ''
})
const fine = computed(() => {
  if (line.speakers.length === 0) return ''
  const head = line.loadOhm === null ? `head ${line.head}` : `head ${writeQuantity(line.loadOhm, 'Ω')}`
  const far = line.farthest && line.cable.stated > 0 ? `far end ${line.cable.missing > 0 ? 'at least ' : ''}${writeDb(line.farthest.lossDb)}` : ''
  // A figure and its unit stay on one line.
  return [figures.value.parts, cables.value, head, far, room.value].filter(Boolean).join(', ').replace(/(\d) (?=[WΩV]|AWG|mm²|dB)/g, '$1\u00A0')
})

/** Thin where little flows, thick at the head. */
const stroke = (weight: number) => (1.6 + 3.6 * Math.sqrt(weight)).toFixed(2)
/** Full copper at the head's volts, pale where a fifth of them is gone. */
const fade = (volts: number) => (1 - 0.62 * Math.min(1, (1 - volts) / 0.15)).toFixed(2)

const repaired = computed(() => new Set(proof.repairs.map(r => r.nodeId)))
const awaiting = computed(() => new Set(proof.unproved.map(r => r.nodeId)))
/**
 * A tag as it is drawn and spoken: its name holds every word that is seen on it. Watts are spoken as they are written: a change far along the line leaves it
 * as it is, and it is not drawn again.
 */
const tags = computed(() => drawing.value.tags.map(({ speaker, fold, x, y, width: tagWidth }) => {
  const { id } = speaker
  const marks = marksAt(proof, id)
  const members = fold ?? [speaker]
  const wiring = fold ? `${fold.length} × ${wiringText(speaker)}` : wiringText(speaker)
  const watts = rangeText(members.map(s => wattsOf(s.id)), wattText)
  const volts = fold ? rangeText(fold.map(s => facts.value.get(s.id)!.volts), v => v.toFixed(0)) : '—'
  const mend = awaiting.value.has(id) ? 'awaiting' : repaired.value.has(id) ? 'proved' : null
  const suspect = suspects?.get(id) ?? null
  const kind = speaker.kindId === null ? undefined : kinds.get(speaker.kindId)
  const own = kind ? byHand(speaker, kind).map(field => FOLLOWED_WORDS[field]) : []
  const spoken = [
    fold ? `${fold.length} alike, ${foldLabel(fold.map(s => s.label))}` : `Speaker ${speaker.label}`, speaker.name, speaker.load.kind === 'tap' && speaker.load.tapW > 0 ? `tap ${wiring}` : wiring, watts === '—' ? '' : `gets ${watts} W`, volts === '—' ? '' : `at ${volts} V`,
    ...marks.map(m => m.says),
    mend === null ? '' : mend === 'awaiting' ? 'repaired, to be proved' : 'repaired and proved', suspect ? `suspect ${suspect.rank}` : '', own.length > 0 ? `otherwise than its kind: ${own.join(', ')}` : '', speaker.zoneId === null ? '' : `zone ${zones.get(speaker.zoneId) ?? ''}`, spaceOf.has(speaker.id) ? `in ${spaces.get(spaceOf.get(speaker.id)!) ?? ''}` : '', `on ${line.output.label}`,
  ].filter(Boolean).join(', ')
  const label = `${fold ? foldLabel(fold.map(s => shortLabel(s.label))) : shortLabel(speaker.label)}${own.length > 0 ? ' ≠' : ''}`
  return { id, x, y, width: tagWidth, ids: fold?.map(s => s.id) ?? null, volts, label, wiring, watts, marks, mend, suspect, spoken }
}))
/** The name of a zone, or of a space, as far as there is room for it. */
const spans = computed(() => drawing.value.spans.map((span) => {
  const name = (span.of === 'zone' ? zones : spaces).get(span.id) ?? `a ${span.of}`
  const most = Math.max(4, Math.floor((span.x2 - span.x1) / 6.6))
  return { ...span, name, short: [...name].length > most ? `${[...name].slice(0, most - 1).join('')}…` : name }
}))
const sentence = (words: string) => words.charAt(0).toUpperCase() + words.slice(1)
/** Controls, transformers, capacitors and coils: how they stand, and what hangs behind them of what they carry. */
const boxes = computed(() => drawing.value.boxes.map(({ id, through, x, y }) => {
  const { behindW, speakers } = line.throughs.find(t => t.nodeId === id)!
  const grade = line.findings.find(f => f.nodeId === id && isBad(f))?.grade ?? 'good'
  const load = behindW === null ? '' : wattText(behindW).replace(/\.0$/, '')
  const ratingW = 'ratingW' in through ? through.ratingW : undefined
  const rating = ratingW === undefined || ratingW === null ? '?' : writeNumber(ratingW)
  const third = through.kind === 'control' ? `${load || '?'}/${rating}` : through.kind === 'transformer' ? `${writeNumber(through.secondaryOhm)} Ω` : ''
  const spoken = [
    `${sentence(THROUGH_NAMES[through.kind])} ${through.label}`, through.name, throughWords(through), third, behindW === null ? '' : `${load} W behind it`,
    ratingW === undefined ? '' : ratingW === null ? 'rating not known' : `rated ${rating} W`, `before ${speakers.map(s => s.label).join(', ')}`, `on ${line.output.label}`,
  ].filter(Boolean).join(', ')
  return { id, x, y, ids: speakers.map(s => s.id), label: shortLabel(through.label), stands: throughText(through), third, grade, spoken }
}))
const isLooked = (tag: { id: string, ids: readonly string[] | null }) => selectedId !== null && (tag.ids ? tag.ids.includes(selectedId) : selectedId === tag.id)
const lineReading = computed(() => proof.standing.get(checkKey('line-impedance', null)) ?? null)

const lineSays = computed(() => {
  if (!lineReading.value) return ''
  const { verdict, stale } = lineReading.value
  if (verdict.grade === 'good') return proof.proved === proof.total ? '✓ line proved' : '✓ line impedance right'
  return verdict.grade === 'unknown' ? 'line read' : stale ? '✕ line, repaired since' : '✕ line reads wrong'
})

const spokenLine = computed(() => `Line ${line.output.label} ${name.value}, ${plannedWords(line.grade, proof.wrong)}, ${countOf(line.speakers.length, 'speaker')}, ${fine.value}`)
/** A house with a hole in its roof: tied to the wire like a luggage tag. */
const outline = (tagWidth: number) => `M${-tagWidth / 2} ${TAG.roof} H${-TAG.width / 2} L0 0 L${TAG.width / 2} ${TAG.roof} H${tagWidth / 2} V${TAG.height} H${-tagWidth / 2} Z`
/** A plate with its corners off: what stands in the wire, and is no speaker. */
const PLATE = `M${-TAG.width / 2} 8 L${-TAG.width / 2 + 8} 0 H${TAG.width / 2 - 8} L${TAG.width / 2} 8 V${TAG.height - 8} L${TAG.width / 2 - 8} ${TAG.height} H${-TAG.width / 2 + 8} L${-TAG.width / 2} ${TAG.height - 8} Z`
/** The edges of those that lie behind the first of a fold. */
const behind = (tagWidth: number) => [3, 6].map(d => `M${-tagWidth / 2 + d} ${TAG.height + d} H${tagWidth / 2 + d} V${TAG.roof + d}`).join(' ')
</script>

<template>
  <section class="rail-row" :class="{ selected: selectedId !== null }" :data-output="line.outputId">
    <div class="top">
      <h2 class="name" :title="name">{{ name }}</h2>
      <GradeTag :grade="line.grade" :words="plannedWords(line.grade, proof.wrong)" />
      <span v-if="lineReading" class="read small" :class="lineReading.verdict.grade" :title="`line impedance ${lineReading.verdict.code}`">
        {{ lineSays }}
      </span>
      <ReserveScale :figures="figures" class="scale" />
      <span class="fine soft">{{ fine }}<button v-if="foldState !== 'none'" class="act fold" type="button" @click="emit('fold')">
        {{ foldState === 'folded' ? 'every tag' : 'equals as one' }}</button></span>
    </div>
    <svg class="rail" :width="drawing.width" :height="drawing.height" :viewBox="`0 0 ${drawing.width} ${drawing.height}`" role="group" :aria-label="spokenLine">
      <g class="signal">
        <polyline v-for="(wire, k) in drawing.wires" :key="k" :points="wire.points" :stroke-width="stroke(wire.weight)" :stroke-opacity="fade(wire.volts)" />
        <path
          v-for="reach in drawing.reaches" :key="reach.id" :d="reach.path" :stroke-width="stroke(reach.weight)"
          :stroke-opacity="fade(reach.volts)" :class="{ suspect: suspects?.get(reach.id)?.inCable }" />
        <path v-for="(turn, k) in drawing.turns" :key="`turn${k}`" :d="`M${turn.x - 5} ${turn.y - 5} l5 5 l-5 5`" class="turn" />
      </g>
      <template v-for="reach in drawing.reaches" :key="`t${reach.id}`">
        <text v-if="reach.lengthM !== null" :x="reach.textX" :y="reach.textY" class="length">{{ writeLength(reach.lengthM, units) }}</text>
      </template>
      <g v-for="bracket in drawing.brackets" :key="bracket.id" class="bracket">
        <path :d="`M${bracket.x1} ${bracket.y} v5 H${bracket.x2} v-5`" />
        <text :x="(bracket.x1 + bracket.x2) / 2" :y="bracket.y + 9">{{ bracket.text }}</text>
      </g>
      <g v-for="span in spans" :key="`${span.of} ${span.row} ${span.x1}`" :class="span.of">
        <title>{{ span.of }} {{ span.name }}</title>
        <path :d="`M${span.x1} ${span.y} H${span.x2}`" />
        <text :x="span.x1 + 2" :y="span.y + 13">{{ span.short }}</text>
      </g>
      <text v-if="line.speakers.length === 0" x="30" :y="drawing.railY + 5" class="nothing">nothing on this rail yet: add a speaker (a)</text>

      <g
        v-for="tag in tags" :id="`tag-${tag.id}`" :key="tag.id"
        v-memo="[tag.x, tag.y, tag.width, tag.spoken, tag.wiring, tag.suspect, isLooked(tag), chosen.has(tag.id)]" class="tag" :data-node="tag.id"
        :data-output="line.outputId" :data-nodes="tag.ids?.join(' ')" :class="{ chosen: isLooked(tag), among: chosen.has(tag.id), suspect: tag.suspect }"
        :transform="`translate(${tag.x} ${tag.y})`" role="button" :tabindex="isLooked(tag) ? 0 : -1"
        :aria-label="tag.spoken" :aria-pressed="isLooked(tag) || chosen.has(tag.id)"
        @click="emit('select', tag.id, howOf($event))" @focus="onFocus($event, tag.id)"
      >
        <path v-if="tag.ids" :d="behind(tag.width)" class="behind" />
        <path :d="outline(tag.width)" class="outline" />
        <circle cy="7" r="2" class="hole" />
        <text y="20" class="label">{{ tag.label }}</text>
        <text y="35" class="figure wiring" :font-size="wiringPx(tag.wiring, tag.width)">{{ tag.wiring }}</text>
        <text y="48.5" class="figure watts">{{ tag.watts }}<template v-if="tag.ids && tag.watts !== '—'"> W</template></text>
        <text v-if="tag.volts !== '—'" :x="tag.width / 4" :y="TAG.height + 20" class="volts">{{ tag.volts }} V</text>
        <g class="marks" :transform="`translate(${tag.ids ? -tag.width / 4 : 0} ${TAG.height + (tag.ids ? 16 : 11)})`">
          <text
            v-for="(mark, k) in tag.marks" :key="mark.kind" :x="(k - (tag.marks.length - 1) / 2) * 17" y="4"
            :class="mark.grade ?? 'none'">{{ mark.mark }}</text>
          <text v-if="tag.mend" :x="tag.marks.length * 8.5 + 7" y="4" class="mend" :class="tag.mend">⚒</text>
        </g>
        <g v-if="tag.suspect" class="rank" :class="{ first: tag.suspect.chosen }" transform="translate(22 2)">
          <circle r="10" /><text y="4.5" class="figure">{{ tag.suspect.rank }}</text>
        </g>
      </g>

      <g
        v-for="box in boxes" :id="`tag-${box.id}`" :key="box.id" class="tag box" :class="{ chosen: selectedId === box.id }" data-box :data-node="box.id"
        :data-output="line.outputId" :data-nodes="box.ids.join(' ')" :transform="`translate(${box.x} ${box.y})`" role="button"
        :tabindex="selectedId === box.id ? 0 : -1" :aria-label="box.spoken" :aria-pressed="selectedId === box.id"
        @click="emit('select', box.id, 'alone')" @focus="onFocus($event, box.id)">
        <path :d="PLATE" class="outline" />
        <text y="17" class="label">{{ box.label }}</text>
        <text y="33" class="figure wiring">{{ box.stands }}</text>
        <text y="47.5" class="figure watts" :class="box.grade">{{ box.third }}</text>
      </g>

      <g
        :id="`rail-${line.outputId}`" class="terminal" :class="{ chosen: selectedId === '' }" role="button" :tabindex="selectedId === '' ? 0 : -1"
        :aria-label="spokenLine" :aria-pressed="selectedId === ''" :transform="`translate(0 ${drawing.railY})`" @click="emit('select', null, 'alone')"
        @focus="onFocus($event, null)">
        <rect x="-46" y="-22" width="56" height="44" class="hit" />
        <text x="-13" y="5" class="output">{{ line.output.label }}</text>
        <circle r="8" class="ring" /><circle r="3" class="core" />
      </g>
    </svg>
  </section>
</template>

<style scoped>
.rail-row { padding: 7px 0 0; position: relative; content-visibility: auto; contain-intrinsic-size: auto 150px; }

.rail-row::after { content: ''; position: absolute; left: 54px; right: 0; bottom: 0; border-bottom: 1px solid var(--rule); }
/* Containment would cut the terminal that stands on the amplifier's edge. */
.rail-row { padding-left: 54px; margin-left: -54px; }
/* Beside the heading alone: along the rail it lay over the first length. */
.selected .top::before { content: ''; position: absolute; left: 10px; top: 2px; bottom: 2px; width: 4px; background: var(--pen); }
.top { position: relative; display: flex; flex-wrap: wrap; align-items: center; gap: 0 12px; padding: 0 14px 3px 24px; }
.name { font-size: 16px; line-height: 24px; max-width: 100%; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.read { line-height: 24px; white-space: nowrap; }
.read.good { color: var(--good); }
.read.stop, .read.tight { color: var(--stop); }
.fine { flex-basis: 100%; font-size: 13.5px; line-height: 18px; }
.fold { font-size: 13.5px; padding: 0 0 0 12px; text-decoration: underline; text-decoration-color: var(--rule-strong); text-underline-offset: 3px; }
@media (pointer: coarse), (max-width: 760px) { .fold { margin: -13px 0; } }
.rail { display: block; overflow: visible; }
.signal polyline, .signal path { fill: none; stroke: var(--copper); stroke-linejoin: round; }
.signal .turn { stroke-width: 2; }
.signal .suspect { stroke-dasharray: 5 4; }
.length { font-size: 13px; fill: var(--ink-soft); text-anchor: middle; }
.nothing { font-size: 15px; fill: var(--ink-soft); }
.bracket path { fill: none; stroke: var(--rule-strong); stroke-width: 1; }
.bracket text { font-size: 12px; fill: var(--ink-soft); text-anchor: middle; paint-order: stroke; stroke: var(--paper); stroke-width: 6px; }
.zone path { fill: none; stroke: var(--ink); stroke-width: 2.5; }
.zone text { font-size: 12.5px; fill: var(--ink); }
.space path { fill: none; stroke: var(--rule-strong); stroke-width: 1.5; }
.space text { font-size: 12.5px; fill: var(--ink-soft); }
.tag, .terminal { cursor: pointer; outline: none; }
.tag text, .rank text { text-anchor: middle; }
.outline { fill: var(--paper-raised); stroke: var(--ink); stroke-width: 1.3; }
.volts { font-size: 12.5px; fill: var(--ink-soft); }
.behind { fill: none; stroke: var(--ink); stroke-width: 1.1; }
.hole { fill: var(--paper); stroke: var(--ink); stroke-width: 1; }
.label { font-size: 11.5px; fill: var(--ink-soft); }
.wiring { font-weight: 600; }
.watts { font-size: 13px; fill: var(--ink-soft); }
.tag.chosen .outline { fill: var(--ink); }
.tag.chosen .label, .tag.chosen .wiring, .tag.chosen .watts { fill: var(--paper); }
.tag.among:not(.chosen) .outline { fill: var(--wash); stroke-width: 3; }
.tag.suspect .outline { stroke-width: 2.4; stroke-dasharray: 5 3; }
.tag:focus-visible .outline, .terminal:focus-visible .ring { stroke: var(--pen); stroke-width: 3.4; }
.box .wiring { font-size: 13px; }
.box .watts { font-size: 11.5px; }
.box .watts.stop { fill: var(--stop); font-weight: 700; }
.box .watts.tight { fill: var(--tight); font-weight: 700; }
.box.chosen .watts { fill: var(--paper); }
.marks text { font-size: 14px; font-weight: 700; fill: var(--ink-soft); }
.marks .good { fill: var(--good); }
.marks .stop, .marks .tight { fill: var(--stop); }
.marks .mend { fill: var(--good); font-size: 12px; }
.marks .mend.awaiting { fill: var(--tight); }
.rank circle { fill: var(--paper-raised); stroke: var(--ink); stroke-width: 1.6; }
.rank.first circle { fill: var(--ink); }
.rank text { font-size: 12px; font-weight: 600; }
.rank.first text { fill: var(--paper); }
.terminal .output { text-anchor: end; font-weight: 700; font-size: 14.5px; }
.hit { fill: transparent; }
.ring { fill: var(--paper-raised); stroke: var(--ink); stroke-width: 1.5; }
.core { fill: var(--copper); }
.terminal.chosen .ring { fill: var(--ink); }
@media (max-width: 760px) { .top { padding-right: 4px; } }
</style>
