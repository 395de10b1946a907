<script setup lang="ts">
import { computed } from 'vue'
import { lineKindOf } from '#core/amplifier/index'
import { spareW } from '#core/line/allowance'
import { writeQuantity } from '#core/quantity/write'
import KeyCap from '~/components/KeyCap.vue'
import { useEvaluationStore } from '~/stores/evaluation'
import { useSelectionStore } from '~/stores/selection'

/** Where a speaker may go: every other line, with what it has to spare. */
const emit = defineEmits<{ move: [outputId: string], moveToNew: [], close: [] }>()
const evaluation = useEvaluationStore()
const selected = useSelectionStore()
const targets = computed(() => evaluation.lines.filter(l => l.outputId !== selected.selection.outputId))

const what = computed(() => selected.throughGroup
  ? `${selected.throughGroup.through.label} and all behind it`
  : selected.isMany ? `${selected.ids.length} speakers` : selected.speaker?.label)

function spare(line: (typeof targets.value)[number]): string {
  const left = lineKindOf(line.output.rating) === 'constant-voltage' ? spareW(line) : null
  if (left === null) return line.loadOhm === null ? 'empty' : `${writeQuantity(line.loadOhm, 'Ω')} now`
  return left >= 0 ? `${writeQuantity(left, 'W')} to spare by the rule` : `${writeQuantity(-left, 'W')} over already`
}
</script>

<template>
  <section class="picker" aria-label="Move to another line">
    <h3>Move {{ what }} to</h3>
    <button class="offer" type="button" @click="emit('moveToNew')">
      a new output
      <span class="then">on the same amplifier, rated like {{ selected.line?.output.label }}</span>
      <KeyCap of="0" />
    </button>
    <button v-for="(line, k) in targets" :key="line.outputId" class="offer" type="button" @click="emit('move', line.outputId)">
      {{ line.output.label }} {{ line.output.name }}
      <span class="then">{{ spare(line) }}</span>
      <KeyCap v-if="k < 9" :of="String(k + 1)" />
    </button>
    <button class="act" type="button" @click="emit('close')">leave it here <KeyCap of="Esc" /></button>
  </section>
</template>

<style scoped>
.picker { display: grid; gap: 8px; }
</style>
