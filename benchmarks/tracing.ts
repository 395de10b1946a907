import { fork } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { availableParallelism, cpus } from 'node:os'
import { playOf, type Place } from './tracePlay'

/**
 * How well a trace finds what was put into simulated rigs: npm run bench:trace. Writes docs/benchmarks-trace.md. Some minutes: every figure is of that run.
 * Rigs are played by as many processes as there are cores, each every so-manieth seed.
 */

const [PLAYED, OF] = [Number(process.argv[2] ?? 60), availableParallelism()]
interface Played { ones: Place[][], two: Place[], twoByGo: Place[] }

function playEach(part: number): Played {
  const seeds = Array.from({ length: PLAYED }, (_, k) => k + 1).filter(seed => seed % OF === part)
  return {
    ones: seeds.map(seed => playOf(seed, [0, 100, 0], 12)), two: seeds.map(seed => playOf(seed, [0, 0, 100], 8).at(-1)!),
    twoByGo: seeds.map(seed => playOf(seed, [0, 0, 100], 8, true).at(-1)!),
  }
}
const playBeside = (part: number) => new Promise<Played>((resolve, reject) => {
  const child = fork(import.meta.filename, [String(PLAYED), String(part)], { execArgv: ['--import', 'tsx'] })
  child.on('message', played => resolve(played as Played))
  child.on('error', reject)
  child.on('exit', code => code !== 0 && reject(new Error(`rigs ${part} of ${OF} ended with ${code}`)))
})

const foundIn = (found: readonly Place[]) => {
  const part = (of: (p: Place) => boolean) => (found.filter(of).length / found.length).toFixed(2)
  const isMissed = ({ at }: Place) => at < 0 || at > 2
  const [first, firstThree] = [part(p => p.amongFaults === 0), part(p => p.amongFaults >= 0 && p.amongFaults < 3)]
  return `${part(p => p.at === 0)} first, ${part(p => !isMissed(p))} in the first three
  (with as drawn and something else beside them, as they stand on the page: the first fault ${first}, of the first three ${firstThree}), of ${found.length}; of
  the rest ${found.filter(p => isMissed(p) && p.isDrawn).length} are told to be as drawn first: nothing that was read shows them`
}

const opened = (found: readonly Place[]) => (found.filter(p => p.isOpenedFirst).length / found.length).toFixed(2)

async function write(): Promise<void> {
  const began = performance.now()
  const parts = await Promise.all(Array.from({ length: OF }, (_, part) => playBeside(part)))
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

const part = process.argv[3]
if (part === undefined) await write()
else process.send!(playEach(Number(part)))
