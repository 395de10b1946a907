<script setup lang="ts">
import { computed } from 'vue'
import { checkKey, SPEAKER_CHECKS } from '#core/check/proof'
import { markWords } from '#core/check/words'
import { findingWords } from '#core/match/words'
import { remedyWords } from '#core/match/remedies/index'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import { lineWhence, voltsWhence, wattsWhence } from '#core/match/whence'
import GradeTag from '~/components/GradeTag.vue'
import KeyCap from '~/components/KeyCap.vue'
import { throughWords } from '~/drawing/speakerText'
import { useJobStore } from '~/stores/job'
import { useMatchPaneStore } from '~/stations/match/pane'
import { useSelectionStore } from '~/stores/selection'
import VoltsChart from './VoltsChart.vue'

const matchPane = useMatchPaneStore()
const selected = useSelectionStore()
const store = useJobStore()

/** Findings with the numbers of their remedies counted through. */
const items = computed(() => {
  let number = 0
  return matchPane.findings.map(({ finding, remedies }) => ({
    key: `${finding.code} ${finding.nodeId ?? ''}`, finding, words: findingWords(finding),
    remedies: remedies.map(remedy => ({ remedy, number: ++number, words: remedyWords(remedy.facts) })),
  }))
})
/** The marks under the selected tag, in words. */
const marks = computed(() => {
  const { speaker, proof } = selected
  if (!speaker || !proof) return ''
  return SPEAKER_CHECKS.map(kind => markWords(kind, proof.standing.get(checkKey(kind, speaker.id))?.verdict.grade)).join(', ')
})
const drop = computed(() => selected.line?.drops.find(d => d.nodeId === selected.selection.nodeId) ?? null)
/** Where its figures come from. */
const whence = computed(() => {
  const { line } = selected
  if (!line || !store.job) return []
  if (drop.value) return [voltsWhence(line, drop.value), wattsWhence(drop.value)].filter(s => s !== null)
  return selected.selection.nodeId === null ? lineWhence(line, store.job.practice) : []
})
/** The control or the transformer that is looked at. */
const standing = computed(() => selected.line?.throughs.find(t => t.nodeId === selected.standing?.group.id) ?? null)
</script>

<template>
  <div class="findings">
    <section v-for="{ key, finding, words, remedies } in items" :key="key" class="finding">
      <p class="what"><GradeTag :grade="finding.grade" /> {{ words.what }}</p>
      <p v-if="words.why || words.todo" class="soft">{{ [words.why, remedies.length === 0 ? words.todo : ''].filter(Boolean).join(' ') }}</p>
      <button v-for="offer in remedies" :key="offer.number" class="offer" type="button" @click="store.edit(offer.remedy.edit)">
        {{ offer.words.does }}
        <span class="then">{{ offer.words.then }}</span>
        <KeyCap v-if="offer.number < 10" :of="String(offer.number)" />
      </button>
    </section>
    <VoltsChart v-if="selected.line" :line="selected.line" :selected-id="selected.selection.nodeId" />
    <p v-if="drop" class="soft">
      {{ drop.label }}: <template v-if="drop.volts !== null"><span class="figure">{{ writeQuantity(drop.volts, 'V') }}</span>, gets <span
        class="figure">{{ writeQuantity(drop.powerW ?? 0, 'W') }}</span><template
        v-if="drop.speaker.load.kind === 'tap'"> of {{ writeNumber(drop.speaker.load.tapW) }}</template>.</template>
      <template v-else>what it gets is not known until the amplifier is rated.</template> Read: {{ marks }}.
    </p>
    <ul v-if="whence.length > 0" class="soft whence" aria-label="Where these figures come from">
      <li v-for="sum in whence" :key="sum">{{ sum }}</li>
    </ul>
    <p v-if="standing" class="soft">
      {{ standing.through.label }}: {{ throughWords(standing.through) }}<template v-if="standing.inW !== null && standing.outW !== null">; takes <span
        class="figure">{{ writeQuantity(standing.inW, 'W') }}</span>, gives on <span
        class="figure">{{ writeQuantity(standing.outW, 'W') }}</span></template>. Behind it: {{ standing.speakers.map(s => s.label).join(', ') }}.
    </p>
  </div>
</template>

<style scoped>
.findings { display: grid; gap: 18px; }
.finding { display: grid; gap: 7px; }
.what { line-height: 1.5; }
.whence { list-style: none; padding: 0; margin: -10px 0 0; font-size: 13.5px; display: grid; gap: 3px; }
</style>
