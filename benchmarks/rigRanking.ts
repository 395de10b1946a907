import { predictLine } from '#core/check/predict'
import { makeProver } from '#core/check/proveJob'
import { FAULTS } from '#core/faults/index'
import { Records } from '#core/job/records'
import type { Reading, Repair } from '#core/job/schema'
import { givenBy } from '#core/trace/given'
import { rankPairs } from '#core/trace/pairs'
import { drained } from '#core/quantity/steps'
import { trySingles } from '#core/trace/rank'
import type { WalkKind } from '#core/trace/next/test'
import { read, taken } from '../tests/outside/rigHands'
import { drawnRig, reading } from '../tests/outside/rigJob'
import type { Rig } from '../tests/outside/rigs'

/** Simulated rigs, ranked by the tracer: what the benches of the trace share. */

/** Kinds of faults and how often each is, as rigs draw them. */
export const WEIGHTS = FAULTS.map(f => [f.kind, f.prior] as const)

export function rankingOf(rig: Rig, readings: readonly Reading[], repairs: readonly Repair[] = []) {
  const output = drawnRig(rig)
  const proof = makeProver()({ readings: Records.of(readings), repairs: Records.of(repairs) }, [{ output, predicted: predictLine(output) }]).get('out')!
  const given = givenBy(output, proof)
  const tried = drained(trySingles(given))
  return { output, proof, given, tried, ranking: drained(rankPairs(tried)) }
}

export const head = (rig: Rig): Reading[] => [reading('line-impedance', null, read(rig, 'line-impedance', null))]
const ears = (rig: Rig): Reading[] => [...head(rig), ...taken(rig, { kind: 'walk', nodeId: null, besideId: null }, [])]
/** Listened at along the line, and once more along it with a meter or a pulse. */
export const walked = (rig: Rig, kind: WalkKind): Reading[] => [...ears(rig), ...taken(rig, { kind, nodeId: null, besideId: null }, [])]
export const allEars = (rig: Rig): Reading[] => [
  ...ears(rig), ...rig.tapsW.slice(0, 3).map((_, k) => reading('coil-dcr', `s${k}`, read(rig, 'coil-dcr', `s${k}`))),
]

/** What was said of so many suspects, and how often it was so. */
export interface Said { n: number, said: number, so: number }
export class Calibration {
  readonly by = new Map<string, Said>()
  static of(parts: readonly (readonly [string, Said])[][]): Calibration {
    const all = new Calibration()
    for (const [key, { n, said, so }] of parts.flat()) {
      const at = all.by.get(key) ?? { n: 0, said: 0, so: 0 }
      all.by.set(key, { n: at.n + n, said: at.said + said, so: at.so + so })
    }
    return all
  }

  add(key: string, probability: number, isSo: boolean): void {
    const at = this.by.get(key) ?? { n: 0, said: 0, so: 0 }
    this.by.set(key, { n: at.n + 1, said: at.said + probability, so: at.so + Number(isSo) })
  }

  /** One line each, by the order of its keys; `±`: one sigma of what chance alone makes of so many. */
  table(title: string): string {
    const rows = [...this.by].sort(([a], [b]) => a < b ? -1 : 1).map(([key, { n, said, so }]) => {
      const [mean, is] = [said / n, so / n]
      return `| ${key} | ${n} | ${mean.toFixed(3)} | ${is.toFixed(3)} | ${Math.sqrt(mean * (1 - mean) / n).toFixed(3)} |`
    })
    return `| ${title} | how often | mean said | so | ± |\n|---|---|---|---|---|\n${rows.join('\n')}`
  }
}
export const tenthOf = (probability: number): string => {
  const k = Math.min(9, Math.floor(probability * 10))
  return `${k * 10} to ${k * 10 + 10} %`.padStart(11, ' ')
}
