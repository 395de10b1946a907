<script setup lang="ts">
import { computed, useTemplateRef, watch } from 'vue'
import { useVirtualizer } from '@tanstack/vue-virtual'
import { readCell, writeCell } from '#core/gear/cells'
import type { GearRow } from '#core/gear/protocol'
import TextEntry from '~/components/form/TextEntry.vue'
import { TOUCH, useMedia } from '~/composables/useMedia'
import { cellText, columnPx, type ListColumn } from '~/gear/list'

/** Models as rows. Only those in sight are drawn: ten thousand scroll like ten. */
const { columns, rows, at, editing } = defineProps<{
  columns: readonly ListColumn[]
  rows: readonly GearRow[]
  /** Models of which something is not on the server yet. */
  waits: ReadonlySet<string>
  at: string | null
  /** The row whose cells are fields. */
  editing: string | null
  marked: ReadonlySet<string>
  sort: string
  isDown: boolean
}>()
const emit = defineEmits<{
  look: [id: string]
  open: [id: string]
  mark: [row: GearRow]
  leave: []
  sort: [key: string]
  change: [row: GearRow, key: string, value: unknown]
}>()

/** A row for a finger is higher. */
const isTouched = useMedia(TOUCH)
const rowPx = computed(() => isTouched.value ? 44 : 34)
/** The line of heads, which stays: two lines of words. */
const HEAD = 48
const scroller = useTemplateRef<HTMLElement>('scroller')
/** Rows drawn beyond what is in sight, so that a notch of the wheel never shows a gap. */
const BEYOND = 6
const virtualizer = useVirtualizer(computed(() => ({
  count: rows.length, getScrollElement: () => scroller.value, estimateSize: () => rowPx.value, overscan: BEYOND, getItemKey: (k: number) => rows[k]?.id ?? k,
})))
// A search leaves fewer rows than were in sight a moment before.
const shown = computed(() => virtualizer.value.getVirtualItems().flatMap(({ index, start }) => rows[index] ? [{ row: rows[index], y: start }] : []))
watch(rowPx, () => virtualizer.value.measure())
/** The name, then figures as wide as they need, words as wide as there is. */
const template = computed(() => `${isTouched.value ? 44 : 28}px minmax(210px, 2.2fr) ${columns.slice(1).map(c => c.isNumber ? 'minmax(72px, .6fr)' : c.column.cell === 'scales' || c.column.cell === 'outputs' ? 'minmax(150px, 2fr)' : 'minmax(96px, 1fr)').join(' ')} 56px`)

/** Columns that somebody chose may be more than fit: then the table is drawn sideways. */
const leastPx = computed(() => 330 + columns.slice(1).reduce((sum, c) => sum + columnPx(c), 0))

/** A row that was scrolled to is drawn a frame or two later. */
const FRAMES_UNTIL_DRAWN = 3
function focusRow(id: string, frames: number): void {
  const row = document.getElementById(`gear-${id}`)
  if (row) row.focus({ preventScroll: true })
  else if (frames > 0) requestAnimationFrame(() => focusRow(id, frames - 1))
}

defineExpose({
  /** Brings a row into sight and puts the focus there. */
  show(id: string): void {
    const k = rows.findIndex(r => r.id === id)
    const element = scroller.value
    if (!element || k === -1) return
    if (k * rowPx.value < element.scrollTop) element.scrollTop = k * rowPx.value
    else if ((k + 1) * rowPx.value + HEAD > element.scrollTop + element.clientHeight) element.scrollTop = (k + 1) * rowPx.value + HEAD - element.clientHeight
    // At once where the row is drawn already: a second key comes before the next frame.
    focusRow(id, FRAMES_UNTIL_DRAWN)
  },
  enter: () => scroller.value?.querySelector<HTMLInputElement>('.editing input:not([type=checkbox])')?.focus(),
})
</script>

