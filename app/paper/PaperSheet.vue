<script setup lang="ts">
import type { Sheet } from './sheet'

/** One sheet as it goes onto paper: black on white, by day and by night. Its tables go over pages with their heads; a row is never cut. */
const { sheet } = defineProps<{ sheet: Sheet, jobName: string, date: string }>()
const isWideSheet = () => sheet.id === 'schedule'
</script>

<template>
  <article class="paper" :class="[`sheet-${sheet.id}`, { sideways: isWideSheet() }]" :aria-label="sheet.title">
    <header>
      <h2>{{ sheet.title }}</h2>
      <p class="of"><b>{{ jobName }}</b><span>{{ date }}</span><span v-if="sheet.code">sheet <b class="code">{{ sheet.code }}</b></span></p>
    </header>
    <ul v-if="sheet.before.length > 0" class="before"><li v-for="text in sheet.before" :key="text">{{ text }}</li></ul>
    <p v-if="sheet.tables.length + sheet.tags.length === 0">{{ sheet.empty }}</p>
    <section v-for="(table, k) in sheet.tables" :key="k" :class="{ rail: table.isRail }">
      <h3 v-if="table.rows.length === 0">{{ table.caption }}</h3>
      <table v-else>
        <!-- What it is of stands on every page that it goes over. -->
        <thead>
          <tr><th class="caption" :colspan="table.columns.length">{{ table.caption }}</th></tr>
          <tr><th
            v-for="(column, c) in table.columns" :key="c" :class="{ figures: column.isFigure, written: column.isWritten, widest: column.isWide }">{{
              column.says }}</th></tr>
        </thead>
        <tbody>
          <tr v-if="table.says"><td class="says" :colspan="table.columns.length">{{ table.says }}</td></tr>
          <tr v-for="(row, r) in table.rows" :key="r" :style="row.depth ? { '--depth': row.depth } : undefined">
            <td
              v-for="(cell, c) in row.cells" :key="c"
              :class="{ figures: table.columns[c]!.isFigure, written: table.columns[c]!.isWritten, at: c === 0 }">{{ cell }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="table.rows.length === 0" class="says">{{ table.says }} Nothing hangs there yet.</p>
    </section>
    <ul v-if="sheet.tags.length > 0" class="tags">
      <li v-for="(tag, k) in sheet.tags" :key="k"><b class="code">{{ tag.code }}</b><span v-for="line in tag.lines" :key="line">{{ line }}</span></li>
    </ul>
  </article>
</template>

<style scoped>
.paper { background: #fff; color: #000; padding: 12mm; font-size: 10.5pt; line-height: 1.35; color-scheme: light; overflow-wrap: break-word; }
header { display: flex; justify-content: space-between; align-items: baseline; gap: 4mm 8mm; flex-wrap: wrap; border-bottom: 1.5pt solid #000;
  padding-bottom: 2mm; }
h2 { font-size: 17pt; }
h3 { font-size: 12pt; padding-top: 4mm; break-after: avoid; }
.of { display: flex; flex-wrap: wrap; gap: 1mm 6mm; }
.code { font-family: var(--mono); letter-spacing: .05em; }
.before { padding: 2mm 0 0 5mm; font-size: 9.5pt; }
p.says, td.says { font-size: 9.5pt; }
.caption { font-size: 12pt; font-weight: 700; padding-top: 4mm; border-bottom: 0; }
table { border-collapse: collapse; width: 100%; }
th { text-align: left; font-size: 9pt; font-weight: 600; vertical-align: bottom; border-bottom: 1pt solid #000; }
th, td { padding: 1.1mm 3mm 1.1mm 0; }
td { border-bottom: .5pt solid #777; vertical-align: top; }
tr { break-inside: avoid; }
.widest { width: 30%; }
.figures { text-align: right; white-space: nowrap; font-variant-numeric: tabular-nums; }
.at { font-weight: 600; white-space: nowrap; }
/* Room for a pen with gloves on. */
td.written { min-width: 24mm; border: .75pt solid #000; }
th.written { min-width: 24mm; padding-left: 1.5mm; }
tr:has(td.written) td { padding-top: 2.2mm; padding-bottom: 2.2mm; }
.sheet-walk .widest { width: 38%; }
/* Four columns of sentences, of which what is connected says most. */
.sheet-schedule .widest { width: 14%; }
.sheet-schedule th.widest:nth-last-child(2) { width: 36%; }
.sheet-schedule td.written, .sheet-schedule th.written { min-width: 13mm; }
.sheet-schedule tr:has(td.written) td { padding-top: 1.1mm; padding-bottom: 1.1mm; font-size: 9pt; }
/* The rail, with a tick to each that hangs on it. */
.rail th:first-child:not(.caption), .rail td.at { padding-left: calc(5mm + var(--depth, 0) * 4mm); position: relative; }
.rail td.at { border-left: 2pt solid #000; }
.rail td.at::before { content: ''; position: absolute; left: 0; top: 3.3mm; width: calc(3.5mm + var(--depth, 0) * 4mm); border-top: 1.5pt solid #000; }
.rail tr:last-child td.at { border-left-color: transparent; }
.rail tr:last-child td.at::after { content: ''; position: absolute; left: -2pt; top: 0; height: 3.6mm; border-left: 2pt solid #000; }
.tags { list-style: none; padding: 4mm 0 0; display: grid; grid-template-columns: repeat(3, minmax(0, 1fr)); }
.tags li { border: .75pt dashed #000; margin: 0 -.75pt -.75pt 0; padding: 2.5mm 3mm; display: grid; gap: .5mm; font-size: 9pt; break-inside: avoid;
  min-height: 24mm; align-content: start; }
.tags .code { font-size: 14pt; }
@media print {
  .paper { padding: 0; break-after: page; }
  .paper:last-child { break-after: auto; }
  .sideways { page: sideways; }
}
/* On a phone the paper is looked at, not printed: it is moved sideways. */
@media screen and (max-width: 760px) {
  .paper { padding: 6mm; overflow-x: auto; }
  .paper table { min-width: 150mm; }
  .tags { grid-template-columns: repeat(2, minmax(0, 1fr)); }
}
</style>
