import { writeFileSync } from 'node:fs'
import { cpus } from 'node:os'
import { makeRig } from '../tests/outside/rigs'
import { isIt } from '../tests/outside/rigJob'
import { afterMending } from './tracePlay'
import { allEars, Calibration, head, rankingOf, tenthOf, WEIGHTS } from './rigRanking'

/** What a percentage of a trace is worth: npm run bench:calibration. Writes docs/benchmarks-calibration.md; a thousand rigs take a quarter of an hour. */

const RIGS = Number(process.argv[2] ?? 1000)
/** So likely, and it is counted by its line. */
const LIKELY = 0.5

const began = performance.now()
const [byHead, byAll, byLine, mended, right] = [new Calibration(), new Calibration(), new Calibration(), new Calibration(), new Calibration()]
for (let seed = 1; seed <= RIGS; seed++) {
  const rig = makeRig(seed, WEIGHTS)
  for (const s of rankingOf(rig, head(rig)).ranking.suspects) byHead.add(tenthOf(s.probability), s.probability, isIt(s.faults, rig))
  for (const s of rankingOf(rig, allEars(rig)).ranking.suspects) {
    byAll.add(tenthOf(s.probability), s.probability, isIt(s.faults, rig))
    if (s.probability >= LIKELY) byLine.add(rig.kind, s.probability, isIt(s.faults, rig))
  }
}
// Other seeds than those that the shares after a repair were counted on.
const MENDED = Math.floor(RIGS / 8)
for (let seed = 10_001; seed <= 10_000 + MENDED; seed++) {
  const after = afterMending(seed, 7)
  if (after === null) continue
  for (const s of after.suspects) {
    const isSo = isIt(s.faults, after.rig)
    mended.add(tenthOf(s.probability), s.probability, isSo)
    if (s.faults.length === 0) right.add('as drawn', s.probability, isSo)
  }
}
writeFileSync('docs/benchmarks-calibration.md', `# What a percentage of a trace is worth

Written by \`npm run bench:calibration\`: ${RIGS} simulated rigs (\`tests/outside/rigs.ts\`; 15 in a hundred healthy, 60 with one fault, 15 with two, the rest
with what no list has), every suspect counted, seeds from 1. ${cpus()[0]!.model}, Node ${process.version}; ${Math.round((performance.now() - began) / 1000)} s.
“±” is one sigma of what chance alone makes of so many: what lies within two of them is no finding.

## The line read at the rack

${byHead.table('said')}

## All ears, and three coils

${byAll.table('said')}

## The same by line: all that is said to be as likely as not, or likelier

${byLine.table('line')}

## After a repair

${MENDED} more rigs, seeds from 10,001, each traced by the tests that are proposed until a fault is named with over one half (six tests at most), mended of
that, right or not, and read again at the rack.

${mended.table('said')}

${right.table('that it is')}
`)