<template>
  <div
    ref="scroller" class="scroller" role="table" aria-label="Models" :aria-rowcount="rows.length + 1"
    :style="{ '--row': `${rowPx}px`, '--least': `${leastPx}px` }">
    <div class="line head" role="row" :style="{ gridTemplateColumns: template }">
      <span role="columnheader" class="mark"><span class="hidden-label">marked</span></span>
      <span
        v-for="c in columns" :key="c.column.key" role="columnheader" :class="{ number: c.isNumber }"
        :aria-sort="sort === c.column.key ? (isDown ? 'descending' : 'ascending') : 'none'">
        <button class="sort" type="button" :title="`by ${c.head}`" @click="emit('sort', c.column.key)">{{ c.head }}<b
          v-if="sort === c.column.key">{{ isDown ? ' ↓' : ' ↑' }}</b></button>
      </span>
      <span role="columnheader" class="number soft jobs">jobs</span>
    </div>
    <div role="rowgroup" class="body" :style="{ height: `${rows.length * rowPx}px` }">
      <div
        v-for="{ row, y } in shown" :id="`gear-${row.id}`" :key="row.id" class="line" role="row" :tabindex="row.id === at ? 0 : -1"
        :class="{ on: row.id === at, retired: row.isRetired, editing: row.id === editing }" :style="{ top: `${y}px`, gridTemplateColumns: template }"
        :aria-selected="row.id === at"
        :data-form="row.id === editing ? '' : undefined" @click="row.id !== editing && emit('look', row.id)" @dblclick="emit('open', row.id)"
        @keydown.esc="emit('leave')">
        <span role="cell" class="mark"><label @click.stop><input
          type="checkbox" tabindex="-1" :checked="marked.has(row.id)" :aria-label="`mark ${row.values[0]}`" @change="emit('mark', row)"></label></span>
        <span v-for="c in columns" :key="c.column.key" role="cell" :class="{ number: c.isNumber, figure: c.isNumber }" :title="cellText(c, row.values[c.at])">
          <TextEntry
            v-if="row.id === editing" :label="c.head" hide-label :text="writeCell(c.column, row.values[c.at])" :read="typed => readCell(c.column, typed)"
            @commit="emit('change', row, c.column.key, $event)" />
          <template v-else>{{ cellText(c, row.values[c.at]) }}<i v-if="c.at === 0 && row.isRetired" class="soft"> · retired</i><i
            v-if="c.at === 0 && waits.has(row.id)" class="soft"> · to send</i></template>
        </span>
        <span role="cell" class="number figure soft">{{ row.usedIn || '' }}</span>
      </div>
    </div>
  </div>
</template>

<style scoped>
.scroller { flex: 1 1 240px; min-height: 200px; overflow: auto; position: relative; border-bottom: 1px solid var(--rule); }
.head { position: sticky; top: 0; z-index: 2; background: var(--paper); border-bottom: 1.5px solid var(--ink); }
.body { position: relative; min-width: var(--least); }
.line { display: grid; gap: 0 12px; height: var(--row); align-items: center; padding: 0 6px; min-width: var(--least); }
.body .line { position: absolute; left: 0; right: 0; border-bottom: 1px solid var(--rule); cursor: pointer; }
.line > span { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; font-size: 15px; }
.body .line > span:nth-child(2) { font-weight: 600; }
/* After .line: it is one, and higher. */
.line.head { height: 48px; align-items: end; padding-bottom: 4px; }
.line.head > span { white-space: normal; }
.number { text-align: right; }
.sort { border: 0; background: none; padding: 0; min-height: 24px; min-width: 24px; cursor: pointer; font-size: 13.5px;
  line-height: 1.25; color: var(--ink-soft); text-align: inherit; }
@media (pointer: coarse), (max-width: 760px) { .sort { min-height: 44px; } }
.sort b { color: var(--ink); }
.on { background: var(--wash); box-shadow: inset 3px 0 var(--pen); }
.retired { color: var(--ink-soft); }
.editing { background: var(--paper-raised); z-index: 1; }
.editing > span { overflow: visible; }
.editing :deep(input) { padding: 2px 5px; }
.editing :deep(.error-words) { position: absolute; background: var(--paper-raised); border: 1px solid var(--stop);
  padding: 4px 8px; z-index: 3; white-space: normal; max-width: 320px; }
.head .jobs { font-size: 13.5px; line-height: 1.25; }
.mark label { display: grid; place-items: center; min-width: 100%; }
.mark input { width: 18px; height: 18px; accent-color: var(--ink); vertical-align: middle; }
</style>
