<script setup lang="ts">
import { isRated } from '#core/amplifier/index'
import { marksAt } from '#core/check/marks'
import { leftWords, openWords } from '#core/check/openWords'
import type { LineEvaluation } from '#core/line/evaluate'
import type { DropFacts } from '#core/line/facts'
import { findingWords } from '#core/line/words'
import { remedyWords } from '#core/advice/remedies/index'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import { lineWhence, voltsWhence, wattsWhence } from '#core/advice/figureOrigin'
import GradeTag from '~/components/GradeTag.vue'
import KeyCap from '~/components/KeyCap.vue'
import { throughWords } from '~/drawing/speakerText'
import { useAfterPaint } from '~/composables/useAfterPaint'
import { useJobStore } from '~/stores/job'
import { useMatchPaneStore } from '~/stations/match/pane'
import { useSelectionStore } from '~/stores/selection'
import VoltsChart from './rail/VoltsChart.vue'
import { useUnits } from '~/composables/useUnits'

const { units } = useUnits()
const matchPane = useMatchPaneStore()
const selected = useSelectionStore()
const store = useJobStore()

/** Findings with the numbers of their remedies counted through. */
function itemsOf() {
  let number = 0
  return matchPane.findings.map(({ finding, remedies }) => ({
    key: `${finding.code} ${finding.nodeId ?? ''}`, finding, words: findingWords(finding),
    remedies: remedies.map(remedy => ({ remedy, number: ++number, words: remedyWords(remedy) })),
  }))
}
/** The marks under the selected tag, in words. */
function marksOf(): string {
  const { speaker, proof } = selected
  if (!speaker || !proof) return ''
  return marksAt(proof, speaker.id).map(mark => mark.says).join(', ')
}
/** Where its figures come from. */
function whenceOf(line: LineEvaluation, drop: DropFacts | null): string[] {
  if (drop) return [voltsWhence(line, drop, units.value), wattsWhence(drop)].filter(s => s !== null)
  return selected.selection.nodeId === null && store.job ? lineWhence(line, store.job.practice) : []
}
/** All that is said here comes a frame after the rail: the tag follows the key at once. */
const says = useAfterPaint(() => {
  const { line, selection: { nodeId } } = selected
  if (!line) return null
  const drop = line.drops.find(d => d.nodeId === nodeId) ?? null
  return {
    line, nodeId, drop, items: itemsOf(), marks: marksOf(),
    open: nodeId === null && selected.proof ? openWords(selected.proof) : '',
    left: nodeId === null && selected.proof ? leftWords(selected.proof, id => line.speakers.find(s => s.id === id)?.label ?? 'At the rack') : [], whence: whenceOf(line, drop),
    /** The control or the transformer that is looked at. */
    throughGroup: line.throughs.find(t => t.nodeId === selected.throughGroup?.group.id) ?? null,
  }
})
</script>

<template>
  <div v-if="says" class="findings">
    <section v-for="{ key, finding, words, remedies } in says.items" :key="key" class="finding">
      <p class="what"><GradeTag :grade="finding.grade" /> {{ words.what }}</p>
      <p v-if="words.why || words.todo" class="soft">{{ [words.why, remedies.length === 0 ? words.todo : ''].filter(Boolean).join(' ') }}</p>
      <button v-for="offer in remedies" :key="offer.number" class="offer" type="button" @click="store.edit(offer.remedy.edit)">
        {{ offer.words.does }}
        <span class="then">{{ offer.words.then }}</span>
        <KeyCap v-if="offer.number < 10" :of="String(offer.number)" />
      </button>
    </section>
    <VoltsChart :line="says.line" :selected-id="says.nodeId" />
    <p v-if="says.drop" class="soft">
      {{ says.drop.label }}: <template v-if="says.drop.volts !== null"><span class="figure">{{ writeQuantity(says.drop.volts, 'V') }}</span>, gets <span
        class="figure">{{ writeQuantity(says.drop.powerW ?? 0, 'W') }}</span><template
        v-if="says.drop.speaker.load.kind === 'tap'"> of {{ writeNumber(says.drop.speaker.load.tapW) }}</template>.</template>
      <template v-else-if="!isRated(says.line.output.rating)">what it gets is not known until the amplifier is rated.</template><template
        v-else>what it would get is not said: the output may not drive this load.</template> Read: {{ says.marks }}.
    </p>
    <ul v-if="says.whence.length > 0" class="soft whence" aria-label="Where these figures come from">
      <li v-for="sum in says.whence" :key="sum">{{ sum }}</li>
    </ul>
    <p v-if="says.open" class="soft">{{ says.open }}</p>
    <p v-for="text in says.left" :key="text" class="soft">{{ text }}.</p>
    <p v-if="says.throughGroup" class="soft">
      {{ says.throughGroup.through.label }}: {{ throughWords(says.throughGroup.through) }}<template
        v-if="says.throughGroup.inW !== null && says.throughGroup.outW !== null">; takes
        <span class="figure">{{ writeQuantity(says.throughGroup.inW, 'W') }}</span>, gives on
        <span class="figure">{{ writeQuantity(says.throughGroup.outW, 'W') }}</span></template>. Behind
      it: {{ says.throughGroup.speakers.map(s => s.label).join(', ') }}.
    </p>
  </div>
</template>

<style scoped>
.findings { display: grid; gap: 18px; }
.finding { display: grid; gap: 7px; }
.what { line-height: 1.5; }
.whence { list-style: none; padding: 0; margin: -10px 0 0; font-size: 13.5px; display: grid; gap: 3px; }
</style>
