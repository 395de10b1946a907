<script setup lang="ts">
import { computed } from 'vue'
import { lineKindOf } from '#core/amplifier/index'
import type { LeadThere, MoveTo } from '#core/hands/many/many'
import { findPlace } from '#core/job/tree'
import { spareW } from '#core/line/allowance'
import { writeQuantity } from '#core/quantity/write'
import KeyCap from '~/components/KeyCap.vue'
import { useEvaluationStore } from '~/stores/evaluation'
import { useJobStore } from '~/stores/job'
import { useSelectionStore } from '~/stores/selection'
import ChoiceRow from '~/components/form/ChoiceRow.vue'

/** Where a speaker may go: every other line, with what it has to spare. */
const emit = defineEmits<{ move: [to: MoveTo], moveToNew: [], close: [] }>()
/** What becomes of its cable: along a rail it has a length that is seldom that of the new place. */
const leadThere = defineModel<LeadThere>('leadThere', { required: true })
const evaluation = useEvaluationStore()
const selected = useSelectionStore()
const store = useJobStore()
const targets = computed(() => evaluation.lines.filter(l => l.outputId !== selected.selection.outputId))

/** What stands in a line, behind which it may be meant. */
const behindOf = (line: (typeof targets.value)[number]) => line.throughs.filter(t => t.through.kind === 'control' || t.through.kind === 'transformer')
const hasLead = computed(() => store.job ? selected.ids.some(id => findPlace(store.opened, id)?.branch.lead) : false)

const what = computed(() => selected.throughGroup
  ? `${selected.throughGroup.through.label} and all behind it`
  : selected.isMany ? `${selected.ids.length} speakers` : selected.speaker?.label)

function spare(line: (typeof targets.value)[number]): string {
  const left = lineKindOf(line.output.rating) === 'constant-voltage' ? spareW(line) : null
  if (left === null) return line.loadOhm === null ? 'empty' : `${writeQuantity(line.loadOhm, 'Ω')} now`
  return left >= 0 ? `${writeQuantity(left, 'W')} to spare by the rule` : `${writeQuantity(-left, 'W')} over already`
}
const LEADS: { value: LeadThere, says: string }[] = [{ value: 'along', says: 'as long as now' }, { value: 'not-stated', says: 'length not known there' }]
</script>

<template>
  <section class="picker" aria-label="Move to another line">
    <h3>Move {{ what }} to</h3>
    <ChoiceRow v-if="hasLead" v-model="leadThere" label="Its cable there" before="its cable" :choices="LEADS" />
    <button class="offer" type="button" @click="emit('moveToNew')">
      a new output
      <span class="then">on the same amplifier, rated like {{ selected.line?.output.label }}</span>
      <KeyCap of="0" />
    </button>
    <template v-for="(line, k) in targets" :key="line.outputId">
      <button class="offer" type="button" @click="emit('move', { outputId: line.outputId })">
        {{ line.output.label }} {{ line.output.name }}<template v-if="behindOf(line).length > 0">, at its end</template>
        <span class="then">{{ spare(line) }}</span>
        <KeyCap v-if="k < 9" :of="String(k + 1)" />
      </button>
      <button v-for="t in behindOf(line)" :key="t.nodeId" class="offer behind" type="button" @click="emit('move', { behindId: t.nodeId })">
        {{ line.output.label }}, behind {{ t.through.label }} {{ t.through.name }}
        <span v-if="t.behindW !== null" class="then">{{ writeQuantity(t.behindW, 'W') }} behind it now</span>
      </button>
    </template>
    <button class="act" type="button" @click="emit('close')">leave it here <KeyCap of="Esc" /></button>
  </section>
</template>

<style scoped>
.picker { display: grid; gap: 8px; }
.behind { margin-left: 18px; width: auto; }
</style>
