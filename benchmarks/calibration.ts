import { writeFileSync } from 'node:fs'
import { cpus } from 'node:os'
import { makeRig, type Rig } from '../tests/outside/rigs'
import { isByName } from '../tests/outside/rigJob'
import type { Reading } from '#core/job/schema'
import { byParts, seedsOfPart } from './parts'
import { afterMending } from './tracePlay'
import { allEars, Calibration, head, rankingOf, tenthOf, walked, WEIGHTS, type Said } from './rigRanking'

/**
 * What a percentage of a trace is worth: npm run bench:calibration. Writes docs/benchmarks-calibration.md, again whenever some more were counted; a thousand
 * rigs take ten minutes on two cores.
 */

const RIGS = Number(process.argv[2] ?? 1000)
/** So many again after a repair, and after each walk. */
const FEWER = Math.floor(RIGS / 16)
/** So likely, and it is counted by its line. */
const LIKELY = 0.5
const TOLD_EVERY = 20

const COUNTED = ['byHead', 'byAll', 'byLine', 'byMeter', 'byPulse', 'mended', 'right'] as const
type Counted = typeof COUNTED[number]
interface Found { counted: Record<Counted, [string, Said][]>, rigs: number, walks: number, plays: number, named: number }

const began = performance.now()
await byParts<Found>(import.meta.filename, RIGS, (tell) => {
  const by = Object.fromEntries(COUNTED.map(c => [c, new Calibration()])) as Record<Counted, Calibration>
  const counts = { rigs: 0, walks: 0, plays: 0, named: 0 }
  const told = () => tell({ counted: Object.fromEntries(COUNTED.map(c => [c, [...by[c].by]])) as Found['counted'], ...counts })
  const count = (of: Calibration, rig: Rig, readings: readonly Reading[]) => {
    const { suspects } = rankingOf(rig, readings).ranking
    for (const s of suspects) of.add(tenthOf(s.probability), s.probability, isByName(s.faults, rig))
    return suspects
  }
  // Other seeds than those that the shares after a repair were counted on.
  for (const seed of seedsOfPart(10_001, FEWER)) {
    const after = afterMending(seed, 7)
    counts.plays++
    counts.named += Number(after !== null)
    for (const s of after?.suspects ?? []) {
      const isSo = isByName(s.faults, after!.rig)
      by.mended.add(tenthOf(s.probability), s.probability, isSo)
      if (s.faults.length === 0) by.right.add('as drawn', s.probability, isSo)
    }
  }
  told()
  for (const seed of seedsOfPart(20_001, FEWER)) {
    const rig = makeRig(seed, WEIGHTS)
    count(by.byMeter, rig, walked(rig, 'level-walk'))
    count(by.byPulse, rig, walked(rig, 'pulse-walk'))
    counts.walks++
  }
  for (const seed of seedsOfPart(1, RIGS)) {
    const rig = makeRig(seed, WEIGHTS)
    count(by.byHead, rig, head(rig))
    for (const s of count(by.byAll, rig, allEars(rig))) if (s.probability >= LIKELY) by.byLine.add(rig.kind, s.probability, isByName(s.faults, rig))
    if (++counts.rigs % TOLD_EVERY === 0) told()
  }
  told()
}, write)

function write(parts: readonly Found[]): void {
  const table = (of: Counted, title = 'said') => Calibration.of(parts.map(p => p.counted[of])).table(title)
  const count = (of: 'rigs' | 'walks' | 'plays' | 'named') => parts.reduce((n, p) => n + p[of], 0)
  writeFileSync('docs/benchmarks-calibration.md', `# What a percentage of a trace is worth

Written by \`npm run bench:calibration\`: ${count('rigs')} simulated rigs (\`tests/outside/rigs.ts\`; 15 in a hundred healthy, 60 with one fault, 15 with two, the rest
with what no list has), every suspect counted, seeds from 1. ${cpus()[0]!.model}, Node ${process.version}; ${Math.round((performance.now() - began) / 1000)} s.
“±” is one sigma of what chance alone makes of so many: what lies within two of them is no finding.

## The line read at the rack

${table('byHead')}

## All ears, and three coils

${table('byAll')}

## The same by line: all that is said to be as likely as not, or likelier

${table('byLine', 'line')}

## All ears, and the level meter at every speaker

${count('walks')} more rigs, seeds from 20,001.

${table('byMeter')}

## All ears, and a pulse at every speaker

The same.

${table('byPulse')}

## After a repair

${count('plays')} more rigs, seeds from 10,001, each traced by the tests that are proposed until a fault is named with over one half (six tests at most; ${count('named')} were),
mended of that, right or not, and read again at the rack.

${table('mended')}

${table('right', 'that it is')}
`)
}
