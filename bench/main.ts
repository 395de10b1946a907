import { execFileSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { cpus } from 'node:os'
import { denseRows, growthOfTen, sweepRows } from './solver'
import { evaluationTimes } from './evaluation'
import { keyTimes } from './keys'

/** Measures everything once and writes docs/benchmarks.md. Ratios are what is aimed at: both sides ran on one machine in one go. */

const ms = (value: number) => value >= 100 ? value.toFixed(0) : value >= 1 ? value.toFixed(2) : value.toFixed(4)
const times = (ratio: number) => `${ratio >= 100 ? ratio.toFixed(0) : ratio.toFixed(1)} ×`
const met = (yes: boolean) => yes ? 'met' : '**not met**'

const sweeps = sweepRows()
const dense = denseRows()
const evaluation = evaluationTimes()
const keys = await keyTimes()

const row = (drops: number, frequencies: number) => sweeps.find(s => s.drops === drops && s.frequencies === frequencies)!
const ratio = (drops: number) => row(drops, 240).ratio
const growth = growthOfTen()
const at100 = dense.find(d => d.nodes === 100)!
const ngspice = /ngspice-[\d.]+/.exec(execFileSync('ngspice', ['--version'], { encoding: 'utf8' }))?.[0] ?? 'ngspice'

const aims: [string, string, string, boolean][] = [
  ['200 drops × 240 frequencies, against ngspice', '5 ×', times(ratio(200)), ratio(200) >= 5],
  ['2,000 drops × 240 frequencies, against ngspice', '25 ×', times(ratio(2000)), ratio(2000) >= 25],
  ['100 nodes, against the dense solve', '1,000 ×', times(at100.denseMs / at100.oursMs), at100.denseMs / at100.oursMs >= 1000],
  // Linear is ten; 5 % is what one run differs from the next.
  ['growth from 200 to 2,000 drops (× 240)', 'no more than linear: 10 ×, ± 5 % of measuring', times(growth), growth <= 10.5],
  ['1,000 speakers evaluated after one edit', '5 ms', `${ms(evaluation.afterEditMs)} ms`, evaluation.afterEditMs < 5],
  ['1,000 speakers evaluated whole', '60 ms', `${ms(evaluation.wholeMs)} ms`, evaluation.wholeMs < 60],
  ['key press to paint, 1,000 speakers, 95th percentile', '100 ms', `${ms(keys.p95Ms)} ms`, keys.p95Ms < 100],
]

const text = `# Benchmarks

Written by \`npm run bench\` from one run: ${cpus().length} × ${cpus()[0]!.model.trim()}, Node ${process.version}, ${ngspice}. Medians, unless said otherwise.

| what | aim | measured | |
|---|---|---|---|
${aims.map(([what, aim, measured, ok]) => `| ${what} | ${aim} | ${measured} | ${met(ok)} |`).join('\n')}

## The network: both walks, every drop's volts and amps, beside ngspice

A daisy chain of motional speakers, no two alike. Ours includes laying the tree flat; ngspice's is its own AC-analysis time
(reading the netlist and setting up are not counted against it; it counts in ms).

| drops | frequencies | here, ms | ngspice, ms | ratio |
|---|---|---|---|---|
${sweeps.map(s => `| ${s.drops} | ${s.frequencies} | ${ms(s.oursMs)} | ${s.spiceMs === 0 ? 'under 1' : ms(s.spiceMs)} | ${s.spiceMs === 0 ? '–' : times(s.ratio)} |`).join('\n')}

## The network beside a dense nodal solve (mathjs \`lusolve\`, one frequency, the same nodes, answers compared)

| nodes | here, ms | dense, ms | ratio |
|---|---|---|---|
${dense.map(d => `| ${d.nodes} | ${ms(d.oursMs)} | ${ms(d.denseMs)} | ${times(d.denseMs / d.oursMs)} |`).join('\n')}

## A job of 1,000 speakers (25 lines of 40)

- evaluated whole (loads, findings, schools, predicted readings of every line): ${ms(evaluation.wholeMs)} ms
- after one edit, applying it included: ${ms(evaluation.afterEditMs)} ms
- every single fault of one line of 40 simulated and ranked: ${ms(evaluation.suspectsMs)} ms
- key press to next paint on its run sheet, in Chromium, by the browser's event timing, ${keys.presses} presses (taps, moves, add, undo): median ${ms(keys.medianMs)} ms, 95th percentile ${ms(keys.p95Ms)} ms
`
writeFileSync('docs/benchmarks.md', text)
process.stdout.write(text)
