import { writeFileSync } from 'node:fs'
import { cpus } from 'node:os'
import type { Fault } from '#core/faults/fault'
import type { Reading, Repair } from '#core/job/schema'
import { nextTests } from '#core/trace/next/best'
import { AT_THE_RACK, standingAfter, type Standing } from '#core/trace/next/minutes'
import { riskOf } from '#core/trace/switchOn'
import { taken } from '../tests/outside/rigHands'
import { isIt, names } from '../tests/outside/rigJob'
import { makeRig, type Rig, type RigFault } from '../tests/outside/rigs'
import { head, rankingOf, WEIGHTS } from './rigRanking'

/** How well a trace finds what was put into simulated rigs: npm run bench:trace. Writes docs/benchmarks-trace.md. Some minutes: every figure is of that run. */

const PLAYED = Number(process.argv[2] ?? 60)

/** What was read and put right of a line so far. Readings and repairs are a minute apart. */
interface Work { readings: Reading[], repairs: Repair[] }
const minute = ({ readings, repairs }: Work) => new Date(Date.UTC(2026, 4, 4, 9, readings.length + repairs.length)).toISOString()
function note(work: Work, readings: readonly Reading[]): void {
  const at = minute(work)
  work.readings.push(...readings.map(r => ({ ...r, at })))
}
const repaired = (work: Work, { kind, nodeId }: Fault): Repair =>
  ({ id: `p${work.repairs.length}`, at: minute(work), outputId: 'out', nodeId, fault: kind, note: '', who: null, withdrawn: false })

function ranked(rig: Rig, { readings, repairs }: Work, standing: Standing, wantsNext: boolean) {
  const { output, proof, given, tried, ranking } = rankingOf(rig, readings, repairs)
  const mayBeOn = riskOf(output, proof, ranking.suspects) === null
  const next = wantsNext ? nextTests(tried, ranking, { standing, mayBeOn }, given.readings).tests[0] ?? null : null
  return { suspects: ranking.suspects, next, read: given.readings.map(j => j.reading) }
}

/** As sure as this, and it is put right. */
const MENDED = 0.5

/**
 * Plays a rig by the tests that are proposed, so many in all with the line read at the rack, and names what it is. Of two faults the one that is named with
 * over one half is put right, where it is that, the line read again at the rack, and so on: as who works on it would. Its rank, from 0 (-1:
 * not there), and whether the line is told to be as drawn before anything else.
 */
function rankOf(seed: number, mix: readonly [number, number, number], most: number): { at: number, isDrawn: boolean } {
  let rig = makeRig(seed, WEIGHTS, mix)
  const work: Work = { readings: [], repairs: [] }
  note(work, head(rig))
  let mended: readonly RigFault[] = []
  let standing: Standing = AT_THE_RACK
  for (let count = 1; ; count++) {
    const { suspects, next, read } = ranked(rig, work, standing, count < most)
    const [first] = suspects
    const right = first && first.probability > MENDED ? rig.faults.filter(put => first.faults.some(f => names(f, put, rig))) : []
    if (count < most && rig.faults.length + mended.length > 1 && right.length > 0) {
      mended = [...mended, ...right]
      work.repairs.push(...first!.faults.filter(f => right.some(put => names(f, put, rig))).map(f => repaired(work, f)))
      rig = makeRig(seed, WEIGHTS, mix, mended)
      if (rig.faults.length === 0) return { at: 0, isDrawn: false }
      note(work, head(rig))
      standing = AT_THE_RACK
      continue
    }
    if (next === null) return { at: suspects.findIndex(s => isIt(s.faults, rig)), isDrawn: first?.faults.length === 0 }
    const more = taken(rig, next, read)
    note(work, more)
    standing = standingAfter(next, standing, new Map(rig.tapsW.map((_, k) => [`s${k}`, k])), more.at(-1)?.nodeId)
  }
}

function found(mix: readonly [number, number, number], most: number): string {
  let [first, three, drawn, n] = [0, 0, 0, 0]
  for (let seed = 1; n < PLAYED; seed++) {
    const { at, isDrawn } = rankOf(seed, mix, most)
    n++
    drawn += Number((at < 0 || at > 2) && isDrawn)
    first += Number(at === 0)
    three += Number(at >= 0 && at < 3)
  }
  return `${(first / n).toFixed(2)} first, ${(three / n).toFixed(2)} in the first three, of ${n}; of the rest ${drawn} are told to be as drawn first: nothing that was read shows them`
}

const began = performance.now()
const [one, two] = [found([0, 100, 0], 6), found([0, 0, 100], 8)]
writeFileSync('docs/benchmarks-trace.md', `# How well a trace finds what is there

Written by \`npm run bench:trace\`: ${PLAYED} simulated rigs (\`tests/outside/rigs.ts\`) with one fault and as many with two, seeds from 1, each played by the
tests that are proposed. ${cpus()[0]!.model}, Node ${process.version}; ${Math.round((performance.now() - began) / 1000)} s. What a percentage is worth is
measured [by itself](benchmarks-calibration.md). A walk along the line is one test.

- one fault, after six tests with the line read at the rack: its kind and its place ${one}
- two faults, after eight, what is named with over one half put right in between and the line read again at the rack, which counts: both kinds and both places ${two}
`)
