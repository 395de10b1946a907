import { writeFileSync } from 'node:fs'
import { cpus } from 'node:os'
import { predictLine } from '#core/check/predict'
import { makeProver } from '#core/check/proveJob'
import { FAULTS } from '#core/faults/index'
import { Records } from '#core/job/records'
import type { Reading } from '#core/job/schema'
import { givenBy } from '#core/trace/given'
import { nextTests } from '#core/trace/next/best'
import { AT_THE_RACK, standingAfter, type Standing } from '#core/trace/next/minutes'
import { rankPairs } from '#core/trace/pairs'
import { finish, trySingles } from '#core/trace/rank'
import { riskOf } from '#core/trace/switchOn'
import { read, taken } from '../tests/outside/rigHands'
import { drawnRig, isIt, names, reading } from '../tests/outside/rigJob'
import { makeRig, type Rig, type RigFault } from '../tests/outside/rigs'

/** How well a trace finds what was put into simulated rigs: npm run bench:trace. Writes docs/benchmarks-trace.md. Some minutes: every figure is of that run. */

const WEIGHTS = FAULTS.map(f => [f.kind, f.prior] as const)
const [RIGS, PLAYED] = [Number(process.argv[2] ?? 300), Number(process.argv[3] ?? 60)]

function ranked(rig: Rig, readings: readonly Reading[], standing: Standing, wantsNext: boolean) {
  const output = drawnRig(rig)
  const proof = makeProver()({ readings: Records.of(readings), repairs: Records.of() }, [{ output, predicted: predictLine(output) }]).get('out')!
  const given = givenBy(output, proof)
  const tried = finish(trySingles(given))
  const ranking = finish(rankPairs(tried))
  const mayBeOn = riskOf(output, proof, ranking.suspects) === null
  const next = wantsNext ? nextTests(tried, ranking, { standing, mayBeOn }, given.readings).tests[0] ?? null : null
  return { suspects: ranking.suspects, next }
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
  let readings = head(rig)
  let mended: readonly RigFault[] = []
  let standing: Standing = AT_THE_RACK
  for (let count = 1; ; count++) {
    const { suspects, next } = ranked(rig, readings, standing, count < most)
    const [first] = suspects
    const right = first && first.probability > MENDED ? rig.faults.filter(put => first.faults.some(f => names(f, put, rig))) : []
    if (count < most && rig.faults.length + mended.length > 1 && right.length > 0) {
      mended = [...mended, ...right]
      rig = makeRig(seed, WEIGHTS, mix, mended)
      if (rig.faults.length === 0) return { at: 0, isDrawn: false }
      readings = head(rig)
      standing = AT_THE_RACK
      continue
    }
    if (next === null) return { at: suspects.findIndex(s => isIt(s.faults, rig)), isDrawn: first?.faults.length === 0 }
    const more = taken(rig, next, readings)
    readings.push(...more)
    standing = standingAfter(next, standing, new Map(rig.tapsW.map((_, k) => [`s${k}`, k])), more.at(-1)?.nodeId)
  }
}

interface Tenth { n: number, said: number, so: number }
/** The same by kind of line, of all that is said to be as likely as not, or likelier. */
const byLine = new Map<string, Tenth>()
function calibration(readingsOf: (rig: Rig) => Reading[], isByLine = false): Tenth[] {
  const tenths = Array.from({ length: 10 }, (): Tenth => ({ n: 0, said: 0, so: 0 }))
  for (let seed = 1; seed <= RIGS; seed++) {
    const rig = makeRig(seed, WEIGHTS)
    for (const s of ranked(rig, readingsOf(rig), AT_THE_RACK, false).suspects) {
      const line = byLine.get(rig.kind) ?? { n: 0, said: 0, so: 0 }
      byLine.set(rig.kind, line)
      for (const tenth of [tenths[Math.min(9, Math.floor(s.probability * 10))]!, ...isByLine && s.probability >= 0.5 ? [line] : []]) {
        tenth.n++
        tenth.said += s.probability
        tenth.so += Number(isIt(s.faults, rig))
      }
    }
  }
  return tenths
}

const head = (rig: Rig) => [reading('line-impedance', null, read(rig, 'line-impedance', null))]
const allEars = (rig: Rig) => [
  ...head(rig), ...rig.tapsW.map((_, k) => reading('sound', `s${k}`, read(rig, 'sound', `s${k}`))),
  ...rig.tapsW.slice(0, 3).map((_, k) => reading('coil-dcr', `s${k}`, read(rig, 'coil-dcr', `s${k}`))),
]
const rows = (tenths: Tenth[]) => tenths.map(({ n, said, so }, k) => n === 0 ? '' : `| ${k * 10} to ${k * 10 + 10} % | ${n} | ${(said / n).toFixed(3)} | ${(so / n).toFixed(3)} |`).filter(Boolean).join('\n')
const TABLE = '| said | how often | mean said | so |\n|---|---|---|---|'

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
const [byHead, byAll] = [calibration(head), calibration(allEars, true)]
const [one, two] = [found([0, 100, 0], 6), found([0, 0, 100], 8)]
writeFileSync('docs/benchmarks-trace.md', `# How well a trace finds what is there

Written by \`npm run bench:trace\`: ${RIGS} simulated rigs (\`tests/outside/rigs.ts\`; 15 in a hundred healthy, 60 with one fault, 15 with two, the rest with what no
list has), every suspect counted, seeds from 1; ${PLAYED} rigs each played by the tests that are proposed. ${cpus()[0]!.model}, Node ${process.version};
${Math.round((performance.now() - began) / 1000)} s.

## The line read at the rack

${TABLE}
${rows(byHead)}

## All ears, and three coils

${TABLE}
${rows(byAll)}

## The same by line: all that is said to be as likely as not, or likelier

${TABLE.replace('said | how', 'line | how')}
${[...byLine].map(([kind, { n, said, so }]) => `| ${kind} | ${n} | ${(said / n).toFixed(3)} | ${(so / n).toFixed(3)} |`).join('\n')}

## Found by the tests that are proposed

A walk along the line is one test.

- one fault, after six tests with the line read at the rack: its kind and its place ${one}
- two faults, after eight, what is named with over one half put right in between and the line read again at the rack, which counts: both kinds and both places ${two}
`)
