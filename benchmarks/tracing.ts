import { writeFileSync } from 'node:fs'
import { cpus } from 'node:os'
import { byParts, seedsOfPart } from './parts'
import { playOf, type Place } from './tracePlay'

/**
 * How well a trace finds what was put into simulated rigs: npm run bench:trace. Writes docs/benchmarks-trace.md. Some minutes: every figure is of that run.
 * Rigs are played by as many processes as there are cores, each every so-manieth seed.
 */

const PLAYED = Number(process.argv[2] ?? 60)
interface Played { ones: Place[][], two: Place[], twoByGo: Place[] }

const began = performance.now()
await byParts<Played>(import.meta.filename, PLAYED, (tell) => {
  const seeds = seedsOfPart(1, PLAYED)
  tell({
    ones: seeds.map(seed => playOf(seed, [0, 100, 0], 12)), two: seeds.map(seed => playOf(seed, [0, 0, 100], 8).at(-1)!),
    twoByGo: seeds.map(seed => playOf(seed, [0, 0, 100], 8, true).at(-1)!),
  })
}, write)

function foundIn(found: readonly Place[]): string {
  const part = (of: (p: Place) => boolean) => (found.filter(of).length / found.length).toFixed(2)
  const isMissed = ({ at }: Place) => at < 0 || at > 2
  const [first, firstThree] = [part(p => p.amongFaults === 0), part(p => p.amongFaults >= 0 && p.amongFaults < 3)]
  return `${part(p => p.at === 0)} first, ${part(p => !isMissed(p))} in the first three
  (with as drawn and something else beside them, as they stand on the page: the first fault ${first}, of the first three ${firstThree}), of ${found.length}; of
  the rest ${found.filter(p => isMissed(p) && p.isDrawn).length} are told to be as drawn first: nothing that was read shows them`
}

function opened(found: readonly Place[]): string {
  return (found.filter(p => p.isOpenedFirst).length / found.length).toFixed(2)
}

function write(parts: readonly Played[]): void {
  const [ones, two, twoByGo] = [parts.flatMap(p => p.ones), parts.flatMap(p => p.two), parts.flatMap(p => p.twoByGo)]
  const oneAfter = (tests: number) => ones.map(places => places[tests - 1] ?? places.at(-1)!)
  writeFileSync('docs/benchmarks-trace.md', `# How well a trace finds what is there

Written by \`npm run bench:trace\`: ${PLAYED} simulated rigs (\`tests/outside/rigs.ts\`) with one fault and as many with two, seeds from 1, each played by the
tests that are proposed. ${cpus()[0]!.model}, Node ${process.version}; ${Math.round((performance.now() - began) / 1000)} s. What a percentage is worth is
measured [by itself](benchmarks-calibration.md). A walk along the line is one test.

- one fault, after six tests with the line read at the rack: its kind and its place ${foundIn(oneAfter(6))}
- what is opened first then, likeliest of all that is put right at one go at one place, has it: ${opened(oneAfter(6))}
- and after twelve: its kind and its place ${foundIn(oneAfter(12))}; opened first ${opened(oneAfter(12))}
- two faults, after eight, what is named with over one half put right in between and the line read again at the rack, which counts: both kinds and both places ${foundIn(two)}
- two faults, after eight, what is opened with over one half put right by whatever name: both put right, or the last one opened first, ${opened(twoByGo)}
`)
}
